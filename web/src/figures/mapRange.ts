// What a map has to hold, and whether a point lies in a shape on it.
import { useRef } from 'react';
import type { Range } from './closer';
import type { Point } from './place';

export const inside = (p: Point, shape: Point[]) => {
  let hit = false;
  for (let i = 0, j = shape.length - 1; i < shape.length; j = i++) {
    const [a, b] = [shape[i]!, shape[j]!];
    if (a[1] > p[1] !== b[1] > p[1] && p[0] < ((b[0] - a[0]) * (p[1] - a[1])) / (b[1] - a[1]) + a[0])
      hit = !hit;
  }
  return hit;
};

/** Bounds that hold everything, in half degrees; kept while they still fit. */
export function useRange(all: [number, number][], fine: boolean): Range {
  const kept = useRef<Range | undefined>(undefined);
  const xs = all.map((p) => p[0]);
  const ys = all.map((p) => p[1]);
  const need = {
    c0: Math.min(...xs, -0.1),
    c1: Math.max(...xs, 0.1),
    k0: Math.min(...ys),
    k1: Math.max(...ys),
  };
  const old = kept.current;
  const fits = old && need.c0 >= old.c0 && need.c1 <= old.c1 && need.k0 >= old.k0 && need.k1 <= old.k1;
  const loose =
    old && (need.c1 - need.c0) * (need.k1 - need.k0) < 0.3 * (old.c1 - old.c0) * (old.k1 - old.k0);
  if (!fits || loose) {
    kept.current = {
      c0: Math.floor(need.c0 * 2 - 0.5) / 2,
      c1: Math.ceil(need.c1 * 2 + 1) / 2,
      k0: fine ? Math.floor(need.k0 * 10 - 1) / 10 : Math.floor(need.k0 * 2 - 0.3) / 2,
      k1: fine ? Math.ceil(need.k1 * 10 + 1) / 10 : Math.ceil(need.k1 * 2 + 0.3) / 2,
    };
  }
  return kept.current ?? { c0: -2, c1: 1, k0: 0, k1: 5 };
}
