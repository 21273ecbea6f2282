// What was really done of a step's orders where it was not as ordered, and what was turned again after a reading.
import type { Schemas } from '../api/client';
import { couldNotWord } from './couldNot';

/** What was really done where it was not as ordered, and what was turned again. */
export function Rounds({ rounds }: { rounds: Schemas['Round'][] }) {
  const lines = rounds.flatMap((r, k) =>
    r.turned
      .filter((t) => k > 0 || t.typed || t.could_not)
      .map((t) => {
        const where = `${t.side ? `${t.side} ` : ''}${t.name.toLowerCase()}`;
        const why = t.could_not ? ` (${couldNotWord(t.could_not)})` : '';
        const really = t.typed ? `, really ${t.typed}` : t.could_not ? ', not turned' : '';
        return `${k > 0 ? 'again: ' : ''}${where} ${t.words}${really}${why}`;
      }),
  );
  return (
    <>
      {lines.map((l, i) => (
        <span key={i + l} className="small" style={{ display: 'block' }} data-testid="as-done-kept">
          {l}
        </span>
      ))}
    </>
  );
}
