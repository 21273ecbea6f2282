// What is written by hand, read: lengths, angles, numbers, pressures, masses, tyre sizes. The same notation as the core's,
// held to it by data/notation.json, which the tests of both read. What could be two things is refused, never guessed.
import { MM_PER_INCH, type LengthUnit } from './print';

/** What is wrong with a text, and what would be right. */
export interface Wrong {
  wrong: string;
  right: string;
}

export const KPA_PER_PSI = ((0.45359237 * 9.80665) / (25.4 * 25.4)) * 1000;
export const KG_PER_LB = 0.45359237;
/** Most characters a number may have, and the largest that is read. */
const LONGEST = 40;
const LARGEST = 1e9;
const VULGAR: Record<string, number> = {
  '½': 1 / 2, '⅓': 1 / 3, '⅔': 2 / 3, '¼': 1 / 4, '¾': 3 / 4, '⅕': 1 / 5, '⅖': 2 / 5, '⅗': 3 / 5, '⅘': 4 / 5,
  '⅙': 1 / 6, '⅚': 5 / 6, '⅐': 1 / 7, '⅛': 1 / 8, '⅜': 3 / 8, '⅝': 5 / 8, '⅞': 7 / 8, '⅑': 1 / 9, '⅒': 1 / 10, '↉': 0,
}; // prettier-ignore

/** Typographic minus signs, primes and spaces made plain. */
const plain = (text: string) =>
  text
    .replace(/[−–—]/g, '-')
    .replace(/[\u2009\u202f\u00a0\t]/g, ' ')
    .replace(/⁄/g, '/')
    .replace(/[′’]/g, "'")
    .replace(/[″”]/g, '"')
    .replace(/º/g, '°')
    .trim()
    .toLowerCase();

/** Splits a sign off the front. */
function signOf(text: string): [number, string] {
  if (text.startsWith('-')) return [-1, text.slice(1).trimStart()];
  return [1, (text.startsWith('+') ? text.slice(1) : text).trimStart()];
}

/** The two readings of a number whose one comma may be a decimal comma or part thousands. */
export function bothReadings(text: string): [number, number] | undefined {
  const m = /^[-+]?\s*([1-9]\d{0,2}),(\d{3})$/.exec(plain(text));
  return m ? [Number(`${m[1]}.${m[2]}`), Number(`${m[1]}${m[2]}`)] : undefined;
}

/** A decimal number without a sign. */
function decimal(text: string): number | undefined {
  const t = text.trim();
  if (!t || t.length > LONGEST || bothReadings(t)) return undefined;
  let whole = t;
  let part = '';
  const point = t.indexOf('.');
  if (point >= 0) {
    whole = t.slice(0, point);
    part = t.slice(point + 1);
  } else if (t.split(',').length === 2) {
    [whole, part] = t.split(',') as [string, string];
  }
  if (/^\d{1,3}([, ]\d{3})+$/.test(whole)) whole = whole.replace(/[, ]/g, '');
  if (!/^\d*$/.test(whole) || !/^\d*$/.test(part) || !(whole || part)) return undefined;
  const v = Number(`${whole || '0'}.${part || '0'}`);
  return v < LARGEST ? v : undefined;
}

/** Whole and fraction, `37 13/16`, `37-13/16`, `37½`, or a decimal; without a sign. */
function mixed(text: string): number | undefined {
  const t = text.trim();
  const glyph = [...t].find((c) => c in VULGAR);
  if (glyph) {
    const at = t.indexOf(glyph);
    const whole = t.slice(0, at).trim();
    if (t.slice(at + glyph.length).trim() || (whole && !/^\d{1,9}$/.test(whole))) return undefined;
    return Number(whole || 0) + VULGAR[glyph]!;
  }
  if (!t.includes('/')) return decimal(t);
  const m = /^(?:(\d{1,9})[ -]+)?(\d{1,9}) *\/ *(\d{1,9})$/.exec(t);
  if (!m) return undefined;
  const [whole, n, d] = [Number(m[1] ?? 0), Number(m[2]), Number(m[3])];
  return d === 0 || (n >= d && whole > 0) ? undefined : whole + n / d;
}

