// @vitest-environment happy-dom
// One line for all pages of a browser: who holds it tells the others, a page that is left lets go, and what was missed is caught up.
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { follow, type Told } from './follow';

class Line {
  static open: Line[] = [];
  onmessage: ((e: { data: string }) => void) | undefined;
  constructor(readonly url: string) {
    Line.open.push(this);
  }
  close() {
    Line.open = Line.open.filter((l) => l !== this);
  }
  say(t: Told) {
    this.onmessage?.({ data: JSON.stringify(t) });
  }
}

/** Locks as a browser has them: one holder, the next in order. */
function locks() {
  let held: Promise<unknown> = Promise.resolve();
  return {
    request: (_: string, o: { signal: AbortSignal }, f: () => Promise<void>) => {
      const before = held;
      const mine = before.then(() => (o.signal.aborted ? undefined : f()));
      held = mine.catch(() => {});
      return mine;
    },
  };
}
const settle = () => new Promise((r) => setTimeout(r, 5));

beforeEach(() => {
  Line.open = [];
  vi.stubGlobal('EventSource', Line);
});
afterEach(() => vi.unstubAllGlobals());

it('holds one line for two pages, and both hear', async () => {
  const navigator = { locks: locks() };
  vi.stubGlobal('navigator', navigator);
  const [a, b] = [vi.fn(), vi.fn()];
  const endA = follow(a);
  const endB = follow(b);
  await settle();
  expect(Line.open).toHaveLength(1);
  Line.open[0]!.say({ id: 7, what: 'step', job: 'j' });
  await settle();
  expect(a).toHaveBeenCalledWith({ id: 7, what: 'step', job: 'j' });
  expect(b).toHaveBeenCalledWith({ id: 7, what: 'step', job: 'j' });
  // The page that held it goes: the other goes on behind what it heard last.
  endA();
  await settle();
  expect(Line.open.map((l) => l.url)).toEqual(['/api/v1/events?after=7']);
  endB();
  await settle();
  expect(Line.open).toEqual([]);
});

it('lets go of it when the page is left, and takes it up when it is shown again', async () => {
  vi.stubGlobal('navigator', {});
  const heard = vi.fn();
  const end = follow(heard);
  expect(Line.open).toHaveLength(1);
  Line.open[0]!.say({ id: 3, what: 'here' });
  window.dispatchEvent(new Event('pagehide'));
  expect(Line.open).toEqual([]);
  window.dispatchEvent(new Event('pageshow'));
  window.dispatchEvent(new Event('pageshow'));
  expect(Line.open.map((l) => l.url)).toEqual(['/api/v1/events?after=3']);
  end();
  expect(Line.open).toEqual([]);
});

it('is told nothing by a browser that has no such lines', () => {
  vi.stubGlobal('EventSource', undefined);
  delete (globalThis as { EventSource?: unknown }).EventSource;
  expect(() => follow(vi.fn())()).not.toThrow();
});
