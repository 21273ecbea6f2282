// Vehicle facts, both axles, and the drawings that follow every keystroke.
import { numberProblem, readNumber } from '../../units/number';
import { Button, MenuItem, TextField } from '@mui/material';
import { useEffect, useMemo, useRef, useState } from 'react';
import { ApiProblem, type Geometry, type VehicleFacts } from '../../api/client';
import { Glyph } from '../../shell/glyphs';
import { useSettings } from '../../shell/settings';
import { useShop } from '../../shell/ticket';
import { readDraft, writeDraft } from '../../shell/drafts';
import { Unkept } from '../../shell/Unkept';
import { MM_PER_INCH, num } from '../../units/print';
import { readLength } from '../plan/HeightBench';
import { AxleEditor, type Mode, type Via } from './AxleEditor';
import { carOf, useLook } from './car';
import { carFields, carTexts, readCar, usualCar } from './carFacts';
import { MovePane } from './MovePane';
import { pointAt, rowsOf } from './points';

type AxleName = 'front' | 'rear';
const lengths: [keyof VehicleFacts & string, string][] = [
  ['wheelbase_mm', 'Wheelbase'],
  ['track_front_mm', 'Front track'],
  ['track_rear_mm', 'Rear track'],
  ['design_height_mm', 'Front height'],
  ['rear_height_mm', 'Rear height'],
];
const plainNumbers: [keyof VehicleFacts & string, string, string][] = [
  ['tread_depth_mm', 'Tread now', 'mm'],
  ['front_load_n', 'Front wheel load', 'N'],
  ['pressure_kpa', 'Pressure', 'kPa'],
  ['placard_kpa', 'Placard', 'kPa'],
];
const known: [string, string][] = [
  ['archetype', 'Generic shape'],
  ['taped', 'Tape'],
  ['surveyed', 'Survey'],
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
  ['knowledge', 'Front known by', known],
  ['rear_knowledge', 'Rear known by', known],
];

interface Props {
  start: VehicleFacts;
  fault: ApiProblem | undefined;
  busy: boolean;
  action: string;
  done: (f: VehicleFacts) => void;
  head: React.ReactNode;
  extra?: React.ReactNode;
  /** A car nobody has looked under yet. */
  fresh?: boolean;
  /** Under which what is typed is kept in the browser until it is saved. */
  draftKey: string;
}

type Texts = Record<string, string>;

function textsOf(f: VehicleFacts, unit: 'mm' | 'in'): Texts {
  const len = (mm: number) => String(Math.round((unit === 'mm' ? mm : mm / MM_PER_INCH) * 1000) / 1000);
  const t: Texts = { name: f.name, tyre_size: f.tyre_size };
  const facts = f as unknown as Record<string, number>;
  for (const [k] of lengths) t[k] = len(facts[k] ?? 0);
  for (const [k] of plainNumbers) t[k] = String(facts[k] ?? '');
  const cam = f.adjusters.find((a) => a.kind === 'eccentric');
  t.eccentricity_mm = len(cam && 'eccentricity_mm' in cam ? cam.eccentricity_mm : 3.2);
  for (const [k, v] of Object.entries(carTexts(f.car ?? usualCar, unit))) t[`car.${k}`] = v;
  return t;
}

/** Whether a field still shows a value that nobody measured: the one every new vehicle starts from, or that of its shape. */
export function isUsual(
  k: string,
  text: string | undefined,
  start: Texts,
  filled: Texts,
  fresh: boolean,
): boolean {
  const t = text ?? '';
  if (t === '' || t === '0') return false;
  return k in filled ? filled[k] === t : (fresh || k.startsWith('car.')) && start[k] === t;
}

const number = readNumber;

interface Axles {
  front: Geometry;
  rear: Geometry | null;
}

