// What is worth reading before a step is turned: its turns go by it. It waits for nothing and judges nothing.
import type { AxleName, SideName } from '../api/client';
import type { Quantity, Visit } from '../pad/readings';
import { Glyph, Half } from '../ui/glyphs';
import { Plain } from '../ui/Press';
import { useSettings } from '../ui/settings';
import { cellName, cellRead, cellsOf } from './gateWords';
import { readAt, sideWord, type Gate, type Step } from './sheet';

interface Props {
  step: Step;
  view: Gate | undefined;
  pad: (visit: Visit, q: Quantity, axle: AxleName, s: SideName) => void;
}

export function ReadFirst({ step, view, pad }: Props) {
  const { unit, form } = useSettings();
  const cells = cellsOf(step.helps ?? []);
  if (!cells.length) return null;
  const fresh = (axle: AxleName, s: SideName, q: (typeof cells)[number]['quantity']) => {
    const r = readAt(view, axle, s, q);
    return r && !r.stale ? r : undefined;
  };
  const all = cells.every((c) => fresh(c.axle, c.side ?? 'left', c.quantity));
  const odd = step.read_again ?? [];
  return (
    <div className="read-first" data-testid="read-first">
      <p>
        <Glyph name={odd.length ? 'gate' : all ? 'done' : 'watch'} size={20} />{' '}
        {odd.length
          ? `${odd.map(sideWord).join(' and ')} came odder than once in a hundred: read it again. Until then its turns stay as foreseen.`
          : all
            ? 'Read before it is turned: the turns below go by it.'
            : 'Read toe as it stands now: the turns below then go by it, not by what was foreseen.'}
      </p>
      <div className="read-first-cells">
        {cells.map((c) => {
          const s = c.side ?? 'left';
          const r = fresh(c.axle, s, c.quantity);
          return (
            <Plain
              key={s + c.quantity}
              className={`chk ${r ? 'on' : 'dash'}`}
              onClick={() =>
                view?.visit &&
                pad(view.visit, c.quantity === 'centre' ? 'axle_offset' : c.quantity, c.axle, s)
              }
              data-testid={`first-${c.axle}-${c.quantity}-${s}`}
            >
              <Half side={s} size={18} color="currentColor" /> {cellName(c, false)}{' '}
              {r ? cellRead(c.quantity, r.value, unit, form) : 'not read'}
            </Plain>
          );
        })}
      </div>
    </div>
  );
}
