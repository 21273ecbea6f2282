// What the page of people shares: the list as it is now, and acts that answer with it.
import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { Schemas } from '../../api/client';

export type PeopleData = Schemas['People'];
export const peopleKey = ['people'];

/** An act whose answer is the list as it is now. */
export function usePeopleAct<V>(act: (v: V) => Promise<PeopleData>, done?: () => void) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: act,
    onSuccess: (p) => {
      queries.setQueryData(peopleKey, p);
      done?.();
    },
  });
}
