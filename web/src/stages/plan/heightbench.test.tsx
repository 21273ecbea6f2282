// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// The height change in a DOM: typed as a shop writes it, stepped in both units, refused at its field, kept as typed.
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import userEvent from '../../test/user';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { PlanResult } from '../../api/client';
import { SettingsProvider } from '../../ui/settings';
import type { Bench } from '../../shell/ticket';
import { HeightBench } from './HeightBench';

const result = (stop: unknown = null) => ({ stop }) as unknown as PlanResult;
function open(mm = 0, over: { stop?: unknown; undo?: () => void } = {}) {
  const [onHeight, setAxle] = [vi.fn(), vi.fn()];
  render(
    <HeightBench
      bench={{ undo: over.undo } as unknown as Bench}
      axle="front"
      setAxle={setAxle}
      result={result(over.stop)}
      mm={mm}
      onHeight={onHeight}
    >
      <span>curves</span>
    </HeightBench>,
    { wrapper: SettingsProvider },
  );
  return { onHeight, setAxle };
}
const input = () => screen.getByTestId<HTMLInputElement>('height-input');
const put = (text: string) => {
  fireEvent.change(input(), { target: { value: text } });
  fireEvent.keyDown(input(), { key: 'Enter' });
};
const inches = () => localStorage.setItem('bold-stance.settings', JSON.stringify({ unit: 'in' }));

beforeEach(() => localStorage.clear());
afterEach(cleanup);

describe('a height change', () => {
  it.each([
    ['65', 65],
    ['+65 mm', 65],
    ['2½ in', 63.5],
    ['-1.5"', -38.1],
    ['2 9/16 in', 65.0875],
    ['12,5', 12.5],
  ])('reads %s', (text, mm) => {
    const { onHeight } = open();
    put(text);
    expect(onHeight).toHaveBeenCalledOnce();
    expect(onHeight.mock.calls[0]![0]).toBeCloseTo(mm, 6);
  });
  it('takes a bare number for inches in a shop that works in them', () => {
    inches();
    const { onHeight } = open(65.0875);
    expect(input().value).toBe('+2.5625');
    put('3 1/4');
    expect(onHeight.mock.calls[0]![0]).toBeCloseTo(82.55, 6);
  });
  it.each([
    ['a lot', 'is no height'],
    ['1,500', 'is no height'],
    ['400', 'No suspension moves that far'],
  ])('refuses %s at its field and keeps it', (text, says) => {
    const { onHeight } = open();
    put(text);
    expect(screen.getByTestId('height-error').textContent).toContain(says);
    expect(input().value).toBe(text);
    expect(input().getAttribute('aria-invalid')).toBe('true');
    expect(onHeight).not.toHaveBeenCalled();
  });
  it('says nothing while only a sign is typed', () => {
    open();
    fireEvent.change(input(), { target: { value: '-' } });
    expect(screen.queryByTestId('height-error')).toBeNull();
  });
  it('is stepped by five millimetres, or by a quarter inch', async () => {
    const metric = open(10);
    await userEvent.click(screen.getByTestId('height-up'));
    await userEvent.click(screen.getByTestId('height-down'));
    expect(metric.onHeight.mock.calls).toEqual([[15], [5]]);
    cleanup();
    inches();
    const imperial = open(25.4);
    await userEvent.click(screen.getByTestId('height-up'));
    expect(imperial.onHeight).toHaveBeenCalledWith(31.75);
  });
  it('tells where it stops, chooses the axle, and undoes', async () => {
    const undo = vi.fn();
    const { setAxle } = open(220, {
      stop: { words: 'Tie rod is fully extended at +150 mm.', used_mm: 148 },
      undo,
    });
    expect(screen.getByTestId('height-error').textContent).toContain(
      'Tie rod is fully extended at +150 mm. Shown at +148 mm.',
    );
    await userEvent.click(screen.getByTestId('axle-rear'));
    expect(setAxle).toHaveBeenCalledWith('rear');
    await userEvent.click(screen.getByTestId('plan-undo'));
    expect(undo).toHaveBeenCalledOnce();
  });
});
