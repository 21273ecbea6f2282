// What can be turned on an axle, as found: looked at, ticked, and told to be all.
import { Button } from '@mui/material';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Geometry, Problem, Schemas, SideName } from '../../api/client';
import { turnable } from '../../api/calls';
import { useLive } from '../../api/live';
import { MarkDial, ReachThumb } from '../../figures/TurnMarks';
import { MeasureField } from '../../input/Field';
import { readField, rightOf, wrongOf } from '../../input/kinds';
import { FieldError } from '../../shell/Fault';
import { Bare, ChipButton, Plain } from '../../ui/Press';
import { Segment } from '../../ui/Segment';
import { Tick } from '../../ui/Tick';
import { Glyph, Half, type GlyphName } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { angle, MM_PER_INCH } from '../../units/print';
import {
  alike,
  oneArm,
  apart,
  clock,
  room,
  sized,
  sizeOf,
  sizes,
  stand,
  standing,
  stepped,
  turnsRound,
  type Found,
  type Held,
  type HeightBy,
} from './turnable';

type Turnable = Schemas['Turnable'];
type TurnKind = Schemas['TurnKind'];

const kindWords: Record<TurnKind, [string, string]> = {
  cam: ['Cam', 'notches'],
  slot: ['Slot', 'at a pivot'],
  shims: ['Shims', 'upper shaft'],
  thread: ['Thread', 'link, sleeve'],
  cam_bolt: ['Cam bolt', 'at the strut'],
  strut_slot: ['Slot', 'at the strut'],
  top_plate: ['Top plate', 'at the strut'],
  bushing: ['Bushing', 'offset, clocked'],
  hub_shim: ['Hub shim', 'behind the hub'],
  wedge: ['Wedge', 'under the spring'],
  sleeve: ['Sleeve', 'at the axle end'],
};
const heldWords: Record<Held, [GlyphName, string]> = {
  tabs_in: ['gate', 'Tabs in'],
  seized: ['clash', 'Seized'],
  not_here: ['none', 'None here'],
};
const heights: [Schemas['HeightKind'], string][] = [
  ['nothing', 'Nothing'],
  ['torsion_bolt', 'Torsion bolt'],
  ['collar', 'Collar'],
  ['air', 'Air'],
  ['shackle', 'Shackle'],
];
const sides: SideName[] = ['left', 'right'];

interface Props {
  axle: 'front' | 'rear';
  geometry: Geometry;
  list: Found[];
  told: boolean;
  heightBy: HeightBy | null;
  /** Whether the upper arm sits on a cross shaft; null while nobody looked. */
  upperShaft: boolean | null;
  setUpperShaft: (on: boolean | null) => void;
  change: (list: Found[]) => void;
  setTold: (on: boolean) => void;
  setHeightBy: (h: HeightBy | null) => void;
  /** Which one is looked at; the drawing rings it. */
  chosen: number;
  choose: (i: number) => void;
  /** Fields that cannot be read. */
  bad: (fields: Record<string, string>) => void;
  problems: Problem[];
}

/** What is looked at, for the drawing beside it. */
export function useTurnable(geometry: Geometry | null, list: Found[], told: boolean) {
  const body = useMemo(
    () => (geometry ? { geometry, adjusters: list, told } : undefined),
    [geometry, list, told],
  );
  return useLive('turnable', body, turnable);
}

