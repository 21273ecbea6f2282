// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// The prepare list in a DOM: answers save themselves, a refused one stays, and two tablets do not overwrite each other.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '../../test/user';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { SettingsProvider } from '../../ui/settings';
import type { VisitView } from '../../pad/readings';
import { PrepareList } from './PrepareList';

const bench = vi.hoisted(() => ({
  ticket: {} as Record<string, unknown>,
  setTicket: (() => {}) as (t: unknown) => void,
}));
vi.mock('../../shell/ticket', async (real) => ({
  ...(await real<Record<string, unknown>>()),
  useBench: () => bench,
}));
// The client takes fetch when it is loaded, before any test runs.
const server = vi.hoisted(() => {
  const it = {
    asked: [] as { version: number; answers: Record<string, string> }[],
    status: 200,
    body: {} as unknown,
  };
  globalThis.fetch = async (input) => {
    it.asked.push(JSON.parse(await (input as Request).text()) as (typeof it.asked)[number]);
    return new Response(JSON.stringify(it.body), {
      status: it.status,
      headers: { 'content-type': 'application/json' },
    });
  };
  return it;
});

const items = [
  {
    id: 'settled',
    ask: 'Rolled and bounced?',
    why: 'why',
    kind: 'yes_no',
    no: { height: 6 },
    unanswered: { height: 3 },
  },
  {
    id: 'floor',
    ask: 'Slope of the floor',
    why: 'why',
    kind: 'slope',
    right: '0.3 or 5/8 in over 5 ft',
    unanswered: { camber: 0.3 },
  },
  { id: 'air', ask: 'Air level', why: 'why', kind: 'yes_no', only: 'air' },
] as unknown as Schemas['PrepareItem'][];
const view = (version: number, answers: Record<string, string>, holding = answers) =>
  ({ kind: 'found', version, answers, holding }) as unknown as VisitView;
const list = (v: VisitView) => (
  <SettingsProvider>
    <QueryClientProvider client={new QueryClient()}>
      <PrepareList view={v} items={items} back={() => {}} />
    </QueryClientProvider>
  </SettingsProvider>
);
const saving = () => screen.getByTestId('prepare-saving').textContent;

beforeEach(() => {
  server.asked.length = 0;
  server.status = 200;
  server.body = { visits: [{ kind: 'found', version: 2 }] };
  bench.ticket = { job: { id: 'j' }, vehicle: { facts: { car: { levels: [] } } } };
});
afterEach(cleanup);

it('says what an open question widens and what a no does, and asks of air only where there is some', async () => {
  render(list(view(1, {})));
  expect(screen.getByText('unknown: height ±5 mm')).toBeTruthy();
  expect(screen.getByText('unknown: camber ±0.5°')).toBeTruthy();
  expect(screen.queryByText('Air level')).toBeNull();
  await userEvent.click(screen.getByTestId('prepare-settled-no'));
  expect(screen.getByText('widens height ±10 mm')).toBeTruthy();
});

it('saves by itself once it stands still, all answers at once', async () => {
  render(list(view(1, { settled: 'yes' })));
  fireEvent.change(screen.getByTestId('prepare-floor'), { target: { value: '0.3' } });
  expect(saving()).toBe('Saving…');
  await waitFor(() => expect(saving()).toBe('Saved'), { timeout: 3000 });
  expect(server.asked).toEqual([{ version: 1, answers: { settled: 'yes', floor: '0.3' } }]);
});

it('keeps a refused answer as typed, says why at it, and does not send it again by itself', async () => {
  server.status = 422;
  server.body = {
    title: 'x',
    detail: 'x',
    problems: [{ field: 'floor', wrong: '"steep"', right: 'a slope' }],
  };
  render(list(view(1, {})));
  fireEvent.change(screen.getByTestId('prepare-floor'), { target: { value: 'steep' } });
  await screen.findByText(/"steep"/, {}, { timeout: 3000 });
  expect(screen.getByTestId<HTMLInputElement>('prepare-floor').value).toBe('steep');
  expect(saving()).toBe('Not saved');
  await new Promise((r) => setTimeout(r, 900));
  expect(server.asked).toHaveLength(1);
});

it('takes what another tablet answered and keeps what was typed here', async () => {
  server.status = 409;
  server.body = { title: 'x', detail: 'saved first', problems: [] };
  const page = render(list(view(1, {})));
  fireEvent.change(screen.getByTestId('prepare-floor'), { target: { value: '0.4' } });
  await screen.findByText(/Another tablet answered first/, {}, { timeout: 3000 });
  page.rerender(list(view(2, { settled: 'no' })));
  server.status = 200;
  server.body = { visits: [{ kind: 'found', version: 3 }] };
  await userEvent.click(screen.getByTestId('take-theirs'));
  await waitFor(
    () => expect(server.asked.at(-1)).toEqual({ version: 2, answers: { settled: 'no', floor: '0.4' } }),
    {
      timeout: 3000,
    },
  );
});

it('follows another tablet while nothing is typed here', async () => {
  const page = render(list(view(1, {})));
  page.rerender(list(view(2, { floor: '0.2' })));
  await waitFor(() => expect(screen.getByTestId<HTMLInputElement>('prepare-floor').value).toBe('0.2'));
  expect(server.asked).toHaveLength(0);
});

it('starts from what was answered earlier today, asks first what can have changed, and takes a new answer over it', async () => {
  render(list(view(1, {}, { floor: '0.6' })));
  expect(screen.getByTestId('prepare-asked').textContent).toContain('1 to look at again');
  expect(screen.getByTestId<HTMLInputElement>('prepare-floor').value).toBe('0.6');
  expect(screen.getByTestId('holds-floor').textContent).toContain('from earlier today');
  const asks = screen.getAllByText(/Rolled and bounced|Slope of the floor/).map((e) => e.textContent);
  expect(asks).toEqual(['Rolled and bounced?', 'Slope of the floor']);
  fireEvent.change(screen.getByTestId('prepare-floor'), { target: { value: '0.2' } });
  expect(screen.queryByTestId('holds-floor')).toBeNull();
  await waitFor(() => expect(server.asked).toHaveLength(1));
  expect(server.asked[0]!.answers).toEqual({ floor: '0.2' });
});
