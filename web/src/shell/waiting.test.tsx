// @vitest-environment happy-dom
// What is told while the server does not answer: since when, what waits, what was not taken.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, render, screen } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import user from '../test/user';
import { heard } from '../api/away';
import type { Waits } from '../api/outbox';
import { Waiting } from './Waiting';

const box = vi.hoisted(() => ({
  list: [] as unknown[],
  why: undefined as string | undefined,
  told: new Set<() => void>(),
  send: vi.fn(async () => {}),
  drop: vi.fn(async () => {}),
}));
vi.mock('../api/outbox', () => ({
  outbox: {
    load: async () => {},
    waiting: () => box.list,
    why: () => box.why,
    listen: (f: () => void) => (box.told.add(f), () => box.told.delete(f)),
    send: box.send,
    drop: box.drop,
  },
}));
vi.mock('../api/calls', () => ({ getShop: async () => {} }));

const waits = (id: string, more: Partial<Waits> = {}) => ({
  job: 'j',
  what: 'Camber, left front, Digital gauge',
  at: new Date(2026, 10, 29, 10, 42).getTime(),
  typed: {
    id,
    side: 'left',
    axle: 'front',
    method: 'camber-gauge',
    entries: [{ name: 'angle', text: '-1 1/4' }],
  },
  ...more,
});
const put = (list: unknown[]) =>
  act(async () => {
    box.list = list;
    box.told.forEach((f) => f());
  });
const open = () =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <Waiting />
    </QueryClientProvider>,
  );

afterEach(() => {
  cleanup();
  box.list = [];
  vi.clearAllMocks();
  act(() => heard(true));
});

it('says nothing while everything is sent and answered', () => {
  open();
  expect(screen.queryByTestId('waiting')).toBeNull();
});

it('says since when there is no answer, and is gone once there is one', async () => {
  open();
  act(() => heard(false));
  expect(screen.getByTestId('waiting').textContent).toContain('No answer from the server since');
  act(() => heard(true));
  expect(screen.queryByTestId('waiting')).toBeNull();
});

it('shows what waits as it was typed, sends it, and says why one was not taken', async () => {
  open();
  await put([waits('a')]);
  expect(screen.getByTestId('waiting').textContent).toContain('1 reading waits here and goes out');
  expect(box.send).toHaveBeenCalled();
  await put([
    waits('a'),
    waits('b', { refused: [{ field: 'entries.0', wrong: 'not an angle', right: 'such as −1.25' }] }),
  ]);
  expect(screen.getByTestId('waiting').textContent).toContain('1 reading was not taken');
  await user.click(screen.getByTestId('waiting-show'));
  const rows = screen.getAllByTestId('waits');
  expect(rows[0]!.textContent).toContain('-1 1/4 Camber, left front, Digital gauge, typed 10:42');
  expect(rows[1]!.textContent).toContain('not an angle. Right would be: such as −1.25');
  await user.click(screen.getAllByTestId('waits-drop')[1]!);
  expect(box.drop).toHaveBeenCalledWith('b');
});

it('says why it waits where the server answers and cannot take it', async () => {
  box.why = 'Only to be read now';
  try {
    render(
      <QueryClientProvider client={new QueryClient()}>
        <Waiting />
      </QueryClientProvider>,
    );
    await put([waits('a')]);
    expect(screen.getByTestId('waiting').textContent).toContain(
      'Only to be read now. 1 reading waits here and goes out once that has passed.',
    );
    act(() => heard(false));
    expect(screen.getByTestId('waiting').textContent).not.toContain('Only to be read now');
  } finally {
    box.why = undefined;
    act(() => heard(true));
  }
});
