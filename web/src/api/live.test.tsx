// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// Answers that follow a document: one under way at a time, the newest next, the last good one shown, and nobody's asked for again.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, render, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { ApiProblem } from './client';
import { useLive } from './live';

interface Call {
  body: number;
  give: (s: string) => void;
  fail: (e: unknown) => void;
}
let calls: Call[] = [];
const ask = (body: number) =>
  new Promise<string>((give, fail) => {
    calls.push({ body, give, fail });
  });
function Seen({ n }: { n: number | undefined }) {
  const live = useLive('seen', n, ask);
  return (
    <p>{`${live.data ?? 'nothing'}, ${live.stale ? 'old' : 'now'}, ${live.fault?.message ?? 'well'}`}</p>
  );
}
const client = new QueryClient();
const page = (n: number | undefined) => (
  <QueryClientProvider client={client}>
    <Seen n={n} />
  </QueryClientProvider>
);
const says = () => screen.getByText(/, (old|now), /).textContent;
const settle = (f: () => void) =>
  act(async () => {
    f();
    await new Promise((r) => setTimeout(r, 10));
  });
afterEach(() => {
  cleanup();
  client.clear();
  calls = [];
  vi.useRealTimers();
});

it('asks for nothing while there is nothing to ask', () => {
  render(page(undefined));
  expect(says()).toBe('nothing, old, well');
  expect(calls).toHaveLength(0);
});

it('has one request under way, and then asks for the newest alone', async () => {
  const view = render(page(1));
  await waitFor(() => expect(calls).toHaveLength(1));
  view.rerender(page(2));
  view.rerender(page(3));
  await settle(() => {});
  expect(calls.map((c) => c.body)).toEqual([1]);
  await settle(() => calls[0]!.give('one'));
  // What was asked for first is shown, and said to be old.
  expect(says()).toBe('one, old, well');
  expect(calls.map((c) => c.body)).toEqual([1, 3]);
  await settle(() => calls[1]!.give('three'));
  expect(says()).toBe('three, now, well');
});

it('keeps the last good answer beside the refusal of what stands now', async () => {
  const view = render(page(1));
  await waitFor(() => expect(calls).toHaveLength(1));
  await settle(() => calls[0]!.give('one'));
  view.rerender(page(2));
  await waitFor(() => expect(calls).toHaveLength(2));
  await settle(() => calls[1]!.fail(new ApiProblem(422, 'Refused', 'no such arm', [])));
  expect(says()).toBe('one, old, no such arm');
  // Back at what was answered before: asked anew, for the shop's parts may be others by now.
  view.rerender(page(1));
  await waitFor(() => expect(calls.map((c) => c.body)).toEqual([1, 2, 1]));
  await settle(() => calls[2]!.give('one'));
  expect(says()).toBe('one, now, well');
});

it('asks again by itself when nobody answers, and leaves off for what is newer', async () => {
  const view = render(page(1));
  await waitFor(() => expect(calls).toHaveLength(1));
  await settle(() => calls[0]!.fail(new ApiProblem(0, 'No answer', 'gone', [])));
  expect(says()).toBe('nothing, old, gone');
  await waitFor(() => expect(calls).toHaveLength(2), { timeout: 4000 });
  await settle(() => calls[1]!.fail(new ApiProblem(503, 'No answer', 'gone', [])));
  view.rerender(page(2));
  await waitFor(() => expect(calls.at(-1)!.body).toBe(2));
  await settle(() => calls.at(-1)!.give('two'));
  expect(says()).toBe('two, now, well');
});
