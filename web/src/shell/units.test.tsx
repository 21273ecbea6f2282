// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// The units of a shop in a DOM: one switch, and what may be chosen by itself; kept, and told with every request.
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '../test/user';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { num } from '../units/print';
import { unitsHeader } from '../api/units';
import { SettingsProvider, useSettings } from '../ui/settings';
import { UnitsMenu } from './UnitsMenu';

function Told() {
  const { units } = useSettings();
  return <output data-testid="told">{Object.values(units).join(' ')}</output>;
}
const open = async () => {
  render(
    <SettingsProvider>
      <UnitsMenu />
      <Told />
    </SettingsProvider>,
  );
  await userEvent.click(screen.getByTestId('units'));
};
const told = () => screen.getByTestId('told').textContent;
const press = (id: string) => userEvent.click(screen.getByTestId(id));

beforeEach(() => localStorage.clear());
afterEach(cleanup);

describe('the units menu', () => {
  it('turns everything with the length, until something is chosen by itself', async () => {
    await open();
    expect(told()).toBe('mm decimal point kpa n km mm');
    expect(unitsHeader()).toEqual({});
    await press('units-length-in');
    expect(told()).toBe('in decimal point psi lb miles in32');
    await press('units-pressure-bar');
    await press('units-tread-mm');
    expect(told()).toBe('in decimal point bar lb miles mm');
    expect(unitsHeader()).toEqual({ 'x-units': 'length=in; pressure=bar; load=lb; distance=miles' });
    await press('units-length-mm');
    expect(told()).toBe('mm decimal point bar n km mm');
    await press('units-follow');
    expect(told()).toBe('mm decimal point kpa n km mm');
  });
  it('marks what is chosen for who cannot see it', async () => {
    await open();
    expect(screen.getByTestId('units-load-n').getAttribute('aria-pressed')).toBe('true');
    await press('units-load-kg');
    expect(screen.getByTestId('units-load-kg').getAttribute('aria-pressed')).toBe('true');
    expect(screen.getByTestId('units-load-n').getAttribute('aria-pressed')).toBe('false');
    await press('units-angle-minutes');
    expect(unitsHeader()).toEqual({ 'x-units': 'load=kg; angle=minutes' });
  });
  it('writes numbers as this browser does, until otherwise is chosen', async () => {
    await open();
    expect(num(1.5, 1)).toBe('1.5');
    await press('units-decimal-comma');
    expect(unitsHeader()).toEqual({ 'x-units': 'decimal=comma' });
    expect(num(1.5, 1)).toBe('1,5');
    await press('units-follow');
    expect(num(1.5, 1)).toBe('1.5');
  });
  it('keeps what was chosen, and forgets what no unit is', async () => {
    await open();
    await press('units-distance-miles');
    cleanup();
    await open();
    expect(told()).toBe('mm decimal point kpa n miles mm');
    cleanup();
    localStorage.setItem(
      'bold-stance.settings',
      JSON.stringify({ unit: 'ell', own: { load: 'stone', tread: 'in32' } }),
    );
    await open();
    expect(told()).toBe('mm decimal point kpa n km in32');
  });
});
