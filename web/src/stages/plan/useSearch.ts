// The plan search: lines of progress, then the result; leaving or pressing stop ends it on the server too.
import { useCallback, useEffect, useRef, useState } from 'react';
import { unitsHeader } from '../../api/units';
import { ApiProblem, type AxleName, type CarInput, type Schemas } from '../../api/client';

export type Filters = Schemas['Filters'];
export type SearchResult = Schemas['SearchResult'];
type Line = Schemas['SearchLine'];
export type Tyres = Schemas['CarTyres'];

export interface Searching {
  result?: SearchResult | undefined;
  progress?: Schemas['Progress'] | undefined;
  fault?: ApiProblem | undefined;
  running: boolean;
  /** Longer than half a second: worth showing how far it is. */
  slow: boolean;
}

export function useSearch() {
  const [state, setState] = useState<Searching>({ running: false, slow: false });
  const abort = useRef<AbortController | undefined>(undefined);
  const stop = useCallback(() => {
    abort.current?.abort();
    abort.current = undefined;
    setState((s) => ({ ...s, running: false, progress: undefined }));
  }, []);
  useEffect(() => () => abort.current?.abort(), []);
  const run = useCallback(
    async (car: CarInput, axle: AxleName, filters: Filters, tyres: Tyres | undefined) => {
      abort.current?.abort();
      const mine = new AbortController();
      abort.current = mine;
      setState((s) => ({ ...s, running: true, slow: false, progress: undefined, fault: undefined }));
      const late = setTimeout(() => setState((s) => (s.running ? { ...s, slow: true } : s)), 500);
      try {
        const r = await fetch('/api/v1/plans/search', {
          method: 'POST',
          headers: { 'content-type': 'application/json', ...unitsHeader() },
          body: JSON.stringify({ car, axle, filters, tyres: tyres ?? null }),
          signal: mine.signal,
        });
        if (!r.ok || !r.body) {
          const doc = (await r.json().catch(() => ({}))) as Partial<Schemas['ProblemDocument']>;
          throw new ApiProblem(
            r.status,
            doc.title ?? 'Refused',
            doc.detail ?? r.statusText,
            doc.problems ?? [],
          );
        }
        const reader = r.body.pipeThrough(new TextDecoderStream()).getReader();
        let rest = '';
        for (;;) {
          const { value, done } = await reader.read();
          if (done) break;
          rest += value;
          const lines = rest.split('\n');
          rest = lines.pop() ?? '';
          for (const text of lines) {
            const line = JSON.parse(text) as Line;
            if (line.progress) setState((s) => ({ ...s, progress: line.progress! }));
            if (line.result) setState({ running: false, slow: false, result: line.result });
            if (line.problems)
              throw new ApiProblem(
                422,
                'Something needs another look',
                line.problems[0]?.wrong ?? '',
                line.problems,
              );
          }
        }
      } catch (e) {
        if (mine.signal.aborted) return;
        const fault =
          e instanceof ApiProblem
            ? e
            : new ApiProblem(0, 'No answer', 'The server does not answer. Search again.', []);
        setState((s) => ({ ...s, running: false, fault }));
      } finally {
        clearTimeout(late);
      }
    },
    [],
  );
  return { ...state, run, stop };
}
