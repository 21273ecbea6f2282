// What was refused of an act and belongs to no field of its own.
import type { Problem } from '../api/client';
import { FieldError } from '../shell/Fault';
import { wasFirst } from './after';

/** `at` tells the fields that show their own faults. */
export function AfterFault({
  error,
  problems,
  at,
}: {
  error: Error | null;
  problems: Pick<Problem, 'field' | 'wrong' | 'right'>[];
  at: (field: string) => boolean;
}) {
  const loose = problems.find((p) => !at(p.field));
  if (!error || (problems.length > 0 && !loose)) return null;
  return (
    <FieldError
      wrong={loose?.wrong ?? error.message}
      right={
        loose?.right ??
        (wasFirst(error) ? 'look at what was done there, then press it again' : 'press it again')
      }
    />
  );
}
