// A typed length while it is typed, for the other unit beside it and the ruler below.
import { bothReadings } from '../../units/number';
import { MM_PER_INCH } from '../../units/print';

/** What a typed length is in mm, as far as the picture needs it; the server reads what is kept. */
export function roughMm(text: string, unit: 'mm' | 'in'): number | undefined {
  const typed = text.trim().replace('−', '-');
  if (bothReadings(/^-?[\d,]+/.exec(typed)?.[0] ?? '')) return undefined;
  const t = typed.replace(',', '.');
  const m = /^(-?)(?:(\d+(?:\.\d+)?)(?:[ -]+(\d+)\/(\d+))?|(\d+)\/(\d+))\s*(mm|in|")?$/.exec(t);
  if (!m) return undefined;
  const v = m[5] ? Number(m[5]) / Number(m[6]) : Number(m[2]) + (m[3] ? Number(m[3]) / Number(m[4]) : 0);
  const u = m[7] === 'mm' ? 'mm' : m[7] ? 'in' : unit;
  return (m[1] ? -1 : 1) * v * (u === 'in' ? MM_PER_INCH : 1);
}
