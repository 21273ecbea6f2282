import { unitsOf } from '../../units/measure';
import { describe, expect, it } from 'vitest';
import data from '../../../../data/methods.json';
import type { Method } from '../../pad/readings';
import { ago, doubt, keyOf, methodsFor, placeFor, placeWords, show, targetOf } from '../../pad/readings';
import { readLength } from '../../units/notation';
import { inchText } from '../../pad/Ruler';

const methods = data as unknown as Method[];

describe('what is asked', () => {
  it('stands in the address bar and comes back', () => {
    const t = { quantity: 'camber', place: { side: 'left', axle: 'front' } } as const;
    expect(keyOf(t)).toBe('camber.left.front');
    expect(targetOf(keyOf(t))).toEqual(t);
    for (const bad of [null, '', 'prepare', 'colour.left.front', 'camber', 'camber.left'])
      expect(targetOf(bad)).toBeUndefined();
  });
  it('says where', () => {
    expect(placeWords({ axle: 'front', side: 'left' })).toBe('left front');
    expect(placeWords({ axle: 'rear', side: 'both' })).toBe('rear axle');
    expect(placeWords({ axle: 'both', side: 'right' })).toBe('right side');
    expect(placeWords({ axle: 'both', side: 'both' })).toBe('whole car');
  });
  it('offers every tool for it, none for the bench, and toe of both wheels for one', () => {
    const toe = methodsFor(methods, 'toe');
    expect(toe.map((m) => m.id)).toEqual([
      'toe-distance',
      'toe-scribed',
      'toe-rim-gauge',
      'toe-bars',
      'toe-plates',
      'toe-string',
      'toe-convert',
    ]);
    expect(methodsFor(methods, 'floor_slope')).toEqual([]);
    const left = { quantity: 'toe', place: { axle: 'rear', side: 'left' } } as const;
    expect(placeFor(toe[0]!, left)).toEqual({ axle: 'rear', side: 'both' });
    expect(placeFor(toe[5]!, left)).toEqual(left.place);
  });
});

describe('figures', () => {
  it('come in the unit and the digits that mean something', () => {
    expect(show('camber', -0.36, unitsOf('in', 'decimal'))).toBe('−0.4°');
    expect(show('toe', 0.054, unitsOf('mm', 'decimal'))).toBe('0.05°');
    expect(show('caster', 3.4, unitsOf('mm', 'minutes'))).toBe('3°24′');
    expect(show('height', 498.475, unitsOf('in', 'decimal'))).toBe('19 5/8 in');
    expect(show('height', 498.475, unitsOf('mm', 'decimal'), true)).toBe('498.5 mm');
    expect(show('pressure', 241.3, unitsOf('in', 'decimal'))).toBe('35 psi');
    expect(show('tread_depth', 6.35, unitsOf('in', 'decimal'))).toBe('8.0/32 in');
    expect(doubt('camber', 0.105, unitsOf('mm', 'decimal'))).toBe('±0.17');
    expect(doubt('camber', 0.105, unitsOf('mm', 'minutes'))).toBe('±0°10′');
    expect(doubt('height', 1, unitsOf('mm', 'decimal'))).toBe('±1.6 mm');
    expect(doubt('height', 1, unitsOf('in', 'minutes'))).toBe('±1/16 in');
  });
  it('have an age', () => {
    expect(ago(1000, 1020)).toBe('just now');
    expect(ago(1000, 1000 + 240)).toBe('4 min');
    expect(ago(1000, 1000 + 3 * 3600)).toBe('3 h');
    expect(ago(1000, 1000 + 5 * 86400)).toBe('5 days');
    expect(ago(2000, 1000)).toBe('just now');
  });
});

describe('a length while it is typed', () => {
  it('is shown in the other unit', () => {
    expect(readLength('6.5', 'mm')).toBe(6.5);
    expect(readLength('1/4', 'in')).toBeCloseTo(6.35);
    expect(readLength('58 3/8', 'in')).toBeCloseTo(1482.725);
    expect(readLength('19-5/8 in', 'mm')).toBeCloseTo(498.475);
    expect(readLength('-0,5', 'mm')).toBe(-0.5);
    expect(readLength('12 mm', 'in')).toBe(12);
    for (const bad of ['', 'x', '1/', '1 2 3', '5 deg']) expect(readLength(bad, 'mm')).toBeUndefined();
  });
  it('steps by sixteenths and is typed as it is read', () => {
    expect(inchText(498.475 + 25.4 / 16)).toBe('19 11/16');
    expect(inchText(-6.35)).toBe('-1/4');
    for (let n = 0; n < 64; n++)
      expect(readLength(inchText((n * 25.4) / 16), 'in')).toBeCloseTo((n * 25.4) / 16);
  });
});
