// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// The height dialog in a DOM: turns only for what is turned, ways only an axle has, and typing that outlives it.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '../../test/user';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { starting } from '../../fixtures';
import { SettingsProvider } from '../../ui/settings';
import type { Bench } from '../../shell/ticket';
import { HeightDialog, turnsOf } from './HeightDialog';

// The client takes fetch when it is loaded, before any test runs.
const server = vi.hoisted(() => {
  const it = {
    asked: [] as Record<string, unknown>[],
    status: 200,
    answer: {} as unknown,
    heights: {} as unknown,
  };
  globalThis.fetch = async (input) => {
    const r = input as Request;
    const json = (body: unknown, status = 200) =>
      new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });
    if (r.url.endsWith('/shop'))
      return json({
        ways: [
          { kind: 'spring', words: 'springs', layouts: ['solid_axle', 'strut'], needs_leaves: false },
          { kind: 'leaf_block', words: 'leaf blocks', layouts: ['solid_axle'], needs_leaves: true },
        ],
      });
    if (r.url.endsWith('/memory')) return json({ heights: it.heights });
    it.asked.push(JSON.parse(await r.text()) as Record<string, unknown>);
    return json(it.answer, it.status);
  };
  return it;
});

const axle = (links: object) => ({
  geometry: { layout: 'solid_axle', links, wheel: { loaded_radius_mm: 400 } },
  read: { left: { height_mm: 500 }, right: { height_mm: 500 } },
});
const bench = (links: object = {}, change = vi.fn()) =>
  ({
    ticket: {
      job: { id: 'j' },
      base: { axles: { front: axle(links), rear: axle(links) } },
      vehicle: { facts: starting },
    },
    plan: { id: 'p' },
    draft: { axles: { front: { height_change_mm: 35 }, rear: { height_change_mm: -12 } } },
    change,
    input: { base: { stands: {} }, plan: {} },
  }) as unknown as Bench;
function open(b = bench(), close = vi.fn()) {
  return render(
    <SettingsProvider>
      <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
        <HeightDialog bench={b} axle="front" close={close} />
      </QueryClientProvider>
    </SettingsProvider>,
  );
}
const put = (id: string, value: string) => fireEvent.change(screen.getByTestId(id), { target: { value } });
const work = async () => {
  put('target-value', '465');
  await userEvent.click(screen.getByTestId('target-work'));
};

beforeEach(() => {
  localStorage.clear();
  server.asked.length = 0;
  server.status = 200;
  server.answer = { gain_mm: -35, by_turning: null };
  server.heights = {};
});
afterEach(cleanup);

it('says nothing of turns until it is said what is turned', async () => {
  open();
  await work();
  await screen.findByText('−35 mm');
  expect(screen.queryByTestId('target-turns')).toBeNull();
  expect(server.asked[0]).toMatchObject({
    turned: null,
    value: 465,
    axle: 'front',
    // What both axles stand at is the core's to work out.
    car: { base: { stands: {} } },
  });
});

it('turns a collar by its thread', async () => {
  server.answer = {
    gain_mm: -35,
    by_turning: {
      turns: -17.5,
      turns_band: 2.9,
      mm_per_turn: 2,
      records: 0,
      collar: { pitch_mm: 2, usual_pitch: true, motion_ratio: 0.62, usual_ratio: false },
    },
  };
  open();
  await userEvent.selectOptions(screen.getByTestId('target-turned'), 'collar');
  expect(screen.getAllByText('left empty: the usual')).toHaveLength(2);
  put('target-ratio', '0.62');
  await work();
  const said = await screen.findByTestId('target-turns');
  expect(said.textContent).toContain(
    'Collar: −17.5 ± 2.9 turns at 2.0 mm a turn (usual value, none recorded)',
  );
  expect(server.asked[0]).toMatchObject({ turned: { kind: 'collar', pitch_mm: null, motion_ratio: 0.62 } });
  // The answer says what it took for what was left empty.
  expect(screen.getByText('usual, 2 mm; measure it')).toBeTruthy();
});

it('says a thread that is none at its field', async () => {
  server.status = 422;
  server.answer = {
    title: 'x',
    detail: 'x',
    problems: [{ field: 'turned.pitch_mm', wrong: '0 mm a turn', right: '0.5 to 6' }],
  };
  open();
  await userEvent.selectOptions(screen.getByTestId('target-turned'), 'collar');
  put('target-pitch', '0');
  await work();
  await screen.findByText('0 mm a turn; 0.5 to 6');
});

