// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// What another shop's file brings and what is put out again, in a DOM.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import userEvent from '../../test/user';
import { OtherShops, takenWords } from './OtherShops';

interface Asked {
  method: string;
  path: string;
  key: string | null;
  text: string;
}
const server = vi.hoisted(() => {
  const it = {
    asked: [] as Asked[],
    answer: (() => [200, []]) as (a: Asked) => [number, unknown],
  };
  globalThis.fetch = async (input, init) => {
    const r =
      input instanceof Request ? input : new Request(new URL(String(input), 'http://localhost/'), init);
    const one = {
      method: r.method,
      path: new URL(r.url).pathname,
      key: r.headers.get('idempotency-key'),
      text: await r.clone().text(),
    };
    it.asked.push(one);
    const [status, body] = it.answer(one);
    if (status === 0) throw new TypeError('no answer');
    const type = status < 400 ? 'application/json' : 'application/problem+json';
    return new Response(status === 204 ? null : JSON.stringify(body), {
      status,
      headers: { 'content-type': type },
    });
  };
  return it;
});

const open = () =>
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <OtherShops />
    </QueryClientProvider>,
  );
const lender = {
  origin: 'a1',
  name: 'Tansy Suspension',
  taken_at: '2026-11-30T10:00:00Z',
  author: 'Owner',
  cars: 1,
  heights: 2,
};
const file = (text = '{}') => new File([text], 'for-another-shop.json', { type: 'application/json' });

beforeEach(() => {
  server.asked = [];
});
afterEach(cleanup);

it('counts what came, and says so where nothing is new', () => {
  const none = { shop: 'Tansy Suspension', parts: 0, aims: 0, shapes: 0, cars: 0, kept: [] };
  expect(takenWords(none)).toBe('Everything of Tansy Suspension is here already.');
  expect(takenWords({ ...none, parts: 2, aims: 1, cars: 1 })).toBe(
    'Taken in from Tansy Suspension: 2 parts, 1 aim, what 1 car taught.',
  );
});

it('takes a file in, names what stays as it is here, and lists whose cars count', async () => {
  let taken = false;
  server.answer = (a) => {
    if (a.path.endsWith('/lenders')) return [200, taken ? [lender] : []];
    if (a.path.endsWith('/offer')) {
      taken = true;
      return [200, { shop: 'Tansy Suspension', parts: 1, aims: 0, shapes: 0, cars: 1, kept: ['Upper arm'] }];
    }
    return [200, {}];
  };
  open();
  await userEvent.upload(await screen.findByTestId('offer-in'), file());
  const said = await screen.findByTestId('offer-taken');
  expect(said.textContent).toContain('1 part, what 1 car taught');
  expect(said.textContent).toContain('Stays as it is here: Upper arm.');
  const there = await screen.findByTestId('lender-a1');
  expect(there.textContent).toContain('1 car of parts, 2 cars of height; taken in by Owner');
});

it('names every fault of a file that is refused whole', async () => {
  server.answer = (a) =>
    a.path.endsWith('/offer')
      ? [
          422,
          {
            title: 'Something typed needs another look',
            detail: '',
            problems: [{ field: 'parts.0.cost', wrong: '-1', right: '0 or more' }],
          },
        ]
      : [200, []];
  open();
  await userEvent.upload(await screen.findByTestId('offer-in'), file());
  const fault = await screen.findByTestId('offer-fault');
  expect(fault.textContent).toContain('Nothing was taken in.');
  expect(fault.textContent).toContain('parts.0.cost: -1');
});

it('sends a file whose answer was lost again with the key it had', async () => {
  let lost = true;
  server.answer = (a) => {
    if (!a.path.endsWith('/offer')) return [200, []];
    if (lost) {
      lost = false;
      return [0, null];
    }
    return [200, { shop: 'Tansy Suspension', parts: 0, aims: 0, shapes: 0, cars: 0, kept: [] }];
  };
  open();
  const f = file('{"a":1}');
  const sent = () => server.asked.filter((a) => a.path.endsWith('/offer'));
  await userEvent.upload(await screen.findByTestId('offer-in'), f);
  await waitFor(() => expect(sent().length).toBe(1));
  await userEvent.upload(screen.getByTestId('offer-in'), f);
  await screen.findByTestId('offer-taken');
  expect(sent()[0]!.key).toBeTruthy();
  expect(sent()[1]!.key).toBe(sent()[0]!.key);
});

it('puts out what another shop taught', async () => {
  let there = true;
  server.answer = (a) => {
    if (a.method === 'DELETE') {
      there = false;
      return [204, null];
    }
    return [200, a.path.endsWith('/lenders') && there ? [lender] : []];
  };
  open();
  await userEvent.click(await screen.findByText('Put out'));
  await waitFor(() => expect(screen.queryByTestId('lender-a1')).toBeNull());
  expect(server.asked.some((a) => a.method === 'DELETE' && a.path.endsWith('/lenders/a1'))).toBe(true);
});
