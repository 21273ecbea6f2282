// Answers that follow a document while it changes: one request under way, the newest document next, the last good answer shown
// until another comes.
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { ApiProblem } from './client';

export interface Live<R> {
  data: R | undefined;
  /** Why the document as it stands was refused, or that nobody answers. */
  fault: ApiProblem | undefined;
  /** What is shown belongs to another document: the answer is on its way, was refused, or nobody answers. */
  stale: boolean;
}

/** How long to wait before nobody's answer is asked for again, ms. */
const AGAIN_MS = 2000;
const unanswered = (e: unknown) => e instanceof ApiProblem && (e.status === 0 || e.status >= 500);

/** What `ask` says of `body`. In other units everything on the screen is asked anew (`App`), this too. */
export function useLive<B, R>(name: string, body: B | undefined, ask: (b: B) => Promise<R>): Live<R> {
  const key = body === undefined ? '' : JSON.stringify(body);
  const [asked, setAsked] = useState(key);
  const query = useQuery({
    queryKey: [name, asked],
    queryFn: () => ask(JSON.parse(asked) as B),
    enabled: asked !== '',
    placeholderData: keepPreviousData,
    retry: (n, e) => n < 1000 && unanswered(e),
    retryDelay: AGAIN_MS,
    // What is worked out hangs on the shop's parts too: nothing is answered from before.
    gcTime: 0,
    refetchOnWindowFocus: false,
  });
  // The newest one next, once the one under way has ended; one that nobody answers is given up for it.
  const busy = query.isFetching && query.failureCount === 0;
  useEffect(() => {
    if (key !== asked && (!busy || asked === '')) setAsked(key);
  }, [key, asked, busy]);
  // A refusal has no data of its own.
  const good = useRef<R>(undefined);
  if (query.data !== undefined) good.current = query.data;
  const here = key !== '' && key === asked;
  const e = query.error ?? query.failureReason;
  return {
    data: good.current,
    fault: here && e instanceof ApiProblem ? e : undefined,
    stale: !(here && query.isSuccess && !query.isPlaceholderData),
  };
}
