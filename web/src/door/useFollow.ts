// What other screens do, as it happens: every event of the shop makes what hangs on it be asked anew.
import { useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { follow, type Told } from '../api/follow';
import { useSession } from './useSession';

/** How long events are gathered before anything is asked: one act of a hand is often several. */
const GATHER_MS = 120;

const OF_SHOP: Record<string, string[]> = {
  'settings saved': ['shop'],
  'trust kept': ['session', 'people'],
  'part kept': ['parts'],
  'parts imported': ['parts'],
  'aim kept': ['aims', 'shop'],
  'aim removed': ['aims', 'shop'],
  'shape kept': ['archetypes'],
  'shape removed': ['archetypes'],
};

/** What has to be asked anew after an event. */
export function touched(t: Told): string[][] {
  if (t.what === 'here') return [];
  if (t.job) return [['ticket', t.job], ['sheet'], ['jobs'], ['tread', t.job], ['story', t.job]];
  const own = OF_SHOP[t.what];
  if (own) return own.map((k) => [k]);
  if (/member|PIN|passphrase|device|sign|slip|claimed/.test(t.what)) return [['people'], ['session']];
  return [['jobs']];
}

/** Asks what is shown and hangs on them; everything where nobody knows what was missed. */
export function asksAnew(queries: QueryClient, all: readonly Told[]): void {
  if (all.some((t) => t.what === 'anew')) {
    void queries.invalidateQueries();
    return;
  }
  const keys = new Map(all.flatMap(touched).map((k) => [k.join(' '), k]));
  for (const queryKey of keys.values()) void queries.invalidateQueries({ queryKey });
}

export function useFollow(): void {
  const queries = useQueryClient();
  const session = useSession();
  const who = session.data?.who;
  const seat = who ? `${who.member ?? ''} ${who.session ?? ''}` : undefined;
  useEffect(() => {
    if (!seat) return;
    let waits: Told[] = [];
    let timer: ReturnType<typeof setTimeout> | undefined;
    const stop = follow((t) => {
      waits.push(t);
      timer ??= setTimeout(() => {
        const all = waits;
        waits = [];
        timer = undefined;
        asksAnew(queries, all);
      }, GATHER_MS);
    });
    return () => {
      clearTimeout(timer);
      stop();
    };
  }, [queries, seat]);
}
