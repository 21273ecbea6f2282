// Vehicle facts and the front points, with the two-joint drawing following every keystroke.
import { Button, MenuItem, TextField } from '@mui/material';
import { useEffect, useMemo, useRef, useState } from 'react';
import { api, ApiProblem, take, type Geometry, type GeometryLook, type VehicleFacts } from '../../api/client';
import { JointView } from '../../figures/JointView';
import { FieldError } from '../../shell/Fault';
import { Glyph } from '../../shell/glyphs';
import { useSettings } from '../../shell/settings';
import { angle, MM_PER_INCH, num } from '../../units/print';
import { readLength } from '../plan/HeightBench';

type PointName = keyof Geometry['points'];
const points: [PointName, string][] = [
  ['upper_front', 'Upper arm, front pivot'],
  ['upper_rear', 'Upper arm, rear pivot'],
  ['upper_outer', 'Upper ball joint'],
  ['lower_front', 'Lower arm, front pivot'],
  ['lower_rear', 'Lower arm, rear pivot'],
  ['lower_outer', 'Lower ball joint'],
  ['tie_inner', 'Tie rod, inner joint'],
  ['tie_outer', 'Tie rod, outer joint'],
];
const lengths: [keyof VehicleFacts & string, string, string][] = [
  ['wheelbase_mm', 'Wheelbase', ''],
  ['track_front_mm', 'Front track', ''],
  ['track_rear_mm', 'Rear track', ''],
  ['design_height_mm', 'Front hub to arch', ''],
  ['rear_height_mm', 'Rear hub to arch', ''],
];
const plainNumbers: [keyof VehicleFacts & string, string, string][] = [
  ['tread_depth_mm', 'Tread depth now', 'mm'],
  ['front_load_n', 'Load on one front wheel', 'N'],
  ['pressure_kpa', 'Front pressure', 'kPa'],
  ['placard_kpa', 'Placard pressure', 'kPa'],
];
const choices: [keyof VehicleFacts & string, string, [string, string][]][] = [
  [
    'drive',
    'Driven axle',
    [
      ['front', 'Front'],
      ['rear', 'Rear'],
      ['both', 'Both'],
    ],
  ],
  [
    'use',
    'Use',
    [
      ['highway', 'Motorway'],
      ['mixed', 'Mixed roads'],
      ['corner_heavy', 'Winding roads'],
      ['trail', 'Trail and gravel'],
    ],
  ],
  [
    'tyre_class',
    'Tread',
    [
      ['long_life', 'Long life'],
      ['all_season', 'All season'],
      ['soft_summer', 'Soft summer'],
      ['all_terrain', 'All terrain'],
    ],
  ],
  [
    'silhouette',
    'Outline',
    [
      ['pickup', 'Pickup'],
      ['wagon', 'Estate'],
      ['box', 'Box off-roader'],
      ['van', 'Van'],
      ['coupe', 'Coupe'],
    ],
  ],
  [
    'knowledge',
    'Points known by',
    [
      ['archetype', 'Generic shape'],
      ['taped', 'Tape'],
      ['surveyed', 'Survey'],
    ],
  ],
];

interface Props {
  start: VehicleFacts;
  fault: ApiProblem | undefined;
  busy: boolean;
  action: string;
  done: (f: VehicleFacts) => void;
  head: React.ReactNode;
  extra?: React.ReactNode;
}

type Texts = Record<string, string>;

function textsOf(f: VehicleFacts, unit: 'mm' | 'in'): Texts {
  const len = (mm: number) => String(Math.round((unit === 'mm' ? mm : mm / MM_PER_INCH) * 1000) / 1000);
  const t: Texts = {
    name: f.name,
    tyre_size: f.tyre_size,
    'wheel.camber_deg': String(f.geometry.wheel.camber_deg),
    'wheel.toe_deg': String(f.geometry.wheel.toe_deg),
    'wheel.loaded_radius_mm': len(f.geometry.wheel.loaded_radius_mm),
  };
  const facts = f as unknown as Record<string, number>;
  for (const [k] of lengths) t[k] = len(facts[k] ?? 0);
  for (const [k] of plainNumbers) t[k] = String(facts[k] ?? '');
  for (const [p] of points)
    for (let i = 0; i < 3; i++) t[`points.${p}.${i}`] = len(f.geometry.points[p][i] ?? 0);
  for (let i = 0; i < 3; i++) t[`wheel.center.${i}`] = len(f.geometry.wheel.center[i] ?? 0);
  const cam = f.adjusters.find((a) => a.kind === 'eccentric');
  t.eccentricity_mm = len(cam && 'eccentricity_mm' in cam ? cam.eccentricity_mm : 3.2);
  return t;
}

