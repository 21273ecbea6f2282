// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// Plans side by side in a DOM: whose figures they are, in both units, and what is said of a difference too small to call.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '../../test/user';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { SettingsProvider } from '../../ui/settings';
import Compare from './Compare';

const bench = vi.hoisted(() => ({ now: {} as Record<string, unknown> }));
vi.mock('../../shell/ticket', async (real) => ({
  ...(await real<Record<string, unknown>>()),
  useBench: () => bench.now,
}));
vi.mock('../../figures/Overlay', () => ({ Overlay: () => null }));
// The client takes fetch when it is loaded, before any test runs.
const server = vi.hoisted(() => {
  type Asked = { path: string; body: Record<string, any> | undefined };
  const it = { asked: [] as Asked[], answer: (() => ({})) as (a: Asked) => unknown };
  globalThis.fetch = async (input) => {
    const r = input as Request;
    const text = await r.text();
    const one = { path: new URL(r.url).pathname, body: text ? JSON.parse(text) : undefined };
    it.asked.push(one);
    return new Response(JSON.stringify(it.answer(one)), { headers: { 'content-type': 'application/json' } });
  };
  return it;
});

const plan = (id: string, height: number) => ({
  id,
  name: `Plan ${id.toUpperCase()}`,
  document: {
    aim: { name: 'Mixed roads' },
    limit_mm: 1.6,
    axles: { front: { height_change_mm: height } },
  },
});
const side = (camber: number) => ({
  before: { camber_deg: -2, caster_deg: 2, toe_deg: 0.2 },
  set: {
    camber_deg: camber,
    caster_deg: 3.2,
    toe_deg: 0.1,
    sai_deg: 12,
    scrub_radius_mm: 31.75,
    mechanical_trail_mm: 25.4,
  },
  checks: [{ ok: camber > -1, words: 'upper arm fouls the rail' }],
  lock: null,
});
const answer = (camber: number) => ({
  verdict: {
    not_read: [],
    reached: camber > -1,
    headline: camber > -1 ? 'All of it is met' : 'Camber falls short',
  },
  axles: {
    front: {
      left: side(camber),
      right: side(camber + 0.25),
      candidates: [{ status: 'fitted', part: { name: 'Arm', cost: 300, labour_minutes: 90 } }],
    },
    rear: null,
  },
});
const footprint = (camber_deg: number) => ({
  load_n: 4000,
  camber_deg,
  width_mm: 200,
  thirds: [0.5, 0.3, 0.2],
  touching: 1,
  strips: [-0.9, 0, 0.9].map((eta) => ({ eta, length_mm: 120, pressure_kpa: 200 })),
});
const patches = (s: { camber_deg: number }) => ({
  straight: footprint(s.camber_deg),
  outside: footprint(s.camber_deg + 2),
  inside: footprint(s.camber_deg - 2),
});
const band = { low: 30_000, median: 40_000, high: 52_000 };
const wear = (low: number, high: number) => ({
  tyres: [
    {
      place: 'right_front',
      lead: 0,
      scenes: [
        { id: 'set', band_km: band },
        { id: 'other', ratio_to_lead: { ratio: 1.08, low, high } },
      ],
    },
    {
      place: 'left_front',
      lead: 0,
      scenes: [{ id: 'set', band_km: { low: 40_000, median: 60_000, high: 80_000 } }],
    },
  ],
});

function open() {
  return render(
    <MemoryRouter>
      <SettingsProvider>
        <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
          <Compare />
        </QueryClientProvider>
      </SettingsProvider>
    </MemoryRouter>,
  );
}
const row = (name: string) =>
  within(screen.getByTestId('compare')).getByRole('rowheader', { name }).closest('tr')!;
const cells = (name: string) =>
  [...row(name).querySelectorAll('td')].map((td) => td.textContent!.replace(/\s+/g, ' ').trim());

beforeEach(() => {
  localStorage.clear();
  server.asked.length = 0;
  const plans = [plan('a', 50.8), plan('b', -38.1)];
  const base = { axles: { front: {}, rear: null } };
  const tyres = { front: {}, rear: {} };
  bench.now = {
    plan: plans[0],
    ticket: {
      job: { id: 'j', ticket: 7, plate: 'LA 7' },
      vehicle: { version: 1, facts: { name: 'Quarry', tyre_size: '285/70R17' } },
      base,
      turned: [],
      plans,
      tyres,
    },
  };
  let ratio: [number, number] = [0.97, 1.2];
  server.answer = ({ path, body }) => {
    if (path.endsWith('/tread')) return { log: { tyres: [] }, tyres: [], warnings: [] };
    if (path.endsWith('/shop'))
      return { version: 1, settings: { labour_rate: 80, currency: 'cr', figures: 'cost' } };
    if (path.endsWith('/contact-patches')) return (body!.settings as { camber_deg: number }[]).map(patches);
    if (path.endsWith('/wear')) return wear(...ratio);
    return answer((body!.plan.axles.front.height_change_mm as number) > 0 ? -0.5 : -1.5);
  };
  bench.now.sure = () => (ratio = [1.03, 1.14]);
});
afterEach(cleanup);

