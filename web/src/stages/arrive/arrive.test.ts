// Saving leaves what no field shows as it was, and an untouched length to its last digit in either unit.
import { unitsOf } from '../../units/measure';
import { describe, expect, it } from 'vitest';
import type { CarFacts } from '../../api/client';
import { notMeasured, usualCar } from '../../fixtures';
import { carTexts, readCar } from './carFacts';

const car: CarFacts = {
  ...usualCar,
  cg_height_mm: 612.3456,
  payload: { mass_kg: 200, behind_front_axle_mm: 2500.5, left_of_centre_mm: -140 },
  axles: {
    ...usualCar.axles,
    front: {
      ...usualCar.axles.front,
      spring: { rate_n_mm: 31.23456, motion_ratio: 0.654321 },
      limits: { ...notMeasured, shaft_inner: [12, 210, 330] },
    },
  },
  levels: [{ name: 'Access', mm: { front: -40.01, rear: -40 } }],
};

describe('facts of the car', () => {
  it.each(['mm', 'in'] as const)('come back whole in %s when nothing was typed', (unit) => {
    const bad = {};
    expect(readCar(car, carTexts(car, unitsOf(unit, 'decimal')), unitsOf(unit, 'decimal'), bad)).toEqual(car);
    expect(bad).toEqual({});
  });
  it('change where something was typed and keep what stands beside it', () => {
    const bad = {};
    const texts = {
      ...carTexts(car, unitsOf('mm', 'decimal')),
      'payload.mass_kg': '250',
      'axles.front.limits.shaft_inner.1': '215',
    };
    const out = readCar(car, texts, unitsOf('mm', 'decimal'), bad);
    expect(out.payload).toEqual({ mass_kg: 250, behind_front_axle_mm: 2500.5, left_of_centre_mm: -140 });
    expect(out.axles.front.limits?.shaft_inner).toEqual([12, 215, 330]);
    expect(out.cg_height_mm).toBe(612.3456);
  });
});
