// The line protocol of an angle gauge (docs/GAUGE.md), as it is read in the browser.

/** An angle as the gauge shows it. */
export interface Angle {
  /** Degrees. */
  deg: number;
  /** Held with its button: it does not follow. */
  held: boolean;
  /** Counts from a zero of the user's own. */
  zeroed: boolean;
}

export type Line =
  | { kind: 'hello'; name: string; step_deg: number; simulated: boolean }
  | ({ kind: 'angle' } & Angle)
  | { kind: 'ok' }
  | { kind: 'no'; why: string };

/** Longest line, characters. */
export const LONGEST = 200;
const VERSION = 'bold-stance.gauge/1';

const field = (words: string[], key: string) =>
  words.find((w) => w.startsWith(`${key}=`))?.slice(key.length + 1);
const number = (text: string | undefined, limit: number) =>
  text !== undefined && /^[+-]?\d+(\.\d+)?$/.test(text) && Math.abs(Number(text)) <= limit
    ? Number(text)
    : undefined;

/** A line, or nothing where it is none of a gauge. */
export function parseLine(line: string): Line | undefined {
  if (line.length > LONGEST) return undefined;
  const [first, ...rest] = line.trim().split(/\s+/);
  if (first === 'hello' && rest[0] === VERSION) {
    const step = number(field(rest, 'step'), 10);
    if (!step || step < 0) return undefined;
    const name = (field(rest, 'name') ?? 'gauge').replaceAll('_', ' ');
    return { kind: 'hello', name, step_deg: step, simulated: field(rest, 'simulated') === 'yes' };
  }
  if (first === 'angle') {
    const deg = number(rest[0], 360);
    if (deg === undefined || field(rest, 'seq') === undefined) return undefined;
    return { kind: 'angle', deg, held: rest.includes('held'), zeroed: rest.includes('zeroed') };
  }
  if (first === 'ok') return { kind: 'ok' };
  if (first === 'no') return { kind: 'no', why: rest.join(' ') };
  return undefined;
}
