// Explanations that are not told apart, named as such; what is not ruled out beside them, and the looks after the best one.
import type { Schemas } from '../api/client';

type Look = Schemas['Look'];

interface Props<T> {
  list: T[];
  name: (e: T) => string;
}

export function Alike<T extends { alike?: boolean }>({ list, name }: Props<T>) {
  const alike = list.filter((e) => e.alike);
  if (alike.length < 2) return null;
  return (
    <p className="small" data-testid="alike" style={{ marginTop: 4 }}>
      <b>Not told apart by what was read:</b> {alike.map(name).join(' · ')}
    </p>
  );
}

interface MoreProps {
  look?: Look | null | undefined;
  next: Look[];
  also: string[];
}

/** Each word once, as both wheels may have the same. */
const once = (words: string[]) => [...new Set(words.map((w) => w.replace(/\.$/, '')))].join(' · ');

export function MoreLooks({ look, next, also }: MoreProps) {
  const more = next.map((l) => l.what).filter((w) => w !== look?.what);
  if (!more.length && !also.length) return null;
  return (
    <details className="more-looks" data-testid="more-looks">
      <summary>If that shows nothing</summary>
      {more.length > 0 && <p>{once(more)}</p>}
      {also.length > 0 && <p>Not ruled out either: {once(also)}</p>}
    </details>
  );
}
