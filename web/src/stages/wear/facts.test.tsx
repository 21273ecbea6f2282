// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// What is told of the tyres, in a DOM: refused at its field, kept whole, and never lost on the way.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '../../test/user';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { SettingsProvider } from '../../ui/settings';
import { starting, usualCar } from '../../fixtures';
import { TyreFactsDialog } from './TyreFactsDialog';

const bench = vi.hoisted(() => ({
  now: {} as Record<string, unknown>,
  setTicket: (() => {}) as (t: unknown) => void,
}));
vi.mock('../../shell/ticket', async (real) => ({
  ...(await real<Record<string, unknown>>()),
  useBench: () => ({ ticket: bench.now, setTicket: bench.setTicket }),
  useShop: () => ({ data: { starter: starting } }),
}));
// The client takes fetch when it is loaded, before any test runs.
const server = vi.hoisted(() => {
  const it = { asked: [] as Record<string, unknown>[], status: 200, answer: {} as unknown };
  globalThis.fetch = async (input) => {
    it.asked.push(JSON.parse(await (input as Request).text()) as Record<string, unknown>);
    return new Response(JSON.stringify(it.answer), {
      status: it.status,
      headers: { 'content-type': 'application/json' },
    });
  };
  return it;
});

const kept = vi.fn();
beforeEach(() => {
  localStorage.clear();
  server.asked.length = 0;
  server.status = 200;
  server.answer = { job: { id: 'j' } };
  kept.mockReset();
  bench.setTicket = kept;
  bench.now = {
    job: { id: 'j' },
    vehicle: {
      version: 5,
      facts: { ...starting, tyre_size: '235/45R18', use: 'mixed', car: { ...usualCar, lock_deg: 38 } },
    },
  };
});
afterEach(cleanup);

const open = (close = vi.fn()) =>
  render(
    <SettingsProvider>
      <QueryClientProvider client={new QueryClient()}>
        <TyreFactsDialog heights={['planned', 'loaded']} close={close} />
      </QueryClientProvider>
    </SettingsProvider>,
  );
const put = (id: string, value: string) => fireEvent.change(screen.getByTestId(id), { target: { value } });
const value = (id: string) => screen.getByTestId<HTMLInputElement>(id).value;
const save = () => userEvent.click(screen.getByTestId('wf-save'));

it('calls a distance nobody told usual, until it is told', () => {
  open();
  const said = () => screen.getByTestId('wf-yearly_km').closest('div')!.parentElement!.textContent;
  expect(said()).toContain('usual');
  put('wf-yearly_km', '22000');
  expect(said()).not.toContain('usual');
});

it('keeps every fact of the car beside what was told', async () => {
  open();
  put('wf-price', '145');
  put('wf-h-loaded', '30');
  put('wf-u-trail', '20');
  put('wf-grade', '');
  await waitFor(() => expect(Object.keys(localStorage).some((k) => k.includes('tyres2.j'))).toBe(true));
  await save();
  await waitFor(() => expect(kept).toHaveBeenCalled());
  expect(server.asked[0]).toMatchObject({
    version: 5,
    facts: {
      tyre_size: '235/45R18',
      car: {
        lock_deg: 38,
        wear: {
          price: 145,
          grade: null,
          heights: [{ state: 'loaded', share: 30 }],
          uses: [{ use: 'trail', share: 20 }],
        },
      },
    },
  });
  // Nothing is left of the draft, which is kept by its units.
  expect(Object.keys(localStorage).filter((k) => k.includes('tyres2.j'))).toEqual([]);
});

it('refuses what is no number at its field, and sends nothing', async () => {
  open();
  put('wf-yearly_km', 'a lot');
  put('wf-h-planned', '140');
  await save();
  expect(screen.getByText('such as 38600 km')).toBeTruthy();
  expect(screen.getByText('A share from 0 to 100')).toBeTruthy();
  expect(server.asked).toHaveLength(0);
});

it('does not guess whether 18,000 is eighteen', async () => {
  open();
  put('wf-yearly_km', '18,000');
  await save();
  expect(server.asked).toHaveLength(0);
  expect(value('wf-yearly_km')).toBe('18,000');
});

it('says the server’s refusal at its field and keeps the typing for the next time', async () => {
  server.status = 422;
  server.answer = {
    title: 'x',
    detail: 'x',
    problems: [{ field: 'car.wear.price', wrong: '9e9', right: 'a number from 0 to 100000' }],
  };
  const first = open();
  put('wf-price', '900000');
  await save();
  await screen.findByText('a number from 0 to 100000');
  first.unmount();
  const again = open();
  expect(value('wf-price')).toBe('900000');
  await userEvent.click(screen.getByText('Leave as it is'));
  again.unmount();
  open();
  expect(value('wf-price')).toBe('0');
});
