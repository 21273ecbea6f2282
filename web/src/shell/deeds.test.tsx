// @vitest-environment happy-dom
// What was done and how it is taken back: in sight for eight seconds, then in the list; what is refused stays done.
import { act, cleanup, render, screen, waitFor } from '@testing-library/react';
import user from '../test/user';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { did, forgetDeeds, IN_SIGHT_MS } from './deeds';
import { Undo } from './Undo';

beforeEach(() => act(forgetDeeds));
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

it('takes the last deed back, once', async () => {
  const back = vi.fn(() => Promise.resolve());
  render(<Undo />);
  expect(screen.getByTestId('undo').textContent).toBe('');
  act(() => did('Ticket: kept', back));
  expect(screen.getByTestId('undo').textContent).toContain('Ticket: kept');
  await user.click(screen.getByTestId('undo-last'));
  await waitFor(() => expect(screen.getByTestId('undo').textContent).toContain('Taken back: Ticket: kept'));
  expect(back).toHaveBeenCalledTimes(1);
  expect(screen.queryByTestId('undo-last')).toBeNull();
});

it('goes out of sight after eight seconds and stays in the list', () => {
  vi.useFakeTimers();
  render(<Undo />);
  act(() => did('Note: written', () => {}));
  act(() => vi.advanceTimersByTime(IN_SIGHT_MS - 1));
  expect(screen.queryByTestId('undo-last')).not.toBeNull();
  act(() => vi.advanceTimersByTime(2));
  expect(screen.queryByTestId('undo-last')).toBeNull();
});

it('is one deed where the same is done again at once, taken back as a whole', async () => {
  const [first, second] = [vi.fn(), vi.fn()];
  render(<Undo />);
  act(() => did('Lift 25: changed', first));
  act(() => did('Lift 25: changed', second));
  await user.click(screen.getByTestId('undo-list'));
  expect(screen.getAllByText('Lift 25: changed')).toHaveLength(2);
  await user.click(screen.getByRole('button', { name: 'Undo' }));
  expect(first).toHaveBeenCalledTimes(1);
  expect(second).not.toHaveBeenCalled();
});

it('says beside the deed why it was not taken back, and not beside the next one', async () => {
  render(<Undo />);
  act(() => did('Ticket: kept', () => Promise.reject(new Error('Saved by somebody else first'))));
  await user.click(screen.getByTestId('undo-last'));
  await waitFor(() =>
    expect(screen.getByTestId('undo').textContent).toContain('Saved by somebody else first'),
  );
  expect(screen.getByTestId('undo-last')).toBeTruthy();
  act(() => did('Note: written', () => {}));
  expect(screen.getByTestId('undo').textContent).toContain('Note: written');
});

it('lists what has no way back, and says why one was refused', async () => {
  render(<Undo />);
  act(() => did('A part: kept'));
  act(() => did('Facts of the car: kept', () => Promise.reject(new Error('Saved by somebody else first'))));
  await user.click(screen.getByTestId('undo-list'));
  expect(screen.getByText('stays in the record')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Undo' }));
  expect((await screen.findByRole('alert')).textContent).toBe('Saved by somebody else first');
  expect(screen.getByRole('button', { name: 'Undo' })).toBeTruthy();
});
