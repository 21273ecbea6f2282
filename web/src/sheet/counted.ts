// How an amount of an order is stepped: whole notches, turns in the fractions a spanner follows, half mm or 16ths, degrees.
import type { Schemas } from '../api/client';
import { readAngle, readCount, readLength } from '../units/notation';
import { length, MM_PER_INCH, type LengthUnit } from '../units/print';

type InHand = Schemas['InHand'];

/** `1 3/4`, `2/3`, `-1/12`, `2`: turns to the nearest twenty-fourth. */
export function inTurns(v: number): string {
  const n = Math.round(Math.abs(v) * 24);
  const [whole, rest] = [Math.floor(n / 24), n % 24];
  const by = [12, 8, 6, 4, 3, 2].find((d) => rest % d === 0 && 24 % d === 0) ?? 1;
  const part = rest ? `${rest / by}/${24 / by}` : '';
  const text = [whole || !part ? String(whole) : '', part].filter(Boolean).join(' ');
  return v < 0 && n > 0 ? `-${text}` : text;
}

/** One press of plus or minus, in what the amount is counted in. */
const stepOf = (h: InHand, unit: LengthUnit): number =>
  h.counted === 'notches'
    ? 1
    : h.counted === 'turns'
      ? 1 / 12
      : h.counted === 'degrees'
        ? 0.1
        : unit === 'in'
          ? MM_PER_INCH / 16
          : 0.5;

/** An amount as it is counted and typed, less than nothing where it went the other way; notches to the half, as an eye on the marks
 *  has them. */
export const writtenAmount = (h: InHand, v: number, unit: LengthUnit): string =>
  h.counted === 'notches'
    ? String(Math.round(v * 2) / 2)
    : h.counted === 'turns'
      ? inTurns(Math.round(v * 12) / 12)
      : written(h, v, unit);

/** The same with what it is counted in, where nothing beside it says so. */
export function amountWords(h: InHand, v: number, unit: LengthUnit): string {
  const text = writtenAmount(h, v, unit);
  const one = Number(text) === 1;
  if (h.counted === 'notches') return `${text} ${one ? 'notch' : 'notches'}`;
  if (h.counted === 'turns') return `${text} ${one || v < 1 ? 'turn' : 'turns'}`;
  return h.counted === 'degrees' ? `${text}°` : length(v, unit, 1);
}

const written = (h: InHand, v: number, unit: LengthUnit): string => {
  const round = (x: number, d: number) => String(Math.round(x * 10 ** d) / 10 ** d);
  if (h.counted === 'notches') return round(v, 0);
  if (h.counted === 'turns') return inTurns(v);
  if (h.counted === 'degrees') return round(v, 2);
  return unit === 'mm' ? round(v, 1) : length(v, 'in');
};

/** The amount one press farther or less far than what is typed, or than what was ordered; none where that cannot be read. */
export function stepped(h: InHand, text: string, by: 1 | -1, unit: LengthUnit): string | undefined {
  const from = text.trim() ? amountOf(text, h, unit) : h.ordered;
  if (from === undefined) return undefined;
  const step = stepOf(h, unit);
  const n = from / step + by;
  // On the comb of steps: an odd sixth of a turn goes to the next twelfth.
  return written(h, (by > 0 ? Math.floor(n + 1e-6) : Math.ceil(n - 1e-6)) * step, unit);
}

/** What was typed, as it is counted; the server has the last word. */
const amountOf = (text: string, h: InHand, unit: LengthUnit): number | undefined =>
  h.counted === 'length'
    ? readLength(text, unit)
    : h.counted === 'degrees'
      ? readAngle(text)
      : readCount(text);
