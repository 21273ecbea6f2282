// What a new vehicle starts from: nothing of this car is made up, and what is usual is called so.
import { unitsOf } from '../../units/measure';
import { describe, expect, it } from 'vitest';
import { starting, usualCar, usualWear } from '../../fixtures';
import { carTexts } from './carFacts';
import { isUsual } from './vehicleTexts';

describe('a new vehicle', () => {
  it('has no settling, load, springs, levels, turns, limits or adjusters of its own', () => {
    // Each of these is told or it is not there; the rest are usual values of any car, and called so in the form.
    const usual = ['cg_height_mm', 'brake_front_share', 'steering_ratio', 'lock_deg', 'tyre_width_mm'];
    for (const [k, v] of Object.entries(usualCar)) {
      if (usual.includes(k) || k === 'wear' || k === 'axles') continue;
      const empty = (x: unknown): boolean =>
        x === null ||
        x === 0 ||
        (Array.isArray(x) ? x.length === 0 : isRecord(x) && Object.values(x).every(empty));
      expect([k, empty(v)]).toEqual([k, true]);
    }
    for (const axle of ['front', 'rear'] as const) {
      const { spring, settle_mm, tyre_gain_mm, limits } = usualCar.axles[axle];
      expect([spring, settle_mm, tyre_gain_mm]).toEqual([null, 0, 0]);
      expect(Object.values(limits!).every((x) => x === null)).toBe(true);
      const { tyre_size, pressure_kpa, placard_kpa } = starting.axles[axle];
      expect([tyre_size, pressure_kpa, placard_kpa]).toEqual([null, null, null]);
    }
    const { own_life_km, grade, set_at_km } = usualWear;
    expect([own_life_km, grade, set_at_km]).toEqual([null, null, null]);
    expect([usualWear.heights, usualWear.uses, usualWear.price]).toEqual([[], [], 0]);
  });
});
const isRecord = (x: unknown): x is Record<string, unknown> => typeof x === 'object' && x !== null;

describe('a field', () => {
  const start = { wheelbase_mm: '3200', 'car.lock_deg': '35', 'car.axles.front.tyre_gain_mm': '0', name: '' };
  it('is called usual until it is typed over', () => {
    expect(isUsual('wheelbase_mm', '3200', start, {}, true)).toBe(true);
    expect(isUsual('wheelbase_mm', '3220', start, {}, true)).toBe(false);
    expect(isUsual('wheelbase_mm', '3200', start, {}, false)).toBe(false);
    expect(isUsual('car.lock_deg', '35', start, {}, false)).toBe(true);
  });
  it('is called usual where its shape put it there', () => {
    expect(isUsual('axles.front.track_mm', '1560', start, { 'axles.front.track_mm': '1560' }, true)).toBe(
      true,
    );
    expect(isUsual('axles.front.track_mm', '1585', start, { 'axles.front.track_mm': '1560' }, true)).toBe(
      false,
    );
  });
  it('that is nothing or empty is not', () => {
    expect(isUsual('car.axles.front.tyre_gain_mm', '0', start, {}, true)).toBe(false);
    expect(isUsual('name', '', start, {}, true)).toBe(false);
  });
  it('of the fold-out starts from the usual car in both units', () => {
    expect(carTexts(usualCar, unitsOf('mm', 'decimal')).cg_height_mm).toBe('620');
    expect(carTexts(usualCar, unitsOf('in', 'decimal')).cg_height_mm).toBe('24.409');
    expect(carTexts(usualCar, unitsOf('mm', 'decimal'))['axles.rear.settle_mm']).toBe('0');
  });
});
