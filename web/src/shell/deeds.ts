// What was done on this page since it was opened, newest last, each with the way back where there is one.
import { useSyncExternalStore } from 'react';

export interface Deed {
  id: number;
  at: Date;
  words: string;
  /** Takes it back. */
  undo?: (() => Promise<unknown> | void) | undefined;
  undone: boolean;
}

/** How long the way back stands in sight, ms. */
export const IN_SIGHT_MS = 8000;
/** Deeds that are listed. */
const MOST = 100;

let list: readonly Deed[] = [];
let next = 1;
const told = new Set<() => void>();
const set = (to: readonly Deed[]) => {
  list = to;
  told.forEach((f) => f());
};

/** Something was done. The same words again within the time in sight are one deed, taken back as a whole by the first way. */
export function did(words: string, undo?: Deed['undo']): void {
  const last = list.at(-1);
  const now = new Date();
  if (last && !last.undone && last.words === words && now.getTime() - last.at.getTime() < IN_SIGHT_MS) {
    set([...list.slice(0, -1), { ...last, at: now }]);
    return;
  }
  set([...list, { id: next++, at: now, words, undo, undone: false }].slice(-MOST));
}

/** Takes a deed back; stays as it was where that is refused. */
export async function takeBack(id: number): Promise<void> {
  const deed = list.find((d) => d.id === id);
  if (!deed?.undo || deed.undone) return;
  await deed.undo();
  set(list.map((d) => (d.id === id ? { ...d, undone: true } : d)));
}

export const forgetDeeds = () => set([]);

export const useDeeds = () =>
  useSyncExternalStore(
    (f) => {
      told.add(f);
      return () => told.delete(f);
    },
    () => list,
  );
