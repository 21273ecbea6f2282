// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// One customer's tickets, in a DOM: offered together only where there are several, and taken out after a question.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import userEvent from '../../test/user';
import { OfPlate } from './OfPlate';

const server = vi.hoisted(() => {
  const it = { tickets: [] as { id: string; ticket: number }[], posted: [] as unknown[], status: 200 };
  globalThis.fetch = async (input) => {
    const r = input as Request;
    const post = r.method === 'POST';
    if (post) it.posted.push(await r.clone().json());
    const body = !post
      ? it.tickets
      : it.status === 200
        ? { tickets: it.tickets.length }
        : { title: 'Not allowed', detail: 'The record is its owner’s.', problems: [] };
    const status = post ? it.status : 200;
    const type = status < 400 ? 'application/json' : 'application/problem+json';
    return new Response(JSON.stringify(body), { status, headers: { 'content-type': type } });
  };
  return it;
});

const open = () =>
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <OfPlate plate="LK 07 ABC" />
    </QueryClientProvider>,
  );

beforeEach(() => {
  server.posted = [];
  server.status = 200;
});
afterEach(cleanup);

it('offers nothing where this ticket is the only one', async () => {
  server.tickets = [{ id: 'a', ticket: 417 }];
  open();
  await new Promise((r) => setTimeout(r, 30));
  expect(screen.queryByTestId('customer-erase')).toBeNull();
});

it('names the tickets, and takes out after a question', async () => {
  server.tickets = [
    { id: 'b', ticket: 425 },
    { id: 'a', ticket: 417 },
  ];
  open();
  const file = await screen.findByTestId('customer-file');
  expect(file.textContent).toBe('Both tickets of LK 07 ABC as a file');
  expect(file.getAttribute('href')).toBe('/api/v1/customer.zip?plate=LK%2007%20ABC');
  await userEvent.click(screen.getByTestId('customer-erase'));
  expect((await screen.findByRole('dialog')).textContent).toContain('Tickets 0425, 0417.');
  expect(server.posted).toEqual([]);
  await userEvent.click(screen.getByTestId('customer-erase-now'));
  await waitFor(() => expect(server.posted).toEqual([{ plate: 'LK 07 ABC' }]));
});

it('says why it was refused, and keeps the question open', async () => {
  server.tickets = [1, 2, 3].map((n) => ({ id: String(n), ticket: n }));
  server.status = 403;
  open();
  await userEvent.click(await screen.findByText('Take out what is personal of all 3'));
  await userEvent.click(await screen.findByTestId('customer-erase-now'));
  expect((await screen.findByRole('alert')).textContent).toContain('The record is its owner’s.');
  expect(screen.getByTestId('customer-erase-now')).toBeTruthy();
});
