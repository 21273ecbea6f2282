// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// What the shop types once, and the plan that is the one to set: what is asked before another is, what is refused at its
// field, what is kept.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen, waitFor } from '@testing-library/react';
import userEvent from '../test/user';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { NotTheOne } from './ChoosePlan';
import { ShopDialog } from './ShopDialog';
import type { Bench } from './ticket';

type Asked = { method: string; path: string; body: any };
const server = vi.hoisted(() => {
  const it = {
    asked: [] as Asked[],
    answer: (() => [200, {}]) as (a: Asked) => [number, unknown],
  };
  globalThis.fetch = async (input) => {
    const r = input as Request;
    const text = await r.text();
    const one = {
      method: r.method,
      path: new URL(r.url).pathname,
      body: text ? JSON.parse(text) : undefined,
    };
    it.asked.push(one);
    const [status, body] = it.answer(one);
    const type = status < 400 ? 'application/json' : 'application/problem+json';
    return new Response(JSON.stringify(body), { status, headers: { 'content-type': type } });
  };
  return it;
});
beforeEach(() => {
  server.asked.length = 0;
});
afterEach(() => {
  cleanup();
  localStorage.clear();
});
const wrap = (of: React.ReactNode) =>
  render(
    <QueryClientProvider
      client={new QueryClient({ defaultOptions: { queries: { retry: false }, mutations: { retry: false } } })}
    >
      {of}
    </QueryClientProvider>,
  );

const settings = { labour_rate: 90, currency: '', figures: 'price', rule_books: [] };
const saves = () => server.asked.filter((a) => a.method === 'PUT');

it('keeps a rate, a currency and a rule book, over the version they were read at', async () => {
  server.answer = (a) =>
    a.method === 'PUT'
      ? [200, { version: 4, settings: a.body.settings }]
      : [200, { settings, settings_version: 3 }];
  const close = vi.fn();
  wrap(<ShopDialog close={close} />);
  const rate = await screen.findByTestId('shop-rate');
  await userEvent.clear(rate);
  expect((screen.getByTestId('shop-save') as HTMLButtonElement).disabled).toBe(true);
  await userEvent.type(rate, '72.5');
  await userEvent.type(screen.getByTestId('shop-currency'), 'cr');
  await userEvent.click(screen.getByTestId('figures-cost'));
  await userEvent.click(screen.getByTestId('book-add'));
  await userEvent.type(screen.getByTestId('book-0'), 'Club street');
  await userEvent.click(screen.getByTestId('book-0-cutting'));
  await userEvent.click(screen.getByTestId('shop-save'));
  await waitFor(() => expect(close).toHaveBeenCalled());
  expect(saves()[0]!.body).toEqual({
    version: 3,
    settings: {
      labour_rate: 72.5,
      currency: 'cr',
      figures: 'cost',
      rule_books: [{ name: 'Club street', forbid: ['cutting'] }],
    },
  });
});

it('tells what is wrong at its field and keeps what was typed over closing', async () => {
  server.answer = (a) =>
    a.method === 'PUT'
      ? [
          422,
          {
            title: 'Not taken',
            status: 422,
            detail: 'x',
            problems: [
              { field: 'settings.rule_books.0.name', wrong: 'nothing entered', right: '1 to 80 characters' },
            ],
          },
        ]
      : [200, { settings, settings_version: 3 }];
  const { unmount } = wrap(<ShopDialog close={() => undefined} />);
  await userEvent.click(await screen.findByTestId('book-add'));
  await userEvent.click(screen.getByTestId('shop-save'));
  expect(await screen.findByText(/nothing entered; 1 to 80 characters/)).toBeTruthy();
  await userEvent.type(screen.getByTestId('book-0'), 'Half');
  unmount();
  wrap(<ShopDialog close={() => undefined} />);
  expect(((await screen.findByTestId('book-0')) as HTMLInputElement).value).toBe('Half');
});

const plan = (id: string) => ({ id, name: `Plan ${id.toUpperCase()}` });
function bench(done: unknown[]): { bench: Bench; picked: string[]; set: unknown[] } {
  const picked: string[] = [];
  const set: unknown[] = [];
  return {
    picked,
    set,
    bench: {
      ticket: { job: { id: 'j', version: 5, plan_id: 'a' }, plans: [plan('a'), plan('b')], done },
      plan: plan('b'),
      chosen: false,
      pick: (id: string) => picked.push(id),
      setTicket: (t: unknown) => set.push(t),
    } as unknown as Bench,
  };
}

it('makes a plan the one to set at once while nothing was done', async () => {
  server.answer = () => [200, { job: { id: 'j', plan_id: 'b' } }];
  const b = bench([]);
  wrap(<NotTheOne bench={b.bench} />);
  expect(screen.getByTestId('not-the-one').textContent).toContain('The one to set is “Plan A”');
  await userEvent.click(screen.getByText('Show that one'));
  expect(b.picked).toEqual(['a']);
  await userEvent.click(screen.getByTestId('choose-plan'));
  await waitFor(() => expect(b.set).toHaveLength(1));
  expect(saves()[0]).toMatchObject({ path: '/api/v1/jobs/j/plan', body: { version: 5, plan_id: 'b' } });
});

it('says what stays behind before it changes the plan of a job that is begun', async () => {
  server.answer = () => [200, { job: { id: 'j', plan_id: 'b' } }];
  const b = bench([
    { plan_id: 'a', step: 'height' },
    { plan_id: 'a', step: 'settled/roll' },
    { plan_id: 'b', step: 'support' },
  ]);
  wrap(<NotTheOne bench={b.bench} />);
  await userEvent.click(screen.getByTestId('choose-plan'));
  // One step: a tick at a gate is none, and the other plan's own work is not lost.
  expect(screen.getByTestId('choose-stale').textContent).toContain('1 step of “Plan A” is done and stays');
  expect(saves()).toHaveLength(0);
  await userEvent.click(screen.getByTestId('choose-sure'));
  await waitFor(() => expect(b.set).toHaveLength(1));
});
