// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// Parts made here in a DOM: asked for only where somebody looks, shown beside each other, and one that is used is kept under
// its words over the shop's own version before it goes on the plan.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { Schemas, Ticket } from '../../api/client';
import { SettingsProvider } from '../../ui/settings';
import { MadeHere, named } from './MadeHere';

const made = (by: 'bisector' | 'exact', left_over: number) =>
  ({
    aid: 'tie_rod',
    by,
    length_mm: 342.4,
    was_mm: 360.1,
    travel_mm: 50,
    left_over_now: 1.25,
    left_over,
    part: { id: `made-tie-rod-${by}-0417`, name: '', summary: '', side_effect: '', cautions: [] },
  }) as unknown as Schemas['Made'];

const server = vi.hoisted(() => {
  const it = {
    asked: [] as { method: string; path: string; body: Record<string, unknown> }[],
    answer: (_path: string): { status: number; body: unknown } => ({ status: 200, body: [] }),
  };
  globalThis.fetch = async (input) => {
    const r = input as Request;
    const path = new URL(r.url).pathname;
    const text = await r.text();
    it.asked.push({
      method: r.method,
      path,
      body: text ? (JSON.parse(text) as Record<string, unknown>) : {},
    });
    const { status, body } = it.answer(path);
    return new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });
  };
  return it;
});

beforeEach(() => {
  localStorage.clear();
  server.asked.length = 0;
});
afterEach(cleanup);

const ticket = {
  base: { wheelbase_mm: 3100, lock_deg: 34 },
  job: { ticket: 417 },
  vehicle: { facts: { axles: { front: { geometry: { layout: 'double_wishbone' } } } } },
} as unknown as Ticket;

function show(fit: (id: string) => void) {
  render(
    <SettingsProvider>
      <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
        <MadeHere ticket={ticket} fit={fit} />
      </QueryClientProvider>
    </SettingsProvider>,
  );
}

it('names a part after its place and its ticket, and says that it is for inspection', () => {
  const p = named(made('exact', 0.02), 417);
  expect(p.name).toBe('Inner tie-rod place, made here for ticket 0417');
  expect(p.summary).toContain('rod to fit');
  expect(p.cautions?.[0]).toContain('licensed inspection');
});

it('shows both ways beside what is left as it is, and keeps the one used before it goes on', async () => {
  server.answer = (path) =>
    path.endsWith('/made')
      ? { status: 200, body: [made('bisector', 0.31), made('exact', 0.02)] }
      : path.endsWith('/parts')
        ? { status: 200, body: [{ part: { id: 'made-tie-rod-exact-0417' }, version: 3 }] }
        : { status: 200, body: {} };
  const fit = vi.fn();
  show(fit);
  expect(server.asked).toEqual([]);
  fireEvent.click(screen.getByTestId('made-here'));
  const use = await screen.findByTestId('made-tie_rod-exact');
  expect(screen.getAllByText(/Inner tie rod, no bump steer/)).toHaveLength(1);
  expect(screen.getByText(/left over as it is/).textContent).toContain('1.25');
  expect(screen.getByText(/^exact/).textContent).toMatch(/342.*was 360/);
  expect(screen.getByText(/^by construction/).textContent).toContain('0.31');
  expect(screen.getByText(/Left front/).textContent).toContain('±50');
  fireEvent.click(use);
  await waitFor(() => expect(fit).toHaveBeenCalledWith('made-tie-rod-exact-0417'));
  const kept = server.asked.find((a) => a.method === 'PUT')!;
  expect(kept.body).toMatchObject({ version: 3, retired: false });
  expect((kept.body.part as { name: string }).name).toContain('0417');
});

it('says so where an axle has no such point', async () => {
  server.answer = () => ({ status: 200, body: [] });
  show(vi.fn());
  fireEvent.click(screen.getByTestId('made-here'));
  await screen.findByText(/no point that an aid could place/);
});

it('says what went wrong and does not fit what was not kept', async () => {
  server.answer = (path) =>
    path.endsWith('/made')
      ? { status: 200, body: [made('exact', 0.02)] }
      : path.endsWith('/parts')
        ? { status: 200, body: [] }
        : { status: 409, body: { title: 'Changed meanwhile', status: 409, problems: [] } };
  const fit = vi.fn();
  show(fit);
  fireEvent.click(screen.getByTestId('made-here'));
  fireEvent.click(await screen.findByTestId('made-tie_rod-exact'));
  await screen.findByText(/try again/);
  expect(fit).not.toHaveBeenCalled();
});
