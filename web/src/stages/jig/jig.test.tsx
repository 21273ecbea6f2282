// @vitest-environment happy-dom
// The jig's page: what is asked for what is turned, and what it says of the answer.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { Drawing, Schemas } from '../../api/client';
import { SettingsProvider } from '../../ui/settings';
import Jig from './Jig';
import { outside, placeWord } from './jig';

const asked: Schemas['JigAsked'][] = [];
let refuse = false;

const drawing: Drawing = {
  bars: [{ name: 'lower', from: [0, 400, 250], to: [0, 760, 240], kind: 'lower_arm', on_body: true }],
  centre: [0, 830, 390],
  spin: [0, 1, 0.03],
  contact: [0, 835, 0],
  axis: [
    [0, 760, 240],
    [-20, 720, 550],
  ],
  pierce: [10, 800, 0],
  loaded_radius_mm: 390,
} as unknown as Drawing;

function stands(s: Schemas['JigSetting']): Schemas['JigStands'] {
  const lean = s.camber_at === 'knuckle' ? 10 : 12;
  return {
    straight: {
      camber_deg: s.camber_deg,
      toe_deg: s.toe_deg,
      caster_deg: s.caster_deg,
      sai_deg: lean,
      half_track_mm: 835,
      wheel_x_mm: 0,
      scrub_radius_mm: 30,
      mechanical_trail_mm: 25,
    },
    now: [s.camber_deg - 0.5, 0],
    drawing,
    turns: [-32, 0, 32].map((d) => ({
      steer_deg: d,
      left_deg: s.camber_deg + d / 16,
      right_deg: s.camber_deg - d / 16 + lean / 20,
      lift_mm: Math.abs(d) / 20,
    })),
    print: {
      load_n: 6500,
      camber_deg: s.camber_deg,
      width_mm: 200,
      strips: [-0.9, 0, 0.9].map((eta) => ({ eta, length_mm: 150, pressure_kpa: 240 })),
      thirds: [0.4, 0.34, 0.26],
      touching: 1,
    },
    made: { top_out_mm: 0, top_forward_mm: 0, lower_longer_mm: 0, knuckle_deg: 0, tie_longer_mm: 0 },
  };
}

vi.mock('../../api/calls', async (real) => {
  const { ApiProblem } = await import('../../api/client');
  return {
    ...(await real<object>()),
    askJig: (body: Schemas['JigAsked']) => {
      asked.push(body);
      if (refuse)
        return Promise.reject(
          new ApiProblem(422, 'cannot', 'cannot', [
            { field: 'steer_deg', wrong: 'this corner cannot stand so', right: 'less of it' },
          ]),
        );
      return Promise.resolve(body.settings.map(stands));
    },
    getShop: () => Promise.resolve({ name: 'Larkspur Axle & Arm' }),
  };
});
vi.mock('../../door/AtBench', () => ({ AtBench: () => null }));

beforeEach(() => {
  asked.length = 0;
  refuse = false;
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <SettingsProvider>
        <MemoryRouter>
          <Jig />
        </MemoryRouter>
      </SettingsProvider>
    </QueryClientProvider>,
  );
});
afterEach(cleanup);

it('opens with one camber made in two places, and says what the turn makes of them', async () => {
  await waitFor(() =>
    expect(screen.getByTestId('jig-says').textContent).toBe('Outside wheel at lock: A −3.5°, B −3.4°'),
  );
  expect(asked[0]?.settings.map((s) => [s.camber_at, s.camber_deg])).toEqual([
    ['knuckle', -2],
    ['top', -2],
  ]);
  // Both curves say their ends to who cannot see them.
  expect(screen.getByTestId('jig-camber').getAttribute('aria-label')).toContain('A left wheel 0.0');
  expect(screen.getByTestId('jig-lift').getAttribute('aria-label')).toContain('+1.6 mm');
  expect(screen.getAllByRole('img', { name: /inner third 40/ })).toHaveLength(2);
});

it('asks for what is turned, on the setting in hand alone', async () => {
  await userEvent.click(await screen.findByTestId('jig-B'));
  await userEvent.click(screen.getByTestId('jig-at-lower_arm'));
  await waitFor(() =>
    expect(asked.at(-1)?.settings.map((s) => s.camber_at)).toEqual(['knuckle', 'lower_arm']),
  );
  const slider = screen.getByTestId('jig-caster_deg').querySelector('input')!;
  fireEvent.change(slider, { target: { value: 7 } });
  await waitFor(() => expect(asked.at(-1)?.settings.map((s) => s.caster_deg)).toEqual([5, 7]));
  fireEvent.change(screen.getByTestId('jig-steer').querySelector('input')!, { target: { value: -20 } });
  await waitFor(() => expect(asked.at(-1)?.steer_deg).toBe(-20));
  expect(screen.getByText('20° to the right')).toBeTruthy();
  await userEvent.click(screen.getByTestId('jig-strut'));
  await waitFor(() => expect(asked.at(-1)?.shape).toBe('strut'));
  expect(screen.getByTestId('jig-at-top').textContent).toBe('strut top');
});

it('turns the view by the arrows, within bounds', async () => {
  const view = await screen.findByTestId('jig-view');
  const from = () =>
    /seen from (-?\d+) degrees round, (-?\d+) up/.exec(view.getAttribute('aria-label')!)!.slice(1);
  const [yaw] = from();
  fireEvent.keyDown(view, { key: 'ArrowRight' });
  expect(Number(from()[0])).toBe(Number(yaw) + 6);
  for (let i = 0; i < 40; i++) fireEvent.keyDown(view, { key: 'ArrowUp' });
  expect(from()[1]).toBe('85');
  fireEvent.pointerDown(view, { clientX: 100, clientY: 100, pointerId: 1 });
  fireEvent.pointerMove(view, { clientX: 50, clientY: 100, pointerId: 1 });
  fireEvent.pointerUp(view, { pointerId: 1 });
  expect(Number(from()[0])).toBe(Number(yaw) + 6 - 20);
  expect(view.innerHTML).not.toMatch(/NaN|undefined/);
});

it('says what cannot be, and keeps what was seen', async () => {
  await waitFor(() => expect(screen.getByTestId('jig-says').textContent).toContain('A −3.5°'));
  refuse = true;
  fireEvent.change(screen.getByTestId('jig-steer').querySelector('input')!, { target: { value: 30 } });
  expect((await screen.findByTestId('jig-fault')).textContent).toContain('this corner cannot stand so');
  expect(screen.getByTestId('jig-says').textContent).toContain('A −3.5°');
});

it('names a place as the shape has it', () => {
  expect(placeWord('knuckle', 'strut')).toBe('strut clamp');
  expect(placeWord('top', 'wishbones')).toBe('upper arm');
  expect(outside({ turns: [] } as unknown as Schemas['JigStands'])).toBeUndefined();
});
