// Vehicle facts, both axles, and the drawings that follow every keystroke.
import { Button, MenuItem, TextField } from '@mui/material';
import { useEffect, useMemo, useRef, useState } from 'react';
import { ApiProblem, type Geometry, type VehicleFacts } from '../../api/client';
import { Glyph } from '../../ui/glyphs';
import { useSettings } from '../../shell/settings';
import { useShop } from '../../shell/ticket';
import { readDraft, writeDraft } from '../../shell/drafts';
import { Unkept } from '../../shell/Unkept';
import { MM_PER_INCH } from '../../units/print';
import { fieldText as inField, type Kind, type Units } from '../../units/measure';
import { MeasureField, TyreField } from '../../input/Field';
import { readField, wrongOf, rightOf, type FieldKind } from '../../input/kinds';
import { AxleEditor, type Mode, type Via } from './AxleEditor';
import { carOf, useLook } from './car';
import { carFields, carTexts, readCar } from './carFacts';
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
const measures: [keyof VehicleFacts & string, string, Kind][] = [
  ['tread_depth_mm', 'Tread now', 'tread'],
  ['front_load_n', 'Front load', 'load'],
  ['pressure_kpa', 'Pressure', 'pressure'],
  ['placard_kpa', 'Placard', 'pressure'],
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

function textsOf(f: VehicleFacts, units: Units): Texts {
  const unit = units.length;
  const len = (mm: number) => String(Math.round((unit === 'mm' ? mm : mm / MM_PER_INCH) * 1000) / 1000);
  const t: Texts = { name: f.name, tyre_size: f.tyre_size };
  const facts = f as unknown as Record<string, number>;
  for (const [k] of lengths) t[k] = len(facts[k] ?? 0);
  for (const [k, , kind] of measures) t[k] = inField(kind, facts[k], units);
  const cam = f.adjusters.find((a) => a.kind === 'eccentric');
  t.eccentricity_mm = len(cam && 'eccentricity_mm' in cam ? cam.eccentricity_mm : 3.2);
  for (const [k, v] of Object.entries(carTexts(f.car, units))) t[`car.${k}`] = v;
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
  units: Units,
) {
  const bad: Record<string, string> = {};
  // What stands as it was shown is what it was, to the last digit, and what no field shows is not touched.
  const shown = textsOf(start, units);
  const same = (k: string) => t[k] === shown[k];
  const was = start as unknown as Record<string, number>;
  const read1 = (k: string, kind: FieldKind) => {
    const v = readField(kind, t[k] ?? '', units);
    if (v === undefined || (t[k] ?? '').replace(/\D/g, '').length > 9)
      bad[k] = t[k]?.trim()
        ? (wrongOf(kind, t[k]!, units)?.wrong ?? 'cannot be read')
        : 'nothing was entered';
    return v ?? 0;
  };
  const len = (k: string) => {
    if (same(k) && k in was) return was[k]!;
    return read1(k, 'length');
  };
  const by = (k: string, kind: Kind) => (same(k) && k in was ? was[k]! : read1(k, kind));
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
    car: readCar(start.car, car, units, bad),
  } as VehicleFacts;
  const rec = facts as unknown as Record<string, unknown>;
  for (const [k] of lengths) rec[k] = len(k);
  for (const [k, , kind] of measures) rec[k] = by(k, kind);
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
  /** Units it was typed in. */
  units: Units;
  texts: Texts;
  picks: Partial<VehicleFacts>;
  axles?: Axles;
}

