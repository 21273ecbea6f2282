// @vitest-environment happy-dom
// Readings that wait for the server: kept over a reload, sent in order, once each, refused ones with the reason.
import { beforeEach, expect, it, vi } from 'vitest';
import { ApiProblem, type Ticket, type TypedReading } from './client';

const disk = vi.hoisted(() => new Map<string, unknown>());
vi.mock('idb-keyval', () => ({
  createStore: () => 'store',
  set: async (k: string, v: unknown) => void disk.set(k, structuredClone(v)),
  del: async (k: string) => void disk.delete(k),
  entries: async () => [...disk.entries()],
}));
const addReading = vi.hoisted(() => vi.fn());
vi.mock('./calls', () => ({ addReading }));
const { Outbox } = await import('./outbox');

const reading = (id: string, text: string) =>
  ({
    id,
    visit: 'found',
    method: 'camber-gauge',
    entries: [{ name: 'angle', text }],
  }) as unknown as TypedReading;
const ticket = { job: { id: 'j' } } as Ticket;
const away = () => new ApiProblem(0, 'No answer', 'away', []);
const sent = () => addReading.mock.calls.map(([, t]) => (t as TypedReading).id);

beforeEach(() => {
  disk.clear();
  addReading.mockReset();
});

it('keeps what finds no answer, over a reload, and sends it in order and once each', async () => {
  addReading.mockRejectedValue(away());
  const first = new Outbox();
  await first.load();
  expect(await first.keep('j', reading('a', '-1.2'), 'Camber')).toBeUndefined();
  expect(await first.keep('j', reading('b', '0.4'), 'Camber')).toBeUndefined();
  // The one behind it was not sent past it.
  expect(sent()).toEqual(['a', 'a']);

  // The page was closed and opened again.
  const again = new Outbox();
  await again.load();
  expect(again.waiting().map((w) => w.typed.id)).toEqual(['a', 'b']);
  addReading.mockReset();
  addReading.mockResolvedValue(ticket);
  const kept = vi.fn();
  await Promise.all([again.send(kept), again.send(kept)]);
  expect(sent()).toEqual(['a', 'b']);
  expect(kept).toHaveBeenCalledTimes(2);
  expect(again.waiting()).toEqual([]);
  expect(disk.size).toBe(0);
});

it('shows why one was refused, goes on with the next and keeps it until it is dropped', async () => {
  addReading.mockRejectedValue(away());
  const box = new Outbox();
  await box.load();
  for (const id of ['a', 'b', 'c']) await box.keep('j', reading(id, id), 'Camber');
  const wrong = [{ field: 'entries.0', wrong: 'not a number', right: 'such as -1.2' }];
  addReading.mockReset();
  addReading.mockImplementation(async (_: string, t: TypedReading) => {
    if (t.id === 'a') throw new ApiProblem(422, 'Refused', 'no', wrong as never);
    if (t.id === 'c') throw new ApiProblem(503, 'Busy', 'busy', []);
    return ticket;
  });
  await box.send(() => {});
  expect(box.waiting().map((w) => [w.typed.id, !!w.refused])).toEqual([
    ['a', true],
    ['c', false],
  ]);
  // A refused one is told again after a reload, sent never.
  const again = new Outbox();
  await again.load();
  expect(again.waiting().find((w) => w.refused)?.refused).toEqual(wrong);
  addReading.mockReset();
  addReading.mockResolvedValue(ticket);
  await again.send(() => {});
  expect(sent()).toEqual(['c']);
  await again.drop('a');
  expect(again.waiting()).toEqual([]);
  expect(disk.size).toBe(0);
});

it('sends at once while the server answers, and tells a refusal where it was typed', async () => {
  addReading.mockResolvedValueOnce(ticket);
  const box = new Outbox();
  await box.load();
  expect(await box.keep('j', reading('a', '1'), 'Camber')).toBe(ticket);
  addReading.mockRejectedValueOnce(new ApiProblem(422, 'Refused', 'no', []));
  await expect(box.keep('j', reading('b', 'x'), 'Camber')).rejects.toThrow('no');
  expect(box.waiting()).toEqual([]);
  // Back again, it goes behind those that wait, in one press.
  addReading.mockRejectedValueOnce(away());
  await box.keep('j', reading('c', '2'), 'Camber');
  addReading.mockReset();
  addReading.mockResolvedValue(ticket);
  expect(await box.keep('j', reading('d', '3'), 'Camber')).toBe(ticket);
  expect(sent()).toEqual(['c', 'd']);
});

it('waits in memory where the browser has no store', async () => {
  const box = new Outbox();
  addReading.mockRejectedValueOnce(away());
  await box.keep('j', reading('a', '1'), 'Camber');
  expect(box.waiting()).toHaveLength(1);
});

it('keeps what the server cannot take now, says why, and refuses only what was wrong', async () => {
  const box = new Outbox();
  await box.load();
  const full = new ApiProblem(503, 'The disk is full', 'Nothing was saved.', []);
  addReading.mockRejectedValue(full);
  expect(await box.keep('j', reading('a', '-1.2'), 'Camber')).toBeUndefined();
  expect(box.why()).toBe('The disk is full');
  // Another page signed in meanwhile, and then too often: neither says anything of the reading.
  for (const e of [
    new ApiProblem(403, 'Not allowed', '', [], 'urn:bold-stance:other-seat'),
    new ApiProblem(429, 'Too often', '', []),
    away(),
  ]) {
    addReading.mockRejectedValue(e);
    await box.send(() => {});
    expect(box.waiting().map((w) => !!w.refused)).toEqual([false]);
  }
  expect(box.why()).toBeUndefined();
  addReading.mockRejectedValue(new ApiProblem(403, 'Not allowed', 'no', []));
  await box.send(() => {});
  expect(box.waiting().map((w) => !!w.refused)).toEqual([true]);
});
