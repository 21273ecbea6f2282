// Who is there: asked once, followed when somebody comes, leaves or is signed out elsewhere.
import { useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { getSession, signOut } from '../api/calls';
import type { Schemas } from '../api/client';
import { forgetKept } from '../api/kept';
import { carry, learning, onUnseated } from '../api/seat';
import { keepSigned } from './signed';

export type Session = Schemas['SessionInfo'];
const key = ['session'];

function asked(): Promise<Session> {
  return learning(
    getSession().then((s) => {
      carry(s.csrf);
      return s;
    }),
  );
}

export function useSession() {
  return useQuery({ queryKey: key, queryFn: asked, staleTime: Infinity, refetchOnWindowFocus: 'always' });
}

/** Somebody else is there now: what was shown to the one before is asked anew. */
export function seatTaken(queries: QueryClient, s: Session): void {
  carry(s.csrf);
  if (s.who?.session) keepSigned(s.who.name);
  queries.setQueryData(key, s);
  // After the page has looked who it is now: what is not theirs is not asked for.
  if (s.who)
    setTimeout(() => void queries.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'session' }), 0);
}

/** Leaves the bench; what is open stays open. At a browser that is not the shop's nothing of the shop stays behind. */
export async function leave(queries: QueryClient): Promise<void> {
  const now = await signOut();
  if (!now.device && !now.open) {
    await forgetKept();
    window.location.replace('/');
    return;
  }
  seatTaken(queries, now);
}

/** Asks who is there again when the server does not know who asks. */
export function useUnseated(): void {
  const queries = useQueryClient();
  useEffect(
    () =>
      onUnseated(() => {
        const before = queries.getQueryData<Session>(key)?.csrf;
        void queries.invalidateQueries({ queryKey: key }).then(() => {
          const now = queries.getQueryData<Session>(key);
          // Another page of this browser signed in: what was refused for it is asked anew.
          if (now?.who && now.csrf !== before) seatTaken(queries, now);
        });
      }),
    [queries],
  );
}

/** Whether who is there may do something; everything until it is known, since the server asks in any case. */
export function useMay(): (act: Schemas['Act']) => boolean {
  const s = useSession();
  return (act) => s.data?.who?.acts.includes(act) ?? true;
}
