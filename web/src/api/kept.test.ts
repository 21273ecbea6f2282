// Answers kept in the browser: the last one where there is none, in the units it was asked in; a refusal is an answer.
import { beforeEach, expect, it, vi } from 'vitest';

const disk = vi.hoisted(() => ({ of: new Map<string, unknown>(), broken: false }));
vi.mock('idb-keyval', () => ({
  createStore: () => {
    if (disk.broken) throw new Error('no store here');
    return 'store';
  },
  set: async (k: string, v: unknown) => void disk.of.set(k, structuredClone(v)),
  get: async (k: string) => disk.of.get(k),
  clear: async () => disk.of.clear(),
}));
const units = vi.hoisted(() => ({ now: {} as Record<string, string> }));
vi.mock('./units', () => ({ unitsHeader: () => units.now }));

const fresh = async () => {
  const { ApiProblem } = await import('./client');
  const { orKept } = await import('./kept');
  const refuse = (status: number, why: string) => async () => {
    throw new ApiProblem(status, why, why, []);
  };
  return { orKept, away: refuse(0, 'away'), gone: refuse(404, 'gone') };
};

beforeEach(() => {
  vi.resetModules();
  disk.of.clear();
  disk.broken = false;
  units.now = {};
});

it('gives the last answer where there is none, and nothing where there never was one', async () => {
  const { orKept, away } = await fresh();
  await expect(orKept('ticket a', away)).rejects.toThrow('away');
  expect(await orKept('ticket a', async () => 1)).toBe(1);
  expect(await orKept('ticket a', async () => 2)).toBe(2);
  expect(await orKept('ticket a', away)).toBe(2);
  await expect(orKept('ticket b', away)).rejects.toThrow('away');
});

it('keeps sentences apart by their units, and lets a refusal through', async () => {
  const { orKept, away, gone } = await fresh();
  await orKept('sheet', async () => '3 mm');
  units.now = { 'x-units': 'length=in' };
  await expect(orKept('sheet', away)).rejects.toThrow('away');
  await orKept('sheet', async () => '1/8 in');
  expect(await orKept('sheet', away)).toBe('1/8 in');
  await expect(orKept('sheet', gone)).rejects.toThrow('gone');
});

it('answers as ever where the browser has no store', async () => {
  disk.broken = true;
  const { orKept, away } = await fresh();
  expect(await orKept('x', async () => 5)).toBe(5);
  await expect(orKept('x', away)).rejects.toThrow('away');
});

it('forgets all of it for a browser that is not the shop’s, and a store that is broken costs nothing', async () => {
  const { orKept, away } = await fresh();
  const { forgetKept } = await import('./kept');
  await orKept('ticket a', async () => 1);
  await forgetKept();
  await expect(orKept('ticket a', away)).rejects.toThrow('away');
  disk.broken = true;
  vi.resetModules();
  await expect((await import('./kept')).forgetKept()).resolves.toBeUndefined();
});
