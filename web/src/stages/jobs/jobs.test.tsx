// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// The list of jobs in a DOM: bays first, the newest waiting first, older ones on demand, found in the database.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '../../test/user';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { JobLine } from '../../api/client';
import { SettingsProvider } from '../../ui/settings';
import { dayFrom } from '../../units/days';
import { dueWord } from './ComingBack';
import Jobs from './Jobs';

// The client takes fetch when it is loaded, before any test runs.
const server = vi.hoisted(() => {
  const it = { asked: [] as URLSearchParams[], jobs: (_q: URLSearchParams): unknown => [], status: 200 };
  globalThis.fetch = async (input) => {
    const url = new URL((input as Request).url);
    const json = (body: unknown, status = 200) =>
      new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });
    if (!url.pathname.endsWith('/jobs'))
      return json({
        name: 'Larkspur Axle & Arm',
        ways: [],
        tickets: [{ kind: 'check', title: 'Check only', how: '', stages: ['arrive', 'read', 'wear'] }],
      });
    it.asked.push(url.searchParams);
    return json(it.jobs(url.searchParams), it.status);
  };
  return it;
});

const line = (
  ticket: number,
  more: Partial<JobLine> & { bay?: number; stage?: string; kind?: string; aftercare?: object } = {},
): JobLine =>
  ({
    job: {
      id: `j${ticket}`,
      ticket,
      complaint: `wish ${ticket}`,
      bay: more.bay ?? null,
      kind: more.kind ?? 'height',
      stage: more.stage ?? 'plan',
      aftercare: more.aftercare ?? {},
    },
    vehicle: `Car ${ticket}`,
    silhouette: 'pickup',
    tyre_size: '265/70R17',
    drive: 'both',
    readings: 8,
    wanted: 8,
    height_change_mm: 0,
    fitted: 0,
    ...more,
  }) as unknown as JobLine;

beforeEach(() => {
  localStorage.clear();
  server.asked.length = 0;
  server.status = 200;
  server.jobs = () => [];
});
afterEach(cleanup);

const open = () =>
  render(
    <MemoryRouter>
      <SettingsProvider>
        <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
          <Jobs />
        </QueryClientProvider>
      </SettingsProvider>
    </MemoryRouter>,
  );
const waiting = () => screen.getByRole('region', { name: 'Waiting for a bay' });

it('shows bays apart from what waits, each with what it waits for', async () => {
  server.jobs = () => [
    line(417, { bay: 1, stage: 'set' }),
    line(430, { readings: 3, stage: 'read' }),
    line(429, { readings: 0, stage: 'arrive' }),
  ];
  open();
  const bays = screen.getByRole('region', { name: 'Bays' });
  await within(bays).findByText('Car 417');
  expect(within(bays).getByText('Open setting sheet')).toBeTruthy();
  const list = within(waiting())
    .getAllByRole('link')
    .map((a) => [a.getAttribute('href'), a.textContent]);
  expect(list[0]![0]).toBe('/job/j430/read');
  expect(list[0]![1]).toContain('3 of 8 read');
  expect(list[1]![0]).toBe('/job/j429/arrive');
  expect(list[1]![1]).toContain('Not read');
});

it('brings the tickets before the last one, as long as pages are full', async () => {
  const page = (from: number, n: number) => Array.from({ length: n }, (_, i) => line(from - i));
  server.jobs = (q) => (q.get('after') ? page(Number(q.get('after')!.slice(1)) - 1, 40) : page(300, 100));
  open();
  await screen.findByText('Car 300');
  expect(server.asked[0]!.get('limit')).toBe('100');
  await userEvent.click(screen.getByTestId('more-jobs'));
  await screen.findByText('Car 161');
  expect(server.asked[1]!.get('after')).toBe('j201');
  expect(within(waiting()).getAllByRole('link')).toHaveLength(140);
  expect(screen.queryByTestId('more-jobs')).toBeNull();
});

it('asks the server for what is looked for, once the typing stands still', async () => {
  server.jobs = (q) => (q.get('find') === 'sorrel' ? [line(7)] : [line(8)]);
  open();
  await screen.findByText('Car 8');
  const box = screen.getByLabelText('Find a ticket');
  for (const t of ['s', 'sor', 'sorrel ']) fireEvent.change(box, { target: { value: t } });
  await screen.findByText('Car 7');
  expect(server.asked.map((q) => q.get('find')).filter(Boolean)).toEqual(['sorrel']);
});

it('says so when nothing is there, and when nobody answers', async () => {
  const first = open();
  await screen.findByText('Bays are free');
  expect(screen.getByText('Nobody waits.')).toBeTruthy();
  first.unmount();
  server.status = 503;
  server.jobs = () => ({ title: 'x', detail: 'The database did not answer', problems: [] });
  open();
  await waitFor(() => expect(screen.getByRole('alert').textContent).toContain('did not answer'));
});

it('shows of a check only its own stages, and has nothing left to plan', async () => {
  server.jobs = () => [
    line(417, { bay: 1, stage: 'read', kind: 'check', readings: 12, wanted: 12 }),
    line(418, { bay: 2, stage: 'read', kind: 'square', readings: 1, wanted: 3 }),
  ];
  open();
  const bays = screen.getByRole('region', { name: 'Bays' });
  await within(bays).findByText('See what was found');
  expect(within(bays).getByText('1 of 3 read')).toBeTruthy();
  const [track] = within(bays).getAllByRole('img', { name: /^Stage/ });
  expect(track!.textContent).toBe('ArriveReadWear');
});

it('lists what is due, the soonest first, apart from what waits', async () => {
  const on = (days: number) => dayFrom(days);
  server.jobs = () => [
    line(500, { aftercare: { next_look: { on: on(12), after_km: null } } }),
    line(501, { aftercare: { next_look: { on: on(-2), after_km: 800 } } }),
    line(502, { aftercare: { next_look: { on: null, after_km: 5000 } } }),
    line(503),
  ];
  open();
  const due = await screen.findByTestId('coming-back');
  const words = [...due.querySelectorAll('a')].map((a) => a.textContent ?? '');
  expect(words).toHaveLength(3);
  expect(words[0]).toContain('Car 501');
  expect(words[0]).toContain('2 days overdue or 800');
  expect(words[1]).toContain('in 12 days');
  expect(words[2]).toContain('after 5');
  expect(waiting().textContent).toContain('Car 503');
  expect(waiting().textContent).not.toContain('Car 500');
  expect([dueWord(0), dueWord(1), dueWord(-1)]).toEqual(['due today', 'in 1 day', '1 day overdue']);
});

it('fetches closed jobs only when somebody asks', async () => {
  server.jobs = (q) =>
    q.get('closed') === 'true'
      ? [line(9, { aftercare: { closed: { at: '2026-01-02T10:00:00Z', signed: 'A' } } })]
      : [];
  open();
  await screen.findByText('Bays are free');
  expect(screen.queryByText('Car 9')).toBeNull();
  await userEvent.click(screen.getByTestId('closed-jobs'));
  await screen.findByText('Car 9');
});