export function VehicleForm({ start, fault, busy, action, done, head, extra, fresh, draftKey }: Props) {
  const { unit, units } = useSettings();
  const shop = useShop();
  const usual = shop.data?.starter.adjusters ?? start.adjusters;
  const [kept] = useState(() => readDraft<Draft>(draftKey));
  const [restored, setRestored] = useState(!!kept);
  const own = (): Axles => ({ front: start.geometry, rear: start.rear_geometry ?? null });
  const [texts, setTexts] = useState<Texts>(() => ({
    ...textsOf(start, kept?.units ?? units),
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
  const shown = useRef(kept?.units ?? units);
  const { facts, bad } = useMemo(
    () => read(start, usual, texts, picks, axles, shown.current),
    [start, usual, texts, picks, axles],
  );
  // A change of unit rewrites what can be read; what cannot stays as typed.
  useEffect(() => {
    if (shown.current === units) return;
    const was = shown.current;
    shown.current = units;
    setTexts((t) => {
      const { facts: f, bad: b } = read(start, usual, t, picks, axles, was);
      const fresh = textsOf(f, units);
      // What a shape put there is still its own in the other unit.
      for (const [k, v] of Object.entries(filled.current)) if (v === t[k]) filled.current[k] = fresh[k] ?? v;
      return Object.fromEntries(Object.keys(t).map((k) => [k, b[k] ? t[k]! : (fresh[k] ?? t[k]!)]));
    });
  }, [units, start, usual, picks, axles]);
  // Kept in the browser while it differs from what is saved: another stage, a reload or a dead server loses nothing.
  useEffect(() => {
    const plain = textsOf(start, shown.current);
    const mine = Object.fromEntries(Object.entries(texts).filter(([k, t]) => t !== plain[k]));
    const moved = JSON.stringify(axles) !== JSON.stringify(own());
    const changed = Object.keys(mine).length > 0 || Object.keys(picks).length > 0 || moved;
    writeDraft<Draft>(
      draftKey,
      changed ? { units: shown.current, texts: mine, picks, ...(moved && { axles }) } : undefined,
    );
    // `own` is made of `start`.
    // eslint-disable-next-line
  }, [draftKey, start, texts, picks, axles]);
  const leave = () => {
    writeDraft(draftKey, undefined);
    setTexts(textsOf(start, units));
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
    const usualCar = shop.data?.starter.car ?? start.car;
    const plain = textsOf(fresh ? start : { ...start, car: usualCar }, units);
    return fresh ? plain : Object.fromEntries(Object.entries(plain).filter(([k]) => k.startsWith('car.')));
  }, [start, units, fresh, shop.data]);
  const fieldText = (k: string, label: string, kind: FieldKind, suffix?: string, optional = false) => (
    <MeasureField
      key={k}
      kind={kind}
      label={label}
      suffix={suffix}
      text={texts[k] ?? ''}
      onText={(t) => set(k, t)}
      // What the field finds itself it says itself.
      fault={wrongOf(kind, texts[k] ?? '', units) ? undefined : wrongAt(k, rightOf(kind, units))}
      placeholder={optional ? 'not known' : ''}
      testid={k}
      // Inside the field: nothing moves when it is typed over.
      end={isUsual(k, texts[k], given, filled.current, !!fresh) && <span className="small mut">usual</span>}
    />
  );
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
        const standing = filled.current[field] ?? (fresh ? textsOf(start, units)[field] : undefined);
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
          <TyreField
            label="Tyre size"
            text={texts.tyre_size ?? ''}
            onText={(t) => set('tyre_size', t)}
            fault={serverFault('tyre_size')}
            testid="tyre_size"
          />
          <div style={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 12 }}>
            {lengths.map(([k, l]) => fieldText(k, l, 'length'))}
            <p className="small mut" style={{ gridColumn: '1 / -1', margin: '-6px 2px 0' }}>
              Heights: hub centre to arch lip, where the points were taken.
            </p>
            {measures.map(([k, l, kind]) => fieldText(k, l, kind))}
            {axles.front.layout === 'double_wishbone' && fieldText('eccentricity_mm', 'Cam throw', 'length')}
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
              {carFields.map(([k, l, kind, u, optional]) => fieldText(`car.${k}`, l, kind, u, optional))}
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
        unread={Object.keys(allBad).length > 0}
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
