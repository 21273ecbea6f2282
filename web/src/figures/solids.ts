// Projected solids shared by the drawings: tyres as true discs, bars by what they are.
import { polygonHull } from 'd3-polygon';
import type { Drawing, Schemas } from '../api/client';

export type V2 = [number, number];
export type Look = 'front' | 'side' | 'top';
export type BarKind = Schemas['BarKind'];

/** Vehicle axes to picture axes (x right, y up), mm. Front is seen from ahead, side from the left, top from above. */
export const project: Record<Look, (p: readonly number[]) => V2> = {
  front: (p) => [p[1] ?? 0, p[2] ?? 0],
  side: (p) => [-(p[0] ?? 0), p[2] ?? 0],
  top: (p) => [-(p[0] ?? 0), -(p[1] ?? 0)],
};

/** Seen from anywhere: turned about the upright, then tipped towards the reader, degrees. Turned 0 is from ahead, 90 from the left. */
export function turned(yaw: number, tip: number): (p: readonly number[]) => V2 {
  const [cy, sy] = [Math.cos((yaw * Math.PI) / 180), Math.sin((yaw * Math.PI) / 180)];
  const [ct, st] = [Math.cos((tip * Math.PI) / 180), Math.sin((tip * Math.PI) / 180)];
  return ([x = 0, y = 0, z = 0]) => {
    const across = y * cy - x * sy;
    const away = -x * cy - y * sy;
    return [across, z * ct + away * st];
  };
}

/** Outline of a tyre in a view: the hull of its two side rims. */
export function tyre(d: Drawing, width: number, look: Look | ((p: readonly number[]) => V2)): V2[] {
  const seen = typeof look === 'function' ? look : project[look];
  const s = d.spin;
  const n = Math.hypot(...s) || 1;
  const a = s.map((v) => v / n);
  // Two directions in the wheel plane.
  const up = [-(a[2] ?? 0) * (a[0] ?? 0), -(a[2] ?? 0) * (a[1] ?? 0), 1 - (a[2] ?? 0) ** 2];
  const m = Math.hypot(...up) || 1;
  const u = up.map((v) => v / m);
  const v = [
    (a[1] ?? 0) * (u[2] ?? 0) - (a[2] ?? 0) * (u[1] ?? 0),
    (a[2] ?? 0) * (u[0] ?? 0) - (a[0] ?? 0) * (u[2] ?? 0),
    (a[0] ?? 0) * (u[1] ?? 0) - (a[1] ?? 0) * (u[0] ?? 0),
  ];
  const pts: V2[] = [];
  for (const side of [-0.5, 0.5])
    for (let i = 0; i < 40; i++) {
      const t = (i / 40) * 2 * Math.PI;
      // A rounded shoulder: the sides are a little smaller than the tread.
      for (const [w, r] of [
        [1, 0.93],
        [0.78, 1],
      ] as const) {
        const R = d.loaded_radius_mm * r;
        pts.push(
          seen(
            [0, 1, 2].map(
              (k) =>
                (d.centre[k] ?? 0) +
                (a[k] ?? 0) * side * width * w +
                R * (Math.cos(t) * (u[k] ?? 0) + Math.sin(t) * (v[k] ?? 0)),
            ),
          ),
        );
      }
    }
  return polygonHull(pts) ?? pts;
}

/** Half widths of a bar at its body and wheel end, px. */
export const girth: Record<BarKind, V2> = {
  upper_arm: [4.5, 3],
  lower_arm: [5.5, 3.5],
  link: [3, 3],
  tie_rod: [1.6, 1.6],
  strut: [6, 4],
  knuckle: [3.5, 3.5],
  swing_arm: [6, 5],
  beam: [5, 5],
};

/** A tapered solid from one joint to another. */
export function bar(p: V2, q: V2, w0: number, w1: number): string {
  const [dx, dy] = [q[0] - p[0], q[1] - p[1]];
  const n = Math.hypot(dx, dy) || 1;
  const [ux, uy] = [-dy / n, dx / n];
  return `M${p[0] + ux * w0} ${p[1] + uy * w0}L${q[0] + ux * w1} ${q[1] + uy * w1}L${q[0] - ux * w1} ${q[1] - uy * w1}L${p[0] - ux * w0} ${p[1] - uy * w0}Z`;
}

export const polygon = (pts: V2[], f: (p: V2) => V2) =>
  `M${pts
    .map(f)
    .map((p) => `${p[0].toFixed(1)} ${p[1].toFixed(1)}`)
    .join('L')}Z`;
