// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// A tyre's log in a DOM: depths and odometer as a shop writes them, refused at their field, corrected without losing a digit.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '../../test/user';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { SettingsProvider } from '../../ui/settings';
import type { TreadView } from '../../shell/tread';
import { Depths } from './Depths';

vi.mock('../../shell/ticket', async (real) => ({
  ...(await real<Record<string, unknown>>()),
  useBench: () => ({ ticket: { job: { id: 'j' } }, draft: { limit_mm: 1.6 } }),
}));
// The client takes fetch when it is loaded, before any test runs.
const server = vi.hoisted(() => {
  const it = {
    asked: [] as { path: string; body: Record<string, unknown> }[],
    status: 200,
    answer: {} as unknown,
  };
  globalThis.fetch = async (input) => {
    const r = input as Request;
    it.asked.push({
      path: new URL(r.url).pathname,
      body: JSON.parse(await r.text()) as Record<string, unknown>,
    });
    return new Response(JSON.stringify(it.answer), {
      status: it.status,
      headers: { 'content-type': 'application/json' },
    });
  };
  return it;
});

const line = {
  id: 'l1',
  entry: {
    odometer_km: 38_612.4,
    place: 'left_front',
    flipped: false,
    depths_mm: [5.55625, 6.35, 6.4],
    day: '2026-11-02',
    note: '',
  },
};
const view = {
  tyres: [{ id: 't', mark: 'S1', new_depth_mm: 8, lines: [line] }],
  warnings: [],
  log: {},
} as unknown as TreadView;

function open() {
  return render(
    <SettingsProvider>
      <QueryClientProvider client={new QueryClient()}>
        <Depths modes={<nav>modes</nav>} wear={undefined} view={view} place="left_front" pick={() => {}} />
      </QueryClientProvider>
    </SettingsProvider>,
  );
}
const put = (id: string, value: string) =>
  fireEvent.change(screen.getByTestId(`tread-${id}`), { target: { value } });
const value = (id: string) => screen.getByTestId<HTMLInputElement>(`tread-${id}`).value;
const keep = () => userEvent.click(screen.getByTestId('tread-keep'));
const entry = () => server.asked.at(-1)!.body.entry as Record<string, unknown>;
const inches = () => localStorage.setItem('bold-stance.settings', JSON.stringify({ unit: 'in' }));

beforeEach(() => {
  localStorage.clear();
  server.asked.length = 0;
  server.status = 200;
  server.answer = view;
});
afterEach(cleanup);

describe('a line of the log', () => {
  it('is written in millimetres and kilometres', async () => {
    open();
    put('odometer', '44 600');
    for (const [k, v] of [
      ['inner', '5,1'],
      ['centre', '5.9'],
      ['outer', '6'],
    ] as const)
      put(k, v);
    await keep();
    await waitFor(() => expect(server.asked).toHaveLength(1));
    expect(server.asked[0]!.path).toBe('/api/v1/jobs/j/tread');
    expect(entry()).toMatchObject({ odometer_km: 44_600, place: 'left_front', depths_mm: [5.1, 5.9, 6] });
    expect(server.asked[0]!.body.mark).toBe('S1');
  });
  it('is written in miles and thirty-seconds by a shop in inches', async () => {
    inches();
    open();
    expect(screen.getByLabelText('Odometer, mi')).toBeTruthy();
    put('odometer', '27 700');
    put('inner', '6');
    put('centre', '7/32');
    put('outer', '6.4 mm');
    await keep();
    await waitFor(() => expect(server.asked).toHaveLength(1));
    expect(entry().odometer_km).toBeCloseTo(44_578.8, 1);
    const [a, b, c] = entry().depths_mm as number[];
    expect([a!, b!, c!].map((x) => Math.round(x * 1000) / 1000)).toEqual([4.762, 5.556, 6.4]);
  });
  it('is refused at its fields, sends nothing, and keeps what was typed', async () => {
    open();
    put('odometer', '38,600');
    put('inner', 'thin');
    await keep();
    expect(server.asked).toHaveLength(0);
    expect(
      screen.getByText('“38,600” can be 38.6 or 38600; 38.6 with a point, or 38600 without the comma'),
    ).toBeTruthy();
    expect(screen.getByText('“thin” cannot be read; such as 5.6 mm')).toBeTruthy();
    put('odometer', '38600');
    put('inner', '5.5');
    await keep();
    expect(screen.getAllByText('All three, or none')).toHaveLength(2);
    expect(value('odometer')).toBe('38600');
    expect(server.asked).toHaveLength(0);
  });
  it('shows the log in the shop’s units', () => {
    open();
    expect(screen.getByTestId('log-table').textContent).toContain('38 6125.6 / 6.3 / 6.4');
    cleanup();
    inches();
    open();
    expect(screen.getByTestId('log-table').textContent).toContain('23 9937.0 / 8.0 / 8.1');
    expect(screen.getByTestId('log-table').textContent).toContain('Odometer, mi');
  });
  it('is corrected without losing a digit of what is not touched, in either unit', async () => {
    for (const set of [() => {}, inches]) {
      set();
      server.asked.length = 0;
      open();
      await userEvent.click(screen.getByText('Correct'));
      put('outer', value('outer') === '8.1' ? '6' : '5');
      await keep();
      await waitFor(() => expect(server.asked).toHaveLength(1));
      expect(server.asked[0]!.body.replaces).toBe('l1');
      expect(entry().odometer_km).toBe(38_612.4);
      expect((entry().depths_mm as number[]).slice(0, 2)).toEqual([5.55625, 6.35]);
      cleanup();
    }
  });
  it('says what the server refuses at its field', async () => {
    server.status = 422;
    server.answer = {
      title: 'x',
      detail: 'x',
      problems: [{ field: 'depths_mm.1', wrong: '45 mm', right: '0 to 30 mm' }],
    };
    open();
    put('odometer', '44600');
    for (const k of ['inner', 'centre', 'outer']) put(k, '45');
    await keep();
    await screen.findByText('0 to 30 mm');
    expect(value('centre')).toBe('45');
  });
});