const number = (t: string) =>
  /^[+-]?\d{1,6}([.,]\d{1,6})?$/.test(t.trim().replace('−', '-'))
    ? Number(t.trim().replace('−', '-').replace(',', '.'))
    : undefined;

/** What was typed as facts, and which fields cannot be read. */
function read(start: VehicleFacts, t: Texts, picks: Partial<VehicleFacts>, unit: 'mm' | 'in') {
  const bad: Record<string, string> = {};
  const len = (k: string) => {
    const v = readLength(t[k] ?? '', unit);
    if (v === undefined || (t[k] ?? '').replace(/\D/g, '').length > 9)
      bad[k] = t[k]?.trim() ? 'cannot be read' : 'nothing was entered';
    return v ?? 0;
  };
  const nr = (k: string) => {
    const v = number(t[k] ?? '');
    if (v === undefined) bad[k] = t[k]?.trim() ? 'is not a number' : 'nothing was entered';
    return v ?? 0;
  };
  const g = structuredClone(start.geometry);
  for (const [p] of points)
    g.points[p] = [0, 1, 2].map((i) => len(`points.${p}.${i}`)) as [number, number, number];
  g.wheel.center = [0, 1, 2].map((i) => len(`wheel.center.${i}`)) as [number, number, number];
  g.wheel.loaded_radius_mm = len('wheel.loaded_radius_mm');
  g.wheel.camber_deg = nr('wheel.camber_deg');
  g.wheel.toe_deg = nr('wheel.toe_deg');
  const e = len('eccentricity_mm');
  const facts = {
    ...start,
    ...picks,
    name: t.name ?? '',
    tyre_size: t.tyre_size ?? '',
    geometry: { ...g, name: `${(t.name ?? '').slice(0, 90) || 'Vehicle'}, front` },
  } as VehicleFacts;
  const rec = facts as unknown as Record<string, unknown>;
  for (const [k] of lengths) rec[k] = len(k);
  for (const [k] of plainNumbers) rec[k] = nr(k);
  facts.adjusters = start.adjusters.map((a) => (a.kind === 'eccentric' ? { ...a, eccentricity_mm: e } : a));
  return { facts, bad };
}