it('works nothing out with a thread that cannot be read, and keeps a draft to its unit', async () => {
  const first = open();
  await userEvent.selectOptions(screen.getByTestId('target-turned'), 'collar');
  put('target-value', '465');
  put('target-pitch', 'coarse');
  expect(screen.getByText('a number such as 2 or 0.62')).toBeTruthy();
  expect(screen.getByTestId<HTMLButtonElement>('target-work').disabled).toBe(true);
  put('height-settle', '9');
  first.unmount();
  localStorage.setItem('bold-stance.settings', JSON.stringify({ unit: 'in' }));
  open();
  expect(screen.getByTestId<HTMLInputElement>('height-settle').value).toBe('0');
  expect(screen.queryByTestId('drop-draft')).toBeNull();
});

it('offers leaf blocks on leaves only', async () => {
  const coil = open(bench({ track_bar: {} }));
  await screen.findByTestId('height-way.spring');
  expect(screen.queryByTestId('height-way.leaf_block')).toBeNull();
  coil.unmount();
  open(bench({ leaf_sideways: {} }));
  await screen.findByTestId('height-way.leaf_block');
});

it('keeps what was typed when it is closed outside, and forgets it when it is left or kept', async () => {
  const change = vi.fn();
  const first = open(bench({}, change));
  put('height-settle', '9');
  first.unmount();
  const again = open(bench({}, change));
  expect(screen.getByTestId<HTMLInputElement>('height-settle').value).toBe('9');
  expect(screen.getByTestId('drop-draft')).toBeTruthy();
  await userEvent.click(screen.getByTestId('height-keep'));
  await waitFor(() => expect(change).toHaveBeenCalled());
  expect(change.mock.lastCall![0]).toMatchObject({
    axles: { front: { settle_mm: 9, height_change_mm: 35 }, rear: { height_change_mm: -12 } },
  });
  again.unmount();
  open();
  expect(screen.queryByTestId('drop-draft')).toBeNull();
});

it('tells recorded turns from usual ones', () => {
  expect(turnsOf({ turns: 2.04, turns_band: 0.31, mm_per_turn: 6.9, records: 2, cars: 0 }, 'Bolt')).toBe(
    'Bolt: +2.0 ± 0.3 turns at 6.9 mm a turn (from 2 recorded).',
  );
  const of = (cars: number) =>
    turnsOf({ turns: -3, turns_band: 1, mm_per_turn: 2, records: 0, cars }, 'Collar').replace(/.*\(/, '(');
  expect([of(0), of(1), of(4)]).toEqual([
    '(usual value, none recorded).',
    '(from one car of the shop).',
    '(from 4 cars of the shop).',
  ]);
});

it('says how far the shop’s cars settled whose height was had so, and takes it in one press', async () => {
  server.heights = {
    turns: {},
    settles: [
      { way: 'spring', mm: 7.4, sd: 2, between: [4.1, 10.7], cars: 3 },
      { mm: 5, sd: 3, between: [0, 10], cars: 1 },
    ],
  };
  const change = vi.fn();
  const view = open(bench({}, change));
  // Nobody named a way yet.
  expect((await screen.findByTestId('height-settled')).textContent).toContain(
    'One car of the shop with no way named',
  );
  put('height-way.spring', '-30');
  const said = screen.getByTestId('height-settled');
  expect(said.textContent).toContain(
    '3 cars of the shop with springs settled by 7 mm, the next one by 4 mm to 11 mm',
  );
  await userEvent.click(screen.getByTestId('height-settled-use'));
  expect(screen.getByTestId<HTMLInputElement>('height-settle').value).toBe('7');
  view.unmount();
  localStorage.clear();
  // A plan that takes things as sold is told nothing of it.
  const sold = bench({}, change);
  Object.assign(sold.draft!, { as_sold: true });
  open(sold);
  await screen.findByTestId('height-way.spring');
  expect(screen.queryByTestId('height-settled')).toBeNull();
});

it('keeps what nobody typed to its last digit, in either unit', async () => {
  for (const unit of ['mm', 'in']) {
    localStorage.setItem('bold-stance.settings', JSON.stringify({ unit }));
    const change = vi.fn();
    const b = bench({}, change);
    Object.assign(b.draft!.axles!.front!, {
      settle_mm: 9.37,
      load_mm: 21.4,
      trim_mm: { left: 4.2, right: 0 },
      ways: [{ kind: 'spring', gain_mm: 34.6 }],
    });
    const view = open(b);
    await userEvent.click(await screen.findByTestId('height-keep'));
    expect(change.mock.calls[0]![0].axles.front).toMatchObject({
      settle_mm: 9.37,
      load_mm: 21.4,
      trim_mm: { left: 4.2, right: 0 },
      ways: [{ kind: 'spring', gain_mm: 34.6 }],
    });
    view.unmount();
  }
});
