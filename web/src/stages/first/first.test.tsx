// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// The first run in a DOM: four things in order, nothing typed lost where the server finds a fault, the slip before anything else.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen, waitFor } from '@testing-library/react';
import { MemoryRouter, Route, Routes } from 'react-router';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { SettingsProvider } from '../../ui/settings';
import userEvent from '../../test/user';
import FirstRun from './FirstRun';

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
const open = {
  shop: 'My shop',
  open: true,
  who: {
    member: null,
    name: 'Specialist',
    role: 'owner',
    mark: 0,
    acts: ['people'],
    session: null,
    units: null,
  },
  names: [],
  device: null,
  csrf: null,
  lock_minutes: 5,
};
const inside = {
  ...open,
  open: false,
  who: { ...open.who, member: 'o', name: 'Owner', session: 's' },
  csrf: 'told',
};

beforeEach(() => {
  server.asked.length = 0;
  localStorage.clear();
});
afterEach(cleanup);
function shown() {
  render(
    <QueryClientProvider
      client={new QueryClient({ defaultOptions: { queries: { retry: false }, mutations: { retry: false } } })}
    >
      <SettingsProvider>
        <MemoryRouter initialEntries={['/first-run']}>
          <Routes>
            <Route path="/first-run" element={<FirstRun />} />
            <Route path="/people" element={<p>people</p>} />
            <Route path="/" element={<p>the jobs</p>} />
          </Routes>
        </MemoryRouter>
      </SettingsProvider>
    </QueryClientProvider>,
  );
}
const type = async (pin: string) => {
  for (const d of pin) await userEvent.click(screen.getByTestId(`digit-${d}`));
};

it('makes an owner in four steps and prints the slip before anything else', async () => {
  let refuse = true;
  server.answer = (a) => {
    if (a.path.endsWith('/claim')) {
      if (!refuse) return [201, { slip: 'ABCD-EFGH-JKLM-NPQR-STUV-WXYZ', session: inside }];
      refuse = false;
      return [
        422,
        { detail: '', problems: [{ field: 'pin', wrong: 'every digit is the same', right: 'others' }] },
      ];
    }
    if (a.path.endsWith('/people')) return [201, {}];
    return a.path.endsWith('/session') ? [200, open] : [200, { name: 'My shop', tickets: [] }];
  };
  shown();
  // A shop nobody named is named first.
  expect((await screen.findByTestId<HTMLButtonElement>('first-next')).disabled).toBe(true);
  await userEvent.type(screen.getByTestId('first-name'), 'Larkspur Axle & Arm');
  await userEvent.click(screen.getByTestId('first-next'));
  await userEvent.click(screen.getByTestId('one-more'));
  await userEvent.type(screen.getByTestId('more-0'), 'Specialist A');
  await type('7777');
  await userEvent.click(screen.getByTestId('pin-once'));
  await type('78');
  expect(screen.getByTestId<HTMLButtonElement>('pin-again').disabled).toBe(true);
  await userEvent.click(screen.getByTestId('digit-back'));
  await type('777');
  await userEvent.click(screen.getByTestId('pin-again'));
  await userEvent.click(screen.getByTestId('first-night'));
  await userEvent.click(screen.getByTestId('first-claim'));
  // Refused at the PIN: back there, with all the rest as it was.
  await screen.findByText(/every digit is the same; others/);
  expect(screen.getByTestId<HTMLInputElement>('more-0').value).toBe('Specialist A');
  await type('4071');
  await userEvent.click(screen.getByTestId('pin-once'));
  await type('4071');
  await userEvent.click(screen.getByTestId('pin-again'));
  await userEvent.click(screen.getByTestId('first-claim'));
  expect((await screen.findByTestId('slip-letters')).textContent).toBe('ABCD-EFGH-JKLM-NPQR-STUV-WXYZ');
  expect(server.asked.filter((a) => a.path.endsWith('/claim')).at(-1)?.body).toEqual({
    name: 'Larkspur Axle & Arm',
    bays: 3,
    owner: 'Owner',
    pin: '4071',
    device: 'Front office',
  });
  expect(server.asked.find((a) => a.path.endsWith('/people'))?.body).toMatchObject({ name: 'Specialist A' });
  expect(screen.getByTestId<HTMLButtonElement>('slip-done').disabled).toBe(true);
  await userEvent.click(screen.getByTestId('slip-kept'));
  await userEvent.click(screen.getByTestId('slip-done'));
  await screen.findByText('people');
});

it('is over for a shop that has an owner', async () => {
  server.answer = (a) => [200, a.path.endsWith('/session') ? inside : { name: 'Larkspur', tickets: [] }];
  shown();
  await waitFor(() => expect(screen.getByText('the jobs')).toBeTruthy());
});
