// What was told of a step's orders before the step is closed: kept on this device, so that a reload loses nothing.
import { useState } from 'react';
import type { Tolds } from './asDone';

const STORE = 'bold-stance.told';
type All = Record<string, Tolds>;

function kept(): All {
  try {
    return JSON.parse(sessionStorage.getItem(STORE) ?? '{}') as All;
  } catch {
    return {};
  }
}

/** What was told of a step, how it is changed, and how a closed step is forgotten. */
export function useTolds(
  planId: string,
  step: string | undefined,
): [Tolds, (t: Tolds) => void, (step: string) => void] {
  const [all, setAll] = useState(kept);
  const key = (s: string | undefined) => `${planId}/${s ?? ''}`;
  const change = (f: (a: All) => All) =>
    setAll((a) => {
      const next = f(a);
      sessionStorage.setItem(STORE, JSON.stringify(next));
      return next;
    });
  return [
    all[key(step)] ?? {},
    (t) => change((a) => ({ ...a, [key(step)]: t })),
    (s) =>
      change((a) => {
        const { [key(s)]: _, ...rest } = a;
        return rest;
      }),
  ];
}
