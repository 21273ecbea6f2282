// Two screens changed one plan: each field with both of what it says, and one of them chosen.
import { Button, Dialog } from '@mui/material';
import { useState } from 'react';
import type { CarPlan, Plan } from '../api/client';
import { useSettings } from '../ui/settings';
import { Segment } from '../ui/Segment';
import { lengthChange } from '../units/print';
import { measure } from '../units/measure';
import { differences, idOf, merged, type Field, type Whose } from './conflict';
import { axleOf, partOf, type Bench } from './ticket';

const words: Record<string, string> = {
  height: 'height',
  settle: 'settles by',
  load: 'sinks under load by',
  trim: 'left and right on top',
  parts: 'parts',
  picked: 'set by hand',
  aim: 'Aim',
  limit: 'Tread limit',
  as_sold: 'Parts as',
};
const label = (f: Field) =>
  f.axle ? `${f.axle === 'front' ? 'Front' : 'Rear'} ${words[f.key]}` : words[f.key];

interface Props {
  bench: Bench;
  theirs: Plan;
  /** What both began from. */
  base: CarPlan | undefined;
  keep: (doc: CarPlan) => void;
  close: () => void;
}

export function Conflict({ bench, theirs, base, keep, close }: Props) {
  const { unit, units } = useSettings();
  const mine = bench.draft;
  const list = mine ? differences(mine, theirs.document, base) : [];
  const [chosen, setChosen] = useState<Record<string, Whose>>(() =>
    // What only one of them touched is that one's.
    Object.fromEntries(
      list.map((d) => [idOf(d.field), d.changed === 'theirs' ? ('theirs' as const) : ('mine' as const)]),
    ),
  );
  if (!mine) return null;
  const partName = (axle: 'front' | 'rear', id: string) =>
    axleOf(bench.answer, axle)?.candidates.find((c) => c.part.id === id)?.part.name ?? id;
  const says = (d: CarPlan, f: Field): string => {
    if (f.key === 'aim') return d.aim.name;
    if (f.key === 'limit') return measure('tread', d.limit_mm, units);
    if (f.key === 'as_sold') return d.as_sold ? 'sold' : 'they moved here';
    const p = partOf(d, f.axle ?? 'front');
    const change = (mm: number) => lengthChange(mm, unit);
    switch (f.key) {
      case 'height':
        return change(p.height_change_mm) + (p.ways.length ? `, in ${p.ways.length} ways` : '');
      case 'settle':
        return change(-p.settle_mm);
      case 'load':
        return change(-p.load_mm);
      case 'trim':
        return `left ${change(p.trim_mm.left)}, right ${change(p.trim_mm.right)}`;
      case 'parts':
        return (
          p.fitted
            .map((id) => partName(f.axle ?? 'front', id) + (p.only[id] ? `, ${p.only[id]} only` : ''))
            .join('; ') || 'none'
        );
      default:
        return p.picked.left || p.picked.right ? 'yes' : 'no';
    }
  };
  return (
    <Dialog open onClose={close} aria-labelledby="conflict-title" maxWidth="md">
      <div className="conflict" data-testid="conflict">
        <h2 id="conflict-title">{theirs.name}: yours and theirs</h2>
        <p className="small mut">
          {list.length
            ? 'Where only one of you changed something, that is chosen already.'
            : 'Both say the same now.'}
        </p>
        <ul>
          {list.map(({ field, changed }) => {
            const id = idOf(field);
            return (
              <li key={id} data-testid={`conflict-${id}`}>
                <span>
                  <b>{label(field)}</b>
                  {changed === 'both' && <span className="small"> · both changed it</span>}
                </span>
                <Segment
                  label={label(field) ?? id}
                  value={chosen[id]}
                  choose={(w) => setChosen({ ...chosen, [id]: w })}
                  choices={[
                    { value: 'mine', label: `yours: ${says(mine, field)}`, testid: `mine-${id}` },
                    {
                      value: 'theirs',
                      label: `theirs: ${says(theirs.document, field)}`,
                      testid: `theirs-${id}`,
                    },
                  ]}
                />
              </li>
            );
          })}
        </ul>
        <div className="conflict-acts">
          <Button variant="outlined" onClick={close}>
            Not now
          </Button>
          <Button
            variant="contained"
            onClick={() => keep(merged(mine, theirs.document, chosen))}
            data-testid="conflict-keep"
          >
            Keep this
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
