// Nearer to a part of a map: what of it is seen, by two fingers or by keys.

export interface Range {
  c0: number;
  c1: number;
  k0: number;
  k1: number;
}

/** What is looked at: how many times nearer, and the middle, as parts of the whole. */
export interface Nearer {
  times: number;
  x: number;
  y: number;
}

export const whole: Nearer = { times: 1, x: 0.5, y: 0.5 };
const most = 6;

const hold = (v: number, low: number, high: number) => Math.max(low, Math.min(high, v));

/** Kept on the map: nothing beside it comes into sight. */
function kept({ times, x, y }: Nearer): Nearer {
  const t = hold(times, 1, most);
  const half = 0.5 / t;
  return { times: t, x: hold(x, half, 1 - half), y: hold(y, half, 1 - half) };
}

/**
 * Two fingers on what was seen: spread by `spread`, their middle moved from `from` to `to` (parts of what is seen, y down). What
 * lay between them stays between them.
 */
export function pinched(was: Nearer, spread: number, from: [number, number], to: [number, number]): Nearer {
  const times = hold(was.times * spread, 1, most);
  const at = (i: 0 | 1) => (i ? was.y : was.x) + (from[i] - 0.5) / was.times;
  return kept({ times, x: at(0) - (to[0] - 0.5) / times, y: at(1) - (to[1] - 0.5) / times });
}

/** Nearer by a step about a point of the whole. */
export const stepped = (was: Nearer, by: number, about: [number, number]): Nearer =>
  kept({ times: was.times * by, x: about[0], y: about[1] });

/** The range that is seen of a whole one. */
export function seen(all: Range, { times, x, y }: Nearer): Range {
  if (times === 1) return all;
  const [w, h] = [all.c1 - all.c0, all.k1 - all.k0];
  const [c, k] = [all.c0 + x * w, all.k1 - y * h];
  return {
    c0: c - w / 2 / times,
    c1: c + w / 2 / times,
    k0: k - h / 2 / times,
    k1: k + h / 2 / times,
  };
}

/** Lines of a grid over a span: not many, not few. */
export const gridStep = (span: number, steps: readonly number[]): number =>
  steps.find((s) => span / s <= 8) ?? steps.at(-1)!;
