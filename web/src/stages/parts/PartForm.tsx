// One part as a form beside the live drawing of what it moves.
import { Pick } from '../../ui/Pick';
import { ChipButton } from '../../ui/Press';
import { keepPart, lookAtPart } from '../../api/calls';
import { Button, TextField, Slider } from '@mui/material';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem, type Schemas } from '../../api/client';
import { Overlay } from '../../figures/Overlay';
import { did } from '../../shell/deeds';
import { FieldError } from '../../shell/Fault';
import { Unkept, useTyped } from '../../shell/Unkept';
import { useSettings } from '../../ui/settings';
import { angleChange } from '../../units/print';
import { readNumber } from '../../units/notation';
import { adjusters, edits, fresh, readNumbers, type Part } from './kinds';
import { KindRow } from './Rows';

type Shelf = Schemas['ShelfPart'];
const purposes: [Schemas['Purpose'], string][] = [
  ['camber', 'for camber'],
  ['caster', 'for caster'],
  ['toe', 'for toe'],
  ['bump_steer', 'for bump steer'],
  ['roll_centre', 'for the roll centre'],
  ['height', 'for height'],
  ['centring', 'for centring'],
];
const layouts: [Schemas['Layout'], string][] = [
  ['double_wishbone', 'Double wishbone'],
  ['strut', 'Strut'],
  ['five_link', 'Multi-link'],
  ['solid_axle', 'Live axle'],
  ['single_arm', 'Trailing arm'],
  ['twist_beam', 'Twist beam'],
];
const rules: [Schemas['Rule'], string][] = [
  ['welding', 'welding'],
  ['cutting', 'cutting'],
  ['aftermarket_arms', 'another arm'],
  ['spherical_joints', 'metal joints'],
  ['moves_pivots', 'moved pivots'],
  ['knuckle', 'another knuckle'],
];
const groups: Schemas['PartGroup'][] = [
  'upper_arm',
  'lower_arm',
  'ball_joint',
  'cams',
  'shims',
  'strut',
  'bushing',
  'steering',
  'link',
  'live_axle',
  'height',
  'wheel',
];

interface Props {
  part: Part;
  version: number;
  retired: boolean;
  fresh: boolean;
  copy: (p: Part) => void;
  kept: (now: Shelf) => void;
}

