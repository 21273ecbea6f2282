// Printing in the user's units. Reading is the server's: what is typed is sent as typed.
export type LengthUnit = 'mm' | 'in';
export type AngleForm = 'decimal' | 'minutes';
/** What parts a whole number from its decimals. */
export type DecimalSign = 'point' | 'comma';

const MINUS = '−';
export const MM_PER_INCH = 25.4;

let point = '.';
/** From now on decimals stand behind this. */
export function pointIs(decimal: DecimalSign): void {
  point = decimal === 'comma' ? ',' : '.';
}

function body(value: number, decimals: number): string {
  return Math.abs(value).toFixed(decimals).replace('.', point);
}
const isZero = (s: string) => /^[0.,]*$/.test(s);

/** `−0.8`; never a negative zero. */
export function num(value: number, decimals = 0): string {
  const b = body(value, decimals);
  return (value < 0 && !isZero(b) ? MINUS : '') + b;
}
/** `+0.8`, `−0.8`, `0.0`. */
export function signed(value: number, decimals = 0): string {
  const b = body(value, decimals);
  return (isZero(b) ? '' : value < 0 ? MINUS : '+') + b;
}
/** Degrees and minutes, `1°50′`. */
export function minutes(deg: number): string {
  const m = Math.round(Math.abs(deg) * 60);
  return `${deg < 0 && m ? MINUS : ''}${Math.floor(m / 60)}°${String(m % 60).padStart(2, '0')}′`;
}
/** An angle in the chosen form. */
export function angle(deg: number, form: AngleForm, decimals = 1): string {
  return form === 'minutes' ? minutes(deg) : `${num(deg, decimals)}°`;
}
/** An angle beside a tick or in a tight place: `−0.5°`, `−30′`, `1°30′`, `2°`. */
export function tick(deg: number, form: AngleForm, decimals: number, plus = false): string {
  const say = plus ? signed : num;
  const whole = Math.abs(deg - Math.round(deg)) < 1e-9;
  if (form === 'minutes') {
    if (!whole && Math.abs(deg) > 1) return (plus && deg > 0 ? '+' : '') + minutes(deg);
    return whole ? `${say(deg)}°` : `${say(deg * 60)}′`;
  }
  return `${say(deg, decimals)}°`;
}
/** A change of angle, signed. */
export function angleChange(deg: number, form: AngleForm, decimals = 1): string {
  if (form === 'minutes') return (deg > 0.5 / 60 ? '+' : '') + minutes(deg);
  return `${signed(deg, decimals)}°`;
}
/** Whole inches and the sixteenths as a fraction. */
export function sixteenths(mm: number): { sign: string; whole: string; fraction: string } {
  const t = Math.round((Math.abs(mm) / MM_PER_INCH) * 16);
  const whole = Math.floor(t / 16);
  let n = t % 16;
  let d = 16;
  while (n > 0 && n % 2 === 0) {
    n /= 2;
    d /= 2;
  }
  return {
    sign: mm < 0 && t ? MINUS : '',
    whole: whole || !n ? String(whole) : '',
    fraction: n ? `${n}/${d}` : '',
  };
}
/** `19 5/8`. */
export function inches(mm: number): string {
  const s = sixteenths(mm);
  return s.sign + [s.whole, s.fraction].filter(Boolean).join(' ');
}
/** A length where its unit stands elsewhere. */
export const bareLength = (mm: number, unit: LengthUnit): string => (unit === 'in' ? inches(mm) : num(mm));
/** A length with its unit. */
export function length(mm: number, unit: LengthUnit, decimals = 0): string {
  return unit === 'in' ? `${inches(mm)} in` : `${num(mm, decimals)} mm`;
}
/** Distance with spaces that never break, rounded to two figures: `31 000`. */
export function distance(km: number): string {
  if (!Number.isFinite(km)) return '—';
  const step = km >= 10000 ? 1000 : km >= 1000 ? 100 : 10;
  return String(Math.round(km / step) * step).replace(/\B(?=(\d{3})+(?!\d))/g, '\u00a0');
}

/** A change of length with its sign; none for no change. */
export function lengthChange(mm: number, unit: LengthUnit): string {
  const sign = mm < 0 ? '−' : mm > 0 ? '+' : '';
  return `${sign}${length(Math.abs(mm), unit)}`;
}
