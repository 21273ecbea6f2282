import { unitsOf } from '../../units/measure';
import { describe, expect, it } from 'vitest';
import { notMeasured, usualCar } from '../../fixtures';
import { carTexts, readCar } from './carFacts';

describe('facts of the whole car as texts', () => {
  it('come back as they were, in mm and in inches', () => {
    const car = {
      ...usualCar,
      payload: { mass_kg: 320, behind_front_axle_mm: 2946.4, left_of_centre_mm: 0 },
      axles: {
        front: {
          ...usualCar.axles.front,
          spring: { rate_n_mm: 112, motion_ratio: 0.62 },
          limits: { ...notMeasured, shaft_inner: [0, 182.88, 371.856] },
        },
        rear: { ...usualCar.axles.rear, settle_mm: 2.54 },
      },
      levels: [{ name: 'Access low', mm: { front: -38.1, rear: -50.8 } }],
      turns: [{ turns: 2.5, height_change_mm: 12.7 }],
      cg_height_mm: 609.6,
    };
    for (const unit of ['mm', 'in'] as const) {
      const bad: Record<string, string> = {};
      const back = readCar(usualCar, carTexts(car, unitsOf(unit, 'decimal')), unitsOf(unit, 'decimal'), bad);
      expect(bad).toEqual({});
      expect(back.axles.front.spring?.rate_n_mm).toBeCloseTo(112, 1);
      expect(back.axles.front.spring?.motion_ratio).toBe(0.62);
      expect(back.payload?.behind_front_axle_mm).toBeCloseTo(2946.4, 1);
      expect(back.levels[0]?.name).toBe('Access low');
      expect(back.levels[0]?.mm.rear).toBeCloseTo(-50.8, 1);
      expect(back.turns[0]).toMatchObject({ turns: 2.5 });
      expect(back.cg_height_mm).toBeCloseTo(609.6, 1);
      expect(back.axles.front.limits?.shaft_inner?.[2]).toBeCloseTo(371.856, 1);
    }
  });
  it('name what cannot be read and keep the old value', () => {
    const bad: Record<string, string> = {};
    const texts = {
      ...carTexts(usualCar, unitsOf('mm', 'decimal')),
      lock_deg: 'far',
      levels: 'Low -30',
      turns: '2 x',
      'axles.front.spring.rate_n_mm': '90',
    };
    const car = readCar(usualCar, texts, unitsOf('mm', 'decimal'), bad);
    expect(Object.keys(bad).sort()).toEqual([
      'car.axles.front.spring.motion_ratio',
      'car.levels',
      'car.lock_deg',
      'car.turns',
    ]);
    expect(car.lock_deg).toBe(35);
    expect(car.axles.front.spring).toBeNull();
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
