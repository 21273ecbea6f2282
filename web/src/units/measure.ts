// What a shop works in, and quantities in it: each is kept in one unit (kPa, N, kg, km, mm) and printed and read in another.
import { KG_PER_LB, KPA_PER_PSI, readLength, readMass, readNumber, readPressure } from './notation';
import { MM_PER_INCH, num, type AngleForm, type DecimalSign, type LengthUnit } from './print';

export interface Units {
  length: LengthUnit;
  angle: AngleForm;
  pressure: 'kpa' | 'bar' | 'psi';
  load: 'n' | 'kg' | 'lb';
  distance: 'km' | 'miles';
  tread: 'mm' | 'in32';
  decimal: DecimalSign;
}
/** What may be chosen by itself; what is not goes with the length. */
export type Own = Partial<Pick<Units, 'pressure' | 'load' | 'distance' | 'tread' | 'decimal'>>;

/** What decimals stand behind where this browser is at home. */
export const decimalHere = (): DecimalSign =>
  new Intl.NumberFormat().formatToParts(1.5).some((p) => p.type === 'decimal' && p.value === ',')
    ? 'comma'
    : 'point';

/** Every unit: what goes with the length, and what was chosen by itself. */
export function unitsOf(length: LengthUnit, angle: AngleForm, own: Own = {}): Units {
  const usual =
    length === 'in'
      ? ({ pressure: 'psi', load: 'lb', distance: 'miles', tread: 'in32' } as const)
      : ({ pressure: 'kpa', load: 'n', distance: 'km', tread: 'mm' } as const);
  return { length, angle, decimal: decimalHere(), ...usual, ...own };
}

/** Quantities that are kept in kPa, N, kg, km, mm of tread, N/mm of a spring. */
export type Kind = 'pressure' | 'load' | 'mass' | 'distance' | 'tread' | 'rate';

const GRAVITY = 9.80665;
const KM_PER_MILE = 1.609344;
const N_PER_LB = GRAVITY * KG_PER_LB;
const MM_PER_32ND = MM_PER_INCH / 32;

interface Form {
  name: string;
  /** Kept unit in one of these. */
  scale: number;
  /** Decimals that mean something. */
  digits: number;
  /** Decimals in a field. */
  typed: number;
}
const forms = {
  pressure: {
    kpa: { name: 'kPa', scale: 1, digits: 0, typed: 1 },
    bar: { name: 'bar', scale: 100, digits: 2, typed: 2 },
    psi: { name: 'psi', scale: KPA_PER_PSI, digits: 0, typed: 1 },
  },
  load: {
    n: { name: 'N', scale: 1, digits: 0, typed: 0 },
    kg: { name: 'kg', scale: GRAVITY, digits: 0, typed: 1 },
    lb: { name: 'lb', scale: N_PER_LB, digits: 0, typed: 0 },
  },
  mass: {
    n: { name: 'kg', scale: 1, digits: 0, typed: 1 },
    kg: { name: 'kg', scale: 1, digits: 0, typed: 1 },
    lb: { name: 'lb', scale: KG_PER_LB, digits: 0, typed: 0 },
  },
  rate: {
    n: { name: 'N/mm', scale: 1, digits: 1, typed: 2 },
    kg: { name: 'kg/mm', scale: GRAVITY, digits: 2, typed: 3 },
    lb: { name: 'lb/in', scale: N_PER_LB / MM_PER_INCH, digits: 0, typed: 1 },
  },
  distance: {
    km: { name: 'km', scale: 1, digits: 0, typed: 0 },
    miles: { name: 'mi', scale: KM_PER_MILE, digits: 0, typed: 0 },
  },
  tread: {
    mm: { name: 'mm', scale: 1, digits: 1, typed: 2 },
    in32: { name: '/32 in', scale: MM_PER_32ND, digits: 1, typed: 1 },
  },
} as const;

function formOf(kind: Kind, u: Units): Form {
  switch (kind) {
    case 'pressure':
      return forms.pressure[u.pressure];
    case 'load':
    case 'mass':
    case 'rate':
      return forms[kind][u.load];
    case 'distance':
      return forms.distance[u.distance];
    case 'tread':
      return forms.tread[u.tread];
  }
}

/** `psi`, `/32 in`: what stands behind a number of the kind. */
export const unitName = (kind: Kind, u: Units): string => formOf(kind, u).name;
/** A kept value as a number in the units. */
export const inUnits = (kind: Kind, v: number, u: Units): number => v / formOf(kind, u).scale;
/** A number in the units as it is kept. */
export const kept = (kind: Kind, v: number, u: Units): number => v * formOf(kind, u).scale;

