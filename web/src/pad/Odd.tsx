// One suspicion, as the pad and the list of suspicions show it.
import type { ReactNode } from 'react';
import { Glyph } from '../ui/glyphs';
import type { Suspicion } from './readings';

/** One suspicion: what is odd; opened, why and what settles it. */
export function Odd({ of: s, open, children }: { of: Suspicion; open?: boolean; children?: ReactNode }) {
  return (
    <details className="odd" open={open} data-testid={`odd-${s.rule}`}>
      <summary>
        <Glyph name="watch" size={20} />
        <span>{s.says}</span>
      </summary>
      <p>{s.why}</p>
      <p>
        <b>{s.settle}</b>
      </p>
      {children}
    </details>
  );
}
