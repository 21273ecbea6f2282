// Camber, caster and toe of one wheel from before to after the height, in a line: what a tablet has instead of the curves.
import type { PlanResult, SideName } from '../../api/client';
import { Half } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { angle } from '../../units/print';

export function AngleLine({
  result,
  lead,
  steered,
}: {
  result: PlanResult;
  lead: SideName;
  steered: boolean;
}) {
  const { form } = useSettings();
  const side = result[lead];
  const rows = [
    ['camber', side.before.camber_deg, side.after.camber_deg, 1],
    ...(steered ? [['caster', side.before.caster_deg, side.after.caster_deg, 1] as const] : []),
    ['toe in', side.before.toe_deg, side.after.toe_deg, 2],
  ] as const;
  return (
    <dl className="angle-line" data-testid="angle-line">
      {rows.map(([word, was, is, digits]) => (
        <div key={word}>
          <dt>
            <Half side={lead} size={15} /> {word}
          </dt>
          <dd className="fig">
            <span className="mut">{angle(was, form, digits)} →</span> <b>{angle(is, form, digits)}</b>
          </dd>
        </div>
      ))}
    </dl>
  );
}
