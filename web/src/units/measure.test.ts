// Quantities in the units of a shop: printed, read, and back as they were.
import { describe, expect, it } from 'vitest';
import {
  bare,
  example,
  far,
  farRange,
  farUnit,
  fieldText,
  measure,
  readIn,
  unitName,
  unitsOf,
  type Kind,
} from './measure';
import { pointIs } from './print';

const metric = unitsOf('mm', 'decimal');
const imperial = unitsOf('in', 'decimal');

describe('units of a shop', () => {
  it('go with the length, but for what was chosen by itself', () => {
    expect(metric).toMatchObject({ pressure: 'kpa', load: 'n', distance: 'km', tread: 'mm' });
    expect(imperial).toMatchObject({ pressure: 'psi', load: 'lb', distance: 'miles', tread: 'in32' });
    expect(unitsOf('mm', 'minutes', { pressure: 'bar', load: 'kg' })).toEqual({
      length: 'mm',
      angle: 'minutes',
      decimal: 'point',
      pressure: 'bar',
      load: 'kg',
      distance: 'km',
      tread: 'mm',
    });
  });
});

describe('a quantity', () => {
  it.each([
    ['pressure', 240, '240 kPa', '35 psi'],
    ['load', 6000, '6000 N', '1349 lb'],
    ['mass', 80, '80 kg', '176 lb'],
    ['rate', 40, '40.0 N/mm', '228 lb/in'],
    ['distance', 8049, '8049 km', '5001 mi'],
    ['tread', 7.9375, '7.9 mm', '10.0/32 in'],
  ] as [Kind, number, string, string][])('%s of %s is %s or %s', (kind, v, here, there) => {
    expect(measure(kind, v, metric)).toBe(here);
    expect(measure(kind, v, imperial)).toBe(there);
  });
  it('has no negative zero, and is told in bar and kilograms where those were chosen', () => {
    expect(bare('tread', -0.01, metric)).toBe('0.0');
    const own = unitsOf('mm', 'decimal', { pressure: 'bar', load: 'kg' });
    expect(measure('pressure', 240, own)).toBe('2.40 bar');
    expect(measure('load', 6000, own)).toBe('612 kg');
    expect(unitName('rate', own)).toBe('kg/mm');
  });
  it.each(['pressure', 'load', 'mass', 'rate', 'distance', 'tread'] as Kind[])(
    '%s comes back from its field in every unit',
    (kind) => {
      const kept = {
        pressure: 251.3,
        load: 5871.6,
        mass: 312.4,
        rate: 41.7,
        distance: 38_612.4,
        tread: 6.35,
      }[kind];
      const all = [metric, imperial, unitsOf('mm', 'decimal', { pressure: 'bar', load: 'kg' })];
      for (const u of all.flatMap((u) => [u, { ...u, decimal: 'comma' as const }])) {
        pointIs(u.decimal);
        const back = readIn(kind, fieldText(kind, kept, u), u);
        expect(Math.abs(back! - kept) / kept, `${kind} ${JSON.stringify(u)}`).toBeLessThan(8e-3);
        expect(readIn(kind, example(kind, u), u), example(kind, u)).toBeDefined();
      }
      pointIs('point');
      expect(fieldText(kind, null, metric)).toBe('');
    },
  );
  it('is read with its own unit behind it, whatever the shop works in', () => {
    for (const u of [metric, imperial]) {
      expect(readIn('pressure', '2.4 bar', u)).toBeCloseTo(240, 9);
      expect(readIn('load', '600 kg', u)).toBeCloseTo(5883.99, 2);
      expect(readIn('load', '1300 lb', u)).toBeCloseTo(5782.69, 1);
      expect(readIn('load', '5900 N', u)).toBe(5900);
      expect(readIn('rate', '228.4 lb/in', u)).toBeCloseTo(40, 1);
      expect(readIn('rate', '40 N/mm', u)).toBe(40);
      expect(readIn('distance', '24000 miles', u)).toBeCloseTo(38_624.256, 3);
      expect(readIn('distance', '38600 km', u)).toBe(38_600);
      expect(readIn('tread', '7/32', u)).toBeCloseTo(5.55625, 9);
      expect(readIn('tread', '5.6 mm', u)).toBeCloseTo(5.6, 9);
      expect(readIn('tread', '7/32 in', u)).toBeCloseTo(5.55625, 9);
    }
    expect(readIn('tread', '7', imperial)).toBeCloseTo(5.55625, 9);
  });
  it('is refused where it is none, and where a comma could be either', () => {
    for (const t of ['', 'soft', '2.4 atm', '38,600', '38,600 km', '1 2']) {
      expect(readIn('distance', t, metric), t).toBeUndefined();
      expect(readIn('load', t, imperial), t).toBeUndefined();
    }
  });
});

describe('a distance that is forecast', () => {
  it('is rounded to what it can hold in either unit', () => {
    expect(farUnit(31_234, metric)).toBe('31\u00a0000 km');
    expect(farUnit(31_234, imperial)).toBe('19\u00a0000 mi');
    expect(far(8049, metric)).toBe('8\u00a0000');
    expect(far(640, metric)).toBe('640');
    expect(far(Number.POSITIVE_INFINITY, metric)).toBe('—');
  });
  it('has its band in thousands, never below nothing', () => {
    expect(farRange(21_700, 43_200, metric)).toBe('(22–43)');
    expect(farRange(21_700, 43_200, imperial)).toBe('(13–27)');
    expect(farRange(-400, 2000, metric)).toBe('(0.0–2.0)');
  });
});
