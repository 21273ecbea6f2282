// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// What the shop learned, in a DOM: sold and moved, what is not counted, and how well it said what came.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { SettingsProvider } from '../../ui/settings';
import { known } from '../plan/known';
import Memory, { movedWords } from './Memory';

const server = vi.hoisted(() => {
  const it = { memory: {} as unknown };
  globalThis.fetch = async (input) => {
    const url = new URL(input instanceof Request ? input.url : String(input));
    const p = url.pathname;
    const shop = { name: 'Shop', ways: [], tickets: [] };
    const body = p.endsWith('/memory') ? it.memory : p.endsWith('/lenders') ? [] : shop;
    return new Response(JSON.stringify(body), { headers: { 'content-type': 'application/json' } });
  };
  return it;
});

type Row = Schemas['MemoryRow'];
const row = (more: Partial<Row['of']> = {}, claim: Partial<Row> = {}): Row => ({
  name: 'Cam bolt at the strut',
  claim_mm: null,
  claim_deg: 1.75,
  of: {
    part: 'strut-cam-bolt',
    adjuster: 'Cam bolt',
    times: 1.37,
    between: [1.26, 1.49],
    known: { times: 1.37, sd: 0.05, cars: 3 },
    cars: [
      { ticket: 401, times: 1.3, between: [1.2, 1.4] },
      { ticket: 402, times: 1.4, between: [1.3, 1.5] },
      { ticket: 403, times: 0.6, between: [0.5, 0.7], explained: 'It was turned the other way.' },
    ],
    ...more,
  },
  ...claim,
});
const open = () =>
  render(
    <MemoryRouter>
      <SettingsProvider>
        <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
          <Memory />
        </QueryClientProvider>
      </SettingsProvider>
    </MemoryRouter>,
  );

beforeEach(() => localStorage.clear());
afterEach(cleanup);

it('says what a part was sold as and what it moved, and what is not counted', async () => {
  server.memory = {
    cars: 4,
    handed: 0,
    parts: [
      row(),
      row({ part: 'claim', adjuster: 'Plate', known: null, times: 1, between: [0.4, 2.3], cars: [] }),
    ],
    how_well: [
      {
        axle: 'front',
        angle: 'camber',
        inside: [true, false, true],
        share: 66.7,
        between: [27, 92],
        middle_deg: 0.12,
        held: 'holds',
      },
      {
        axle: 'rear',
        angle: 'toe',
        inside: Array(40).fill(false),
        share: 0,
        between: [0, 6],
        middle_deg: 0.2,
        held: 'too_sure',
      },
    ],
  };
  open();
  const part = await screen.findByTestId('memory-strut-cam-bolt-cam-bolt');
  expect(part.textContent).toContain('sold ±1.75°');
  expect(part.textContent).toContain('2.40°');
  expect(part.textContent).toContain('3 cars');
  expect(part.textContent).toContain('Ticket 0403 not counted: It was turned the other way.');
  expect(screen.getByTestId('memory-claim-plate').textContent).toContain('claim only');
  expect(screen.getByTestId('how-front-camber').textContent).toContain('holds');
  expect(screen.getByTestId('how-rear-toe').textContent).toContain('too sure');
  expect(screen.getByText('odd, not counted').querySelector('b')?.textContent ?? '').toBe('1');
});

it('says what turns gave and how far heights settled, in the units of the shop', async () => {
  const heights = {
    turns: { collar: { times: 0.8, sd: 0.1, between: [0.68, 0.94], cars: 2 } },
    settles: [
      { way: 'spacer', mm: 7, sd: 2, between: [3, 11], cars: 1 },
      { mm: 5, sd: 3, between: [0, 10], cars: 2 },
    ],
  };
  server.memory = { cars: 2, parts: [], how_well: [], heights };
  const { unmount } = open();
  const collar = await screen.findByTestId('memory-turn-collar');
  expect(collar.textContent).toContain('×0.80');
  expect(collar.textContent).toContain('2 cars');
  expect(collar.textContent).toContain('next ×0.68 to 0.94');
  expect(screen.queryByTestId('memory-turn-torsion-bolt')).toBeNull();
  expect(screen.getByTestId('memory-settle-spacer').textContent).toContain('7 mm');
  expect(screen.getByTestId('memory-settle-untold').textContent).toContain('Way not told');
  unmount();
  localStorage.setItem('bold-stance.settings', JSON.stringify({ unit: 'in' }));
  open();
  expect((await screen.findByTestId('memory-settle-spacer')).textContent).toContain('next 1/8 in to 7/16 in');
});

it('says that nothing was learned yet', async () => {
  server.memory = { cars: 0, handed: 0, parts: [], how_well: [], heights: {} };
  open();
  expect((await screen.findByTestId('memory-empty')).textContent).toContain('accepted at Prove');
});

it('speaks of a throw in its own measure, and of a part where it is planned with', () => {
  const mm = row({}, { claim_mm: 3.8, claim_deg: null });
  expect(movedWords(mm, 'mm', 'decimal')).toEqual({
    sold: '3.8 mm',
    moved: '5.2 mm',
    between: '4.8 mm to 5.7 mm',
  });
  expect(movedWords(mm, 'in', 'decimal').sold).toBe('0.150 in');
  expect(movedWords(row(), 'mm', 'minutes').sold).toBe('1°45′');
  expect(movedWords(row({}, { claim_deg: null }), 'mm', 'decimal').moved).toBe('×1.37');
  const part = {
    adjusters: [{ name: 'Cam bolt', known: { times: 1.37, sd: 0.05, cars: 1 } }, { name: 'Plate' }],
  };
  expect(known(part as unknown as Schemas['Part'])).toEqual([
    'Cam bolt: moves 1.37 times as sold here (1 car, 1.3 to 1.5)',
  ]);
});

it('tells its own cars from those of other shops', async () => {
  server.memory = { cars: 1, handed: 9, parts: [], how_well: [], heights: {} };
  open();
  expect((await screen.findByText('of other shops')).textContent).toBe('9 of other shops');
  expect(screen.getByText('car proved').textContent).toBe('1 car proved');
});
