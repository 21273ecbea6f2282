// When a gauge in the hand stands still: its angle is taken once it was moved and came to rest.

/** Angles that have to agree, about a second of them (judgement, no source). */
const REST = 10;
/** How far they may be apart, degrees: what a hand on a wheel leaves (judgement, no source). */
const STILL_DEG = 0.06;
/** A gauge that is carried turns more than this, degrees (judgement, no source). */
const MOVED_DEG = 0.4;

export interface Hold {
  /** The newest angles, degrees, oldest first. */
  last: readonly number[];
  /** Whether it was moved since one was taken. */
  armed: boolean;
}

export const atRest: Hold = { last: [], armed: false };
/** A gauge that needs no carrying to another wheel, as a simulated one. */
export const armed: Hold = { last: [], armed: true };

const spread = (v: readonly number[]) => Math.max(...v) - Math.min(...v);

/** One more angle; `take` is the mean once it came to rest. */
export function hold(h: Hold, deg: number): { next: Hold; take: number | undefined } {
  const last = [...h.last, deg].slice(-REST);
  const ready = h.armed || spread(last) > MOVED_DEG;
  if (ready && last.length === REST && spread(last) <= STILL_DEG)
    return { next: { last: [], armed: false }, take: last.reduce((a, b) => a + b, 0) / REST };
  return { next: { last, armed: ready }, take: undefined };
}
