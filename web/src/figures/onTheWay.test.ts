// Where an adjuster stands by the camber a gauge shows, on a way of its own: by hand.
import { expect, it } from 'vitest';
import { stands, told, type Way } from './onTheWay';

// A cam: camber goes out ever more slowly, caster back.
const way: Way = [
  { share: 0, camber_deg: -1, caster_deg: 3, toe_deg: 0 },
  { share: 0.5, camber_deg: -0.4, caster_deg: 2.8, toe_deg: 0.1 },
  { share: 1, camber_deg: 0, caster_deg: 2.6, toe_deg: 0.3 },
  { share: 1.25, camber_deg: 0.1, caster_deg: 2.5, toe_deg: 0.4 },
];

it('reads the share, and what goes with it, between two points of the way', () => {
  const now = stands(way, -0.7)!;
  expect(now.share).toBeCloseTo(0.25, 9);
  expect(now.caster_deg).toBeCloseTo(2.9, 9);
  expect(now.left_deg).toBeCloseTo(0.7, 9);
  expect([now.there, now.past]).toEqual([false, false]);
  expect(stands(way, -0.2)!.share).toBeCloseTo(0.75, 9);
});

it('stops within a hundredth or four, and says past only when it is past', () => {
  expect(stands(way, 0.03)).toMatchObject({ there: true, past: false });
  expect(stands(way, 0.05)).toMatchObject({ there: false, past: true });
  expect(stands(way, 0.05)!.share).toBeCloseTo(1.125, 9);
  // Farther than it was worked out: along the last piece.
  expect(stands(way, 0.2)!.share).toBeCloseTo(1.5, 9);
  // Turned the other way to begin with.
  expect(stands(way, -1.12)!.share).toBeCloseTo(-0.1, 9);
});

it('follows an order that takes camber in just as well', () => {
  const down = way.map((p) => ({ ...p, camber_deg: -p.camber_deg }));
  expect(stands(down, 0.7)!.share).toBeCloseTo(0.25, 9);
  expect(stands(down, -0.06)!.past).toBe(true);
});

it('does not watch what a gauge does not show', () => {
  expect(told(way)).toBe(true);
  expect(told(way.map((p) => ({ ...p, camber_deg: p.camber_deg / 10 })))).toBe(false);
  expect(told([])).toBe(false);
  expect(stands([way[0]!], -1)).toBeUndefined();
});

it('says where a gauge tells little, and what no turning there can give', () => {
  expect(stands(way, -0.9)!.open).toBeCloseTo(0.04 * (0.5 / 0.6), 9);
  expect(stands(way, 0.05)!.open).toBeCloseTo(0.04 * (0.25 / 0.1), 9);
  expect(stands(way, 0.2)!.beyond).toBe(false);
  // At the end of its throw there is no more.
  expect(stands(way.slice(0, 3), 0.2)!.beyond).toBe(true);
});
