// @vitest-environment happy-dom
// The gauge in the hand: an angle is taken when it was moved and came to rest, said, kept once it was judged, and never twice.
import { act, cleanup, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { say, spoken } from './say';
import { armed, atRest, hold, type Hold } from './steady';
import { useInHand } from './useInHand';
import type { PadState } from './usePad';

const words = vi.hoisted(() => ({ said: [] as string[] }));
vi.mock('./say', async (original) => ({
  ...(await original<typeof import('./say')>()),
  say: vi.fn((t: string) => words.said.push(t)),
}));
beforeEach(() => {
  words.said.length = 0;
  localStorage.clear();
});
afterEach(cleanup);

const feed = (from: Hold, angles: number[]) => {
  let h = from;
  const taken: number[] = [];
  for (const a of angles) {
    const { next, take } = hold(h, a);
    h = next;
    if (take !== undefined) taken.push(take);
  }
  return { h, taken };
};
const still = (deg: number, n = 12) => Array.from({ length: n }, (_, i) => deg + (i % 2 ? 0.02 : -0.02));

it('takes nothing of a gauge that lies still from the beginning', () => {
  expect(feed(atRest, still(0.4, 60)).taken).toEqual([]);
});

it('takes one angle each time it is carried and comes to rest', () => {
  const carried = [3, 9, -4, 1, 6];
  const { taken, h } = feed(atRest, [
    ...still(0),
    ...carried,
    ...still(-0.7, 40),
    ...carried,
    ...still(-0.4, 40),
  ]);
  expect(taken.map((t) => Math.round(t * 100) / 100)).toEqual([-0.7, -0.4]);
  expect(h.armed).toBe(false);
});

it('waits while the hand shakes', () => {
  expect(
    feed(
      armed,
      Array.from({ length: 80 }, (_, i) => (i % 2 ? 0.1 : -0.1)),
    ).taken,
  ).toEqual([]);
});

const pad = (more: object = {}) =>
  ({
    place: { axle: 'front', side: 'left' },
    target: { quantity: 'camber', place: { axle: 'front', side: 'left' } },
    active: 'angle',
    missing: [],
    set: vi.fn(),
    setActive: vi.fn(),
    preview: { data: undefined, fault: undefined, fresh: false, away: false },
    keep: { mutate: vi.fn(), isPending: false },
    ...more,
  }) as unknown as PadState;

it('says what it took, keeps it once it was judged, and only then', () => {
  const p = pad();
  const { result, rerender } = renderHook(({ of }) => useInHand(of, true), { initialProps: { of: p } });
  act(() => still(-0.65).forEach((a) => result.current.heard(a)));
  expect(p.set).not.toHaveBeenCalled();
  act(() => result.current.turn(true));
  expect(words.said).toEqual(['left front Camber']);
  act(() => still(-0.65).forEach((a) => result.current.heard(a)));
  expect(p.set).toHaveBeenCalledTimes(1);
  expect((p.set as any).mock.calls[0][0]('')).toBe('-0.65');
  expect(words.said.at(-1)).toContain('−0.65°');
  expect(p.keep.mutate).not.toHaveBeenCalled();
  const judged = { ...p, preview: { ...p.preview, data: {}, fresh: true } } as unknown as PadState;
  rerender({ of: judged });
  expect(p.keep.mutate).toHaveBeenCalledTimes(1);
  // It stays on for the next place.
  expect(localStorage.getItem('bold-stance.in-hand')).toBe('yes');
});

it('keeps nothing that is wrong, and says so', () => {
  const p = pad();
  const { result, rerender } = renderHook(({ of }) => useInHand(of, true), { initialProps: { of: p } });
  act(() => result.current.turn(true));
  act(() => still(9).forEach((a) => result.current.heard(a)));
  const wrong = {
    ...p,
    preview: { ...p.preview, fault: new Error('too far'), fresh: true },
  } as unknown as PadState;
  rerender({ of: wrong });
  expect(p.keep.mutate).not.toHaveBeenCalled();
  expect(words.said.at(-1)).toBe('not taken: look at the pad');
});

it('keeps without an answer of the server, as what is typed does', () => {
  const p = pad();
  const { result, rerender } = renderHook(({ of }) => useInHand(of, true), { initialProps: { of: p } });
  act(() => result.current.turn(true));
  act(() => still(-0.4).forEach((a) => result.current.heard(a)));
  rerender({ of: { ...p, preview: { ...p.preview, away: true, fresh: true } } as unknown as PadState });
  expect(p.keep.mutate).toHaveBeenCalledTimes(1);
});

it('goes on to the next angle of a method that takes two', () => {
  const p = pad({ active: 'camber-1', missing: ['camber-1', 'camber-2'] });
  const { result } = renderHook(() => useInHand(p, true));
  act(() => result.current.turn(true));
  act(() => still(1).forEach((a) => result.current.heard(a)));
  expect(p.setActive).toHaveBeenCalledWith('camber-2');
  expect(p.keep.mutate).not.toHaveBeenCalled();
});

it('speaks signs and units as words', () => {
  expect(spoken('left front camber −0.65°')).toBe('left front camber minus 0.65 degrees');
  expect(spoken('−0°39′')).toBe('minus 0 degrees 39 minutes');
  expect(say).toBeDefined();
});
