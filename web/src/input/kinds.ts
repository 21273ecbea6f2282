// What a field can ask for: how its text is read, what its label ends in, what would be right.
import {
  diameterMm,
  problemOf,
  readAngle,
  readLength,
  readNumber,
  readTyre,
  type Wrong,
} from '../units/notation';
import { example, measure, readIn, unitName, type Kind, type Units } from '../units/measure';
import { angle, length, num } from '../units/print';

export type FieldKind = 'length' | 'angle' | 'number' | Kind;

/** What was typed, as it is kept: mm, degrees, kPa, N, kg, km; undefined where it is none. */
export function readField(kind: FieldKind, text: string, u: Units): number | undefined {
  switch (kind) {
    case 'length':
      return readLength(text, u.length);
    case 'angle':
      return readAngle(text);
    case 'number':
      return readNumber(text);
    default:
      return readIn(kind, text, u);
  }
}

/** What stands behind the label: `mm`, `°`, `psi`. */
export function suffixOf(kind: FieldKind, u: Units): string {
  if (kind === 'number') return '';
  if (kind === 'length') return u.length;
  if (kind === 'angle') return '°';
  return unitName(kind, u).replace(/^\//, '1/');
}

/** What would be right. */
export function rightOf(kind: FieldKind, u: Units): string {
  switch (kind) {
    case 'length':
      return u.length === 'mm' ? 'a length such as 498 or 19 5/8in' : 'a length such as 19 5/8 or 498mm';
    case 'angle':
      return "an angle such as -0.4, 0°24' or 5/8in over 5 ft 6";
    case 'number':
      return 'a number such as 12.5';
    default:
      return `such as ${example(kind, u)}`;
  }
}

/** What is wrong with a text; undefined while nothing is typed or nothing is wrong. */
export const wrongOf = (kind: FieldKind, text: string, u: Units): Wrong | undefined =>
  problemOf(text, (t) => readField(kind, t, u), rightOf(kind, u));

/** What was typed in the shop's own unit, when it was typed in another way: `= 63.5 mm`. */
export function echoOf(kind: FieldKind, text: string, u: Units): string | undefined {
  const v = readField(kind, text, u);
  if (v === undefined || kind === 'number') return undefined;
  const plain = /^[-−+]?\s*[\d\s]*([.,]\d+)?\s*$/.test(text.trim());
  if (kind === 'length') {
    const own = u.length === 'mm' ? plain || text.trim().endsWith('mm') : !/mm|cm|m$/.test(text);
    return own ? undefined : `= ${u.length === 'mm' ? `${num(v, 1)} mm` : length(v, 'in')}`;
  }
  if (kind === 'angle') return plain || text.trim().endsWith('°') ? undefined : `= ${angle(v, u.angle, 2)}`;
  return plain ? undefined : `= ${measure(kind, v, u)}`;
}

/** A tyre size in words: its diameter, or an example. */
export function tyreWords(text: string, u: Units): string {
  const size = readTyre(text);
  if (!size) return 'such as 285/70R17 or 33x12.50R15';
  const d = diameterMm(size);
  return `${u.length === 'mm' ? `${num(d)} mm` : `${num(d / 25.4, 1)} in`} across, unloaded`;
}

/** What is wrong with a tyre size. */
export const tyreWrong = (text: string): Wrong | undefined =>
  problemOf(text, readTyre, 'a size such as 285/70R17 or 33x12.50R15');
