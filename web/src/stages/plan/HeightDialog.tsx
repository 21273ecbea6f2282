// How height is had, and what is wanted of it: every way moves what it really moves.
import { Segment } from '../../ui/Segment';
import { ChipButton } from '../../ui/Press';
import { getMemory, heightTarget } from '../../api/calls';
import { readAngle, readLength, readNumber } from '../../units/notation';
import { MeasureField } from '../../input/Field';
import { Button, Dialog, TextField } from '@mui/material';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem, type Schemas } from '../../api/client';
import { FieldError } from '../../shell/Fault';
import { Unkept, useTyped } from '../../shell/Unkept';
import { Glyph } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import type { AxleName } from '../../api/client';
import { changeOf, partOf, useShop, type Bench } from '../../shell/ticket';
import { length, lengthChange, num, signed } from '../../units/print';

type Kind = Schemas['TargetKind'];
type WayKind = Schemas['WayKind'];
const kinds: [Kind, string][] = [
  ['hub_to_arch', 'Hub to arch'],
  ['floor_to_arch', 'Floor to arch'],
  ['rake', 'Rake, nose down'],
  ['level', 'Level'],
];
// Of a bare chassis, or where the frame was taped.
const ofFrame: [Kind, string][] = [
  ['floor_to_frame', 'Floor to frame'],
  ['frame_level', 'Frame level'],
  ['arm_angle', 'Lower arm rises'],
];
/** Targets that need no number. */
const bareKinds: Kind[] = ['level', 'frame_level'];

/** How far to turn, in words; where it comes from beside it. */
export const turnsOf = (t: Schemas['ByTurning'], what: string) =>
  `${what}: ${signed(t.turns, 1)} ± ${num(t.turns_band, 1)} turns at ${num(t.mm_per_turn, 1)} mm a turn (${
    t.records
      ? `from ${t.records} recorded`
      : t.cars
        ? `from ${t.cars === 1 ? 'one car' : `${t.cars} cars`} of the shop`
        : 'usual value, none recorded'
  }).`;

