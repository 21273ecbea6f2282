// Axes and paths: round ticks within the ends, no negative zero, paths to a tenth.
import { describe, expect, it } from 'vitest';
import { every, path, ring, scale, stepOf, ticks } from './plot';

describe('ticks', () => {
  it('are round, within the ends, about as many as asked', () => {
    expect(ticks(-0.31, 0.32, 4)).toEqual([-0.2, 0, 0.2]);
    expect(stepOf(-0.31, 0.32, 4)).toBeCloseTo(0.2, 12);
    expect(ticks(0, 43_000, 6)).toEqual([0, 10_000, 20_000, 30_000, 40_000]);
    expect(Object.is(ticks(-1, 1, 2)[1], 0)).toBe(true);
  });
  it('stand at every multiple of a step, the ends too', () => {
    expect(every(-1, 1, 0.5)).toEqual([-1, -0.5, 0, 0.5, 1]);
    expect(every(0.2, 0.9, 0.25)).toEqual([0.25, 0.5, 0.75]);
    expect(every(-0.7, 0.7, 0.1)).toHaveLength(15);
    expect(Object.is(every(-1, 1, 1)[1], 0)).toBe(true);
  });
});

describe('paths', () => {
  it('go through their points to a tenth, closed or not', () => {
    expect(
      path([
        [0, 0],
        [1.26, 2],
      ]),
    ).toBe('M0,0L1.3,2');
    expect(
      ring([
        [0, 0],
        [4, 0],
        [4, 3],
      ]),
    ).toBe('M0,0L4,0L4,3Z');
    expect(path([])).toBe('');
    expect(ring([])).toBe('');
  });
  it('take a scale there and back', () => {
    const x = scale([-40, 90], [36, 214]);
    expect(x(-40)).toBe(36);
    expect(x.invert(x(25))).toBeCloseTo(25, 9);
  });
});