export function Adjusters(p: Props) {
  const look = useTurnable(p.geometry, p.list, p.told);
  const at = Math.min(p.chosen, p.list.length - 1);
  const now = p.list[at];
  const row = look.data?.rows[at];
  const set = (i: number, a: Found) => p.change(p.list.map((x, n) => (n === i ? a : x)));
  return (
    <div className="turnable">
      <div style={{ display: 'flex', gap: 12, alignItems: 'start' }}>
        <div style={{ minWidth: 0, flex: 1 }}>
          <h2>What can be turned, as found</h2>
          <p className="small mut" style={{ marginTop: 3 }}>
            Look, then tick. Only what is here gets planned and ordered.
          </p>
        </div>
        <Button
          variant={p.told ? 'outlined' : 'contained'}
          color="secondary"
          onClick={() => p.setTold(!p.told)}
          aria-pressed={p.told}
          data-testid="turn-all"
        >
          {p.told ? (
            <span className="word">
              <Glyph name="done" size={16} /> That is all
            </span>
          ) : p.list.length ? (
            'That is all'
          ) : (
            'Nothing turns here'
          )}
        </Button>
      </div>
      <ol className="turn-rows" aria-label="Adjusters">
        {p.list.map((a, i) => (
          <Row
            key={i}
            n={i + 1}
            adjuster={a}
            row={look.data?.rows[i]}
            on={i === at}
            choose={() => p.choose(i)}
            fault={[...(look.fault?.problems ?? []), ...p.problems].find((q) =>
              q.field.includes(`adjusters.${i}.`),
            )}
          />
        ))}
        {look.data?.nothing && (
          <li className="turn-nothing" data-testid="turn-nothing">
            <Glyph name="none" size={18} /> {look.data.nothing}
          </li>
        )}
      </ol>
      {now && (
        <Detail
          key={`${p.axle}${at}`}
          n={at + 1}
          adjuster={now}
          row={row}
          look={look.data}
          set={(a) => set(at, a)}
          remove={() => {
            p.change(p.list.filter((_, i) => i !== at));
            p.choose(Math.max(0, at - 1));
          }}
          bad={p.bad}
        />
      )}
      <More
        look={look.data}
        list={p.list}
        add={(a) => {
          p.change([...p.list, a]);
          p.choose(p.list.length);
        }}
      />
      {p.geometry.layout === 'double_wishbone' && (
        <div className="turn-more" role="group" aria-label="Upper arm">
          <span>Upper arm on a cross shaft, where shims fit behind</span>
          <Segment
            label="Upper arm on a cross shaft"
            value={p.upperShaft === null ? undefined : p.upperShaft ? 'yes' : 'no'}
            choose={(v) => p.setUpperShaft(v === 'yes')}
            clear={() => p.setUpperShaft(null)}
            choices={[
              { value: 'yes', label: 'Yes', testid: 'shaft-yes' },
              { value: 'no', label: 'No, on bolts', testid: 'shaft-no' },
            ]}
          />
        </div>
      )}
      <Heights axle={p.axle} by={p.heightBy} set={p.setHeightBy} />
    </div>
  );
}

/** Its state in a word: turns, or what holds it, on both sides or one. */
function stateOf(a: Found): [GlyphName, string] {
  const [l, r] = sides.map((s) => standing(a, s));
  if (l!.held && l!.held === r!.held) return heldWords[l!.held];
  const one = l!.held ? (['left', l!.held] as const) : r!.held ? (['right', r!.held] as const) : undefined;
  if (one) return [heldWords[one[1]][0], `${heldWords[one[1]][1]}, ${one[0]}`];
  return l!.unseen || r!.unseen ? ['unread', 'Not looked'] : ['done', 'Turns'];
}

function Row(p: {
  n: number;
  adjuster: Found;
  row: Schemas['TurnableRow'] | undefined;
  on: boolean;
  choose: () => void;
  fault: Problem | undefined;
}) {
  const [glyph, word] = stateOf(p.adjuster);
  return (
    <li className={p.on ? 'on' : ''}>
      <Bare onClick={p.choose} aria-pressed={p.on} className="turn-row" data-testid={`turn-row-${p.n}`}>
        <span className={`turn-n fig ${p.on ? 'on' : ''}`}>{p.n}</span>
        <span style={{ minWidth: 0 }}>
          <b>{p.adjuster.name}</b>
          <span className="small mut" style={{ display: 'block' }}>
            {p.row?.size}
          </span>
        </span>
        {sides.map((s) => (
          <span key={s} className={`turn-stands fig ${s}`}>
            {(oneArm(p.adjuster) ?? s) === s && (
              <>
                <Half side={s} size={18} /> <span className="vh">{s}</span>
                {p.row?.sides.left.stands && oneArm(p.adjuster)
                  ? p.row.sides.left.stands
                  : (p.row?.sides[s].stands ?? '…')}
              </>
            )}
          </span>
        ))}
        <span className="word small">
          <Glyph name={glyph} size={17} /> {word}
        </span>
      </Bare>
      {p.fault && <FieldError wrong={p.fault.wrong} right={p.fault.right} />}
    </li>
  );
}

