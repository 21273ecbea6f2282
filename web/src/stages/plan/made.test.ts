// Parts made from construction aids: the point goes where the aid wants it, and the rod is as long as the two points are apart.
import { expect, it } from 'vitest';
import type { Geometry, Schemas } from '../../api/client';
import { madeOf } from './madeHere';

const geometry = {
  layout: 'double_wishbone',
  points: {
    upper_front: [112, 462, 556],
    upper_rear: [-138, 468, 528],
    upper_outer: [-14, 722, 548],
    tie_inner: [-150, 392, 300],
    tie_outer: [-158, 752, 284],
  },
} as unknown as Geometry;
const aids = {
  travel_mm: 60,
  upper_pivot: { now: [465, 540], bisector: [450, 530], exact: [455, 533] },
  tie_rod: { now: [392, 300], bisector: [400, 290], exact: [397, 288] },
  ackermann: { now_y: 752, construction_y: 740, exact_y: 736.5 },
} as unknown as Schemas['Aids'];
type Move = { kind: string; by: number[]; by_mm: number; longer_mm: number };
const edits = (m: ReturnType<typeof madeOf>) => m!.part.edits as unknown as Move[];

it('moves the inner joint and lengthens the rod by what the points are farther apart', () => {
  const m = madeOf(aids, 'tie_rod', 'exact', geometry, 417)!;
  expect(edits(m)[0]).toMatchObject({ kind: 'move_pivot', by: [0, 5, -12] });
  const was = Math.hypot(8, 360, 16);
  const now = Math.hypot(8, 355, 4);
  expect(m.was_mm).toBeCloseTo(was, 9);
  expect(m.now_mm).toBeCloseTo(now, 9);
  expect(edits(m)[1]!.by_mm).toBeCloseTo(now - was, 2);
  expect(m.part.id).toBe('made-tie-rod-exact-0417');
  expect(m.part.id).toMatch(/^[a-z0-9-]{1,60}$/);
});

it('moves the steering arm by the construction, and both upper pivots with the arm to fit', () => {
  expect(edits(madeOf(aids, 'ackermann', 'bisector', geometry, 1))[0]!.by).toEqual([0, -12, 0]);
  const m = madeOf(aids, 'upper_pivot', 'bisector', geometry, 1)!;
  expect(edits(m).map((e) => e.kind)).toEqual(['move_pivot', 'move_pivot', 'reshape_arm']);
  expect(edits(m)[2]!.longer_mm).toBeCloseTo(Math.hypot(272, 18) - Math.hypot(257, 8), 2);
  expect(m.part.rules).toContain('aftermarket_arms');
});

it('makes nothing of a point the axle has not', () => {
  const strut = { layout: 'strut', points: {} } as unknown as Geometry;
  expect(madeOf(aids, 'tie_rod', 'exact', strut, 1)).toBeUndefined();
  expect(madeOf({ ...aids, upper_pivot: null }, 'upper_pivot', 'exact', geometry, 1)).toBeUndefined();
});
