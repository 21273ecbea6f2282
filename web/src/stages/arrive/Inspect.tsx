// What is worn, bent or broken on an axle: looked at before any reading, pressed once, and what it leads to at once.
import { useQuery } from '@tanstack/react-query';
import type { Schemas, SideName } from '../../api/client';
import { getInspection } from '../../api/calls';
import { Segment } from '../../ui/Segment';
import { Glyph, Half } from '../../ui/glyphs';

export type Inspected = Schemas['Inspected'];
type Item = Schemas['InspectItem'];

interface Props {
  axle: 'front' | 'rear';
  list: Inspected[];
  change: (list: Inspected[]) => void;
}

const sides: SideName[] = ['left', 'right'];

/** The answer told of an item on a side; undefined while nobody looked. */
export const told = (list: Inspected[], item: string, side: SideName | null) =>
  list.find((i) => i.item === item && (i.side ?? null) === side)?.answer;

/** The list with an answer, or with one taken back. */
export function tell(
  list: Inspected[],
  item: string,
  side: SideName | null,
  answer: string | undefined,
): Inspected[] {
  const rest = list.filter((i) => i.item !== item || (i.side ?? null) !== side);
  return answer === undefined ? rest : [...rest, { item, side, answer }];
}

export function Inspect({ axle, list, change }: Props) {
  const items = useQuery({ queryKey: ['inspection'], queryFn: getInspection, staleTime: Infinity });
  const looked = items.data?.filter((i) =>
    (i.each === 'wheel' ? sides : [null]).every((s) => told(list, i.id, s) !== undefined),
  ).length;
  return (
    <>
      <h2>What is worn on the {axle}?</h2>
      <p className="small mut" style={{ margin: '4px 0 8px' }}>
        Before any reading. {looked ?? 0} of {items.data?.length ?? 0} looked at; what nobody looked at is not
        judged. Car on stands at its lift points, never on a jack alone.
      </p>
      <ul className="inspect">
        {items.data?.map((i) => (
          <li key={i.id}>
            <h3>{i.ask}</h3>
            {(i.each === 'wheel' ? sides : [null]).map((s) => (
              <Answer key={s ?? 'axle'} item={i} side={s} list={list} change={change} />
            ))}
          </li>
        ))}
      </ul>
    </>
  );
}

function Answer({
  item,
  side,
  list,
  change,
}: {
  item: Item;
  side: SideName | null;
  list: Inspected[];
  change: (l: Inspected[]) => void;
}) {
  const now = told(list, item.id, side);
  const answer = item.answers.find((a) => a.id === now);
  const id = `inspect-${item.id}${side ? `-${side}` : ''}`;
  return (
    <div className="inspect-answer">
      {side && (
        <span className={`lab ${side}`}>
          <Half side={side} size={14} /> {side}
        </span>
      )}
      <Segment
        label={`${item.ask}${side ? `, ${side}` : ''}`}
        size={14}
        value={now}
        clear={() => change(tell(list, item.id, side, undefined))}
        choose={(v) => change(tell(list, item.id, side, v))}
        choices={item.answers.map((a) => ({ value: a.id, label: a.label, testid: `${id}-${a.id}` }))}
      />
      {answer?.first && (
        <p className={answer.stops ? 'plate' : 'small word'} data-testid={`${id}-first`}>
          <Glyph name={answer.stops ? 'gate' : 'watch'} size={17} /> <span>{answer.first}</span>
        </p>
      )}
    </div>
  );
}