const LENGTHS: [string, number][] = [
  ['inches', MM_PER_INCH],
  ['inch', MM_PER_INCH],
  ['in', MM_PER_INCH],
  ['"', MM_PER_INCH],
  ['mm', 1],
  ['cm', 10],
  ['m', 1000],
];
const FEET = /^(.*?)(?:feet|foot|ft|')(.*)$/;

/** A length without a sign, mm; `bare` is what a number without a unit means. */
function lengthOf(body: string, bare: number): number | undefined {
  if (body.includes('°') || body.endsWith('deg')) return undefined;
  const feet = FEET.exec(body);
  if (feet) {
    const rest = feet[2]!
      .trim()
      .replace(/(inches|inch|in|")$/, '')
      .trim();
    const [f, i] = [mixed(feet[1]!), rest ? mixed(rest) : 0];
    return f === undefined || i === undefined || i >= 12 ? undefined : (12 * f + i) * MM_PER_INCH;
  }
  for (const [name, scale] of LENGTHS)
    if (body.endsWith(name)) {
      const v = mixed(body.slice(0, -name.length));
      return v === undefined ? undefined : v * scale;
    }
  const v = mixed(body);
  return v === undefined ? undefined : v * bare;
}

/** A length in mm: `65`, `2 9/16 in`, `2½”`, `5 ft 6`; undefined when it is none. */
export function readLength(text: string, unit: LengthUnit): number | undefined {
  const [sign, body] = signOf(plain(text));
  const v = lengthOf(body, unit === 'mm' ? 1 : MM_PER_INCH);
  return v === undefined ? undefined : sign * v;
}

/** No angle has thousands of degrees, so a comma is the point whatever follows it. */
const degrees = (text: string) => bothReadings(text)?.[0] ?? decimal(text);

function minutesOf(text: string): number | undefined {
  return degrees(
    text
      .trim()
      .replace(/(min|m)$/, '')
      .replace(/'$/, ''),
  );
}

/** A rise over a run as an angle, degrees: `5/8 in over 5 ft 6`, `1/8 in per foot`, `3 over 400`. */
function slope(rise: string, run: string): number | undefined {
  const named = (t: string) => FEET.test(t) || LENGTHS.some(([n]) => t.endsWith(n));
  const unit = (t: string) => (FEET.test(t) ? MM_PER_INCH : (LENGTHS.find(([n]) => t.endsWith(n))?.[1] ?? 1));
  const [a, b] = [rise.trim(), run.trim()];
  const over = /^(foot|ft|inch|in|m|cm)$/.test(b) ? `1 ${b}` : b;
  const up = lengthOf(a, named(over) && !named(a) ? unit(over) : 1);
  const along = lengthOf(over, named(a) && !named(over) ? unit(a) : 1);
  if (up === undefined || !along) return undefined;
  return (Math.atan(up / along) * 180) / Math.PI;
}

/** An angle in degrees: `2.25`, `0°24'`, `24'`, `1/8 in per foot`; undefined when it is none. */
export function readAngle(text: string): number | undefined {
  const [sign, body] = signOf(plain(text));
  const by = / (?:over|per) /.exec(` ${body} `.replace(/^ | $/g, ' '));
  if (by) {
    const v = slope(...(body.split(/\b(?:over|per)\b/) as [string, string]));
    return v === undefined ? undefined : sign * v;
  }
  if (/(mm|in|")$/.test(body) && !body.endsWith('min')) return undefined;
  const v = angleOf(body);
  return v === undefined ? undefined : sign * v;
}

function angleOf(body: string): number | undefined {
  const said = /^(.*?)(?:°|deg|d)(.*)$/.exec(body);
  if (said) {
    const rest = said[2]!.trim();
    if (!rest) return mixed(said[1]!) ?? degrees(said[1]!);
    const [d, m] = [degrees(said[1]!), minutesOf(rest)];
    return d === undefined || m === undefined || m >= 60 || !Number.isInteger(d) ? undefined : d + m / 60;
  }
  if (/('|min|m)$/.test(body)) {
    const m = minutesOf(body);
    return m === undefined ? undefined : m / 60;
  }
  return degrees(body);
}

/** A count as it is turned: `3`, `1 3/4`, `-2`, `1½`; undefined when it is none. */
export function readCount(text: string): number | undefined {
  const [sign, body] = signOf(plain(text));
  const v = mixed(body);
  return v === undefined ? undefined : sign * v;
}

/** A plain number; undefined for none, and where a comma could be either. */
export function readNumber(text: string): number | undefined {
  const [sign, body] = signOf(plain(text));
  const v = decimal(body);
  return v === undefined ? undefined : sign * v;
}

function scaled(text: string, units: [string, number][]): number | undefined {
  const t = plain(text);
  for (const [name, scale] of units)
    if (t.endsWith(name)) {
      const v = decimal(t.slice(0, -name.length));
      return v === undefined ? undefined : v * scale;
    }
  return undefined;
}

/** A pressure in kPa: `240 kPa`, `2.4 bar`, `35 psi`; a bare number below 8 is bar, below 90 psi, else kPa. */
export function readPressure(text: string): number | undefined {
  const told = scaled(text, [
    ['kpa', 1],
    ['bar', 100],
    ['psi', KPA_PER_PSI],
  ]);
  if (told !== undefined) return told;
  const v = decimal(plain(text));
  return v === undefined ? undefined : v < 8 ? v * 100 : v < 90 ? v * KPA_PER_PSI : v;
}

/** A mass in kg: `80`, `80 kg`, `180 lb`. */
export const readMass = (text: string): number | undefined =>
  scaled(text, [
    ['kg', 1],
    ['lbs', KG_PER_LB],
    ['lb', KG_PER_LB],
  ]) ?? decimal(plain(text));

export interface TyreSize {
  section_mm: number;
  aspect: number;
  rim_in: number;
}

/** A nominal tyre size: `285/70R17`, `LT285/70 R17`, `33x12.50R15`; undefined when it is none. */
export function readTyre(text: string): TyreSize | undefined {
  const t = text.trim().toUpperCase();
  const metric = /^[A-Z ]*(\d{3}) *\/ *(\d{2})[ZRDB -]*(\d{2}(?:\.\d)?)/.exec(t);
  if (metric)
    return inRange({ section_mm: Number(metric[1]), aspect: Number(metric[2]), rim_in: Number(metric[3]) });
  const inch =
    /^(\d{2}(?:[.,]\d{1,2})?) *[X×] *(\d{1,2}(?:[.,]\d{1,2})?)[ZRDB -]*(\d{2}(?:\.\d)?)(?![\d.])/.exec(t);
  if (!inch) return undefined;
  const [across, wide, rim] = [1, 2, 3].map((i) => Number(inch[i]!.replace(',', '.'))) as [
    number,
    number,
    number,
  ];
  const section_mm = wide * MM_PER_INCH;
  return inRange({
    section_mm,
    aspect: (((across - rim) * MM_PER_INCH) / 2 / section_mm) * 100,
    rim_in: rim,
  });
}

function inRange(s: TyreSize): TyreSize | undefined {
  const within = (v: number, low: number, high: number) => v >= low && v <= high;
  return within(s.section_mm, 105, 405) && within(s.aspect, 20, 95) && within(s.rim_in, 10, 26)
    ? s
    : undefined;
}

/** Unloaded outside diameter of a size, mm. */
export const diameterMm = (s: TyreSize): number =>
  s.rim_in * MM_PER_INCH + (2 * s.section_mm * s.aspect) / 100;

/** What is wrong with a text that `read` cannot read; undefined while nothing is typed or nothing is wrong. */
export function problemOf<T>(
  text: string,
  read: (t: string) => T | undefined,
  right: string,
): Wrong | undefined {
  if (!text.trim() || /^[-−+]$/.test(text.trim())) return undefined;
  if (read(text) !== undefined) return undefined;
  const both = bothReadings(/^[-+]?[\d,]+/.exec(plain(text))?.[0] ?? '');
  if (both)
    return {
      wrong: `“${text.trim()}” can be ${both[0]} or ${both[1]}`,
      right: `${both[0]} with a point, or ${both[1]} without the comma`,
    };
  return { wrong: `“${text.trim().slice(0, 24)}” cannot be read`, right };
}