/** The number alone, with the decimals that mean something. */
export const bare = (kind: Kind, v: number, u: Units): string =>
  num(inUnits(kind, v, u), formOf(kind, u).digits);

/** With its unit: `35 psi`, `6.5/32 in`. */
export function measure(kind: Kind, v: number, u: Units): string {
  const name = unitName(kind, u);
  return `${bare(kind, v, u)}${name.startsWith('/') ? '' : ' '}${name}`;
}

/** As it stands in a field: as somebody would have typed it. What nobody touches is kept whole by the form. */
export function fieldText(kind: Kind, v: number | null | undefined, u: Units): string {
  if (v === null || v === undefined) return '';
  const by = 10 ** formOf(kind, u).typed;
  return String(Math.round(inUnits(kind, v, u) * by) / by);
}

const told: Record<Kind, RegExp> = {
  pressure: /(kpa|bar|psi)$/i,
  load: /(n|kg|lbs?)$/i,
  mass: /(kg|lbs?)$/i,
  rate: /((?:n|kg|lbs?)\s*\/\s*(?:mm|in))$/i,
  distance: /(km|mi|miles?)$/i,
  tread: /(mm|in|"|”|″|32nds?)$/i,
};

/** What is typed in a field of the kind, as it is kept; a unit behind the number goes before the shop's. */
export function readIn(kind: Kind, text: string, u: Units): number | undefined {
  const t = text.trim();
  const unit = told[kind].exec(t)?.[1]?.toLowerCase();
  const back = (v: number | undefined, scale: number) => (v === undefined ? undefined : v * scale);
  if (!unit) {
    const of32 = kind === 'tread' ? /^(\d+(?:[.,]\d+)?)\s*\/\s*32$/.exec(t) : null;
    if (of32) return back(readNumber(of32[1]!), MM_PER_32ND);
    return back(readNumber(t), formOf(kind, u).scale);
  }
  const number = t.slice(0, -unit.length);
  switch (kind) {
    case 'pressure':
      return readPressure(t);
    case 'mass':
      return readMass(t);
    case 'load':
      return unit === 'n' ? readNumber(number) : back(readMass(t), GRAVITY);
    case 'distance':
      return back(readNumber(number), unit === 'km' ? 1 : KM_PER_MILE);
    case 'tread':
      return unit.startsWith('32') ? back(readNumber(number), MM_PER_32ND) : readLength(t, 'mm');
    case 'rate': {
      const per = unit.endsWith('in') ? MM_PER_INCH : 1;
      const load = unit.startsWith('n') ? 1 : unit.startsWith('kg') ? GRAVITY : N_PER_LB;
      return back(readNumber(number), load / per);
    }
  }
}

/** An example of what can be typed. */
export function example(kind: Kind, u: Units): string {
  const v = { pressure: 240, load: 6000, mass: 80, rate: 40, distance: 38600, tread: 5.6 }[kind];
  return `${num(inUnits(kind, v, u), formOf(kind, u).digits)}${kind === 'tread' && u.tread === 'in32' ? '/32' : ` ${unitName(kind, u)}`}`;
}

/** A distance rounded to what it can hold, unbroken spaces between thousands: `31 000`. */
export function far(km: number, u: Units): string {
  const d = inUnits('distance', km, u);
  if (!Number.isFinite(d)) return '—';
  const step = d >= 10000 ? 1000 : d >= 1000 ? 100 : 10;
  return String(Math.round(d / step) * step).replace(/\B(?=(\d{3})+(?!\d))/g, '\u00a0');
}
/** With its unit: `31 000 km`. */
export const farUnit = (km: number, u: Units): string => `${far(km, u)} ${unitName('distance', u)}`;

/** Range of a band of distances in thousands, `(22–43)`. */
export function farRange(low: number, high: number, u: Units): string {
  const k = (km: number) => {
    const v = Math.max(0, inUnits('distance', km, u));
    return v < 9950 ? num(v / 1000, 1) : String(Math.round(v / 1000));
  };
  return `(${k(low)}–${k(high)})`;
}

/** Half of what holds nine readings in ten, of one standard deviation (a normal's, as everywhere in the program). */
export const halfWidth = (sigma: number): number => 1.6449 * sigma;
