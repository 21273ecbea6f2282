// What was wrong with a file that was refused whole.
import { ApiProblem } from '../api/client';
import { FieldError, Refusal } from './Fault';

export function NothingTaken({ error, testid }: { error: Error | null; testid: string }) {
  if (!(error instanceof ApiProblem)) return null;
  return (
    <div data-testid={testid} role="alert">
      <p style={{ marginTop: 8 }}>
        <b>Nothing was taken in.</b>
      </p>
      {error.problems.slice(0, 6).map((p) => (
        <FieldError key={p.field + p.wrong} wrong={`${p.field}: ${p.wrong}`} right={p.right} />
      ))}
      {!error.problems.length && <Refusal error={error} />}
    </div>
  );
}
