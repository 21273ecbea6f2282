import { describe, expect, it } from 'vitest';
import type { Geometry } from '../../api/client';
import { isWholeAxle, pointAt, rowsOf, withPoint, withRight } from './points';

const wheel = { center: [0, 800, 390], camber_deg: 0, toe_deg: 0, loaded_radius_mm: 390 };
const strut = {
  format: 'bold-stance.geometry/1',
  name: 'a strut',
  layout: 'strut',
  points: {
    lower_front: [10, 350, 200],
    lower_rear: [-280, 350, 205],
    lower_outer: [4, 700, 180],
    strut_top: [-36, 566, 822],
    strut_bottom: [-9, 626, 378],
    tie_inner: [-140, 318, 267],
    tie_outer: [-128, 676, 256],
  },
  wheel,
} as unknown as Geometry;
const axle = {
  ...strut,
  layout: 'solid_axle',
  points: null,
  links: {
    lower_left: { chassis: [-900, 420, 460], axle: [-40, 430, 320] },
    track_bar: { chassis: [60, 440, 560], axle: [80, -480, 450] },
  },
  drag_link: { chassis: [120, 400, 560], axle: [140, -560, 430] },
  tie_rod: { left: [-150, 700, 380], right: [-150, -700, 380] },
} as unknown as Geometry;

describe('points of a file', () => {
  it('lists every point of a strut once, the wheel last', () => {
    const rows = rowsOf(strut);
    expect(rows).toHaveLength(8);
    expect(rows.at(-1)?.path).toBe('wheel.center');
    expect(new Set(rows.map((r) => r.path)).size).toBe(8);
    expect(rows.find((r) => r.path === 'points.strut_top')?.label).toBe('Strut mount');
  });
  it('names both ends of links, drag link and tie rod of a live axle', () => {
    const rows = rowsOf(axle);
    expect(rows.map((r) => r.path)).toEqual([
      'links.lower_left.chassis',
      'links.lower_left.axle',
      'links.track_bar.chassis',
      'links.track_bar.axle',
      'drag_link.chassis',
      'drag_link.axle',
      'tie_rod.left',
      'tie_rod.right',
      'wheel.center',
    ]);
    expect(rows[0]?.label).toBe('Lower left link, body end');
    expect(rows[2]?.label).toBe('Track bar, body end');
  });
  it('reads and replaces a point without touching the file it came from', () => {
    const next = withPoint(axle, 'links.track_bar.axle', [1, 2, 3]);
    expect(pointAt(next, 'links.track_bar.axle')).toEqual([1, 2, 3]);
    expect(pointAt(axle, 'links.track_bar.axle')).toEqual([80, -480, 450]);
    expect(pointAt(next, 'links.track_bar.chassis')).toEqual([60, 440, 560]);
    expect(pointAt(axle, 'links.nothing.axle')).toEqual([0, 0, 0]);
  });
  it('gives the right side points of its own and takes them away', () => {
    const both = withRight(strut, true);
    expect(rowsOf(both)).toHaveLength(16);
    expect(rowsOf(both)[8]).toMatchObject({
      path: 'right.points.lower_front',
      label: 'Right: lower arm, front pivot',
    });
    const bent = withPoint(both, 'right.points.lower_front', [1, 2, 3]);
    expect(pointAt(bent, 'points.lower_front')).toEqual([10, 350, 200]);
    expect(pointAt(bent, 'right.points.lower_front')).toEqual([1, 2, 3]);
    expect(rowsOf(withRight(bent, false))).toHaveLength(8);
    expect([isWholeAxle(axle), isWholeAxle(strut)]).toEqual([true, false]);
  });
});
