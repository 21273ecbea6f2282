import { describe, expect, it } from 'vitest';
import type { Drawing } from '../api/client';
import { along } from './Curve';
import { bar, project, turned, tyre } from './solids';

const disc = (spin: number[]): Drawing => ({
  bars: [],
  centre: [0, 800, 400],
  contact: [0, 800, 0],
  spin,
  loaded_radius_mm: 400,
});
const span = (pts: [number, number][], i: 0 | 1) =>
  Math.max(...pts.map((p) => p[i])) - Math.min(...pts.map((p) => p[i]));

describe('drawings', () => {
  it('look from anywhere: from ahead, from the left, and straight down', () => {
    const p = [100, 700, 250];
    const near = (a: number[], b: number[]) => a.forEach((v, i) => expect(v).toBeCloseTo(b[i]!, 9));
    near(turned(0, 0)(p), project.front(p));
    near(turned(90, 0)(p), project.side(p));
    // From above, the nose towards the reader.
    near(turned(0, 90)(p), [700, -100]);
    // A length that lies across the look is as long as it is, however it is turned.
    const from = turned(30, 20);
    const [a, b] = [from([0, 0, 0]), from([-Math.sin(Math.PI / 6), Math.cos(Math.PI / 6), 0])];
    expect(Math.hypot(b[0] - a[0], b[1] - a[1])).toBeCloseTo(1, 9);
  });

  it('look at the car from the front, the left and above', () => {
    const p = [100, 700, 250];
    expect(project.front(p)).toEqual([700, 250]);
    expect(project.side(p)).toEqual([-100, 250]);
    expect(project.top(p)).toEqual([-100, -700]);
  });
  it('draw an upright tyre as wide as it is and as tall as its diameter', () => {
    const t = tyre(disc([0, 1, 0]), 260, 'front');
    expect(span(t, 0)).toBeCloseTo(260, 5);
    expect(span(t, 1)).toBeCloseTo(800, 5);
    const side = tyre(disc([0, 1, 0]), 260, 'side');
    expect(span(side, 0)).toBeGreaterThan(795);
    expect(span(side, 1)).toBeCloseTo(800, 5);
  });
  it('lean it with its camber and turn it with its toe', () => {
    const c = (8 * Math.PI) / 180;
    const leaned = tyre(disc([0, Math.cos(c), -Math.sin(c)]), 260, 'front');
    expect(span(leaned, 0)).toBeGreaterThan(340);
    // Top out: the upper half stands outboard of the lower one.
    const outer = (pts: [number, number][]) => Math.max(...pts.map((p) => p[0]));
    const lean = outer(leaned.filter((p) => p[1] > 740)) - outer(leaned.filter((p) => p[1] < 60));
    expect(lean).toBeGreaterThan(80);
    expect(lean).toBeLessThan(2 * 400 * Math.sin(c) + 60);
    const turned = tyre(disc([-Math.sin(0.4), Math.cos(0.4), 0]), 260, 'top');
    expect(span(turned, 1)).toBeGreaterThan(500);
  });
  it('close a bar round both joints', () => {
    expect(bar([0, 0], [10, 0], 2, 1)).toBe('M0 2L10 1L10 -1L0 -2Z');
  });
  it('read a curve between its points and not beyond them', () => {
    const pts: [number, number][] = [
      [-10, 1],
      [0, 2],
      [10, 6],
    ];
    expect(along(pts, 5)).toBe(4);
    expect(along(pts, -10)).toBe(1);
    expect(along(pts, -11)).toBeUndefined();
    expect(along(pts, 11)).toBeUndefined();
  });
});
