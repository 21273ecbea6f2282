// How an amount of an order is typed and stepped: whole notches, turns in the fractions a spanner follows, mm or 32nds, degrees.
import type { Schemas } from '../api/client';
import { MM_PER_INCH, type LengthUnit } from '../units/print';

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
          ? MM_PER_INCH / 32
          : 0.5;

const written = (h: InHand, v: number, unit: LengthUnit): string => {
  const round = (x: number, d: number) => String(Math.round(x * 10 ** d) / 10 ** d);
  if (h.counted === 'notches') return round(v, 0);
  if (h.counted === 'turns') return inTurns(v);
  if (h.counted === 'degrees') return round(v, 2);
  if (unit === 'mm') return round(v, 1);
  const n = Math.round((Math.abs(v) / MM_PER_INCH) * 32);
  const sign = v < 0 && n > 0 ? '-' : '';
  const [whole, rest] = [Math.floor(n / 32), n % 32];
  const by = [16, 8, 4, 2].find((d) => rest % d === 0) ?? 1;
  return `${sign}${[whole || !rest ? String(whole) : '', rest ? `${rest / by}/${32 / by}` : ''].filter(Boolean).join(' ')} in`;
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

/** What was stepped or typed plainly: `2`, `1 1/4`, `-1/12`, `3/8 in`. The server reads everything else. */
export function amountOf(text: string, h: InHand, unit: LengthUnit): number | undefined {
  const m = /^([-−])?\s*(?:(\d+(?:[.,]\d+)?)(?:\s+(\d+)\/(\d+))?|(\d+)\/(\d+))\s*(in|mm)?$/.exec(text.trim());
  if (!m) return undefined;
  const [, sign, whole, n, d, n2, d2, u] = m;
  const v = whole
    ? Number(whole.replace(',', '.')) + (n ? Number(n) / Number(d) : 0)
    : Number(n2) / Number(d2);
  const inches = h.counted === 'length' && (u === 'in' || (!u && unit === 'in'));
  return (sign ? -1 : 1) * v * (inches ? MM_PER_INCH : 1);
}
