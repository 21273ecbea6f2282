// Fields of a vehicle as they are typed: what each is called, how its value is shown, and what was typed as facts again.
import type { Geometry, VehicleFacts } from '../../api/client';
import { readField, wrongOf, type FieldKind } from '../../input/kinds';
import { at, patch } from '../../input/paths';
import { MM_PER_INCH, type LengthUnit } from '../../units/print';
import { fieldText as inField, type Kind, type Units } from '../../units/measure';
import { carFields, carTexts, readCar } from './carFacts';
import type { Inspected } from './Inspect';
import { movingOf, movingTexts, type MovingTexts } from './moving';
import type { Found, HeightBy } from './turnable';

export type AxleName = 'front' | 'rear';
// Every field by its path in the facts.
export const lengths: [string, string][] = [
  ['wheelbase_mm', 'Wheelbase'],
  ['axles.front.track_mm', 'Front track'],
  ['axles.rear.track_mm', 'Rear track'],
  ['axles.front.height_mm', 'Front height'],
  ['axles.rear.height_mm', 'Rear height'],
];
export const measures: [string, string, Kind][] = [
  ['tread_depth_mm', 'Tread now', 'tread'],
  ['car.axles.front.load_n', 'Front load', 'load'],
  ['pressure_kpa', 'Pressure', 'pressure'],
  ['placard_kpa', 'Placard', 'pressure'],
];
const shown: ReadonlySet<string> = new Set([...lengths, ...measures].map(([k]) => k));
/** What a field is called, for a fault told away from it. */
export const labelOf = (k: string): string =>
  [...lengths, ...measures, ...carFields.map(([c, l]) => [`car.${c}`, l] as const)].find(
    ([p]) => p === k,
  )?.[1] ?? k.replace(/_mm|points\.|car\./g, '').replaceAll('_', ' ');
const known: [string, string][] = [
  ['archetype', 'Generic shape'],
  ['taped', 'Tape'],
  ['surveyed', 'Survey'],
];
export const choices: [string, string, [string, string][]][] = [
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
  ['axles.front.knowledge', 'Front known by', known],
  ['axles.rear.knowledge', 'Rear known by', known],
];

export type Texts = Record<string, string>;
/** What was picked from a list, by its path. */
export type Picks = Record<string, string>;
/** The rule book is picked whole: its text stands for it. */
export const bookKey = '#class_rules';

export function textsOf(f: VehicleFacts, units: Units): Texts {
  const unit = units.length;
  const len = (mm: number) => String(Math.round((unit === 'mm' ? mm : mm / MM_PER_INCH) * 1000) / 1000);
  const t: Texts = { name: f.name, tyre_size: f.tyre_size };
  const value = (k: string) => at(f, k) as number;
  for (const [k] of lengths) t[k] = len(value(k));
  for (const [k, , kind] of measures) t[k] = inField(kind, value(k), units);
  for (const [k, v] of Object.entries(carTexts(f.car, units))) t[`car.${k}`] = v;
  return t;
}

/** Fields of the fold-out, which no form asks for by itself. */
export const ofCar = (k: string) => k.startsWith('car.') && !shown.has(k);

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
  return k in filled ? filled[k] === t : (fresh || ofCar(k)) && start[k] === t;
}

/** What can be turned on an axle. */
export interface Turns {
  list: Found[];
  told: boolean;
  heightBy: HeightBy | null;
  upperShaft: boolean | null;
  /** What was looked at before it is read. */
  inspected: Inspected[];
  /** One wheel at several heights, as typed. */
  moving: MovingTexts;
}
export type Turned = Record<AxleName, Turns>;

export function turnsOf(f: VehicleFacts, axle: AxleName, unit: LengthUnit): Turns {
  const a = f.car.axles[axle];
  return {
    list: a.adjusters ?? [],
    told: a.adjusters_told ?? false,
    heightBy: a.height_by ?? null,
    upperShaft: a.upper_shaft ?? null,
    inspected: a.inspected ?? [],
    moving: movingTexts(a.moving, unit),
  };
}

export interface Axles {
  front: Geometry;
  rear: Geometry | null;
}

/** What was typed as facts, and which fields cannot be read. */
export function readFacts(
  start: VehicleFacts,
  t: Texts,
  picks: Picks,
  axles: Axles,
  turned: Turned,
  units: Units,
) {
  const bad: Record<string, string> = {};
  // What stands as it was shown is what it was, to the last digit, and what no field shows is not touched.
  const texts = textsOf(start, units);
  const same = (k: string) => t[k] === texts[k];
  const read1 = (k: string, kind: FieldKind) => {
    const v = readField(kind, t[k] ?? '', units);
    if (v === undefined || (t[k] ?? '').replace(/\D/g, '').length > 9)
      bad[k] = t[k]?.trim()
        ? (wrongOf(kind, t[k]!, units)?.wrong ?? 'cannot be read')
        : 'nothing was entered';
    return v ?? 0;
  };
  const by = (k: string, kind: FieldKind) => {
    const was = at(start, k);
    return same(k) && typeof was === 'number' ? was : read1(k, kind);
  };
  const name = (t.name ?? '').slice(0, 90) || 'Vehicle';
  const car = Object.fromEntries(
    Object.entries(t)
      .filter(([k]) => ofCar(k))
      .map(([k, v]) => [k.slice(4), v]),
  );
  let facts: VehicleFacts = {
    ...start,
    name: t.name ?? '',
    tyre_size: t.tyre_size ?? '',
    axles: {
      front: { ...start.axles.front, geometry: { ...axles.front, axle: 'front', name: `${name}, front` } },
      rear: {
        ...start.axles.rear,
        geometry: axles.rear && { ...axles.rear, axle: 'rear', name: `${name}, rear` },
      },
    },
    car: readCar(start.car, car, units, bad),
  };
  for (const [k, v] of Object.entries(picks))
    facts = k === bookKey ? patch(facts, 'class_rules', JSON.parse(v)) : patch(facts, k, v);
  for (const [k] of lengths) facts = patch(facts, k, by(k, 'length'));
  for (const [k, , kind] of measures) facts = patch(facts, k, by(k, kind));
  for (const axle of ['front', 'rear'] as const) {
    const at = `car.axles.${axle}`;
    facts = patch(facts, `${at}.adjusters`, turned[axle].list);
    facts = patch(facts, `${at}.adjusters_told`, turned[axle].told);
    if (turned[axle].heightBy || start.car.axles[axle].height_by)
      facts = patch(facts, `${at}.height_by`, turned[axle].heightBy);
    if (turned[axle].upperShaft !== null || start.car.axles[axle].upper_shaft != null)
      facts = patch(facts, `${at}.upper_shaft`, turned[axle].upperShaft);
    if (turned[axle].inspected.length || start.car.axles[axle].inspected)
      facts = patch(facts, `${at}.inspected`, turned[axle].inspected);
    const was = movingTexts(start.car.axles[axle].moving, units.length);
    if (JSON.stringify(was) !== JSON.stringify(turned[axle].moving)) {
      const m = movingOf(turned[axle].moving, units.length, axle === 'front');
      for (const [k, v] of Object.entries(m.bad)) bad[`${axle} wheel moving, height ${Number(k[0]) + 1}`] = v;
      facts = patch(facts, `${at}.moving`, m.moving);
    }
  }
  return { facts, bad };
}