/** Degrees of one step, signed, both sides where they differ. */
function StepWords({ row, angles }: { row: Schemas['TurnableRow']; angles: 'decimal' | 'minutes' }) {
  const s = row.sides.left.step;
  if (!s) return null;
  const deg = (v: number) => `${v > 0.0049 ? '+' : ''}${angle(v, angles, 2)}`;
  const steers = Math.abs(s.caster_deg) > 1e-9;
  return (
    <p data-testid="turn-does" style={{ margin: 0 }}>
      <span className="lab">{s.step} does</span>
      <span className="fig turn-does">
        camber <b>{deg(s.camber_deg)}</b>
        {steers && (
          <>
            {' '}
            caster <b>{deg(s.caster_deg)}</b>
          </>
        )}{' '}
        toe <b>{deg(s.toe_deg)}</b>
      </span>
    </p>
  );
}

function Detail(p: {
  n: number;
  adjuster: Found;
  row: Schemas['TurnableRow'] | undefined;
  look: Turnable | undefined;
  set: (a: Found) => void;
  remove: () => void;
  bad: (fields: Record<string, string>) => void;
}) {
  const a = p.adjuster;
  const { units, unit } = useSettings();
  const { low, high, step } = room(a);
  const each: SideName[] = alike(a) ? ['left'] : sides;
  const fields = sizes(a);
  const show = (path: string, kind: string) => {
    const v = sizeOf(a, path);
    if (v === undefined) return '';
    return String(Math.round((kind === 'length' && unit === 'in' ? v / MM_PER_INCH : v) * 1000) / 1000);
  };
  const [texts, setTexts] = useState<Record<string, string>>({});
  // Another unit: what can be read is shown again in it.
  const shown = useRef(unit);
  useEffect(() => {
    if (shown.current === unit) return;
    shown.current = unit;
    setTexts({});
  }, [unit]);
  const wrongs = JSON.stringify(
    Object.fromEntries(
      fields.flatMap(([path, label, kind]) => {
        const t = texts[path];
        if (t === undefined || readField(kind, t, units) !== undefined) return [];
        return path === 'engaged_mm' && !t.trim()
          ? []
          : [[path, `${label}: ${t.trim() ? 'cannot be read' : 'nothing was entered'}`]];
      }),
    ),
  );
  const report = useRef(p.bad);
  report.current = p.bad;
  useEffect(() => {
    const of = JSON.parse(wrongs) as Record<string, string>;
    report.current(Object.fromEntries(Object.entries(of).map(([k, v]) => [`turn.${k}`, v])));
    return () => report.current({});
  }, [wrongs]);
  const type = (path: string, kind: (typeof fields)[number][2], text: string) => {
    setTexts((t) => ({ ...t, [path]: text }));
    const v = readField(kind, text, units);
    if (v !== undefined) p.set(sized(a, path, v));
    else if (path === 'engaged_mm' && !text.trim()) p.set(sized(a, path, undefined));
  };
  // Each side has its own where anything stands apart.
  const differ = JSON.stringify(p.look?.reach.left) !== JSON.stringify(p.look?.reach.right);
  const all = [p.look?.reach.left, p.look?.reach.right, p.look?.tabs_out.left].filter((r) => !!r);
  const tabs = p.look?.tabs_out.left !== undefined && p.look.tabs_out.left !== null;
  return (
    <section className="turn-detail" aria-label={`${p.n}, ${a.name}`}>
      <div className="turn-head">
        <input
          className="field-in turn-name"
          aria-label="What it is called"
          value={a.name}
          maxLength={60}
          onChange={(e) => p.set({ ...a, name: e.target.value })}
          data-testid="turn-name"
        />
        {!oneArm(a) && (
          <Tick on={!alike(a)} set={(on) => p.set(apart(a, on))} testid="turn-apart">
            Sides differ
          </Tick>
        )}
        <ChipButton onClick={p.remove} data-testid="turn-remove">
          Not on it
        </ChipButton>
      </div>
      <div className="turn-what">
        <div className="turn-sides">
          {each.map((s) => {
            const st = standing(a, s);
            const of = alike(a) ? 'left' : s;
            const words = p.row?.sides[of].stands ?? '';
            return (
              <div key={s} className="turn-side">
                {turnsRound(a) && (
                  <MarkDial
                    deg={st.position}
                    step={step}
                    low={low}
                    high={high}
                    unseen={st.unseen}
                    label={`${s}: ${words}`}
                  />
                )}
                <div style={{ minWidth: 0, flex: 1 }}>
                  <span className={`lab ${alike(a) ? '' : s}`}>
                    {!alike(a) && <Half side={s} size={14} />}{' '}
                    {alike(a) ? 'Both stand' : `${s === 'left' ? 'Left' : 'Right'} stands`}
                  </span>
                  <div className="turn-step">
                    <ChipButton
                      onClick={() => p.set(stepped(a, s, -1))}
                      aria-label={`${s} one step down`}
                      data-testid={`turn-${s}-less`}
                    >
                      −
                    </ChipButton>
                    <b className="fig" data-testid={`turn-${s}-stands`}>
                      {words || '…'}
                    </b>
                    <ChipButton
                      onClick={() => p.set(stepped(a, s, 1))}
                      aria-label={`${s} one step up`}
                      data-testid={`turn-${s}-more`}
                    >
                      +
                    </ChipButton>
                    {turnsRound(a) && !st.unseen && (
                      <span className="small mut">mark at {clock(st.position)}</span>
                    )}
                    {st.unseen && (
                      <ChipButton
                        onClick={() => p.set(stand(a, s, { unseen: false, position: 0 }))}
                        data-testid={`turn-${s}-looked`}
                      >
                        As the mark is
                      </ChipButton>
                    )}
                  </div>
                  <Segment
                    label={`${s}, what holds it`}
                    value={st.held ?? 'turns'}
                    size={14}
                    choose={(v) =>
                      p.set(
                        stand(a, s, {
                          held: v === 'turns' ? null : (v as Held),
                          ...(v === 'tabs_in' && { position: 0, unseen: false }),
                        }),
                      )
                    }
                    choices={[
                      { value: 'turns', label: 'Turns', testid: `turn-${s}-turns` },
                      ...(a.kind === 'eccentric'
                        ? [{ value: 'tabs_in', label: 'Tabs in', testid: `turn-${s}-tabs_in` }]
                        : []),
                      { value: 'seized', label: 'Seized', testid: `turn-${s}-seized` },
                      ...(alike(a)
                        ? []
                        : [{ value: 'not_here', label: 'None', testid: `turn-${s}-not_here` }]),
                    ]}
                  />
                </div>
              </div>
            );
          })}
        </div>
        <div className="turn-gives">
          {p.look && (
            <>
              {(differ ? sides : (['left'] as const)).map((s) => {
                const reach = p.look!.reach[s] ?? null;
                return (
                  <figure key={s}>
                    <ReachThumb reach={reach} all={all} side={s} label={`what all of them reach, ${s}`} />
                    <figcaption>
                      {differ && `${s}: `}
                      {reach ? (reach.shape === 'area' ? 'whole weave' : 'one thread') : 'nothing turns'}
                    </figcaption>
                  </figure>
                );
              })}
              {tabs && (
                <figure>
                  <ReachThumb
                    reach={p.look.tabs_out.left ?? null}
                    all={all}
                    side="left"
                    label="with the tabs out, left"
                  />
                  <figcaption>tabs out</figcaption>
                </figure>
              )}
            </>
          )}
        </div>
      </div>
      {p.row && <StepWords row={p.row} angles={units.angle} />}
      <div className="turn-sizes">
        {fields.map(([path, label, kind, suffix]) => (
          <MeasureField
            key={path}
            kind={kind}
            label={label}
            suffix={suffix}
            text={texts[path] ?? show(path, kind)}
            onText={(t) => type(path, kind, t)}
            onBlur={() =>
              !(path in (JSON.parse(wrongs) as object)) &&
              setTexts((t) => Object.fromEntries(Object.entries(t).filter(([k]) => k !== path)))
            }
            fault={
              texts[path] !== undefined && !texts[path]!.trim() && path !== 'engaged_mm'
                ? { wrong: 'nothing was entered', right: rightOf(kind, units) }
                : wrongOf(kind, texts[path] ?? '', units)
            }
            end={!a.measured && path !== 'engaged_mm' && <span className="small mut">usual</span>}
            testid={`turn-${path}`}
          />
        ))}
        {a.kind === 'thread' && (
          <Segment
            label="Threaded ends"
            size={14}
            value={String(a.ends)}
            choose={(v) => p.set({ ...a, ends: Number(v), left_hand: null })}
            choices={[
              { value: '1', label: 'One end', testid: 'turn-ends-1' },
              { value: '2', label: 'Left and right hand', testid: 'turn-ends-2' },
            ]}
          />
        )}
        {a.kind === 'thread' && (
          <Segment
            label="Left-hand thread"
            size={14}
            value={a.left_hand ?? undefined}
            choose={(v) => p.set({ ...a, left_hand: v })}
            clear={() => p.set({ ...a, left_hand: null })}
            choices={
              a.ends === 2
                ? [
                    { value: 'inner', label: 'Left-hand at the body', testid: 'turn-hand-inner' },
                    { value: 'wheel', label: 'at the wheel', testid: 'turn-hand-wheel' },
                  ]
                : [
                    { value: 'neither', label: 'Right-hand thread', testid: 'turn-hand-neither' },
                    { value: 'wheel', label: 'Left-hand', testid: 'turn-hand-wheel' },
                  ]
            }
          />
        )}
      </div>
    </section>
  );
}

