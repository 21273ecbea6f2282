// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// The door in a DOM: who may come in how, what is said where it is wrong, that what is open stays open behind it, and that
// every write carries back what the page was told.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, render, screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { keepOwnUnits } from '../api/calls';
import { carry, unseated } from '../api/seat';
import { SettingsProvider } from '../ui/settings';
import userEvent from '../test/user';
import { AtBench } from './AtBench';
import { Door } from './Door';
import { MemberUnits } from './MemberUnits';
import { lastSigned } from './signed';
import { asksAnew, touched } from './useFollow';
import { useIdle } from './useIdle';

type Asked = { method: string; path: string; body: any; csrf: string | null };
const server = vi.hoisted(() => {
  const it = {
    asked: [] as Asked[],
    answer: (() => [200, {}]) as (a: Asked) => [number, unknown],
    /** What an answer waits for. */
    hold: (() => undefined) as (a: Asked) => Promise<void> | undefined,
  };
  globalThis.fetch = async (input) => {
    const r = input as Request;
    const text = await r.text();
    const one = {
      method: r.method,
      path: new URL(r.url).pathname,
      body: text ? JSON.parse(text) : undefined,
      csrf: r.headers.get('x-csrf-token'),
    };
    it.asked.push(one);
    await it.hold(one);
    const [status, body] = it.answer(one);
    const type = status < 400 ? 'application/json' : 'application/problem+json';
    return new Response(JSON.stringify(body), { status, headers: { 'content-type': type } });
  };
  return it;
});

const names = [
  { member: 'm1', name: 'Specialist A', role: 'specialist', mark: 2, has_pin: true, wait_s: 0 },
  { member: 'm2', name: 'Apprentice', role: 'apprentice', mark: 12, has_pin: true, wait_s: 0 },
  { member: 'm3', name: 'Front desk', role: 'front_desk', mark: 9, has_pin: false, wait_s: 0 },
];
const who = (acts: string[] = ['look'], session: string | null = 's1') => ({
  member: 'm1',
  name: 'Specialist A',
  role: 'specialist',
  mark: 2,
  acts,
  session,
  units: null,
});
const shut = {
  shop: 'Larkspur Axle & Arm',
  open: false,
  who: null,
  names,
  device: 'Bay 2 tablet',
  csrf: null,
  lock_minutes: 5,
};
const inside = { ...shut, who: who(), names: [], csrf: 'told' };

function Work() {
  const [text, set] = useState('');
  return <input data-testid="work" value={text} onChange={(e) => set(e.target.value)} />;
}
const queries = () =>
  new QueryClient({ defaultOptions: { queries: { retry: false }, mutations: { retry: false } } });
const shown = (of: React.ReactNode) =>
  render(
    <QueryClientProvider client={queries()}>
      <SettingsProvider>
        <MemoryRouter>{of}</MemoryRouter>
      </SettingsProvider>
    </QueryClientProvider>,
  );
const type = async (pin: string) => {
  for (const d of pin) await userEvent.click(screen.getByTestId(`digit-${d}`));
};

beforeEach(() => {
  server.asked.length = 0;
  localStorage.clear();
  carry(null);
});
afterEach(() => {
  cleanup();
  window.history.replaceState(null, '', '/');
});

