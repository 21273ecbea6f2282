// What may explain that it came otherwise, with odds, and the one look that tells the explanations apart.
import type { Schemas } from '../../api/client';
import { Alike, MoreLooks } from '../../sheet/Alike';
import { Glyph, Half } from '../../ui/glyphs';
import { tag, type Told } from './quoits';

/** Never a hundred of a hundred: nothing here is certain. */
export const inHundred = (odds: number) => Math.min(99, Math.max(1, Math.round(odds * 100)));

type Look = Schemas['Look'] | null | undefined;

interface Props {
  list: Told[];
  looks: Look[];
  /** Looks after the best one. */
  next?: NonNullable<Look>[];
  /** What is not ruled out beside the list. */
  also?: string[];
}

export function Explains({ list, looks, next = [], also = [] }: Props) {
  const look = looks.filter((l) => !!l).toSorted((a, b) => b.bits - a.bits)[0];
  if (!list.length) return null;
  return (
    <div data-testid="explains">
      <h2 className="prove-h2">What explains it</h2>
      <ul className="prove-why">
        {list.map((e, i) => (
          <li key={e.side + e.what}>
            <span className="prove-tag" aria-hidden="true">
              {tag(i)}
            </span>
            <span className="prove-what">
              <Half side={e.side} size={17} /> <span>{e.what}</span>
            </span>
            <span className="prove-odds">
              <span>
                <b className="fig">{inHundred(e.odds)}</b> in 100
              </span>
              <span className="prove-bar" aria-hidden="true">
                <i style={{ width: `${inHundred(e.odds)}%` }} />
              </span>
            </span>
          </li>
        ))}
      </ul>
      {(['left', 'right'] as const).map((side) => (
        <Alike key={side} list={list.filter((e) => e.side === side)} name={(e) => tag(list.indexOf(e))} />
      ))}
      {look && (
        <p className="prove-look" data-testid="prove-look">
          <Glyph name="watch" size={26} />
          <span>
            <b>One look tells them apart best.</b> {look.what} {look.minutes} min.
          </span>
        </p>
      )}
      <MoreLooks look={look} next={next} also={also} />
    </div>
  );
}
