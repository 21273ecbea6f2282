// Readings that may lie: what is odd, why, and the one reading that settles it.
import type { ReactNode } from 'react';
import { Glyph } from '../../ui/glyphs';
import type { Suspicion, Target, VisitView } from './data';

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

export function Suspicions({ view, open }: { view: VisitView; open: (t: Target) => void }) {
  const list = view.suspicions;
  const here = view.picture.order.some((i) => i.figure);
  const row = (s: Suspicion, i: number) => (
    <Odd key={`${s.rule}${i}`} of={s} open={i === 0}>
      {s.quantity && s.place && (
        <button
          type="button"
          className="chip"
          onClick={() => open({ quantity: s.quantity!, place: s.place! })}
        >
          Read it again
        </button>
      )}
    </Odd>
  );
  return (
    <div>
      <h3 style={{ padding: '12px 14px 8px' }} data-testid="odd-count">
        {list.length ? `${list.length} to look at` : here ? 'Nothing looks odd' : 'Nothing to check yet'}
      </h3>
      {list.map(row)}
      {!list.length && (
        <p className="small mut" style={{ padding: '0 14px 10px' }}>
          {here ? 'Signs, units, floor, plates and repeats hang together.' : 'Nothing read at this visit.'}
        </p>
      )}
    </div>
  );
}