/** What was typed as facts, and which fields cannot be read. */
function read(
  start: VehicleFacts,
  usual: VehicleFacts['adjusters'],
  t: Texts,
  picks: Partial<VehicleFacts>,
  axles: Axles,
  unit: 'mm' | 'in',
) {
  const bad: Record<string, string> = {};
  // What stands as it was shown is what it was, to the last digit, and what no field shows is not touched.
  const shown = textsOf(start, unit);
  const same = (k: string) => t[k] === shown[k];
  const was = start as unknown as Record<string, number>;
  const len = (k: string) => {
    if (same(k) && k in was) return was[k]!;
    const v = readLength(t[k] ?? '', unit);
    if (v === undefined || (t[k] ?? '').replace(/\D/g, '').length > 9)
      bad[k] = t[k]?.trim() ? 'cannot be read' : 'nothing was entered';
    return v ?? 0;
  };
  const nr = (k: string) => {
    if (same(k) && k in was) return was[k]!;
    const v = number(t[k] ?? '');
    if (v === undefined)
      bad[k] = t[k]?.trim() ? (numberProblem(t[k]!)?.wrong ?? 'is not a number') : 'nothing was entered';
    return v ?? 0;
  };
  const e = len('eccentricity_mm');
  const name = (t.name ?? '').slice(0, 90) || 'Vehicle';
  const car = Object.fromEntries(
    Object.entries(t)
      .filter(([k]) => k.startsWith('car.'))
      .map(([k, v]) => [k.slice(4), v]),
  );
  const facts = {
    ...start,
    ...picks,
    name: t.name ?? '',
    tyre_size: t.tyre_size ?? '',
    geometry: { ...axles.front, axle: 'front', name: `${name}, front` },
    rear_geometry: axles.rear && { ...axles.rear, axle: 'rear', name: `${name}, rear` },
    car: readCar(start.car ?? usualCar, car, unit, bad),
  } as VehicleFacts;
  const rec = facts as unknown as Record<string, unknown>;
  for (const [k] of lengths) rec[k] = len(k);
  for (const [k] of plainNumbers) rec[k] = nr(k);
  // Cams in slots are usual for a wishbone; another layout is set by its tie rods until told otherwise. Only another
  // layout changes what can be turned; a typed throw is that of the cams that had the one shown.
  const relaid = axles.front.layout !== start.geometry.layout;
  const cams = axles.front.layout === 'double_wishbone';
  const first = start.adjusters.find((a) => a.kind === 'eccentric');
  const throwOf = (a: (typeof start.adjusters)[number]) =>
    a.kind === 'eccentric' ? a.eccentricity_mm : undefined;
  const built = relaid ? usual.filter((a) => cams || a.kind !== 'eccentric') : start.adjusters;
  facts.adjusters = built.map((a) =>
    a.kind === 'eccentric' &&
    (relaid || (!same('eccentricity_mm') && throwOf(a) === (first && throwOf(first))))
      ? { ...a, eccentricity_mm: e }
      : a,
  );
  return { facts, bad };
}

/** What was typed into the form and differs from what is saved, as it is kept in the browser until then. */
interface Draft {
  unit: 'mm' | 'in';
  texts: Texts;
  picks: Partial<VehicleFacts>;
  axles?: Axles;
}