describe('the door', () => {
  it('opens by a name and its PIN, and the next time by itself', async () => {
    let session: unknown = shut;
    server.answer = (a) => {
      if (a.path.endsWith('/pin')) session = inside;
      return [200, session];
    };
    shown(
      <Door>
        <Work />
      </Door>,
    );
    await screen.findByTestId('door');
    expect(screen.getByTestId('work').closest('[hidden]')).not.toBeNull();
    // Who has no PIN yet is there and cannot be pressed.
    expect(screen.getByTestId<HTMLButtonElement>('name-Front desk').disabled).toBe(true);
    await userEvent.click(screen.getByTestId('name-Specialist A'));
    await type('407');
    expect(screen.getByTestId<HTMLButtonElement>('pin-open').disabled).toBe(true);
    await type('1');
    await userEvent.click(screen.getByTestId('pin-open'));
    await waitFor(() => expect(screen.queryByTestId('door')).toBeNull());
    expect(server.asked.find((a) => a.method === 'POST')?.body).toEqual({ member: 'm1', pin: '4071' });
    expect(lastSigned()).toBe('Specialist A');
    // Somebody left a car: the work is still there, unreachable, and the same name opens with its four digits alone.
    await userEvent.type(screen.getByTestId('work'), 'half typed');
    session = shut;
    window.history.replaceState(null, '', '/job/7/set');
    act(() => unseated());
    await screen.findByTestId('door');
    expect(screen.getByTestId<HTMLInputElement>('work').value).toBe('half typed');
    expect(screen.getByTestId('work').closest('[inert]')).not.toBeNull();
    expect(screen.getByTestId('work').closest('[hidden]')).toBeNull();
    // A dialog that lies beside the page cannot be reached either, and can again after.
    const dialog = document.body.appendChild(document.createElement('div'));
    await waitFor(() => expect(dialog.inert).toBe(true));
    session = inside;
    await type('4071');
    await waitFor(() => expect(screen.queryByTestId('door')).toBeNull());
    expect(dialog.inert).toBe(false);
    dialog.remove();
    expect(screen.getByTestId<HTMLInputElement>('work').value).toBe('half typed');
  });

  it('says how many tries are left, waits after too many, and takes digits from the keyboard', async () => {
    let tries = 0;
    server.answer = (a) => {
      if (!a.path.endsWith('/pin')) return [200, shut];
      tries += 1;
      if (tries > 1) return [429, { status: 429, detail: 'too often', problems: [] }];
      const wrong = { field: 'pin', wrong: 'wrong; 4 tries left', right: 'the PIN of this name' };
      return [422, { status: 422, detail: '', problems: [wrong] }];
    };
    shown(<Door>{null}</Door>);
    await userEvent.click(await screen.findByTestId('name-Apprentice'));
    await userEvent.keyboard('12');
    await userEvent.keyboard('{Backspace}999');
    await userEvent.click(screen.getByTestId('pin-open'));
    await waitFor(() => expect(screen.getByTestId('pin-said').textContent).toContain('4 tries left'));
    expect(server.asked.find((a) => a.method === 'POST')?.body.pin).toBe('1999');
    await type('2222');
    await userEvent.click(screen.getByTestId('pin-open'));
    await waitFor(() => expect(screen.getByTestId('pin-said').textContent).toContain('Wait 2:00'));
    expect(screen.getByTestId<HTMLButtonElement>('digit-1').disabled).toBe(true);
    await userEvent.click(screen.getByTestId('not-me'));
    expect(screen.queryByTestId('pin-said')).toBeNull();
  });

  it('asks a browser of no shop for a passphrase, then the code, then which shop', async () => {
    const nowhere = { ...shut, shop: null, names: [], device: null };
    server.answer = (a) => {
      if (!a.path.endsWith('/passphrase')) return [200, nowhere];
      if (!a.body.code) return [200, { session: null, code_wanted: true, shops: [] }];
      const shops = [
        { id: 'a', name: 'Larkspur Axle & Arm' },
        { id: 'b', name: 'Larkspur North' },
      ];
      if (!a.body.shop) return [200, { session: null, code_wanted: false, shops }];
      return [200, { session: inside, code_wanted: false, shops: [] }];
    };
    shown(<Door>{null}</Door>);
    await userEvent.type(await screen.findByTestId('login'), 'larkspur');
    await userEvent.type(screen.getByTestId('passphrase'), 'gravel over the north gate');
    await userEvent.click(screen.getByTestId('passphrase-open'));
    await userEvent.type(await screen.findByTestId('second-factor'), '123456');
    await userEvent.click(screen.getByTestId('passphrase-open'));
    await userEvent.click(await screen.findByText('Larkspur North'));
    await waitFor(() => expect(screen.queryByTestId('door')).toBeNull());
    expect(server.asked.at(-1)?.body).toMatchObject({ login: 'larkspur', code: '123456', shop: 'b' });
  });

  it('adds a device by a code and says at the field what is wrong with one', async () => {
    let session: unknown = { ...shut, shop: null, names: [], device: null };
    server.answer = (a) => {
      if (!a.path.endsWith('/enrol')) return [200, session];
      if (a.body.code === 'OLDCODE1')
        return [422, { detail: '', problems: [{ field: 'code', wrong: 'not a code', right: 'a new code' }] }];
      session = shut;
      return [201, { shop: 'Larkspur Axle & Arm' }];
    };
    shown(<Door>{null}</Door>);
    await userEvent.click(await screen.findByTestId('way-code'));
    await userEvent.type(screen.getByTestId('device-code'), 'OLDCODE1');
    await userEvent.type(screen.getByTestId('device-name'), 'Bay 2 tablet');
    await userEvent.click(screen.getByTestId('code-use'));
    await screen.findByText('not a code; a new code');
    expect(screen.getByTestId<HTMLInputElement>('device-name').value).toBe('Bay 2 tablet');
    await userEvent.clear(screen.getByTestId('device-code'));
    await userEvent.type(screen.getByTestId('device-code'), 'NEWCODE2');
    await userEvent.click(screen.getByTestId('code-use'));
    await screen.findByTestId('name-Specialist A');
  });

  it('lets a screen go on that nobody answers', async () => {
    globalThis.fetch = vi.fn(globalThis.fetch);
    server.answer = () => {
      throw new TypeError('no net');
    };
    shown(
      <Door>
        <Work />
      </Door>,
    );
    await act(() => new Promise((r) => setTimeout(r, 30)));
    expect(screen.queryByTestId('door')).toBeNull();
    expect(screen.getByTestId('work').closest('[inert]')).toBeNull();
  });
});