export function VehicleForm({ start, fault, busy, action, done, head, extra }: Props) {
  const { unit, form } = useSettings();
  const [texts, setTexts] = useState<Texts>(() => textsOf(start, unit));
  const [picks, setPicks] = useState<Partial<VehicleFacts>>({});
  const [look, setLook] = useState<GeometryLook>();
  const [good, setGood] = useState<GeometryLook>();
  const shown = useRef(unit);
  const { facts, bad } = useMemo(() => read(start, texts, picks, shown.current), [start, texts, picks]);
  // A change of unit rewrites what can be read; what cannot stays as typed.
  useEffect(() => {
    if (shown.current === unit) return;
    const was = shown.current;
    shown.current = unit;
    setTexts((t) => {
      const { facts: f, bad: b } = read(start, t, picks, was);
      const fresh = textsOf(f, unit);
      return Object.fromEntries(Object.keys(t).map((k) => [k, b[k] ? t[k]! : (fresh[k] ?? t[k]!)]));
    });
  }, [unit, start, picks]);
  const body = JSON.stringify(facts.geometry);
  const readable = !Object.keys(bad).some((k) => k.startsWith('points.') || k.startsWith('wheel.'));
  useEffect(() => {
    if (!readable) return;
    let live = true;
    take(api.POST('/api/v1/geometry', { body: JSON.parse(body) as Geometry }))
      .then((l) => {
        if (!live) return;
        setLook(l);
        if (l.drawing) setGood(l);
      })
      .catch(() => undefined);
    return () => {
      live = false;
    };
  }, [body, readable]);
  const set = (k: string, v: string) => setTexts((t) => ({ ...t, [k]: v }));
  const axis = ['x', 'y', 'z'];
  const serverFault = (k: string) => fault?.at(k) ?? fault?.problems.find((p) => p.field.endsWith(k));
  const fieldText = (k: string, label: string, suffix: string, testid = k) => {
    const f = bad[k]
      ? { wrong: bad[k], right: suffix === '' ? 'a length such as 498, 19 5/8in' : `a number in ${suffix}` }
      : serverFault(k);
    return (
      <TextField
        key={k}
        label={`${label}${suffix ? `, ${suffix}` : `, ${unit}`}`}
        value={texts[k] ?? ''}
        onChange={(e) => set(k, e.target.value)}
        error={!!f}
        helperText={f && `${f.wrong}; ${f.right}`}
        size="small"
        slotProps={{ htmlInput: { 'data-testid': testid } }}
      />
    );
  };
  const pointFault = (p: string) =>
    look?.problems.find((q) => q.field.startsWith(p)) ?? fault?.problems.find((q) => q.field.includes(p));
  const d = good?.drawing;
  const a = good?.alignment;
  const blocked = Object.keys(bad).length > 0 || (look?.problems.length ?? 0) > 0;
  const named = facts.name.trim().length > 0;
  const firstBad = Object.keys(bad)[0];
  return (
    <main className="main arrive-main">
      <section
        className="pane"
        style={{ padding: '14px 16px', overflowY: 'auto' }}
        aria-label="Vehicle facts"
      >
        {head}
        <div style={{ display: 'grid', gap: 12, marginTop: 14 }}>
          <TextField
            label="What the shop calls it"
            value={texts.name ?? ''}
            onChange={(e) => set('name', e.target.value)}
            error={!!serverFault('name')}
            helperText={serverFault('name')?.wrong}
            size="small"
            slotProps={{ htmlInput: { 'data-testid': 'name', maxLength: 200 } }}
          />
          {extra}
          <TextField
            label="Tyre size"
            value={texts.tyre_size ?? ''}
            onChange={(e) => set('tyre_size', e.target.value)}
            error={!!serverFault('tyre_size')}
            helperText={
              serverFault('tyre_size')
                ? `${serverFault('tyre_size')?.wrong}; ${serverFault('tyre_size')?.right}`
                : tyreWords(texts.tyre_size ?? '', unit)
            }
            size="small"
            slotProps={{ htmlInput: { 'data-testid': 'tyre_size' } }}
          />
          <div style={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 12 }}>
            {lengths.map(([k, l]) => fieldText(k, l, ''))}
            {plainNumbers.map(([k, l, u]) => fieldText(k, l, u))}
            {fieldText('eccentricity_mm', 'Cam throw', '')}
            {choices.map(([k, l, list]) => (
              <TextField
                key={k}
                select
                label={l}
                size="small"
                value={String((facts as unknown as Record<string, string>)[k])}
                onChange={(e) => setPicks((p) => ({ ...p, [k]: e.target.value }))}
              >
                {list.map(([v, w]) => (
                  <MenuItem key={v} value={v} sx={{ minHeight: 44 }}>
                    {w}
                  </MenuItem>
                ))}
              </TextField>
            ))}
          </div>
        </div>
      </section>
      <section
        className="pane"
        style={{ padding: '14px 16px', overflowY: 'auto', display: 'flex', flexDirection: 'column' }}
        aria-label="Front points"
      >
        <h2>Front points, left side</h2>
        <p className="small mut" style={{ margin: '6px 0 10px' }}>
          Double wishbone. x forward of the axle, y out from the middle, z up from the floor, {unit}. Type mm
          or in after a number to mix.
        </p>
        <table className="points">
          <thead>
            <tr>
              <th />
              {['x forward', 'y out', 'z up'].map((h) => (
                <th key={h} scope="col">
                  {h}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {[
              ...points.map(([p, l]) => [`points.${p}`, l] as const),
              ['wheel.center', 'Wheel centre'] as const,
            ].map(([p, l]) => {
              const pf = pointFault(p);
              return (
                <tr key={p}>
                  <th scope="row">
                    {l}
                    {pf && <FieldError wrong={pf.wrong} right={pf.right} />}
                  </th>
                  {axis.map((ax, i) => {
                    const k = `${p}.${i}`;
                    return (
                      <td key={ax}>
                        <input
                          className={`fig ${bad[k] ? 'bad' : ''}`}
                          aria-label={`${l}, ${ax}, ${unit}`}
                          aria-invalid={!!bad[k]}
                          value={texts[k] ?? ''}
                          onChange={(e) => set(k, e.target.value)}
                          data-testid={k}
                        />
                      </td>
                    );
                  })}
                </tr>
              );
            })}
          </tbody>
        </table>
        <div style={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 10, marginTop: 12 }}>
          {fieldText('wheel.loaded_radius_mm', 'Hub above floor', '')}
          {fieldText('wheel.camber_deg', 'Camber there', '°')}
          {fieldText('wheel.toe_deg', 'Toe there', '°')}
        </div>
        {look?.remarks.map((r) => (
          <p key={r} className="small" style={{ marginTop: 8, display: 'flex', gap: 8 }}>
            <Glyph name="watch" size={16} /> {r}
          </p>
        ))}
      </section>
      <section
        className="pane slate"
        style={{ display: 'flex', flexDirection: 'column', overflowY: 'auto' }}
        aria-label="Drawing"
      >
        <div style={{ display: 'flex', justifyContent: 'space-between', padding: '14px 14px 0' }}>
          <h3>Left corner</h3>
          <span className="word small" data-testid="loops">
            <Glyph name={blocked ? 'clash' : 'done'} size={16} /> {blocked ? 'does not close' : 'loops close'}
          </span>
        </div>
        {d && a ? (
          <div style={{ opacity: blocked ? 0.35 : 1 }} data-testid="joint-drawing">
            <JointView side="left" now={d} angles={a} text={(v) => angle(v, form)} />
          </div>
        ) : (
          <p style={{ padding: 20 }}>Measure the points to draw it.</p>
        )}
        {good?.droop_mm != null && good.bump_mm != null && (
          <p className="small" style={{ padding: '0 14px', color: 'var(--chalk2)' }}>
            Closes from {num(good.droop_mm)} mm droop to +{num(good.bump_mm)} mm bump.
          </p>
        )}
        <div style={{ marginTop: 'auto', padding: 14, display: 'grid', gap: 8 }}>
          {fault && !fault.problems.length && <span className="plate">{fault.message}</span>}
          {(firstBad || fault?.problems.length) && (
            <span className="plate" data-testid="form-fault" style={{ fontSize: 14 }}>
              <Glyph name="clash" size={16} />
              {firstBad
                ? `${firstBad.replace(/_mm|points\./g, '').replaceAll('_', ' ')} ${bad[firstBad]}`
                : `${fault?.problems[0]?.field}: ${fault?.problems[0]?.wrong}`}
            </span>
          )}
          <Button
            variant="contained"
            disabled={busy || blocked || !named}
            onClick={() => done(facts)}
            data-testid="save-vehicle"
          >
            {named ? action : 'Give it a name'}
          </Button>
        </div>
      </section>
    </main>
  );
}

/** Diameter of a nominal size, as it will be computed. */
function tyreWords(t: string, unit: 'mm' | 'in'): string {
  const m = /(\d{3})\s*\/\s*(\d{2})\s*[A-Z-]*\s*(\d{2}(?:\.\d)?)/i.exec(t);
  if (!m) return 'such as 285/70R17';
  const d = Number(m[3]) * MM_PER_INCH + (2 * Number(m[1]) * Number(m[2])) / 100;
  return `${unit === 'mm' ? `${num(d)} mm` : `${num(d / MM_PER_INCH, 1)} in`} across, unloaded`;
}
