import { expect, test } from 'vitest';
import { gridStep, pinched, seen, stepped, whole } from './closer';

const all = { c0: -2, c1: 2, k0: 0, k1: 8 };

test('the whole map is the whole range', () => {
  expect(seen(all, whole)).toEqual(all);
});

test('what lies between two fingers stays between them', () => {
  const from: [number, number] = [0.25, 0.25];
  const was = seen(all, whole);
  const held = was.c0 + from[0] * (was.c1 - was.c0);
  const near = pinched(whole, 2, from, [0.4, 0.3]);
  const now = seen(all, near);
  expect(now.c1 - now.c0).toBeCloseTo(2);
  expect(now.c0 + 0.4 * (now.c1 - now.c0)).toBeCloseTo(held);
  expect(now.k1 - 0.3 * (now.k1 - now.k0)).toBeCloseTo(8 - 0.25 * 8);
});

test('nothing beside the map comes into sight, and it is never farther than whole', () => {
  for (const [spread, to] of [
    [3, 1],
    [3, 0],
    [0.2, 0.5],
    [50, 0.9],
  ] as const) {
    const r = seen(all, pinched(whole, spread, [0.5, 0.5], [to, to]));
    expect(r.c0).toBeGreaterThanOrEqual(all.c0 - 1e-9);
    expect(r.c1).toBeLessThanOrEqual(all.c1 + 1e-9);
    expect(r.k0).toBeGreaterThanOrEqual(all.k0 - 1e-9);
    expect(r.k1).toBeLessThanOrEqual(all.k1 + 1e-9);
    expect((all.c1 - all.c0) / (r.c1 - r.c0)).toBeLessThanOrEqual(6 + 1e-9);
  }
});

test('a step nearer and one back is where it was', () => {
  const near = stepped(whole, 1.5, [0.5, 0.5]);
  expect(near.times).toBeCloseTo(1.5);
  expect(stepped(near, 1 / 1.5, [0.5, 0.5]).times).toBeCloseTo(1);
});

test('a grid has at most eight lines', () => {
  expect(gridStep(4, [0.1, 0.2, 0.5, 1])).toBe(0.5);
  expect(gridStep(0.7, [0.1, 0.2, 0.5, 1])).toBe(0.1);
  expect(gridStep(20, [0.1, 0.2, 0.5, 1])).toBe(1);
});
