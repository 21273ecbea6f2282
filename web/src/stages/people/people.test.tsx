// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// The owner's page in a DOM: what is asked for each act, what is said at its field, what is shown once, what stays in the record.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen, waitFor, within } from '@testing-library/react';
import { MemoryRouter, Route, Routes } from 'react-router';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { SettingsProvider } from '../../ui/settings';
import userEvent from '../../test/user';
import People from './People';

type Asked = { method: string; path: string; body: any; query: URLSearchParams };
const server = vi.hoisted(() => {
  const it = {
    asked: [] as Asked[],
    answer: (() => [200, {}]) as (a: Asked) => [number, unknown],
  };
  globalThis.fetch = async (input) => {
    const r = input as Request;
    const text = await r.text();
    const url = new URL(r.url);
    const one = {
      method: r.method,
      path: url.pathname,
      query: url.searchParams,
      body: text ? JSON.parse(text) : undefined,
    };
    it.asked.push(one);
    const [status, body] = it.answer(one);
    const type = status < 400 ? 'application/json' : 'application/problem+json';
    return new Response(JSON.stringify(body), { status, headers: { 'content-type': type } });
  };
  return it;
});

const member = (id: string, name: string, role: string, has_pin = true, left_at: string | null = null) => ({
  member: { id, name, role, mark: 2, has_pin, version: 3, left_at },
  acts: ['look'],
  login: null,
  second_factor: false,
});
const people = {
  members: [
    member('o', 'Owner', 'owner'),
    member('a', 'Specialist A', 'specialist', false),
    member('z', 'Specialist Z', 'specialist', true, '2026-11-01T08:00:00Z'),
  ],
  devices: [
    { id: 'd', name: 'Bay 2 tablet', enrolled_at: '2026-11-01T08:00:00Z', seen_at: '2026-11-29T08:00:00Z' },
  ],
  sitting: [{ id: 's', member_id: 'o', device_id: null, way: 'pin', started_at: '', seen_at: '' }],
  trust: { lock_minutes: 5, keep_months: null },
  bays: 3,
};
const session = (acts: string[]) => ({
  shop: 'Larkspur Axle & Arm',
  open: false,
  who: { member: 'o', name: 'Owner', role: 'owner', mark: 0, acts, session: 's', units: null },
  names: [],
  device: 'Office',
  csrf: 'told',
  lock_minutes: 5,
});
const change = (id: number, before: unknown, after: unknown, kind = 'changed') => ({
  id,
  at: '2026-11-30T08:00:00Z',
  job_id: 'j',
  ticket: 417,
  member_id: 'a',
  member: 'Specialist A',
  device: 'Bay 2 tablet',
  what: 'job',
  row_id: 'j',
  change: kind,
  before,
  after,
});
const record = [
  change(9, { plate: '' }, { plate: 'LK 417', shop_id: 'x', version: 4 }),
  change(8, null, null, 'erased'),
];
const usual = (a: Asked): [number, unknown] => {
  if (a.path.endsWith('/session')) return [200, session(['people', 'records'])];
  if (a.path.endsWith('/record')) return [200, record];
  if (a.path.endsWith('/people') && a.method === 'GET') return [200, people];
  return [200, people];
};

beforeEach(() => {
  server.asked.length = 0;
  server.answer = usual;
  localStorage.clear();
});
afterEach(cleanup);
function shown() {
  render(
    <QueryClientProvider
      client={new QueryClient({ defaultOptions: { queries: { retry: false }, mutations: { retry: false } } })}
    >
      <SettingsProvider>
        <MemoryRouter initialEntries={['/people']}>
          <Routes>
            <Route path="/people" element={<People />} />
            <Route path="/" element={<p>the jobs</p>} />
          </Routes>
        </MemoryRouter>
      </SettingsProvider>
    </QueryClientProvider>,
  );
}
const sent = (method: string) => server.asked.filter((a) => a.method === method).at(-1);
const opened = async (name: string) => {
  const row = await screen.findByTestId(`member-${name}`);
  await userEvent.click(within(row).getAllByRole('button')[0]!);
  return within(row);
};

it('lists who works here, how they come in and where they sit', async () => {
  shown();
  const a = await screen.findByTestId('member-Specialist A');
  expect(a.textContent).toContain('no PIN');
  expect(screen.getByTestId('member-Owner').textContent).toContain('signed in on 1');
  // Who left stands beside, not among them.
  expect(screen.queryByTestId('member-Specialist Z')).toBeNull();
  expect(screen.getByText(/Left: Specialist Z/)).toBeTruthy();
  expect(screen.getByTestId('device-Bay 2 tablet').textContent).toContain('last seen');
});

