// Readings that may lie: what is odd, why, and the one reading that settles it.
import { ChipButton } from '../../ui/Press';
import { Odd } from '../../pad/Odd';
import type { Suspicion, Target, VisitView } from '../../pad/readings';

export function Suspicions({
  view,
  open,
  putRight,
}: {
  view: VisitView;
  open: (t: Target) => void;
  /** Works the readings out anew that a later answer touches. */
  putRight?: () => void;
}) {
  const list = view.suspicions;
  const here = view.picture.order.some((i) => i.figure);
  const row = (s: Suspicion, i: number) => (
    <Odd key={`${s.rule}${i}`} of={s} open={i === 0}>
      {s.quantity && s.place && (
        <ChipButton onClick={() => open({ quantity: s.quantity!, place: s.place! })}>
          Read it again
        </ChipButton>
      )}
      {s.rule === 'floor_changed' && putRight && (
        <ChipButton onClick={putRight} data-testid="put-right">
          Put all of them right
        </ChipButton>
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
