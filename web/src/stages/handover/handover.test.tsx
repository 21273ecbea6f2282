// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// The page for the owner, in a DOM: before and after in the units chosen, what was not read says so, nothing more is claimed.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen } from '@testing-library/react';
import { createMemoryRouter, Outlet, RouterProvider } from 'react-router';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { SettingsProvider } from '../../ui/settings';
import Handover from './Handover';

const server = vi.hoisted(() => {
  const it = { page: {} as unknown };
  globalThis.fetch = async (input) => {
    const url = new URL(input instanceof Request ? input.url : String(input));
    const body = url.pathname.endsWith('/handover')
      ? it.page
      : { name: 'Larkspur Axle & Arm', ways: [], tickets: [] };
    return new Response(JSON.stringify(body), { headers: { 'content-type': 'application/json' } });
  };
  return it;
});

const pair = (found: number | null, now: number | null) => ({ found, now, band: 0.1 });
const wheel = (axle: 'front' | 'rear', side: 'left' | 'right', more: object = {}) => ({
  axle,
  side,
  height_mm: pair(366, 326),
  camber_deg: pair(-1.5, -0.9),
  caster_deg: axle === 'front' ? pair(3.3, 4.8) : null,
  toe_deg: pair(0.02, 0.06),
  ...more,
});
const page = (more: object = {}) => ({
  headline: 'All 4 wheels stand on aim',
  came: ['The right front stood 14 mm higher than the other side.'],
  wheels: [
    wheel('front', 'left'),
    wheel('front', 'right'),
    wheel('rear', 'left', { camber_deg: pair(-1.9, null) }),
    wheel('rear', 'right', { height_mm: pair(366, null) }),
  ],
  moved_mm: { front: -40, rear: -40 },
  done: [{ title: 'Cams, both fronts', turned: ['Left front cam: 3 notches inboard'] }],
  tyre: null,
  watch: ['Another height can need approval. Ask locally.'],
  next_look: { on: '2026-12-13', after_km: 5000 },
  passed_off: [],
  not_read: ['Brakes, balance and rims: not looked at.'],
  signed: 'Specialist A',
  signed_at: '2026-11-18T10:00:00Z',
  ...more,
});
const bench = {
  plan: {
    id: 'p1',
    version: 1,
    document: {
      aim: { name: 'Fast road', camber_deg: [-1.3, -0.6], caster_deg: [4.2, 4.9], toe_total_deg: [0, 0.15] },
    },
  },
  input: {},
  ticket: {
    job: { id: 'j1', ticket: 421, version: 3, bay: 2, complaint: 'Pulls left' },
    vehicle: { facts: { name: 'Cobnut coupe', silhouette: 'wagon', tyre_size: '225/45R17' } },
    readings: [],
    done: [],
    notes: [{ id: 'n', text: 'liner rubbed', place: { axle: 'front', side: 'left' } }],
    missing: [],
  },
};
const open = async (p: object, form?: string) => {
  server.page = p;
  if (form) localStorage.setItem('bold-stance.settings', JSON.stringify({ unit: 'in', form }));
  const router = createMemoryRouter(
    [{ path: '/', element: <Outlet context={bench} />, children: [{ index: true, element: <Handover /> }] }],
    { initialEntries: ['/'] },
  );
  render(
    <SettingsProvider>
      <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </SettingsProvider>,
  );
  return (await screen.findByTestId('handover')).textContent ?? '';
};

beforeEach(() => localStorage.clear());
afterEach(cleanup);

it('tells before and after, and that what was not read is not read', async () => {
  const text = await open(page());
  expect(text).toContain('It came for: Pulls left. The right front stood 14 mm higher');
  expect(screen.getByTestId('ho-front-left').textContent).toContain('−1.5° → −0.9°');
  expect(screen.getByTestId('ho-rear-left').textContent).toContain('−1.9° → not read');
  expect(screen.getByTestId('ho-rear-left').textContent).toContain('–');
  expect(text).toContain('Left front cam: 3 notches inboard');
  expect(text).toMatch(/after 5\s000\skm/);
  expect(text).toContain('Too little was read before and after to say.');
  expect(text).toContain('Noted, left front:');
  expect(text).toContain('Now front 40 mm lower, rear 40 mm lower.');
  expect(text).toContain('Bay 2 · Specialist A');
});

it('follows inches and minutes', async () => {
  const text = await open(page(), 'minutes');
  expect(screen.getByTestId('ho-front-left').textContent).toContain('−1°30′ → −0°54′');
  expect(text).toContain('Figures: hub to arch, in.');
});

it('says what was passed against a reading, by whom, and what it is for the tyres', async () => {
  const off = {
    about: 'camber',
    axle: 'front',
    side: 'right',
    read: -0.7,
    expected: -0.3,
    band: 0.7,
    aim: [-0.5, 0],
    off_expected: 0,
    off_aim: -0.2,
    stale: false,
  };
  const tyre: Schemas['TyreTold'] = {
    place: 'left_rear',
    times: { ratio: 1.5, low: 1.2, high: 2 },
    too_close: false,
    worst: 'Inner edge',
    km: [10000, 15000, 22000],
    limit_mm: 1.6,
    depth_mm: [4.9, 5.3, 5.6],
  };
  const text = await open(
    page({
      passed_off: [{ title: 'Prove', off: [off], reason: 'owner knows', signed: 'Specialist B' }],
      tyre,
      signed: null,
    }),
  );
  expect(text).toContain('Right front camber −0.7°: 0.2° under the aim');
  expect(text).toContain('owner knows (Specialist B)');
  expect(screen.getByTestId('ho-tyre').textContent).toContain('×1.5as far on the left rear tyre');
  expect(screen.getByTestId('ho-tyre').textContent).toContain('First there: Inner edge.');
  expect(screen.getByText('Nobody stands for it yet')).toBeTruthy();
  cleanup();
  await open(page({ tyre: { ...tyre, too_close: true, times: { ratio: 1, low: 0.8, high: 1.2 } } }));
  expect(screen.getByTestId('ho-tyre').textContent).toContain('Too close to call');
});