it('gives a PIN over the pad, and says at it what is wrong with one', async () => {
  server.answer = (a) => {
    if (a.method !== 'PUT') return usual(a);
    if (a.body.pin === '1234')
      return [
        422,
        { detail: '', problems: [{ field: 'pin', wrong: 'its digits count up', right: 'others' }] },
      ];
    return [200, people];
  };
  shown();
  const row = await opened('Specialist A');
  await userEvent.click(row.getByTestId('set-pin'));
  for (const d of '1234') await userEvent.click(screen.getByTestId(`digit-${d}`));
  await userEvent.click(screen.getByTestId('pin-keep'));
  await screen.findByText('its digits count up; others');
  for (let i = 0; i < 4; i++) await userEvent.click(screen.getByTestId('digit-back'));
  for (const d of '2580') await userEvent.click(screen.getByTestId(`digit-${d}`));
  await userEvent.click(screen.getByTestId('pin-keep'));
  await waitFor(() => expect(screen.queryByTestId('pin-keep')).toBeNull());
  expect(sent('PUT')?.path).toBe('/api/v1/people/a/pin');
});

it('lets in from elsewhere, and shows a second factor once', async () => {
  const made = { secret: 'MZXW6YTBOI', picture: '<svg xmlns="http://www.w3.org/2000/svg"/>' };
  server.answer = (a) => (a.method === 'PUT' ? [200, { people, second_factor: made }] : usual(a));
  shown();
  const row = await opened('Owner');
  await userEvent.click(row.getByTestId('set-passphrase'));
  await userEvent.type(screen.getByTestId('phrase-login'), 'larkspur');
  await userEvent.type(screen.getByTestId('phrase-text'), 'gravel over the north gate');
  await userEvent.click(screen.getByTestId('phrase-second'));
  await userEvent.click(screen.getByTestId('phrase-keep'));
  expect((await screen.findByTestId('factor-secret')).textContent).toBe('MZXW6YTBOI');
  expect(sent('PUT')?.body).toEqual({
    login: 'larkspur',
    passphrase: 'gravel over the north gate',
    second_factor: true,
  });
});

it('changes what somebody may over the version that is shown, and keeps one owner', async () => {
  server.answer = (a) =>
    a.method === 'PUT'
      ? [
          422,
          {
            detail: '',
            problems: [{ field: 'role', wrong: 'nobody would own it', right: 'make another first' }],
          },
        ]
      : usual(a);
  shown();
  const row = await opened('Owner');
  await userEvent.selectOptions(row.getByTestId('member-role'), 'specialist');
  await row.findByText('nobody would own it; make another first');
  expect(sent('PUT')?.body).toMatchObject({ version: 3, role: 'specialist', name: 'Owner', left: false });
});

it('adds a name, adds a device by a code, takes one out', async () => {
  server.answer = (a) => {
    if (a.path.endsWith('/code')) return [201, { code: 'ABCD2345', good_s: 600 }];
    return usual(a);
  };
  shown();
  await userEvent.type(await screen.findByTestId('new-member'), 'Specialist B');
  await userEvent.click(screen.getByTestId('add-member'));
  await waitFor(() => expect(sent('POST')?.body).toMatchObject({ name: 'Specialist B', role: 'specialist' }));
  await waitFor(() => expect(screen.getByTestId<HTMLInputElement>('new-member').value).toBe(''));
  await userEvent.click(screen.getByTestId('make-code'));
  expect((await screen.findByTestId('device-code-shown')).textContent).toContain('ABCD2345');
  await userEvent.click(within(screen.getByTestId('device-Bay 2 tablet')).getByText('Take out'));
  await waitFor(() => expect(sent('DELETE')?.path).toBe('/api/v1/devices/d'));
});

it('keeps minutes and months, empty for never', async () => {
  server.answer = (a) => (a.path.endsWith('/trust') ? [200, a.body] : usual(a));
  shown();
  await userEvent.clear(await screen.findByTestId('lock-minutes'));
  await userEvent.type(screen.getByTestId('lock-minutes'), '12');
  await userEvent.click(screen.getByTestId('trust-save'));
  await waitFor(() => expect(sent('PUT')?.body).toEqual({ lock_minutes: 12, keep_months: null }));
  await userEvent.type(screen.getByTestId('keep-months'), '24');
  await userEvent.click(screen.getByTestId('trust-save'));
  await waitFor(() => expect(sent('PUT')?.body).toEqual({ lock_minutes: 12, keep_months: 24 }));
});

it('tells the record without what nobody reads, of one name where one is picked', async () => {
  shown();
  const lines = await screen.findAllByTestId('record-line');
  expect(lines).toHaveLength(2);
  expect(lines[0]!.textContent).toContain('plate LK 417');
  expect(lines[0]!.textContent).not.toContain('shop');
  expect(lines[1]!.textContent).toContain('taken out');
  await userEvent.selectOptions(screen.getByTestId('record-by'), 'a');
  await waitFor(() =>
    expect(server.asked.some((a) => a.path.endsWith('/record') && a.query.get('member') === 'a')).toBe(true),
  );
  expect(screen.getByTestId('record-out').getAttribute('href')).toContain('member=a');
});

it('is not there for whoever does not manage people', async () => {
  server.answer = (a) => (a.path.endsWith('/session') ? [200, session(['look'])] : usual(a));
  shown();
  await screen.findByText('the jobs');
});
