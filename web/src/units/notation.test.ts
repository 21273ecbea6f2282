// Every field reads what the core reads: the vectors of data/notation.json, which the core's tests read too.
import { describe, expect, it } from 'vitest';
import notation from '../../../data/notation.json';
import {
  bothReadings,
  diameterMm,
  problemOf,
  readAngle,
  readLength,
  readMass,
  readNumber,
  readPressure,
  readTyre,
} from './notation';

const near = (v: number | undefined, want: number, text: string) => {
  expect(v, text).toBeDefined();
  expect(Math.abs(v! - want), `${text}: ${v}`).toBeLessThan(1e-7 * Math.max(1, Math.abs(want)));
};

describe('the shared notation', () => {
  it.each(notation.length.map((c) => [c.text, c.unit, c.mm] as const))('length %s (%s)', (text, unit, mm) => {
    const v = readLength(text, unit as 'mm' | 'in');
    if (mm === undefined) expect(v).toBeUndefined();
    else near(v, mm, text);
  });
  it.each(notation.angle.map((c) => [c.text, c.deg] as const))('angle %s', (text, deg) => {
    const v = readAngle(text);
    if (deg === null) expect(v).toBeUndefined();
    else near(v, deg, text);
  });
  it.each(notation.number.map((c) => [c.text, c.value, c.either] as const))(
    'number %s',
    (text, value, either) => {
      expect(bothReadings(text)).toEqual(either);
      if (value === undefined) expect(readNumber(text)).toBeUndefined();
      else expect(readNumber(text)).toBe(value);
    },
  );
  it.each(notation.pressure.map((c) => [c.text, c.kpa] as const))('pressure %s', (text, kpa) => {
    if (kpa === undefined) expect(readPressure(text)).toBeUndefined();
    else near(readPressure(text), kpa, text);
  });
  it.each(notation.mass.map((c) => [c.text, c.kg] as const))('mass %s', (text, kg) => {
    if (kg === undefined) expect(readMass(text)).toBeUndefined();
    else near(readMass(text), kg, text);
  });
  it.each(notation.tyre.map((c) => [c.text, c] as const))('tyre %s', (text, c) => {
    const v = readTyre(text);
    if (c.section_mm === undefined) {
      expect(v).toBeUndefined();
      return;
    }
    near(v?.section_mm, c.section_mm, text);
    near(v?.aspect, c.aspect, text);
    near(v?.rim_in, c.rim_in, text);
  });
  it('gives a flotation size back its diameter', () => {
    expect(diameterMm(readTyre('33x12.50R15')!)).toBeCloseTo(33 * 25.4, 9);
    expect(diameterMm(readTyre('265/70R17')!)).toBeCloseTo(802.8, 9);
  });
});

describe('what is wrong with a text', () => {
  const length = (t: string) => problemOf(t, (x) => readLength(x, 'mm'), 'a length such as 498');
  it('says nothing while nothing is typed, or only a sign', () => {
    for (const t of ['', '  ', '-', '−', '65', '5 ft 6']) expect(length(t), t).toBeUndefined();
  });
  it('asks where a comma could be either, and says what would be right elsewhere', () => {
    expect(length('1,500 mm')).toEqual({
      wrong: '“1,500 mm” can be 1.5 or 1500',
      right: '1.5 with a point, or 1500 without the comma',
    });
    expect(length('abc')).toEqual({ wrong: '“abc” cannot be read', right: 'a length such as 498' });
  });
});