describe('who is at the bench', () => {
  it('is picked by name where the shop has no owner', async () => {
    const open = { ...inside, open: true, who: who(['people'], null), names, csrf: null };
    server.answer = (a) =>
      a.path.endsWith('/pick')
        ? [200, { ...open, who: { ...open.who, member: 'm2', name: 'Apprentice' } }]
        : [200, open];
    shown(<AtBench row />);
    await userEvent.click(await screen.findByTestId('at-bench'));
    expect(screen.getByTestId('to-people').getAttribute('href')).toBe('/first-run');
    expect(screen.queryByTestId('leave-bench')).toBeNull();
    await userEvent.click(screen.getByTestId('pick-Apprentice'));
    await waitFor(() => expect(screen.getByTestId('at-bench').textContent).toContain('Apprentice signs'));
    expect(server.asked.find((a) => a.method === 'POST')?.body).toEqual({ member: 'm2' });
  });

  it('leaves, and carries back what the page was told', async () => {
    server.answer = (a) => [200, a.method === 'DELETE' ? shut : inside];
    shown(
      <Door>
        <AtBench />
      </Door>,
    );
    await userEvent.click(await screen.findByTestId('at-bench'));
    expect(screen.queryByTestId('to-people')).toBeNull();
    await userEvent.click(screen.getByTestId('leave-bench'));
    await screen.findByTestId('door');
    expect(server.asked.find((a) => a.method === 'DELETE')?.csrf).toBe('told');
    // What is the shop's own is not left in sight: the door is shut over the whole of it.
    expect(screen.getByTestId('door').className).not.toContain('beside');
    expect(screen.getByTestId('name-Specialist A')).toBeTruthy();
  });

  it('brings the units kept with a name, and keeps those on the screen', async () => {
    const kept = { unit: 'in', form: 'minutes', own: { pressure: 'psi' } };
    server.answer = (a) => [200, a.method === 'PUT' ? 'ok' : { ...inside, who: { ...who(), units: kept } }];
    shown(
      <>
        <MemberUnits />
        <AtBench />
      </>,
    );
    await userEvent.click(await screen.findByTestId('at-bench'));
    await screen.findByText(/Reads in in, degrees and minutes/);
    await userEvent.click(screen.getByTestId('keep-units'));
    await waitFor(() => expect(server.asked.some((a) => a.path.endsWith('/session/units'))).toBe(true));
    expect(server.asked.find((a) => a.method === 'PUT')?.body.units).toMatchObject(kept);
  });
});

