// @vitest-environment happy-dom
import { cleanup, render, screen } from '@testing-library/react';
import { useRef } from 'react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { useFingers } from './useFingers';

const said: string[] = [];

function Field() {
  const of = useRef<HTMLDivElement>(null);
  useFingers(
    of,
    {
      pinch: (spread, _from, _to, first) => said.push(first ? 'two' : `spread ${spread.toFixed(1)}`),
      look: ([x, y]) => said.push(`look ${x} ${y}`),
      lifted: (there) => said.push(there ? 'lifted' : 'gone'),
    },
    true,
  );
  return <div ref={of} data-testid="field" />;
}

/** A touch as a browser tells it; whether the page still has it for scrolling. */
function touch(name: string, ...at: [number, number][]): boolean {
  const e = new Event(name, { bubbles: true, cancelable: true });
  Object.assign(e, { touches: at.map(([clientX, clientY]) => ({ clientX, clientY })) });
  screen.getByTestId('field').dispatchEvent(e);
  return !e.defaultPrevented;
}

beforeEach(() => {
  vi.useFakeTimers();
  said.length = 0;
  render(<Field />);
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

test('a finger that moves scrolls the page and looks at nothing', () => {
  touch('touchstart', [50, 50]);
  expect(touch('touchmove', [50, 80])).toBe(true);
  vi.advanceTimersByTime(1000);
  expect(touch('touchend')).toBe(true);
  expect(said).toEqual([]);
});

test('one that is put down shortly presses', () => {
  touch('touchstart', [50, 50]);
  vi.advanceTimersByTime(200);
  expect(touch('touchend')).toBe(true);
  expect(said).toEqual([]);
});

test('one that rests looks, follows, and ends where it is lifted', () => {
  touch('touchstart', [50, 50]);
  touch('touchmove', [53, 52]);
  vi.advanceTimersByTime(500);
  expect(said).toEqual(['look 50 50']);
  expect(touch('touchmove', [60, 90])).toBe(false);
  expect(touch('touchend')).toBe(false);
  expect(said).toEqual(['look 50 50', 'look 60 90', 'lifted']);
});

test('a second finger ends the look and draws nearer', () => {
  touch('touchstart', [50, 50]);
  vi.advanceTimersByTime(500);
  touch('touchstart', [50, 50], [150, 50]);
  expect(touch('touchmove', [0, 50], [200, 50])).toBe(false);
  expect(said).toEqual(['look 50 50', 'gone', 'two', 'spread 2.0']);
  // One is lifted, the other presses nothing.
  expect(touch('touchend', [0, 50])).toBe(false);
});

test('what the system takes away is not picked', () => {
  touch('touchstart', [50, 50]);
  vi.advanceTimersByTime(500);
  touch('touchcancel');
  expect(said).toEqual(['look 50 50', 'gone']);
});
