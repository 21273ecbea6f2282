// @vitest-environment happy-dom
// The parts of a plan to order in a DOM: each with its number, side and price, and what they come to.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen } from '@testing-library/react';
import { createMemoryRouter, Outlet, RouterProvider } from 'react-router';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import OrderList, { money } from './OrderList';

const rows = vi.hoisted(() => ({ list: [] as unknown[] }));
vi.mock('../../api/calls', () => ({
  partsToOrder: () => Promise.resolve({ currency: 'kr', rows: rows.list }),
  getShop: () => Promise.resolve({ name: 'Larkspur Axle & Arm' }),
}));
const row = (more = {}) => ({
  order_number: 'LX-204',
  id: 'rear-camber-arm',
  name: 'Adjustable camber arm',
  axle: 'rear',
  only: null,
  price: 1250.5,
  labour_minutes: 90,
  ...more,
});
const bench = {
  ticket: { job: { ticket: 423 }, vehicle: { facts: { name: 'Sedge' } } },
  plan: { id: 'p1', version: 1, name: 'Lower 25' },
};
const open = () => {
  const router = createMemoryRouter([
    { element: <Outlet context={bench} />, children: [{ path: '/', element: <OrderList /> }] },
  ]);
  render(
    <QueryClientProvider client={new QueryClient()}>
      <RouterProvider router={router} />
    </QueryClientProvider>,
  );
};
beforeEach(() => {
  rows.list = [
    row(),
    row({ id: 'toe-arm', name: 'Toe arm', only: 'left', price: 300, labour_minutes: 30, order_number: '' }),
  ];
});
afterEach(cleanup);

it('lists each part with its number, side and price, and the whole', async () => {
  open();
  const text = (await screen.findByTestId('order-list')).textContent!;
  for (const t of [
    'LX-204',
    'Adjustable camber arm',
    'left and right',
    'left only',
    'Sedge',
    'Ticket 0423',
    'Lower 25',
  ])
    expect(text).toContain(t);
  expect(text).toContain(money(1550.5, 'kr'));
  expect(text).toContain('120');
  expect(screen.getByTestId('no-number').textContent).toContain('1 of them have no number');
  expect((screen.getByTestId('order-xlsx') as HTMLAnchorElement).getAttribute('href')).toBe(
    '/api/v1/plans/p1/order.xlsx',
  );
});

it('says that nothing is fitted', async () => {
  rows.list = [];
  open();
  expect((await screen.findByTestId('order-list')).textContent).toContain('Nothing is fitted');
});

it('writes money as the place does, with what the shop puts beside it', () => {
  expect(money(5, '')).toBe((5).toLocaleString(undefined, { minimumFractionDigits: 2 }));
  expect(money(5, 'SEK')).toContain('\u00a0SEK');
});
