import { unitsOf } from '../../units/measure';
import { describe, expect, it } from 'vitest';
import { usualCar } from '../../fixtures';
import { carTexts, readCar } from './carFacts';

describe('facts of the whole car as texts', () => {
  it('come back as they were, in mm and in inches', () => {
    const car = {
      ...usualCar,
      front_spring: { rate_n_mm: 112, motion_ratio: 0.62 },
      payload: { mass_kg: 320, behind_front_axle_mm: 2946.4, left_of_centre_mm: 0 },
      front_shaft_inner: [0, 182.88, 371.856],
      levels: [{ name: 'Access low', front_mm: -38.1, rear_mm: -50.8 }],
      turns: [{ turns: 2.5, height_change_mm: 12.7 }],
      cg_height_mm: 609.6,
      rear_settle_mm: 2.54,
    };
    for (const unit of ['mm', 'in'] as const) {
      const bad: Record<string, string> = {};
      const back = readCar(usualCar, carTexts(car, unitsOf(unit, 'decimal')), unitsOf(unit, 'decimal'), bad);
      expect(bad).toEqual({});
      expect(back.front_spring?.rate_n_mm).toBeCloseTo(car.front_spring!.rate_n_mm, 1);
      expect(back.front_spring?.motion_ratio).toBe(car.front_spring!.motion_ratio);
      expect(back.payload?.behind_front_axle_mm).toBeCloseTo(2946.4, 1);
      expect(back.levels[0]?.name).toBe('Access low');
      expect(back.levels[0]?.rear_mm).toBeCloseTo(-50.8, 1);
      expect(back.turns[0]).toMatchObject({ turns: 2.5 });
      expect(back.cg_height_mm).toBeCloseTo(609.6, 1);
      expect(back.front_shaft_inner?.[2]).toBeCloseTo(371.856, 1);
    }
  });
  it('name what cannot be read and keep the old value', () => {
    const bad: Record<string, string> = {};
    const texts = {
      ...carTexts(usualCar, unitsOf('mm', 'decimal')),
      lock_deg: 'far',
      levels: 'Low -30',
      turns: '2 x',
      front_rate: '90',
    };
    const car = readCar(usualCar, texts, unitsOf('mm', 'decimal'), bad);
    expect(Object.keys(bad).sort()).toEqual(['car.front_ratio', 'car.levels', 'car.lock_deg', 'car.turns']);
    expect(car.lock_deg).toBe(35);
    expect(car.front_spring).toBeNull();
  });
  it('an empty field that must not be empty says so', () => {
    const bad: Record<string, string> = {};
    readCar(
      usualCar,
      { ...carTexts(usualCar, unitsOf('mm', 'decimal')), steering_ratio: ' ' },
      unitsOf('mm', 'decimal'),
      bad,
    );
    expect(bad).toEqual({ 'car.steering_ratio': 'nothing was entered' });
  });
});