export function PartForm({ part: given, version, retired, fresh: isNew, copy, kept }: Props) {
  const typed = useTyped<{ part: Part; text: Record<string, string> }>(
    `part.${isNew ? 'new' : given.id}`,
    () => ({
      part: given,
      text: {},
    }),
  );
  const { part, text } = typed.value;
  const setPart = (f: (p: Part) => Part) => typed.setValue((v) => ({ ...v, part: f(v.part) }));
  const setText = (t: Record<string, string>) => typed.setValue((v) => ({ ...v, text: t }));
  const [turned, setTurned] = useState(1);
  const [wanted, setWanted] = useState<number>();
  const { form } = useSettings();
  const set = (c: Partial<Part>) => setPart((p) => ({ ...p, ...c }));
  const key = JSON.stringify(part);
  const sizes = part.sizes?.values ?? [];
  const size = wanted !== undefined && sizes.includes(wanted) ? wanted : sizes.at(-1);
  const look = useQuery({
    queryKey: ['part-look', key, turned, size],
    queryFn: () => lookAtPart({ part, geometry: null, turned, size: size ?? null }),
    placeholderData: (p) => p,
  });
  const keep = useMutation({
    mutationFn: (r: boolean) => keepPart(part.id || '-', { version, part, retired: r }),
    onSuccess: (now) => {
      typed.forget();
      kept(now);
      const to = { version: now.version, part: given, retired };
      did(`${part.name}: kept`, isNew ? undefined : async () => kept(await keepPart(part.id, to)));
    },
  });
  const refused = keep.error instanceof ApiProblem ? keep.error : undefined;
  const problems = refused?.problems.length
    ? refused.problems
    : key === JSON.stringify(given)
      ? []
      : (look.data?.problems ?? []);
  const at = (f: string) => problems.find((p) => p.field === f || p.field.startsWith(`${f}.`));
  const said = (f: string) => (at(f) ? `${at(f)!.wrong}; ${at(f)!.right}` : undefined);
  const toggle = <T,>(list: T[], x: T) => (list.includes(x) ? list.filter((y) => y !== x) : [...list, x]);
  const field = (f: keyof Part, label: string, wide = false) => (
    <TextField
      label={label}
      value={String(part[f] ?? '')}
      onChange={(e) => set({ [f]: e.target.value })}
      error={!!at(f)}
      helperText={said(f)}
      multiline={wide}
      slotProps={{ htmlInput: { 'data-testid': `part-${f}` } }}
    />
  );
  const number = (f: 'labour_minutes' | 'cost', label: string) => (
    <TextField
      label={label}
      value={text[f] ?? String(part[f])}
      onChange={(e) => {
        setText({ ...text, [f]: e.target.value });
        const v = readNumber(e.target.value);
        if (v !== undefined && (f === 'cost' || (Number.isInteger(v) && v >= 0))) set({ [f]: v });
      }}
      error={
        !!at(f) || (text[f] !== undefined && readNumber(text[f]) === undefined) || Number(text[f] ?? 0) < 0
      }
      helperText={Number(text[f] ?? 0) < 0 ? 'less than nothing; 0 or more' : said(f)}
      slotProps={{ htmlInput: { inputMode: 'decimal', 'data-testid': `part-${f}` } }}
    />
  );
  const words = (f: 'requires' | 'provides' | 'conflicts' | 'cautions', label: string, sep: string) => (
    <TextField
      label={label}
      value={text[f] ?? part[f].join(`${sep} `)}
      onChange={(e) => {
        setText({ ...text, [f]: e.target.value });
        set({
          [f]: e.target.value
            .split(sep)
            .map((t) => t.trim())
            .filter(Boolean),
        });
      }}
      error={!!at(f)}
      helperText={said(f)}
      multiline={f === 'cautions'}
    />
  );
  const negative = Number(text.labour_minutes ?? 0) < 0 || Number(text.cost ?? 0) < 0;
  const l = look.data;
  const d = (k: 'camber_deg' | 'toe_deg') =>
    l?.before_wheel && l.after_wheel ? l.after_wheel[k] - l.before_wheel[k] : undefined;
  const caster =
    l?.before_wheel?.steer && l.after_wheel?.steer
      ? l.after_wheel.steer.caster_deg - l.before_wheel.steer.caster_deg
      : undefined;
  return (
    <>
      <section className="part-form" aria-label="Part">
        <Unkept typed={typed} />
        <div className="field-row">
          <TextField
            label="Name"
            value={part.name}
            onChange={(e) => {
              const name = e.target.value;
              const id = isNew
                ? name
                    .toLowerCase()
                    .replaceAll(/[^a-z0-9]+/g, '-')
                    .replaceAll(/^-|-$/g, '')
                    .slice(0, 60)
                : part.id;
              set({ name, id });
            }}
            error={!!at('name')}
            helperText={said('name')}
            slotProps={{ htmlInput: { 'data-testid': 'part-name' } }}
          />
          <TextField
            label="Short word"
            value={part.id}
            disabled={!isNew}
            onChange={(e) => set({ id: e.target.value })}
            error={!!at('id')}
            helperText={said('id')}
            slotProps={{ htmlInput: { 'data-testid': 'part-id' } }}
          />
          <TextField
            select
            label="Family"
            value={part.group}
            onChange={(e) => set({ group: e.target.value as Part['group'] })}
            slotProps={{ select: { native: true } }}
          >
            {groups.map((g) => (
              <option key={g} value={g}>
                {g.replace('_', ' ')}
              </option>
            ))}
          </TextField>
        </div>
        {field('summary', 'What it moves, in a few words')}
        <fieldset className="part-set">
          <legend>Fits</legend>
          <div className="sets-filters">
            {layouts.map(([k, w]) => (
              <ChipButton
                key={k}
                size="small"
                aria-pressed={part.fits.layouts.includes(k)}
                onClick={() => set({ fits: { ...part.fits, layouts: toggle(part.fits.layouts, k) } })}
              >
                {w}
              </ChipButton>
            ))}
            {(['front', 'rear'] as const).map((a) => (
              <ChipButton
                key={a}
                size="small"
                aria-pressed={part.fits.axles.includes(a)}
                onClick={() => set({ fits: { ...part.fits, axles: toggle(part.fits.axles, a) } })}
              >
                {a}
              </ChipButton>
            ))}
            {part.fits.layouts.includes('solid_axle') && (
              <ChipButton
                size="small"
                aria-pressed={part.fits.springs === 'leaf'}
                data-testid="part-leaf"
                onClick={() =>
                  set({ fits: { ...part.fits, springs: part.fits.springs === 'leaf' ? null : 'leaf' } })
                }
              >
                only on leaf springs
              </ChipButton>
            )}
          </div>
          {part.fits.layouts.includes('double_wishbone') && (
            <div className="sets-filters">
              <ChipButton
                size="small"
                aria-pressed={part.fits.place === 'upper_shaft'}
                data-testid="part-shaft"
                onClick={() =>
                  set({
                    fits: { ...part.fits, place: part.fits.place === 'upper_shaft' ? null : 'upper_shaft' },
                  })
                }
              >
                only where the upper arm sits on a cross shaft
              </ChipButton>
            </div>
          )}
          <div className="sets-filters" role="group" aria-label="What it is for">
            {purposes.map(([k, w]) => (
              <ChipButton
                key={k}
                size="small"
                aria-pressed={part.purposes?.includes(k) ?? false}
                data-testid={`purpose-${k}`}
                onClick={() => set({ purposes: toggle(part.purposes ?? [], k) })}
              >
                {w}
              </ChipButton>
            ))}
          </div>
          {(at('fits.layouts') || at('fits.axles')) && (
            <FieldError
              wrong={(at('fits.layouts') ?? at('fits.axles'))!.wrong}
              right={(at('fits.layouts') ?? at('fits.axles'))!.right}
            />
          )}
          <TextField
            label="Takes the place of (two with the same word cannot be fitted at once)"
            value={part.fits.replaces}
            onChange={(e) => set({ fits: { ...part.fits, replaces: e.target.value } })}
            error={!!at('fits.replaces')}
            helperText={said('fits.replaces')}
            slotProps={{ htmlInput: { 'data-testid': 'part-replaces' } }}
          />
        </fieldset>
        <fieldset className="part-set">
          <legend>What it moves as fitted</legend>
          {part.edits.map((e, i) => (
            <KindRow
              key={i}
              kinds={edits}
              entry={e as Record<string, unknown>}
              at={`edits.${i}`}
              problems={problems}
              change={(x) =>
                set({
                  edits: part.edits.map((y, j) => (j === i ? (x as unknown as Part['edits'][number]) : y)),
                })
              }
              remove={() => set({ edits: part.edits.filter((_, j) => j !== i) })}
            />
          ))}
          {at('edits') && part.edits.length === 0 && (
            <FieldError wrong={at('edits')!.wrong} right={at('edits')!.right} />
          )}
          <Pick
            label="+ Add what it moves"
            value=""
            pick={(k) =>
              k && set({ edits: [...part.edits, fresh(edits, k) as unknown as Part['edits'][number]] })
            }
            testid="add-edit"
            list={[
              { value: '', words: 'choose…' },
              ...Object.entries(edits).map(([value, v]) => ({ value, words: v.word })),
            ]}
          />
          <TextField
            label="Sizes it comes in (the amounts above are for one unit); empty for one size"
            value={text.sizes ?? part.sizes?.values.join('  ') ?? ''}
            onChange={(e) => {
              setText({ ...text, sizes: e.target.value });
              const v = readNumbers(e.target.value);
              if (e.target.value.trim() === '') set({ sizes: null });
              else if (v) set({ sizes: { unit: part.sizes?.unit ?? 'mm', values: v } });
            }}
            error={!!at('sizes') || (!!text.sizes?.trim() && !readNumbers(text.sizes))}
            helperText={
              said('sizes') ??
              (text.sizes?.trim() && !readNumbers(text.sizes) ? 'numbers, such as 8 14 20' : undefined)
            }
            slotProps={{ htmlInput: { 'data-testid': 'part-sizes' } }}
          />
        </fieldset>
        <fieldset className="part-set">
          <legend>What can be turned on it</legend>
          {part.adjusters.map((a, i) => (
            <KindRow
              key={i}
              named
              kinds={adjusters}
              entry={a as unknown as Record<string, unknown>}
              at={`adjusters.${i}`}
              problems={problems}
              change={(x) =>
                set({
                  adjusters: part.adjusters.map((y, j) =>
                    j === i ? (x as unknown as Part['adjusters'][number]) : y,
                  ),
                })
              }
              remove={() => set({ adjusters: part.adjusters.filter((_, j) => j !== i) })}
            />
          ))}
          <Pick
            label="+ Add what can be turned"
            value=""
            pick={(k) =>
              k &&
              set({
                adjusters: [
                  ...part.adjusters,
                  { name: 'Adjuster', ...fresh(adjusters, k) } as unknown as Part['adjusters'][number],
                ],
              })
            }
            testid="add-adjuster"
            list={[
              { value: '', words: 'choose…' },
              ...Object.entries(adjusters).map(([value, v]) => ({ value, words: v.word })),
            ]}
          />
        </fieldset>
        <fieldset className="part-set">
          <legend>Money, work, rules</legend>
          <div className="field-row">
            {number('cost', 'Price for the axle')}
            {number('labour_minutes', 'Labour for the axle, minutes')}
          </div>
          <div className="sets-filters">
            {rules.map(([k, w]) => (
              <ChipButton
                key={k}
                size="small"
                aria-pressed={part.rules.includes(k)}
                onClick={() => set({ rules: toggle(part.rules, k) })}
              >
                {w}
              </ChipButton>
            ))}
          </div>
          <div className="field-row">
            {words('requires', 'Needs beside it', ',')}
            {words('provides', 'Brings for others', ',')}
            {words('conflicts', 'Not beside', ',')}
          </div>
          {field('side_effect', 'What it costs beside money, one sentence', true)}
          {field('access', 'How it is reached', true)}
          <div className="field-row">
            {field('sockets', 'Spanners and sockets it takes')}
            {field('torque', 'Torque of each fastener, as its maker gives it')}
          </div>
          {field('order_number', 'Number it is ordered by')}
          {words('cautions', 'Cautions, one after the other, parted by |', '|')}
        </fieldset>
        {refused && !refused.problems.length && (
          <FieldError
            wrong={refused.message}
            right="what you typed is still here: open the part again and put it in"
          />
        )}
        <div style={{ display: 'flex', gap: 10, flexWrap: 'wrap' }}>
          <Button
            variant="contained"
            disabled={keep.isPending || negative}
            onClick={() => keep.mutate(retired)}
            data-testid="part-keep"
          >
            {isNew ? 'Keep this part' : 'Keep the changes'}
          </Button>
          {!isNew && (
            <>
              <Button variant="outlined" onClick={() => copy(part)} data-testid="part-copy">
                Copy
              </Button>
              <Button variant="outlined" onClick={() => keep.mutate(!retired)} data-testid="part-retire">
                {retired ? 'Offer it again' : 'Retire'}
              </Button>
            </>
          )}
        </div>
      </section>
      <section className="part-look slate" aria-label="What it moves">
        <div style={{ padding: 14 }}>
          {l?.after && l.before ? (
            <>
              <p className="small" style={{ color: 'var(--chalk2)' }}>
                On {l.on}
              </p>
              <Overlay
                mark
                title="Without it, with it, what moves ringed"
                items={[
                  { key: 1, name: 'without', drawing: l.before },
                  { key: 2, name: 'with it', drawing: l.after },
                ]}
              />
              {size !== undefined && (
                <div className="part-sizes" role="group" aria-label="Size drawn">
                  {sizes.map((s) => (
                    <ChipButton
                      key={s}
                      aria-pressed={s === size}
                      data-testid={`part-size-${s}`}
                      onClick={() => setWanted(s)}
                    >
                      {s} {part.sizes?.unit}
                    </ChipButton>
                  ))}
                </div>
              )}
              <p className="fig" style={{ fontSize: 23, marginTop: 8 }} data-testid="part-effect">
                camber {angleChange(d('camber_deg') ?? 0, form, 2)}
                {caster !== undefined && ` · caster ${angleChange(caster, form, 2)}`} · toe{' '}
                {angleChange(d('toe_deg') ?? 0, form, 2)}
              </p>
              {part.adjusters.length > 0 && (
                <label style={{ display: 'block', marginTop: 10 }}>
                  {part.adjusters[0]?.name}: from one end to the other
                  <Slider
                    min={0}
                    max={1}
                    step={0.05}
                    value={turned}
                    onChange={(_, v) => setTurned(v)}
                    color="secondary"
                    aria-label={part.adjusters[0]?.name}
                  />
                </label>
              )}
            </>
          ) : (
            <p>{l?.note || l?.problems[0]?.wrong || 'Nothing to draw yet.'}</p>
          )}
        </div>
      </section>
    </>
  );
}
