// One axle: choose what is seen under the car, tape it, or survey it point by point.
import { Tick } from '../../ui/Tick';
import { TabBar } from '../../ui/TabBar';
import { ChipButton, Plain } from '../../ui/Press';
import { getArchetypes, fitArchetype } from '../../api/calls';
import { useQuery } from '@tanstack/react-query';
import { Fragment, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import type { Geometry, GeometryLook, Problem, Schemas } from '../../api/client';
import { CarView } from '../../figures/CarView';
import { rightOf } from '../../input/kinds';
import { FieldError } from '../../shell/Fault';
import { Glyph } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { angle, MM_PER_INCH, num } from '../../units/print';
import { readAngle, readLength } from '../../units/notation';
import { useLive } from '../../api/live';
import { isWholeAxle, layoutWords, pointAt, rowsOf, withPoint, withRight } from './points';

export type Mode = 'shape' | 'tape' | 'points' | 'adjusters' | 'inspect' | 'moving';
export type Archetype = Schemas['ArchetypeInfo'];
type Measure = Schemas['Measure'];
export type Via = 'shape' | 'tape' | 'points';

export function useArchetypes() {
  return useQuery({
    queryKey: ['archetypes'],
    queryFn: getArchetypes,
    staleTime: Infinity,
  });
}

interface Props {
  axle: 'front' | 'rear';
  geometry: Geometry | null;
  look: GeometryLook | undefined;
  problems: Problem[];
  wheelbase: number;
  mode: Mode;
  setMode: (m: Mode) => void;
  change: (g: Geometry | null, via: Via, shape?: Archetype) => void;
  /** What can be turned, shown in its own tab. */
  adjusters: ReactNode;
  /** What was looked at before it is read, in its own tab. */
  inspect: ReactNode;
  /** One wheel measured at several heights, in its own tab. */
  moving: ReactNode;
  bad: (fields: Record<string, string>) => void;
  hot: (path: string | undefined) => void;
}

export function AxleEditor(p: Props) {
  const shapes = useArchetypes();
  const [chosen, setChosen] = useState<string>();
  const list = shapes.data?.filter((a) => a.geometry.axle === p.axle) ?? [];
  const shape = list.find((a) => a.id === chosen) ?? list.find((a) => a.geometry.name === p.geometry?.name);
  const tabs: [Mode, string][] = [
    ['shape', 'Under it'],
    ['tape', 'Tape it'],
    ['points', 'Points'],
    ['adjusters', 'Turns'],
    ['inspect', 'Worn'],
    ['moving', 'Moving'],
  ];
  return (
    <section className="pane axle-editor" aria-label={`${p.axle} axle`}>
      <TabBar
        label="Way of describing the axle"
        value={p.mode}
        choose={p.setMode}
        tabs={tabs.map(([m, l], i) => ({
          value: m,
          testid: `mode-${m}`,
          disabled: ['points', 'adjusters', 'moving'].includes(m) && !p.geometry,
          label: (
            <span>
              <span className="fig">{i + 1}</span> {l}
            </span>
          ),
        }))}
      />
      <div className="axle-body" key={p.mode}>
        {p.mode === 'shape' && (
          <Shapes
            {...p}
            list={list}
            chosen={shape?.id}
            pick={(a) => {
              setChosen(a.id);
              p.change(placed(a, p.axle, p.wheelbase), 'shape', a);
            }}
          />
        )}
        {p.mode === 'tape' && (shape ? <Tape key={shape.id} {...p} shape={shape} /> : <NoShape {...p} />)}
        {p.mode === 'adjusters' && p.geometry && p.adjusters}
        {p.mode === 'inspect' && p.inspect}
        {p.mode === 'moving' && p.geometry && p.moving}
        {p.mode === 'points' && p.geometry && <PointTable {...p} geometry={p.geometry} />}
      </div>
    </section>
  );
}

/** A rear shape moved to where this car's rear axle is. */
function placed(a: Archetype, axle: 'front' | 'rear', wheelbase: number): Geometry {
  if (axle === 'front') return a.geometry;
  const dx = -wheelbase - (a.geometry.wheel.center[0] ?? 0);
  let g = a.geometry;
  for (const r of rowsOf(g)) {
    const at = pointAt(g, r.path);
    g = withPoint(g, r.path, [at[0]! + dx, at[1]!, at[2]!]);
  }
  if (g.shear_center) g = { ...g, shear_center: [g.shear_center[0]! + dx, g.shear_center[1]!] };
  return g;
}

function NoShape({ setMode, geometry }: Props) {
  return (
    <div style={{ padding: '20px 4px' }}>
      <h3>{geometry ? 'This axle has points of its own' : 'Pick a shape first'}</h3>
      <p className="small mut" style={{ margin: '8px 0 14px' }}>
        The tape scales one of the generic shapes.{' '}
        {geometry ? 'Picking one replaces the points it has now.' : ''}
      </p>
      <ChipButton onClick={() => setMode('shape')}>Look under it</ChipButton>
    </div>
  );
}

function Shapes({
  axle,
  geometry,
  list,
  chosen,
  pick,
  change,
}: Props & { list: Archetype[]; chosen: string | undefined; pick: (a: Archetype) => void }) {
  return (
    <>
      <h2>What do you see under the {axle}?</h2>
      <p className="small mut" style={{ margin: '5px 0 10px' }}>
        Each drawing is a generic shape of its kind, from the front. Pick the nearest; the tape makes it this
        car.
      </p>
      <div className="shapes">
        {list.map((a) => {
          const d = a.drawing;
          const half = (a.geometry.wheel.center[1] ?? 800) + 210;
          const on = a.id === chosen && geometry?.layout === a.geometry.layout;
          return (
            <Plain
              key={a.id}
              className={`shape ${on ? 'on' : ''}`}
              aria-pressed={on}
              onClick={() => pick(a)}
              data-testid={`shape-${a.id}`}
            >
              <span className="slate" aria-hidden="true">
                {d && (
                  <CarView
                    corners={d.corners}
                    look="front"
                    tyreWidth={230}
                    width={200}
                    height={112}
                    span={[-half, half]}
                    floor={10}
                    tags={false}
                    label=""
                  />
                )}
              </span>
              <b className="shape-name">
                {on && <Glyph name="done" size={15} />} {a.name}
              </b>
              <span className="small mut">{a.seen}</span>
            </Plain>
          );
        })}
        {axle === 'rear' && geometry && (
          <Plain className="shape" onClick={() => change(null, 'shape')} data-testid="shape-none">
            <b>Not known</b>
            <span className="small mut">Leave the rear axle out: heights only.</span>
          </Plain>
        )}
      </div>
    </>
  );
}

function Tape({ shape, wheelbase, change, axle }: Props & { shape: Archetype }) {
  const { unit, units } = useSettings();
  const [texts, setTexts] = useState<Record<string, string>>({});
  const shown = useRef(unit);
  const parse = (m: Archetype['measures'][number], u: 'mm' | 'in') => {
    const t = texts[m.measure] ?? '';
    if (!t.trim()) return undefined;
    return m.is_angle ? readAngle(t) : readLength(t, u);
  };
  useEffect(() => {
    if (shown.current === unit) return;
    const was = shown.current;
    shown.current = unit;
    setTexts((t) =>
      Object.fromEntries(
        Object.entries(t).map(([k, v]) => {
          const m = shape.measures.find((x) => x.measure === k);
          const mm = m && !m.is_angle ? readLength(v, was) : undefined;
          return [
            k,
            mm === undefined ? v : String(Math.round((unit === 'mm' ? mm : mm / MM_PER_INCH) * 1000) / 1000),
          ];
        }),
      ),
    );
  }, [unit, shape]);
  const taped = shape.measures.flatMap((m) => {
    const value = parse(m, shown.current);
    return value === undefined ? [] : [{ measure: m.measure, value }];
  });
  const body = taped.length ? { id: shape.id, taped, wheelbase_mm: wheelbase } : undefined;
  const fit = useLive('fit', body, ({ id, ...rest }) => fitArchetype(id, rest));
  const put = useRef(change);
  put.current = change;
  const fitted = fit.data && body ? fit.data.geometry : undefined;
  useEffect(() => {
    if (fitted) put.current(fitted, 'tape');
  }, [fitted]);
  const print = (m: Archetype['measures'][number], v: number) =>
    m.is_angle ? angle(v, units.angle) : unit === 'mm' ? `${num(v)} mm` : `${num(v / MM_PER_INCH, 2)} in`;
  return (
    <>
      <h2>Tape what you can reach</h2>
      <p className="small mut" style={{ margin: '5px 0 10px' }}>
        {shape.name}. Left side, at ride height. Every measurement pulls the shape to this car; what is left
        empty keeps the usual. {axle === 'rear' ? 'The wheelbase places it.' : ''}
      </p>
      <div className="tape-list">
        {shape.measures.map((m) => {
          const i = taped.findIndex((t) => t.measure === m.measure);
          const text = texts[m.measure] ?? '';
          const unread = text.trim() !== '' && i < 0;
          const fault = fit.fault?.problems.find((f) => i >= 0 && f.field.startsWith(`taped.${i}`));
          const got = fit.data?.measures.find((r) => r.measure === m.measure);
          return (
            <Fragment key={m.measure}>
              <label htmlFor={`tape-${m.measure}`}>
                {m.words}
                <span className="small mut" style={{ display: 'block', fontWeight: 400 }}>
                  usual {print(m, m.usual)}
                </span>
              </label>
              <input
                id={`tape-${m.measure}`}
                className={`fig ${unread || fault ? 'bad' : ''}`}
                inputMode="decimal"
                value={text}
                aria-invalid={unread || !!fault}
                onChange={(e) => setTexts((t) => ({ ...t, [m.measure as Measure]: e.target.value }))}
                data-testid={`tape-${m.measure}`}
              />
              <span className="small" data-testid={`fitted-${m.measure}`}>
                {i >= 0 && got && !fault ? (
                  got.odd ? (
                    <b className="word small">
                      <Glyph name="clash" size={15} /> odd one, measure again
                    </b>
                  ) : (
                    <span className="word small">
                      <Glyph name="done" size={14} /> fits {print(m, got.fitted)}
                    </span>
                  )
                ) : null}
              </span>
              {(unread || fault) && (
                <div style={{ gridColumn: '1 / -1' }}>
                  <FieldError
                    wrong={unread ? 'cannot be read' : (fault?.wrong ?? '')}
                    right={unread ? rightOf(m.is_angle ? 'angle' : 'length', units) : (fault?.right ?? '')}
                  />
                </div>
              )}
            </Fragment>
          );
        })}
      </div>
      {fit.fault?.problems
        .filter((f) => f.field === 'taped')
        .map((f) => (
          <FieldError key={f.field} wrong={f.wrong} right={f.right} />
        ))}
    </>
  );
}

function PointTable({ geometry, axle, look, problems, change, bad, hot }: Props & { geometry: Geometry }) {
  const { unit } = useSettings();
  const rows = useMemo(() => rowsOf(geometry), [geometry]);
  const [texts, setTexts] = useState<Record<string, string>>({});
  const [at, setAt] = useState(0);
  const shown = useRef(unit);
  const here = rows[Math.min(at, rows.length - 1)];
  const table = useRef<HTMLTableElement>(null);
  const axis = ['x', 'y', 'z'];
  const print = (mm: number) =>
    String(Math.round((shown.current === 'mm' ? mm : mm / MM_PER_INCH) * 1000) / 1000);
  const unread = (k: string) => {
    const t = texts[k];
    if (t === undefined) return undefined;
    if (!t.trim()) return 'nothing was entered';
    return readLength(t, shown.current) === undefined || t.replace(/\D/g, '').length > 9
      ? 'cannot be read'
      : undefined;
  };
  useEffect(() => {
    if (shown.current === unit) return;
    // What can be read is shown again in the new unit; what cannot stays as typed.
    setTexts((t) => Object.fromEntries(Object.entries(t).filter(([k]) => unread(k))));
    shown.current = unit;
  });
  const faults = Object.fromEntries(
    Object.keys(texts).flatMap((k) => {
      const wrong = unread(k);
      return wrong ? [[k, wrong]] : [];
    }),
  );
  const [wheelFaults, setWheelFaults] = useState<Record<string, string>>({});
  const faultKey = JSON.stringify({ ...faults, ...wheelFaults });
  const report = useRef(bad);
  report.current = bad;
  useEffect(() => {
    report.current(JSON.parse(faultKey) as Record<string, string>);
    return () => report.current({});
  }, [faultKey]);
  const show = useRef(hot);
  show.current = hot;
  useEffect(() => {
    show.current(here?.path);
    return () => show.current(undefined);
  }, [here?.path]);
  const type = (path: string, i: number, text: string) => {
    const k = `${path}.${i}`;
    setTexts((t) => ({ ...t, [k]: text }));
    const v = text.trim() ? readLength(text, shown.current) : undefined;
    if (v === undefined || text.replace(/\D/g, '').length > 9) return;
    const p = [...pointAt(geometry, path)];
    p[i] = v;
    change(withPoint(geometry, path, p), 'points');
  };
  const step = (by: number) => {
    const n = (at + by + rows.length) % rows.length;
    setAt(n);
    table.current?.querySelectorAll<HTMLInputElement>('tbody tr')[n]?.querySelector('input')?.focus();
  };
  const fault = (path: string) =>
    look?.problems.find((q) => q.field.startsWith(path)) ?? problems.find((q) => q.field.includes(path));
  return (
    <>
      <div className="survey">
        <div style={{ minWidth: 0 }}>
          <span className="lab">
            {layoutWords[geometry.layout]}, {axle}
            {isWholeAxle(geometry) || geometry.right ? '' : ', left side'} · point {at + 1} of {rows.length}
          </span>
          <h2 style={{ marginTop: 4 }}>{here?.label}</h2>
          <p className="small mut" style={{ marginTop: 5 }}>
            {here?.where} Ringed in the drawings.
          </p>
        </div>
        <div style={{ display: 'flex', gap: 6 }}>
          <ChipButton onClick={() => step(-1)} data-testid="point-back">
            Back
          </ChipButton>
          <ChipButton onClick={() => step(1)} data-testid="point-next">
            Next
          </ChipButton>
        </div>
      </div>
      <table className="points" ref={table}>
        <thead>
          <tr>
            <th>
              <span className="vh">Point</span>
            </th>
            {[`x forward, ${unit}`, 'y out', 'z up'].map((h) => (
              <th key={h} scope="col">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((r, n) => {
            const pf = fault(r.path);
            return (
              <tr key={r.path} className={n === at ? 'now' : ''}>
                <th scope="row">
                  {r.label}
                  {pf && <FieldError wrong={pf.wrong} right={pf.right} />}
                </th>
                {axis.map((ax, i) => {
                  const k = `${r.path}.${i}`;
                  return (
                    <td key={ax}>
                      <input
                        className={`fig ${faults[k] ? 'bad' : ''}`}
                        aria-label={`${r.label}, ${ax}, ${unit}`}
                        aria-invalid={!!faults[k]}
                        value={texts[k] ?? print(pointAt(geometry, r.path)[i] ?? 0)}
                        onFocus={() => setAt(n)}
                        onChange={(e) => type(r.path, i, e.target.value)}
                        data-testid={axle === 'front' ? k : `rear.${k}`}
                      />
                    </td>
                  );
                })}
              </tr>
            );
          })}
        </tbody>
      </table>
      <WheelFields geometry={geometry} change={change} axle={axle} bad={setWheelFaults} />
      {!isWholeAxle(geometry) && (
        <Tick
          className="own-right"
          on={!!geometry.right}
          set={(on) => change(withRight(geometry, on), 'points')}
          testid={axle === 'front' ? 'own-right' : 'rear.own-right'}
        >
          The right side has points of its own
        </Tick>
      )}
      <p className="small mut" style={{ marginTop: 10 }}>
        x forward of the front axle, y out from the middle of the car, z up from the floor the car stands on.
        Type mm or in after a number to mix.
      </p>
      {look?.remarks.map((r) => (
        <p key={r} className="small" style={{ marginTop: 8, display: 'flex', gap: 8 }}>
          <Glyph name="watch" size={16} /> {r}
        </p>
      ))}
    </>
  );
}

/** Camber and toe the points were taken at, and the hub's height. */
function WheelFields({
  geometry,
  change,
  axle,
  bad,
}: {
  geometry: Geometry;
  change: Props['change'];
  axle: 'front' | 'rear';
  bad: (fields: Record<string, string>) => void;
}) {
  const { unit, units } = useSettings();
  const [texts, setTexts] = useState<Record<string, string>>({});
  const w = geometry.wheel;
  const fields: [keyof typeof w & string, string, boolean][] = [
    ['loaded_radius_mm', `Hub above floor, ${unit}`, false],
    ['camber_deg', 'Camber there, °', true],
    ['toe_deg', 'Toe there, °', true],
  ];
  const wrongs = JSON.stringify(
    fields
      .filter(([k, , isAngle]) => {
        const t = texts[k];
        return t !== undefined && (isAngle ? readAngle(t) : readLength(t, unit)) === undefined;
      })
      .map(([k]) => k),
  );
  useEffect(
    () =>
      bad(Object.fromEntries((JSON.parse(wrongs) as string[]).map((k) => [`wheel.${k}`, 'cannot be read']))),
    [wrongs, bad],
  );
  return (
    <div style={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 10, marginTop: 12 }}>
      {fields.map(([k, label, isAngle]) => {
        const value = w[k] as number;
        const text =
          texts[k] ??
          String(Math.round((isAngle || unit === 'mm' ? value : value / MM_PER_INCH) * 1000) / 1000);
        const read = (t: string) => (isAngle ? readAngle(t) : readLength(t, unit));
        const wrong = read(text) === undefined;
        return (
          <label key={k} className="lab" style={{ display: 'grid', gap: 3 }}>
            {label}
            <input
              className={`fig field-in ${wrong ? 'bad' : ''}`}
              value={text}
              aria-invalid={wrong}
              onBlur={() =>
                !wrong && setTexts((t) => Object.fromEntries(Object.entries(t).filter(([x]) => x !== k)))
              }
              onChange={(e) => {
                setTexts((t) => ({ ...t, [k]: e.target.value }));
                const v = read(e.target.value);
                if (v !== undefined) change({ ...geometry, wheel: { ...w, [k]: v } }, 'points');
              }}
              data-testid={`${axle === 'front' ? '' : 'rear.'}wheel.${k}`}
            />
            {wrong && <span role="alert">{rightOf(isAngle ? 'angle' : 'length', units)}</span>}
          </label>
        );
      })}
    </div>
  );
}