describe('plans side by side', () => {
  it('gives each plan its own figures, left before right, the open one first', async () => {
    open();
    await waitFor(() => expect(cells('Front camber, set')[1]).toBe('−1.5° −1.3°'));
    expect(cells('Front camber, set')[0]).toBe('−0.5° −0.3°');
    expect(cells('Verdict')).toEqual(['All of it is met', 'Camber falls short']);
    expect(cells('Fouls')).toEqual(['nothing', 'upper arm fouls the rail']);
    expect(cells('Scrub')[0]).toBe('32 mm 32 mm');
    // Nothing of a rear axle nobody has read.
    expect(screen.queryByText('Rear camber, set')).toBeNull();
  });
  it('says all of it in the units of the shop', async () => {
    localStorage.setItem('bold-stance.settings', JSON.stringify({ unit: 'in', form: 'minutes' }));
    open();
    await waitFor(() => expect(cells('Front camber, set')[1]).toBe('−1°30′ −1°15′'));
    expect(cells('Height, front and rear')).toEqual(['+2 in · 0 in', '−1 1/2 in · 0 in']);
    // The head it is printed under.
    const head = screen.getByRole('heading', { name: 'Plans side by side' }).parentElement!.textContent;
    expect(head).toMatch(/Quarry · ticket 0007 · LA 7 · tyres 285\/70R17/);
    expect(head).toContain('Plans “Plan A”, “Plan B” · lengths in inches, angles in degrees and minutes');
    expect(cells('Scrub')[0]).toBe('1 1/4 in 1 1/4 in');
    await waitFor(() => expect(cells('First tyre done')[0]).toContain('right front'));
    expect(cells('First tyre done')[0]).toMatch(/25.000 mi/);
    expect(screen.getByTestId('compare').textContent).not.toMatch(/\bmm\b|\bkm\b/);
  });
  it('calls a difference only where its whole range lies on one side', async () => {
    const first = open();
    await waitFor(() => expect(cells('Its tyres against 1')[1]).toBe('×1.08 (0.97–1.20), too close to call'));
    expect(cells('Its tyres against 1')[0]).toBe('is 1');
    // The second plan was asked with the first beside it, on the same tyres; the first alone.
    const asked = server.asked.filter((a) => a.path.endsWith('/wear')).map((a) => a.body!);
    expect(asked.map((b) => b.other?.name ?? null)).toEqual([null, 'Plan A']);
    first.unmount();
    (bench.now.sure as () => void)();
    open();
    await waitFor(() => expect(cells('Its tyres against 1')[1]).toBe('×1.08 (1.03–1.14)'));
  });
  it('sets every plan beside as found in one bend, and money in the terms of the shop', async () => {
    open();
    const table = await screen.findByTestId('compare-patches');
    const last = server.asked.findLast((a) => a.path.endsWith('/contact-patches'))!.body!;
    expect(last.settings.map((s: { camber_deg: number }) => s.camber_deg)).toEqual([-2, -0.375, -1.375]);
    expect(last.bend).toEqual({ ay_g: 0.5, steer_deg: 6 });
    expect(within(table).getAllByRole('img')).toHaveLength(9);
    expect(
      within(table).getByRole('img', { name: /^Plan 2, Plan B, outside the bend: inner third 50/ }),
    ).toBeTruthy();
    await waitFor(() =>
      expect(cells('Parts and work')[0]).toBe('300 cr in parts, at cost · 1.5 h · 420 cr with labour'),
    );
  });
  it('takes a plan off and leaves the last one standing', async () => {
    open();
    const chip = (name: string) => screen.getByRole('button', { name });
    await userEvent.click(chip('Plan B'));
    expect(screen.queryByTestId('compare-b')).toBeNull();
    await userEvent.click(chip('Plan A'));
    expect(within(screen.getByTestId('compare-a')).getByText('Plan A')).toBeTruthy();
    expect(chip('Plan B').getAttribute('aria-pressed')).toBe('false');
  });
});