export function HeightDialog({ bench, axle, close }: { bench: Bench; axle: AxleName; close: () => void }) {
  const { ticket, draft, change, input } = bench;
  const { unit } = useSettings();
  const shop = useShop();
  const base = ticket.base.axles[axle];
  const part = draft ? partOf(draft, axle) : undefined;
  const show = (mm: number) => (unit === 'mm' ? num(mm) : String(Math.round((mm / 25.4) * 16) / 16));
  const was: Record<string, number> = {
    settle: part?.settle_mm ?? 0,
    load: part?.load_mm ?? 0,
    left: part?.trim_mm?.left ?? 0,
    right: part?.trim_mm?.right ?? 0,
    ...Object.fromEntries((part?.ways ?? []).map((w) => [`way.${w.kind}`, w.gain_mm])),
  };
  const typed = useTyped<Record<string, string>>(`height.${bench.plan?.id ?? ''}.${axle}.${unit}`, () =>
    Object.fromEntries(Object.entries(was).map(([k, v]) => [k, show(v)])),
  );
  const { value: text, setValue: setText } = typed;
  const [kind, setKind] = useState<Kind>('hub_to_arch');
  // What is turned for height: nothing is told of turns until it is picked.
  const by = ticket.vehicle.facts.car?.axles[axle].height_by;
  const known = by?.kind === 'torsion_bolt' || by?.kind === 'collar' ? by.kind : '';
  const [what, setWhat] = useState<'' | 'torsion_bolt' | 'collar'>(known);
  const spring = ticket.vehicle.facts.car?.axles[axle].spring;
  const [pitch, setPitch] = useState(by?.pitch_mm ? String(by.pitch_mm) : '');
  const [ratio, setRatio] = useState(spring ? String(spring.motion_ratio) : '');
  // Left empty, the usual value is taken, and the answer says which.
  const told = (text: string) => (text.trim() === '' ? null : (readNumber(text) ?? NaN));
  const turned = (): Schemas['HeightTarget']['turned'] =>
    what === 'collar'
      ? { kind: 'collar', pitch_mm: told(pitch), motion_ratio: told(ratio) }
      : what
        ? { kind: what }
        : null;
  const memory = useQuery({ queryKey: ['memory'], queryFn: getMemory });
  const [want, setWant] = useState('');
  const aim = useMutation({
    mutationFn: (value: number) => heightTarget({ car: input!, kind, axle, value, turned: turned() }),
  });
  if (!draft || !part || !base) return null;
  // What stands as it was shown keeps its last digit.
  const mm = (k: string) =>
    k in was && text[k] === show(was[k]!)
      ? was[k]!
      : (text[k] ?? '').trim() === ''
        ? 0
        : readLength(text[k] ?? '', unit);
  const leaves = Object.keys(base.geometry.links ?? {}).some((n) => n.startsWith('leaf'));
  const ways = (shop.data?.ways ?? []).filter(
    (w) => w.layouts.includes(base.geometry.layout as Schemas['Layout']) && (leaves || !w.needs_leaves),
  );
  const total = part.height_change_mm;
  const named = ways.reduce((s, w) => s + (mm(`way.${w.kind}`) ?? 0), 0);
  // How far the shop's cars settled, by each way that is named; where none is, of those of which none was told.
  const used = ways.filter((w) => mm(`way.${w.kind}`));
  const settled = (draft.as_sold ? [] : (memory.data?.heights.settles ?? [])).filter((s) =>
    s.way ? used.some((w) => w.kind === s.way) : !used.length,
  );
  const bad = Object.keys(text).find((k) => mm(k) === undefined);
  const isAngle = kind === 'rake' || kind === 'arm_angle';
  const value = bareKinds.includes(kind)
    ? 0
    : isAngle
      ? (readAngle(want) ?? NaN)
      : (readLength(want, unit) ?? NaN);
  const fault = aim.error instanceof ApiProblem ? aim.error : undefined;
  const taken = aim.data?.by_turning?.collar;
  const notRead = 'a number such as 2 or 0.62';
  const unread = (k: 'pitch' | 'ratio') =>
    what === 'collar' && Number.isNaN(told(k === 'pitch' ? pitch : ratio) ?? 0);
  const at = (f: string) => fault?.problems.find((p) => p.field === f);
  const said = (f: string) => (at(f) ? `${at(f)!.wrong}; ${at(f)!.right}` : undefined);
  const keep = () => {
    const list = ways
      .map((w) => ({ kind: w.kind as WayKind, gain_mm: mm(`way.${w.kind}`) ?? 0 }))
      .filter((w) => w.gain_mm !== 0);
    change(
      changeOf(draft, axle, {
        ways: list,
        settle_mm: Math.max(0, mm('settle') ?? 0),
        load_mm: mm('load') ?? 0,
        trim_mm: { left: mm('left') ?? 0, right: mm('right') ?? 0 },
      }),
    );
    typed.forget();
    close();
  };
  const leave = () => {
    typed.drop();
    close();
  };
  const field = (k: string, label: string, hint?: string) => (
    <MeasureField
      key={k}
      kind="length"
      label={label}
      text={text[k] ?? ''}
      onText={(t) => setText({ ...text, [k]: t })}
      hint={hint}
      testid={`height-${k}`}
    />
  );
  return (
    <Dialog open onClose={close} maxWidth="md" fullWidth aria-labelledby="height-title">
      <div style={{ padding: 22 }}>
        <h2 id="height-title">
          {axle === 'front' ? 'Front' : 'Rear'} height: what is wanted, and how it is had
        </h2>
        <Unkept typed={typed} />
        <Segment
          label="Target"
          value={kind}
          choose={setKind}
          choices={(ticket.job.kind === 'chassis' || input?.base.stands?.frame_mm?.[axle]
            ? [...ofFrame, ...kinds]
            : [...kinds, ofFrame[2]!]
          ).map(([value, label]) => ({ value, label, testid: `target-${value}` }))}
          style={{ margin: '14px 0 10px' }}
        />
        <div style={{ display: 'flex', gap: 12, alignItems: 'flex-start', flexWrap: 'wrap' }}>
          {!bareKinds.includes(kind) && (
            <MeasureField
              kind={isAngle ? 'angle' : 'length'}
              label={kind === 'rake' ? 'Rake' : kind === 'arm_angle' ? 'Rise, outer end higher' : 'Wanted'}
              text={want}
              onText={setWant}
              testid="target-value"
            />
          )}
          <TextField
            select
            label="Turned for it"
            value={what}
            onChange={(e) => setWhat(e.target.value as typeof what)}
            slotProps={{
              select: { native: true },
              inputLabel: { shrink: true },
              htmlInput: { 'data-testid': 'target-turned' },
            }}
          >
            <option value="">nothing said</option>
            <option value="torsion_bolt">torsion bar bolt</option>
            <option value="collar">threaded collar</option>
          </TextField>
          {what === 'collar' && (
            <>
              <TextField
                label="Thread, mm a turn"
                value={pitch}
                onChange={(e) => setPitch(e.target.value)}
                error={unread('pitch') || !!at('turned.pitch_mm')}
                helperText={
                  unread('pitch')
                    ? notRead
                    : (said('turned.pitch_mm') ??
                      (taken?.usual_pitch
                        ? `usual, ${num(taken.pitch_mm)} mm; measure it`
                        : pitch === ''
                          ? 'left empty: the usual'
                          : undefined))
                }
                slotProps={{ htmlInput: { inputMode: 'decimal', 'data-testid': 'target-pitch' } }}
              />
              <TextField
                label="Spring travel over wheel travel"
                value={ratio}
                onChange={(e) => setRatio(e.target.value)}
                error={unread('ratio') || !!at('turned.motion_ratio')}
                helperText={
                  (unread('ratio') ? notRead : said('turned.motion_ratio')) ??
                  (spring
                    ? 'of this car'
                    : taken?.usual_ratio
                      ? `usual for a strut, ${num(taken.motion_ratio)}; less on an arm`
                      : ratio === ''
                        ? 'left empty: the usual'
                        : undefined)
                }
                slotProps={{ htmlInput: { inputMode: 'decimal', 'data-testid': 'target-ratio' } }}
              />
            </>
          )}
          <Button
            variant="outlined"
            disabled={!Number.isFinite(value) || unread('pitch') || unread('ratio')}
            onClick={() => aim.mutate(value)}
            data-testid="target-work"
          >
            Work it out
          </Button>
          {aim.data && (
            <span style={{ alignSelf: 'center' }}>
              <b className="fig" style={{ fontSize: 24 }}>
                {lengthChange(aim.data.gain_mm, unit)}
              </b>{' '}
              from as found.{' '}
              {aim.data.by_turning && (
                <span data-testid="target-turns">
                  {turnsOf(aim.data.by_turning, what === 'collar' ? 'Collar' : 'Bolt')}{' '}
                </span>
              )}
              <ChipButton
                onClick={() =>
                  change(changeOf(draft, axle, { height_change_mm: Math.round(aim.data!.gain_mm) }))
                }
                data-testid="target-use"
              >
                Use it
              </ChipButton>
            </span>
          )}
        </div>
        {fault && !fault.problems[0]?.field.startsWith('turned.') && (
          <FieldError
            wrong={fault.problems[0]?.wrong ?? fault.message}
            right={fault.problems[0]?.right ?? 'try again'}
          />
        )}
        <h3 style={{ margin: '18px 0 4px' }}>
          How the {lengthChange(total, unit)} are had: {length(Math.abs(total - named), unit)}{' '}
          {total - named < 0 ? 'down' : 'up'} by the suspension&rsquo;s own travel
        </h3>
        <p className="small mut" style={{ marginBottom: 10 }}>
          Springs, collars, bars, spacers and air move the suspension. Knuckles, brackets, blocks and a body
          lift move something else: name them here.
        </p>
        <div className="way-grid">
          {ways.map((w) =>
            field(
              `way.${w.kind}`,
              w.words.replace(/^./, (c) => c.toUpperCase()),
            ),
          )}
        </div>
        <h3 style={{ margin: '16px 0 10px' }}>Afterwards</h3>
        <div className="way-grid">
          {field('settle', 'Settles by')}
          {field('load', 'Sinks under the usual load')}
          {field('left', 'Left higher by')}
          {field('right', 'Right higher by')}
        </div>
        {settled.map((s) => (
          <p key={s.way ?? ''} className="small" style={{ marginTop: 8 }} data-testid="height-settled">
            {s.cars === 1 ? 'One car' : `${s.cars} cars`} of the shop with{' '}
            {ways.find((w) => w.kind === s.way)?.words ?? 'no way named'} settled by{' '}
            <b>{length(s.mm, unit)}</b>, the next one by {length(s.between[0]!, unit)} to{' '}
            {length(s.between[1]!, unit)}.{' '}
            <ChipButton
              size="small"
              onClick={() => setText({ ...text, settle: show(Math.max(0, s.mm)) })}
              data-testid="height-settled-use"
            >
              Use it
            </ChipButton>
          </p>
        ))}
        <p className="small" style={{ marginTop: 14, display: 'flex', gap: 8 }}>
          <Glyph name="watch" size={18} /> A loaded spring can kill: compressor or shop. Torsion bars unload
          first. Air: service mode before lifting. Lift height is local law: check it.
        </p>
        <div style={{ display: 'flex', gap: 10, justifyContent: 'flex-end', marginTop: 16 }}>
          <Button variant="outlined" onClick={leave}>
            Leave
          </Button>
          <Button variant="contained" disabled={!!bad} onClick={keep} data-testid="height-keep">
            Keep
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
