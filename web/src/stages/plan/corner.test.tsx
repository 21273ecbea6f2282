// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// The corner panel: what the steering wheel does on both sides against as found, what is asked for the patches, and that a patch
// says which third carries the load.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { PlanResult, Schemas } from '../../api/client';
import { pointAt } from '../../figures/SteerCurves';
import { SettingsProvider } from '../../ui/settings';
import { CornerPanel, settingsOf } from './CornerPanel';

const server = vi.hoisted(() => {
  const it = { asked: [] as Record<string, any>[], answer: undefined as unknown };
  globalThis.fetch = async (input) => {
    it.asked.push(JSON.parse(await (input as Request).text()));
    return new Response(JSON.stringify(it.answer), { headers: { 'content-type': 'application/json' } });
  };
  return it;
});

const side = (turn: number, camber: number, rise: number): Schemas['TurnSide'] => ({
  turn_deg: turn,
  camber_deg: camber,
  rise_mm: rise,
  forward_mm: turn / 2,
});
const at = (deg: number, lean: number): Schemas['TurnPoint'] => ({
  mean_deg: deg,
  left: side(deg, lean * deg, deg),
  right: side(deg, -lean * deg, -deg),
});
const steer = {
  found: [-20, 0, 20].map((d) => at(d, 0.1)),
  set: [-20, 0, 20].map((d) => at(d, 0.2)),
  effort_ratio: 1.25,
};
const patch = (thirds: number[], off = false): Schemas['Footprint'] => ({
  load_n: 4000,
  camber_deg: -1.2,
  width_mm: 200,
  thirds,
  touching: off ? 0.5 : 1,
  strips: [-0.9, 0, 0.9].map((eta) => ({ eta, length_mm: off && eta > 0 ? 0 : 120, pressure_kpa: 200 })),
});
const patches = [
  { straight: patch([0.4, 0.3, 0.3]), outside: patch([0.2, 0.3, 0.5]), inside: patch([0.6, 0.4, 0], true) },
  { straight: patch([0.45, 0.3, 0.25]), outside: patch([0.3, 0.35, 0.35]), inside: patch([0.5, 0.3, 0.2]) },
];
const angles = (camber: number) => ({ camber_deg: camber, caster_deg: 4, toe_deg: 0.1 });
const result = (s: unknown) =>
  ({
    steer: s,
    left: { before: angles(-0.5), set: angles(-2) },
    right: { before: angles(-0.7), set: angles(-2.2) },
  }) as unknown as PlanResult;

beforeEach(() => {
  server.asked.length = 0;
  server.answer = patches;
});
afterEach(() => {
  cleanup();
  localStorage.clear();
});
const open = (s: unknown = steer, axle: 'front' | 'rear' = 'front') =>
  render(
    <SettingsProvider>
      <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
        <CornerPanel result={result(s)} axle={axle} tyres={{} as Schemas['CarTyres']} ratio={15} lock={35} />
      </QueryClientProvider>
    </SettingsProvider>,
  );

it('finds a place of the wheel between those worked out, and holds at the ends', () => {
  expect(pointAt(steer.set, 10)!.left.camber_deg).toBeCloseTo(2);
  expect(pointAt(steer.set, -10)!.right.rise_mm).toBeCloseTo(10);
  expect(pointAt(steer.set, 90)!.left.camber_deg).toBeCloseTo(4);
  expect(pointAt([], 0)).toBeUndefined();
});

it('tells both wheels against as found as the steering wheel turns, left on the left', async () => {
  open();
  const slider = within(screen.getByTestId('corner-steer')).getByRole('slider');
  fireEvent.change(slider, { target: { value: '-150' } });
  expect(slider.getAttribute('aria-valuetext')).toBe('150 degrees to the left');
  const table = screen.getByRole('table');
  expect(within(table).getByText('2.0°')).toBeTruthy();
  expect(table.textContent).toContain('was 1.0°');
  expect(screen.getByTestId('corner-effort').textContent).toContain('1.25 times as found');
  // 150° of the wheel are 10° of the road wheels.
  await waitFor(() => expect(server.asked.at(-1)!.bend).toEqual({ ay_g: 0.5, steer_deg: 10 }));
});

it('asks for as found and as set, and names the thirds of every patch', async () => {
  open();
  await screen.findByTestId('corner-patches');
  expect(server.asked[0]!.settings[0].camber_deg).toBeCloseTo(-0.6);
  expect(server.asked[0]!.settings[1].camber_deg).toBeCloseTo(-2.1);
  expect(
    screen.getByRole('img', {
      name: 'As set, outside the bend: inner third 30, middle 35, outer 35 per cent of the load',
    }),
  ).toBeTruthy();
  expect(screen.getByText(', 50 % on the road')).toBeTruthy();
});

it('shows a rear axle its patches without a steering wheel, and no caster', () => {
  open(null, 'rear');
  expect(screen.queryByTestId('corner-steer')).toBeNull();
  expect(settingsOf(result(null), 'rear')[1]!.caster_deg).toBe(0);
});
