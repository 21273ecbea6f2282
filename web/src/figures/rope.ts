// What was said is drawn as a rope: nothing else is.
import type { SideName } from '../api/client';
import { every, path } from './plot';

type Pair = [number, number];

/** A rope between two ellipses on a side's own half: twists a little apart all along it. */
export function rope(side: SideName, x: number, y: number, rx: number, ry: number, thick: number) {
  const half = thick / 2;
  // From the top over the own half to the bottom: left runs the other way round.
  const turn = side === 'left' ? -1 : 1;
  const at = (r: number, t: number): Pair => [
    x + turn * Math.max(rx + r, 1) * Math.sin(t),
    y - Math.max(ry + r, 1) * Math.cos(t),
  ];
  const arc = (r: number) => every(0, 1, 1 / 24).map((f) => at(r, f * Math.PI));
  const round = Math.PI * Math.sqrt((rx * rx + ry * ry) / 2);
  const n = Math.max(6, Math.round(round / 7));
  const twists = every(0, n - 1, 1).map((i) => {
    const t = ((i + 0.15) / n) * Math.PI;
    const u = ((i + 0.85) / n) * Math.PI;
    return path([at(-half, t), at(half, u)]);
  });
  const outer = arc(half);
  const inner = arc(-half);
  return { body: `${path([...outer, ...inner.toReversed()])}Z`, twists: twists.join('') };
}

/** The other half, dotted. */
export const dotted = (side: SideName, x: number, y: number, rx: number, ry: number) =>
  `M${x} ${y - ry}A${rx} ${ry} 0 0 ${side === 'left' ? 1 : 0} ${x} ${y + ry}`;

/** A whole rope, for what belongs to no side. */
export function wholeRope(x: number, y: number, rx: number, ry: number, thick: number) {
  const [l, r] = [rope('left', x, y, rx, ry, thick), rope('right', x, y, rx, ry, thick)];
  return { body: l.body + r.body, twists: l.twists + r.twists };
}
