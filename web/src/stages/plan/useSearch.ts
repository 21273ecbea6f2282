// The plan search: how far it is, then what it found; leaving or pressing stop ends it on the server too.
import { useMutation } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import { searchCar, searchPlans } from '../../api/calls';
import { changeOf } from '../../shell/ticket';
import { ApiProblem, type AxleName, type CarInput, type Schemas } from '../../api/client';

export type Filters = Schemas['Filters'];
export type SearchResult = Schemas['SearchResult'];
export type Tyres = Schemas['CarTyres'];

/** Worth showing how far it is, ms. */
const SLOW_MS = 500;

type Ask<Body, Result> = (
  body: Body,
  progress: (p: Schemas['Progress']) => void,
  signal: AbortSignal,
) => Promise<Result>;

/** Any search: one under way at a time, the last one asked for. */
function useStreamed<Body, Result>(ask: Ask<Body, Result>) {
  const [progress, setProgress] = useState<Schemas['Progress']>();
  const [slow, setSlow] = useState(false);
  const [result, setResult] = useState<Result>();
  const abort = useRef<AbortController>(undefined);
  const search = useMutation({
    mutationFn: (body: Body) => {
      abort.current?.abort();
      const mine = new AbortController();
      abort.current = mine;
      setProgress(undefined);
      return ask(body, (p) => abort.current === mine && setProgress(p), mine.signal);
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
  return {
    result,
    progress,
    fault: search.error instanceof ApiProblem ? search.error : undefined,
    running: isPending,
    slow,
    run: mutate,
    stop,
  };
}

/** The car without what is fitted or picked on an axle: it does not change what is searched. */
export const bareOf = (input: CarInput, axle: AxleName): CarInput => ({
  ...input,
  plan: {
    ...input.plan,
    ...changeOf(input.plan, axle, { fitted: [], picked: { left: null, right: null } }),
  },
});

/** Sets of parts of one axle. */
export function useSearch() {
  const search = useStreamed(searchPlans);
  const { run: mutate } = search;
  const run = useCallback(
    (car: CarInput, axle: AxleName, filters: Filters, tyres: Tyres | undefined) =>
      mutate({ car, axle, filters, tyres: tyres ?? null }),
    [mutate],
  );
  return { ...search, run };
}

/** Heights and sets of both axles together. */
export const useCarSearch = () => useStreamed(searchCar);
