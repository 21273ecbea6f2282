// The plan search: how far it is, then what it found; leaving or pressing stop ends it on the server too.
import { useMutation } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import { searchPlans } from '../../api/calls';
import { ApiProblem, type AxleName, type CarInput, type Schemas } from '../../api/client';

export type Filters = Schemas['Filters'];
export type SearchResult = Schemas['SearchResult'];
export type Tyres = Schemas['CarTyres'];

/** Worth showing how far it is, ms. */
const SLOW_MS = 500;

export function useSearch() {
  const [progress, setProgress] = useState<Schemas['Progress']>();
  const [slow, setSlow] = useState(false);
  const [result, setResult] = useState<SearchResult>();
  const abort = useRef<AbortController>(undefined);
  const search = useMutation({
    mutationFn: (body: Schemas['SearchRequest']) => {
      abort.current?.abort();
      const mine = new AbortController();
      abort.current = mine;
      setProgress(undefined);
      return searchPlans(body, (p) => abort.current === mine && setProgress(p), mine.signal);
    },
    onSuccess: setResult,
  });
  const { mutate, reset, isPending } = search;
  const stop = useCallback(() => {
    abort.current?.abort();
    abort.current = undefined;
    setProgress(undefined);
    // What was asked for is given up, not refused.
    reset();
  }, [reset]);
  useEffect(() => () => abort.current?.abort(), []);
  useEffect(() => {
    setSlow(false);
    if (!isPending) return;
    const late = setTimeout(() => setSlow(true), SLOW_MS);
    return () => clearTimeout(late);
  }, [isPending]);
  const run = useCallback(
    (car: CarInput, axle: AxleName, filters: Filters, tyres: Tyres | undefined) =>
      mutate({ car, axle, filters, tyres: tyres ?? null }),
    [mutate],
  );
  return {
    result,
    progress,
    fault: search.error instanceof ApiProblem ? search.error : undefined,
    running: isPending,
    slow,
    run,
    stop,
  };
}