describe('a write', () => {
  it('waits until it is known who sits here, and goes on where another page signed in', async () => {
    let told = 'first';
    let answer: (() => void) | undefined;
    // The first answer of who is there takes its time.
    server.hold = (a) => (a.method === 'GET' && !answer ? new Promise<void>((r) => (answer = r)) : undefined);
    try {
      server.answer = (a) => {
        if (a.method === 'GET') return [200, { ...inside, csrf: told }];
        const other = { type: 'urn:bold-stance:other-seat', status: 403, detail: '', problems: [] };
        return a.csrf === told ? [200, 'ok'] : [403, other];
      };
      shown(
        <Door>
          <Work />
        </Door>,
      );
      const first = keepOwnUnits({});
      await act(() => new Promise((r) => setTimeout(r, 20)));
      expect(server.asked.filter((a) => a.method === 'PUT')).toEqual([]);
      answer?.();
      await act(() => first);
      expect(server.asked.find((a) => a.method === 'PUT')?.csrf).toBe('first');
      told = 'second';
      await expect(act(() => keepOwnUnits({}))).rejects.toThrow();
      await waitFor(() => expect(server.asked.filter((a) => a.method === 'GET').length).toBeGreaterThan(1));
      await act(() => new Promise((r) => setTimeout(r, 20)));
      await act(() => keepOwnUnits({}));
      expect(server.asked.at(-1)?.csrf).toBe('second');
    } finally {
      server.hold = () => undefined;
    }
  });
});

describe('a screen nobody touches', () => {
  it('locks after its minutes and not while somebody works', () => {
    vi.useFakeTimers();
    try {
      const left = vi.fn();
      function Idle() {
        useIdle(2, left);
        return null;
      }
      render(<Idle />);
      vi.advanceTimersByTime(100_000);
      window.dispatchEvent(new Event('pointerdown'));
      vi.advanceTimersByTime(100_000);
      expect(left).not.toHaveBeenCalled();
      vi.advanceTimersByTime(30_000);
      expect(left).toHaveBeenCalledTimes(1);
    } finally {
      vi.useRealTimers();
    }
  });
});

describe('what other screens do', () => {
  const asked = (what: string, job?: string) =>
    touched({ id: 1, what, ...(job && { job }) }).map((k) => k[0]);
  it('makes what hangs on it be asked anew, and nothing else', () => {
    expect(asked('step', 'j1')).toEqual(['ticket', 'sheet', 'jobs', 'tread', 'story']);
    expect(asked('part kept')).toEqual(['parts']);
    expect(asked('member changed')).toEqual(['people', 'session']);
    expect(asked('tickets from a table')).toEqual(['jobs']);
    expect(asked('here')).toEqual([]);
  });
  it('is asked once for many events, and all of it where nobody knows what was missed', () => {
    const client = queries();
    const spy = vi.spyOn(client, 'invalidateQueries').mockResolvedValue();
    asksAnew(client, [
      { id: 1, what: 'step', job: 'j1' },
      { id: 2, what: 'reading', job: 'j1' },
    ]);
    expect(spy).toHaveBeenCalledTimes(5);
    spy.mockClear();
    asksAnew(client, [
      { id: 1, what: 'step', job: 'j1' },
      { id: 0, what: 'anew' },
    ]);
    expect(spy.mock.calls).toEqual([[]]);
  });
});
