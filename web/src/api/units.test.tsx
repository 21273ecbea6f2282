// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// The units sentences are asked for in go with every request, and follow the switch.
import { act, cleanup, render } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { SettingsProvider, useSettings, type Settings } from '../ui/settings';
import { api, take } from './client';
import { unitsHeader } from './units';

// The client takes fetch when it is loaded, before any test runs.
const server = vi.hoisted(() => {
  const it = { asked: [] as (string | null)[] };
  globalThis.fetch = async (input) => {
    it.asked.push((input as Request).headers.get('x-units'));
    return new Response('"ok"', { headers: { 'content-type': 'application/json' } });
  };
  return it;
});
let settings: Settings;
function Probe() {
  settings = useSettings();
  return null;
}
const open = () =>
  render(
    <SettingsProvider>
      <Probe />
    </SettingsProvider>,
  );
const ask = () => take(api.GET('/api/v1/health'));

beforeEach(() => {
  localStorage.clear();
  server.asked.length = 0;
});
afterEach(cleanup);

it('tells nothing in millimetres and decimal degrees', async () => {
  open();
  await ask();
  expect(server.asked).toEqual([null]);
  expect(unitsHeader()).toEqual({});
});

it('tells inches with what a shop in inches uses, and minutes beside them', async () => {
  open();
  act(() => settings.set({ unit: 'in' }));
  await ask();
  act(() => settings.set({ form: 'minutes' }));
  await ask();
  act(() => settings.set({ unit: 'mm' }));
  await ask();
  const inches = 'length=in; pressure=psi; load=lb; distance=miles; tread=in32';
  expect(server.asked).toEqual([inches, `${inches}; angle=minutes`, 'angle=minutes']);
});

it('tells what was chosen before the page was loaded', async () => {
  localStorage.setItem('bold-stance.settings', JSON.stringify({ form: 'minutes' }));
  open();
  await ask();
  expect(server.asked).toEqual(['angle=minutes']);
});
