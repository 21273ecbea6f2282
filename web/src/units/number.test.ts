// A comma is never guessed: the same cases as the core's.
import { describe, expect, it } from 'vitest';
import { readLength } from '../stages/plan/HeightBench';
import { roughMm } from '../stages/read/rough';
import { bothReadings, numberProblem, toNumber } from './number';

describe('numbers as typed', () => {
  it('reads what is plain', () => {
    for (const [t, v] of [
      ['38600', 38600],
      ['38 600', 38600],
      ['38\u2009600', 38600],
      ['1,234,567', 1234567],
      ['38,600.5', 38600.5],
      ['38,6', 38.6],
      ['0,245', 0.245],
      ['1234,567', 1234.567],
      ['-12,5', -12.5],
      ['−0.5', -0.5],
      ['.5', 0.5],
      ['5.', 5],
    ] as const)
      expect(toNumber(t), t).toBe(v);
  });
  it('refuses what is none', () => {
    for (const t of ['', '1,23,4', '3,86,00', '1.2.3', '12 34', '1e5', 'nan', ',', '.', '9999999999'])
      expect(toNumber(t), t).toBeNaN();
  });
  it('asks where a comma could be either', () => {
    expect(bothReadings('38,600')).toEqual([38.6, 38600]);
    expect(numberProblem('38,600')?.wrong).toBe('“38,600” can be 38.6 or 38600');
    expect(toNumber('38,600')).toBeNaN();
    expect(readLength('1,500', 'mm')).toBeUndefined();
    expect(readLength('1,5', 'mm')).toBe(1.5);
    expect(roughMm('1,500', 'mm')).toBeUndefined();
  });
});