/** One more: the kind, then the place. What the layout cannot have stays, with its reason. */
function More({ look, list, add }: { look: Turnable | undefined; list: Found[]; add: (a: Found) => void }) {
  const [kind, setKind] = useState<TurnKind>();
  const offer = look?.offers.find((o) => o.kind === kind);
  const put = (o: Schemas['Offered']) => {
    // Two of one name could not be told apart.
    const same = list.filter((a) => a.name === o.name || a.name.startsWith(`${o.name} `)).length;
    add({ ...o.adjuster, name: same ? `${o.name} ${same + 1}` : o.name, right: null });
    setKind(undefined);
  };
  return (
    <section aria-label="One more" className="turn-more">
      <span className="lab">
        {kind ? `${kindWords[kind][0]}: where?` : 'One more? The kind, then the place.'}
      </span>
      {offer ? (
        <div className="turn-kinds">
          {offer.places.map((o) => (
            <ChipButton
              key={o.adjuster.name}
              onClick={() => put(o)}
              data-testid={`turn-at-${o.adjuster.name}`}
            >
              {o.place}
            </ChipButton>
          ))}
          <ChipButton onClick={() => setKind(undefined)}>Not now</ChipButton>
        </div>
      ) : (
        <div className="turn-kinds">
          {look?.offers.map((o) => (
            <Plain
              key={o.kind}
              className="turn-kind"
              disabled={!!o.none}
              onClick={() => (o.places.length === 1 ? put(o.places[0]!) : setKind(o.kind))}
              data-testid={`turn-kind-${o.kind}`}
            >
              <b>{kindWords[o.kind][0]}</b>
              <span className="small">{o.none ?? kindWords[o.kind][1]}</span>
            </Plain>
          ))}
        </div>
      )}
    </section>
  );
}

/** What its height is turned by. */
function Heights({
  axle,
  by,
  set,
}: {
  axle: string;
  by: HeightBy | null;
  set: (h: HeightBy | null) => void;
}) {
  return (
    <section className="turn-more" aria-label="Height">
      <span className="lab">{axle === 'front' ? 'Front' : 'Rear'} height is turned by</span>
      <Segment
        label="What the height is turned by"
        size={14}
        value={by?.kind}
        clear={() => set(null)}
        choose={(kind) =>
          set({
            pitch_mm: null,
            shows_mm: { left: null, right: null },
            held: { left: null, right: null },
            ...by,
            kind,
          })
        }
        choices={heights.map(([value, label]) => ({ value, label, testid: `height-by-${value}` }))}
      />
    </section>
  );
}
