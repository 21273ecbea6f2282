import { describe, expect, it } from 'vitest';
import {
  angle,
  angleChange,
  distance,
  inches,
  length,
  lengthChange,
  minutes,
  num,
  pointIs,
  signed,
  tick,
} from './print';

describe('printing', () => {
  it('gives a change of length its sign, and none to no change', () => {
    expect(lengthChange(65, 'mm')).toBe('+65 mm');
    expect(lengthChange(-38.1, 'in')).toBe('−1 1/2 in');
    expect(lengthChange(0, 'mm')).toBe('0 mm');
  });
  it('has no negative zero and a true minus', () => {
    expect(num(-0.04, 1)).toBe('0.0');
    expect(num(-0.8, 1)).toBe('−0.8');
    expect(signed(0.26, 1)).toBe('+0.3');
    expect(signed(-0.001, 1)).toBe('0.0');
  });
  it('writes decimals behind a comma where that is at home', () => {
    pointIs('comma');
    expect(num(-0.04, 1)).toBe('0,0');
    expect(signed(0.26, 1)).toBe('+0,3');
    expect(angle(-1.25, 'decimal', 2)).toBe('−1,25°');
    expect(length(12.3, 'mm', 1)).toBe('12,3 mm');
    expect(tick(-0.5, 'decimal', 1)).toBe('−0,5°');
    pointIs('point');
    expect(num(1.5, 1)).toBe('1.5');
  });
  it('carries minutes over to degrees', () => {
    expect(minutes(1.999)).toBe('2°00′');
    expect(minutes(-0.4)).toBe('−0°24′');
    expect(angle(3.4, 'minutes')).toBe('3°24′');
    expect(angleChange(0.5, 'minutes')).toBe('+0°30′');
  });
  it('tells a tick as short as it can be told in full', () => {
    expect([-2, -1.5, -1, -0.5, 0].map((v) => tick(v, 'minutes', 1))).toEqual([
      '−2°',
      '−1°30′',
      '−1°',
      '−30′',
      '0°',
    ]);
    expect([0.25, 1.25].map((v) => tick(v, 'minutes', 2, true))).toEqual(['+15′', '+1°15′']);
    expect(tick(-1.5, 'decimal', 1)).toBe('−1.5°');
  });
  it('reduces sixteenths', () => {
    expect(inches(498.475)).toBe('19 5/8');
    expect(inches(6.35)).toBe('1/4');
    expect(inches(-63.5)).toBe('−2 1/2');
    expect(inches(0.2)).toBe('0');
    expect(length(25.4, 'in')).toBe('1 in');
    expect(length(65, 'mm')).toBe('65 mm');
  });
  it('rounds distance to what it can hold', () => {
    expect(distance(31234)).toBe('31\u00a0000');
    expect(distance(8049)).toBe('8\u00a0000');
    expect(distance(Number.POSITIVE_INFINITY)).toBe('—');
  });
});