export function VehicleForm({ start, fault, busy, action, done, head, extra, fresh, draftKey }: Props) {
  const { unit } = useSettings();
  const shop = useShop();
  const usual = shop.data?.starter_adjusters ?? start.adjusters;
  const [kept] = useState(() => readDraft<Draft>(draftKey));
  const [restored, setRestored] = useState(!!kept);
  const own = (): Axles => ({ front: start.geometry, rear: start.rear_geometry ?? null });
  const [texts, setTexts] = useState<Texts>(() => ({
    ...textsOf(start, kept?.unit ?? unit),
    ...kept?.texts,
  }));
  const [picks, setPicks] = useState<Partial<VehicleFacts>>(kept?.picks ?? {});
  const [axles, setAxles] = useState<Axles>(() => kept?.axles ?? own());
  // What a shape put there may be replaced by the next shape; what was typed may not.
  const filled = useRef<Texts>({});
  const [axle, setAxle] = useState<AxleName>('front');
  const [modes, setModes] = useState<Record<AxleName, Mode>>({
    front: fresh ? 'shape' : 'points',
    rear: start.rear_geometry ? 'points' : 'shape',
  });
  const [pointFaults, setPointFaults] = useState<Record<string, string>>({});
  const [hotPath, setHotPath] = useState<string>();
  const shown = useRef(kept?.unit ?? unit);
  const { facts, bad } = useMemo(
    () => read(start, usual, texts, picks, axles, shown.current),
    [start, usual, texts, picks, axles],
  );
  // A change of unit rewrites what can be read; what cannot stays as typed.
  useEffect(() => {
    if (shown.current === unit) return;
    const was = shown.current;
    shown.current = unit;
    setTexts((t) => {
      const { facts: f, bad: b } = read(start, usual, t, picks, axles, was);
      const fresh = textsOf(f, unit);
      // What a shape put there is still its own in the other unit.
      for (const [k, v] of Object.entries(filled.current)) if (v === t[k]) filled.current[k] = fresh[k] ?? v;
      return Object.fromEntries(Object.keys(t).map((k) => [k, b[k] ? t[k]! : (fresh[k] ?? t[k]!)]));
    });
  }, [unit, start, usual, picks, axles]);
  // Kept in the browser while it differs from what is saved: another stage, a reload or a dead server loses nothing.
  useEffect(() => {
    const plain = textsOf(start, shown.current);
    const mine = Object.fromEntries(Object.entries(texts).filter(([k, t]) => t !== plain[k]));
    const moved = JSON.stringify(axles) !== JSON.stringify(own());
    const changed = Object.keys(mine).length > 0 || Object.keys(picks).length > 0 || moved;
    writeDraft<Draft>(
      draftKey,
      changed ? { unit: shown.current, texts: mine, picks, ...(moved && { axles }) } : undefined,
    );
    // `own` is made of `start`.
    // eslint-disable-next-line
  }, [draftKey, start, texts, picks, axles]);
  const leave = () => {
    writeDraft(draftKey, undefined);
    setTexts(textsOf(start, unit));
    setPicks({});
    setAxles(own());
    setRestored(false);
  };
  const looks = { front: useLook(axles.front), rear: useLook(axles.rear) };
  const set = (k: string, v: string) => setTexts((t) => ({ ...t, [k]: v }));
  const serverFault = (k: string) => fault?.at(k) ?? fault?.problems.find((p) => p.field.endsWith(k));
  const wrongAt = (k: string, right: string) => (bad[k] ? { wrong: bad[k], right } : serverFault(k));
  // For a car that is kept only what no form asks for by itself can still be the usual value.
  const given = useMemo(() => {
    const plain = textsOf(fresh ? start : { ...start, car: usualCar }, unit);
    return fresh ? plain : Object.fromEntries(Object.entries(plain).filter(([k]) => k.startsWith('car.')));
  }, [start, unit, fresh]);
  const fieldText = (k: string, label: string, suffix: string, optional = false) => {
    const f = wrongAt(k, suffix === '' ? 'a length such as 498, 19 5/8in' : `a number in ${suffix}`);
    const usualHere = isUsual(k, texts[k], given, filled.current, !!fresh);
    return (
      <TextField
        key={k}
        label={`${label}${suffix ? `, ${suffix}` : `, ${unit}`}`}
        value={texts[k] ?? ''}
        onChange={(e) => set(k, e.target.value)}
        error={!!f}
        helperText={f && `${f.wrong}; ${f.right}`}
        placeholder={optional ? 'not known' : undefined}
        size="small"
        slotProps={{
          htmlInput: { 'data-testid': k },
          // Inside the field: nothing moves when it is typed over.
          input: usualHere ? { endAdornment: <span className="small mut">usual</span> } : {},
        }}
      />
    );
  };
  const linesText = (k: string, label: string, hint: string, right: string) => {
    const f = wrongAt(k, right);
    return (
      <TextField
        label={label}
        value={texts[k] ?? ''}
        onChange={(e) => set(k, e.target.value)}
        error={!!f}
        helperText={f ? `${f.wrong}; ${right}` : hint}
        size="small"
        multiline
        minRows={2}
        slotProps={{ htmlInput: { 'data-testid': k } }}
      />
    );
  };
  const change = (a: AxleName) => (g: Geometry | null, via: Via) => {
    setAxles((x) => (a === 'front' ? (g ? { ...x, front: g } : x) : { ...x, rear: g }));
    // A shape is generic; a point that was typed is taped, unless it was said to be surveyed.
    const key = a === 'front' ? 'knowledge' : 'rear_knowledge';
    const now = (picks[key] ?? start[key]) as string;
    const to = via === 'points' ? (now === 'archetype' ? 'taped' : now) : 'archetype';
    if (to !== now) setPicks((p) => ({ ...p, [key]: to }));
    // The usual track of the shape, front and rear alike, until a track is typed.
    if (via !== 'points' && g) {
      const field = a === 'front' ? 'track_front_mm' : 'track_rear_mm';
      const usual = String(
        Math.round(((2 * g.wheel.center[1]!) / (unit === 'mm' ? 1 : MM_PER_INCH)) * 100) / 100,
      );
      setTexts((t) => {
        const standing = filled.current[field] ?? (fresh ? textsOf(start, unit)[field] : undefined);
        if (t[field] !== standing) return t;
        filled.current = { ...filled.current, [field]: usual };
        return { ...t, [field]: usual };
      });
    }
  };
  const allBad = { ...bad, ...pointFaults };
  const firstBad = Object.keys(allBad)[0];
  const trouble = [...(looks.front?.problems ?? []), ...(axles.rear ? (looks.rear?.problems ?? []) : [])];
  const blocked = Object.keys(allBad).length > 0 || trouble.length > 0;
  const named = facts.name.trim().length > 0;
  const geometry = axles[axle];
  const row = geometry && hotPath ? rowsOf(geometry).find((r) => r.path === hotPath) : undefined;
  const at = row && geometry ? pointAt(geometry, row.path) : undefined;
  // Right-hand points count outward; in the drawing the right side is negative.
  const seen = at && row?.path.startsWith('right.') ? [at[0]!, -at[1]!, at[2]!] : at;
  const hot = row && seen ? { at: seen, name: row.label } : undefined;
  const carBody = useMemo(() => carOf(facts), [facts]);
  const tabs: [AxleName, string][] = [
    ['front', 'Front axle'],
    ['rear', axles.rear ? 'Rear axle' : 'Rear axle, not known'],
  ];
  return (
    <main className="main arrive-main">
      <section
        className="pane"
        style={{ padding: '14px 16px', overflowY: 'auto' }}
        aria-label="Vehicle facts"
      >
        {head}
        <Unkept typed={{ restored, drop: leave }} />
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
            <p className="small mut" style={{ gridColumn: '1 / -1', margin: '-6px 2px 0' }}>
              Heights: hub centre to arch lip, where the points were taken.
            </p>
            {plainNumbers.map(([k, l, u]) => fieldText(k, l, u))}
            {axles.front.layout === 'double_wishbone' && fieldText('eccentricity_mm', 'Cam throw', '')}
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
          <details className="fold">
            <summary data-testid="more-facts">Steering, springs, load, air levels</summary>
            <div style={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 12, marginTop: 12 }}>
              {carFields.map(([k, l, , u, optional]) => fieldText(`car.${k}`, l, u, optional))}
            </div>
            <p className="small mut" style={{ margin: '8px 2px 0' }}>
              Ratio: spring travel over wheel travel. Payload back: its centre behind the front axle. Shaft:
              inner joint of the left front drive shaft.
            </p>
            <div style={{ display: 'grid', gap: 12, marginTop: 12 }}>
              {linesText(
                'car.levels',
                'Air levels',
                `One a line: name, front, rear against as arrived (${unit}), such as Access -40 -40`,
                'a name, then two lengths',
              )}
              {linesText(
                'car.turns',
                'Bolt or collar turns, and what they gave',
                `One a line: turns, height gained after settling (${unit}), such as 2 9.5`,
                'turns, then a length',
              )}
            </div>
          </details>
        </div>
      </section>
      <div className="axle-column">
        <div className="tabs axles" role="tablist" aria-label="Axle">
          {tabs.map(([a, l]) => (
            <button
              key={a}
              type="button"
              role="tab"
              aria-selected={axle === a}
              className={axle === a ? 'on' : ''}
              onClick={() => setAxle(a)}
              data-testid={`axle-${a}`}
            >
              {l}
            </button>
          ))}
        </div>
        <AxleEditor
          key={axle}
          axle={axle}
          geometry={geometry}
          look={looks[axle]}
          problems={(fault?.problems ?? []).filter(
            (p) => p.field.includes('rear_geometry') === (axle === 'rear'),
          )}
          wheelbase={facts.wheelbase_mm || 3000}
          mode={modes[axle]}
          setMode={(m) => setModes((x) => ({ ...x, [axle]: m }))}
          change={change(axle)}
          bad={setPointFaults}
          hot={setHotPath}
        />
      </div>
      <MovePane
        car={Object.keys(allBad).length ? undefined : carBody}
        tyre={facts.tyre_size}
        rearTrack={facts.track_rear_mm}
        axle={geometry ? axle : 'front'}
        hot={hot}
        blocked={blocked}
      >
        {fault && !fault.problems.length && <span className="plate">{fault.message}</span>}
        {(firstBad || fault?.problems.length || trouble.length > 0) && (
          <span className="plate" data-testid="form-fault" style={{ fontSize: 14 }}>
            <Glyph name="clash" size={16} />
            {firstBad
              ? `${firstBad.replace(/_mm|points\.|car\./g, '').replaceAll('_', ' ')} ${allBad[firstBad]}`
              : fault?.problems.length
                ? `${fault.problems[0]?.field}: ${fault.problems[0]?.wrong}`
                : trouble[0]?.wrong}
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
      </MovePane>
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
