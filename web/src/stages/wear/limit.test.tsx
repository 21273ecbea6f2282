// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// The depth a tyre is done at, in a DOM: by region or the shop's own, in millimetres or thirty-seconds.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import userEvent from '../../test/user';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { SettingsProvider } from '../../ui/settings';
import { Limit } from './Limit';

const bench = vi.hoisted(() => ({ change: (() => {}) as (c: unknown) => void, limit_mm: 1.6 }));
vi.mock('../../shell/ticket', () => ({
  useBench: () => ({ draft: { limit_mm: bench.limit_mm }, change: bench.change }),
}));
vi.mock('../../shell/tread', async (real) => ({
  ...(await real<Record<string, unknown>>()),
  useWearData: () => ({
    data: {
      limits: [{ id: 'eu', name: 'Here', limit_mm: 1.6, winter_mm: 4, law: 'A law.', advice: 'Advice.' }],
    },
  }),
}));
const change = vi.fn();
beforeEach(() => {
  localStorage.clear();
  change.mockReset();
  Object.assign(bench, { change, limit_mm: 1.6 });
});
afterEach(cleanup);

const open = () =>
  render(
    <SettingsProvider>
      <QueryClientProvider client={new QueryClient()}>
        <Limit start={8} />
      </QueryClientProvider>
    </SettingsProvider>,
  );
const own = () => screen.getByTestId<HTMLInputElement>('limit');
const put = (value: string) => {
  fireEvent.change(own(), { target: { value } });
  fireEvent.blur(own());
};

it('names the law of a region, and takes its winter depth', async () => {
  open();
  expect(document.body.textContent).toContain('A law. Advice. Check local law.');
  await userEvent.click(screen.getByRole('combobox'));
  await userEvent.click(screen.getByText('Here, winter, 4.0 mm'));
  expect(change).toHaveBeenCalledWith({ limit_mm: 4 });
});

it('takes the shop’s own in millimetres or thirty-seconds', () => {
  open();
  put('2,5');
  expect(change).toHaveBeenLastCalledWith({ limit_mm: 2.5 });
  put('3/32');
  expect(change.mock.lastCall![0]).toEqual({ limit_mm: expect.closeTo(2.38125, 9) });
  cleanup();
  localStorage.setItem('bold-stance.settings', JSON.stringify({ unit: 'in' }));
  open();
  expect(own().value).toBe('2');
  put('4');
  expect(change.mock.lastCall![0]).toEqual({ limit_mm: expect.closeTo(3.175, 9) });
});

it('refuses what is over the tread, or none, and keeps it as typed', () => {
  open();
  put('9');
  expect(document.body.textContent).toContain('9.0 mm; 0.5 mm to below 8.0 mm');
  expect(own().value).toBe('9');
  put('bald');
  expect(document.body.textContent).toContain('cannot be read');
  expect(change).not.toHaveBeenCalled();
});
