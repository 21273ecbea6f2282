// @vitest-environment happy-dom
// What is typed survives a page that is left, and is gone once it was kept or dropped.
import { act, renderHook } from '@testing-library/react';
import { beforeEach, expect, it } from 'vitest';
import { readDraft, useDraft, writeDraft } from './drafts';

beforeEach(() => localStorage.clear());
const same = (a: string, b: string) => a === b;

it('comes back after the page was left', () => {
  const first = renderHook(() => useDraft('x', () => 'start', same));
  act(() => first.result.current.setValue('typed'));
  first.unmount();
  const again = renderHook(() => useDraft('x', () => 'start', same));
  expect(again.result.current.value).toBe('typed');
  expect(again.result.current.restored).toBe(true);
  act(() => again.result.current.drop());
  expect(again.result.current.value).toBe('start');
  expect(readDraft('x')).toBeUndefined();
});

it('moves with its name and leaves nothing behind', () => {
  const h = renderHook(({ k }) => useDraft(k, () => 'start', same), { initialProps: { k: 'x.mm' } });
  act(() => h.result.current.setValue('typed'));
  h.rerender({ k: 'x.in' });
  expect([readDraft('x.mm'), readDraft('x.in')]).toEqual([undefined, 'typed']);
});

it('is none when nothing differs, and a broken one is no draft', () => {
  const h = renderHook(() => useDraft('y', () => 'start', same));
  expect(readDraft('y')).toBeUndefined();
  h.unmount();
  localStorage.setItem('bold-stance.draft.y', '{broken');
  expect(readDraft('y')).toBeUndefined();
  writeDraft('y', 1);
  expect(readDraft('y')).toBe(1);
});
