// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// Fields in a DOM: what a shop writes is read, what is wrong stands at the field, what was typed stays as typed.
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { SettingsProvider, useSettings, type Settings } from '../ui/settings';
import { unitsOf } from '../units/measure';
import { MeasureField, TyreField } from './Field';
import { echoOf, readField, rightOf, suffixOf, tyreWords, tyreWrong, wrongOf, type FieldKind } from './kinds';

let settings: Settings;
function One({
  kind,
  start = '',
  fault,
}: {
  kind: FieldKind;
  start?: string;
  fault?: { wrong: string; right: string };
}) {
  settings = useSettings();
  const [text, setText] = useState(start);
  return (
    <MeasureField
      kind={kind}
      label="It"
      text={text}
      onText={setText}
      testid="f"
      fault={fault}
      hint="a hint"
    />
  );
}
const open = (kind: FieldKind, more: { start?: string; fault?: { wrong: string; right: string } } = {}) =>
  render(<One kind={kind} {...more} />, { wrapper: SettingsProvider });
const field = () => screen.getByTestId<HTMLInputElement>('f');
const put = (value: string) => fireEvent.change(field(), { target: { value } });
const words = () => document.querySelector('.MuiFormHelperText-root')?.textContent;

beforeEach(() => localStorage.clear());
afterEach(cleanup);

describe('a field for a length', () => {
  it('names the unit, and says what was typed in another one', () => {
    open('length');
    expect(screen.getByLabelText('It, mm')).toBe(field());
    expect(words()).toBe('a hint');
    put('2½ in');
    expect(words()).toBe('= 63.5 mm');
    put('5 ft 6');
    expect(words()).toBe('= 1676.4 mm');
    put('65');
    expect(words()).toBe('a hint');
    expect(field().getAttribute('aria-invalid')).toBe('false');
  });
  it('says what is wrong and what would be right, and keeps what was typed', () => {
    open('length');
    put('19 5/');
    expect(words()).toBe('“19 5/” cannot be read; a length such as 498 or 19 5/8in');
    expect(field().getAttribute('aria-invalid')).toBe('true');
    expect(field().value).toBe('19 5/');
    put('1,500');
    expect(words()).toBe('“1,500” can be 1.5 or 1500; 1.5 with a point, or 1500 without the comma');
    put('-');
    expect(field().getAttribute('aria-invalid')).toBe('false');
  });
  it('lets the form or the server speak first', () => {
    open('length', { start: 'x', fault: { wrong: 'too low', right: '1500 to 6000 mm' } });
    expect(words()).toBe('too low; 1500 to 6000 mm');
  });
  it('follows the switch', () => {
    localStorage.setItem('bold-stance.settings', JSON.stringify({ unit: 'in' }));
    open('length');
    expect(screen.getByLabelText('It, in')).toBe(field());
    put('498 mm');
    expect(words()).toBe('= 19 5/8 in');
    expect(settings.units.pressure).toBe('psi');
  });
});

describe('a field for an angle', () => {
  it('reads minutes and slopes', () => {
    open('angle');
    put('1/8 in per foot');
    expect(words()).toBe('= 0.60°');
    put("0°24'");
    expect(words()).toBe('= 0.40°');
    put('5 mm');
    expect(words()).toContain('cannot be read');
  });
});

describe('a field for a tyre size', () => {
  it('tells its diameter, and what a size looks like', () => {
    const Size = () => {
      const [t, setT] = useState('');
      return <TyreField label="Size" text={t} onText={setT} testid="f" />;
    };
    render(<Size />, { wrapper: SettingsProvider });
    expect(words()).toBe('such as 285/70R17 or 33x12.50R15');
    put('33x12.50R15');
    expect(words()).toBe('838 mm across, unloaded');
    put('265/70R17');
    expect(words()).toBe('803 mm across, unloaded');
    put('big');
    expect(words()).toBe('“big” cannot be read; a size such as 285/70R17 or 33x12.50R15');
  });
  it('gives the diameter in inches to a shop in inches', () => {
    expect(tyreWords('33x12.50R15', unitsOf('in', 'decimal'))).toBe('33.0 in across, unloaded');
    expect(tyreWrong('')).toBeUndefined();
  });
});

describe('every kind of field', () => {
  const kinds: FieldKind[] = [
    'length',
    'angle',
    'number',
    'pressure',
    'load',
    'mass',
    'rate',
    'distance',
    'tread',
  ];
  it.each(kinds)('%s: what it says would be right is right', (kind) => {
    for (const u of [unitsOf('mm', 'decimal'), unitsOf('in', 'minutes')]) {
      const right = rightOf(kind, u);
      const said = /such as (.+?)(?:,| or |$)/.exec(right)![1]!;
      expect(readField(kind, said, u), said).toBeDefined();
      expect(wrongOf(kind, 'nonsense', u)?.right).toBe(right);
      expect(wrongOf(kind, '', u)).toBeUndefined();
      expect(suffixOf(kind, u)).toBe(
        {
          length: u.length,
          angle: '°',
          number: '',
          pressure: u.length === 'mm' ? 'kPa' : 'psi',
          load: u.length === 'mm' ? 'N' : 'lb',
          mass: u.length === 'mm' ? 'kg' : 'lb',
          rate: u.length === 'mm' ? 'N/mm' : 'lb/in',
          distance: u.length === 'mm' ? 'km' : 'mi',
          tread: u.length === 'mm' ? 'mm' : '1/32 in',
        }[kind],
      );
      expect(echoOf(kind, 'nonsense', u)).toBeUndefined();
    }
  });
});
