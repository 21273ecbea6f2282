// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// The search over the car: what it asks for, in both units, what it says of a band the wrong way round, and that taking a
// way sets both axles.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '../../test/user';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { CarInput, CarPlan, Schemas } from '../../api/client';
import { SettingsProvider } from '../../ui/settings';
import { CarSearch, taken } from './CarSearch';

const asked: Record<string, any>[] = [];
let lines: unknown[] = [];
vi.hoisted(() => {
  globalThis.fetch = async () => new Response('{}', { headers: { 'content-type': 'application/json' } });
});
beforeEach(() => {
  asked.length = 0;
  vi.spyOn(globalThis, 'fetch').mockImplementation(async (url, init) => {
    if (String(url).includes('search-car')) {
      asked.push(JSON.parse(String(init?.body)));
      return new Response(lines.map((l) => `${JSON.stringify(l)}\n`).join(''));
    }
    const shop = { settings: { labour_rate: 80, currency: 'cr', figures: 'price', rule_books: [] } };
    return new Response(JSON.stringify(shop), { headers: { 'content-type': 'application/json' } });
  });
});
afterEach(() => {
  cleanup();
  localStorage.clear();
  vi.restoreAllMocks();
});

const draft = {
  aim: { name: 'Mixed roads' },
  limit_mm: 3,
  axles: { front: { height_change_mm: 40, fitted: ['old-part'] }, rear: { height_change_mm: 0 } },
} as unknown as CarPlan;
const input = { base: { axles: { front: {}, rear: {} } }, plan: draft } as unknown as CarInput;
const way = (best: string[], front: number, parts: string[]): Schemas['CarSet'] =>
  ({
    best_at: best,
    gain_mm: { front, rear: 10 },
    cost: 300,
    labour_minutes: 90,
    money: 420,
    life_km: 42000,
    reached: true,
    short_deg: 0,
    axles: {
      front: { parts: parts.map((id) => ({ id, name: `Part ${id}` })) },
      rear: { parts: [] },
    },
  }) as unknown as Schemas['CarSet'];
const found = {
  result: {
    sets: [way(['least_money'], 50.8, ['arm@9']), way(['farthest', 'least_work'], 63.5, [])],
    landing: 2,
    heights: 4,
    headline: '2 ways land all four wheels on aim',
    cancelled: false,
  },
};

const changed: Partial<CarPlan>[] = [];
const open = () =>
  render(
    <SettingsProvider>
      <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
        <CarSearch
          input={input}
          draft={draft}
          tyres={{} as Schemas['CarTyres']}
          change={(c) => changed.push(c)}
        />
      </QueryClientProvider>
    </SettingsProvider>,
  );
const type = async (id: string, text: string) => {
  await userEvent.clear(screen.getByTestId(id));
  await userEvent.type(screen.getByTestId(id), text);
};

it('asks for a band in inches, money and hours, and takes what is found for both axles', async () => {
  localStorage.setItem('bold-stance.settings', JSON.stringify({ unit: 'in' }));
  lines = [{ progress: { doing: 'heights', done: 0, of: 4 } }, found];
  open();
  const inches = (screen.getByTestId('band-front-0') as HTMLInputElement).value !== '40';
  await type('band-front-0', inches ? '1 1/2' : '1 1/2in');
  await type('band-front-1', '63.5mm');
  await type('car-budget', '400');
  await type('car-hours', '2.5');
  await userEvent.click(screen.getByTestId('car-search-go'));
  const set = await screen.findByTestId('car-set-1');
  const { band_mm, filters } = asked[0]!.wish;
  expect(band_mm.front.low_mm).toBeCloseTo(38.1, 6);
  expect(band_mm.front.high_mm).toBeCloseTo(63.5, 6);
  expect(band_mm.rear).toEqual({ low_mm: 0, high_mm: 0 });
  expect(filters).toMatchObject({ budget: 400, labour_minutes: 150 });
  expect(screen.getByTestId('car-search-says').textContent).toContain('2 ways land');
  expect(set.textContent).toContain('farthest within the aim · least work');
  await userEvent.click(screen.getByTestId('take-car-set'));
  expect(changed.at(-1)!.axles).toMatchObject({
    front: { height_change_mm: 50.8, fitted: ['arm@9'] },
    rear: { height_change_mm: 10, fitted: [] },
  });
});

it('tells a band the wrong way round at its field, and asks nothing with what cannot be read', async () => {
  lines = [
    {
      problems: [
        {
          field: 'band_mm.front.high_mm',
          wrong: '+60 mm to +40 mm',
          right: 'the higher end not under the lower',
        },
      ],
    },
  ];
  open();
  await type('band-front-0', '60');
  await userEvent.click(screen.getByTestId('car-search-go'));
  const row = screen.getByRole('group', { name: 'front height, from and to' });
  await waitFor(() => expect(within(row).getByText(/the higher end not under the lower/)).toBeTruthy());
  await type('band-front-1', '6o');
  expect((screen.getByTestId('car-search-go') as HTMLButtonElement).disabled).toBe(true);
  expect((screen.getByTestId('band-front-1') as HTMLInputElement).value).toBe('6o');
  await type('band-front-1', '60');
  await type('car-hours', 'two');
  expect((screen.getByTestId('car-search-go') as HTMLButtonElement).disabled).toBe(true);
  expect(screen.getByText(/are no hours/)).toBeTruthy();
});

it('leaves the parts of an axle nobody read as they are', () => {
  const s = { ...way(['least_money'], 20, []), axles: { front: null, rear: null } } as Schemas['CarSet'];
  expect(taken(draft, s).axles?.front).toMatchObject({ height_change_mm: 20, fitted: ['old-part'] });
});
