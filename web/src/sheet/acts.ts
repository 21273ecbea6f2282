// What is done of a sheet: steps marked, gates opened, what was left to turn turned.
import { useMutation } from '@tanstack/react-query';
import { markStep, turnedAgain } from '../api/calls';
import { did } from '../shell/deeds';
import { ApiProblem, type Schemas, type Ticket } from '../api/client';

export interface Mark {
  step: string;
  /** What it is called where it is told that it was done. */
  words?: string | undefined;
  done: boolean;
  reason?: string | undefined;
  signed?: string | undefined;
  as_done?: Schemas['AsDone'][];
}

export const problemsOf = (e: Error | null) => (e instanceof ApiProblem ? e.problems : []);

export function useSheetActs(planId: string, kept: (t: Ticket, m?: Mark) => void) {
  const mark = useMutation({
    mutationFn: (m: Mark) =>
      markStep(planId, {
        step: m.step,
        done: m.done,
        reason: m.reason ?? null,
        signed: m.signed ?? null,
        as_done: m.as_done ?? [],
      }),
    onSuccess: (t, m) => {
      kept(t, m);
      if (!m.done) return;
      const body = { step: m.step, done: false, reason: null, signed: null, as_done: [] };
      did(`${m.words ?? m.step}: done`, async () =>
        kept(await markStep(planId, body), { ...m, done: false }),
      );
    },
  });
  const again = useMutation({
    mutationFn: (t: Schemas['TurnedAgain']) => turnedAgain(planId, t),
    onSuccess: (t) => kept(t),
  });
  return { mark, again };
}
