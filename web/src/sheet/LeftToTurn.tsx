// What is left to turn after a reading: the next orders on what this car taught, and what may explain a reading that is odd.
import { Button } from '@mui/material';
import { useState } from 'react';
import type { Drawing, Schemas, SideName } from '../api/client';
import { Glyph, Half } from '../ui/glyphs';
import { useSettings } from '../ui/settings';
import { angle } from '../units/print';
import { Alike, MoreLooks } from './Alike';
import { asDone, turning, type Tolds, type Turn } from './asDone';
import { OrderInHand } from './OrderInHand';
import { sides, sideWord } from './sheet';

type Left = Schemas['AxleLeft'];
type Side = NonNullable<Left['sides']['left']>;
type Whole = NonNullable<Left['whole']>;

/** Never ten of ten: an explanation is not certain. */
const inTen = (odds: number) => `${Math.min(9, Math.max(1, Math.round(odds * 10)))} in 10`;

interface CardProps {
  left: Side;
  side: SideName;
  steers: boolean;
  toe: boolean;
  odds: boolean;
  /** Whether something is turned for both wheels. */
  whole: boolean;
}

function Card({ left, side, steers, toe, odds, whole }: CardProps) {
  const { form } = useSettings();
  const turns = left.orders.filter((l) => l.direction !== 'leave' && (toe || !l.sets_toe));
  const [camber, caster, toeDeg] = left.expect;
  // What is ordered of toe alone waits for its own step.
  const waits = !left.again && !toe && left.orders.some((l) => l.sets_toe && l.direction !== 'leave');
  const still = !waits
    ? left.headline
    : left.reaches
      ? 'Leave it: toe comes at its own step.'
      : 'Leave it: nothing here brings it nearer. Toe comes at its own step.';
  return (
    <div className="set-card left-card" data-testid={`left-${side}`}>
      <h3 style={{ display: 'flex', gap: 9, alignItems: 'center' }}>
        <Half side={side} size={24} /> {sideWord(side)}
      </h3>
      {turns.length === 0 && !whole ? (
        <p className="left-line leave" data-testid={`left-words-${side}`}>
          <Glyph name={left.again ? 'watch' : left.reaches ? 'done' : 'short'} size={20} />{' '}
          <span>{still}</span>
        </p>
      ) : (
        <>
          <p style={{ fontWeight: 600 }} data-testid={`left-words-${side}`}>
            {left.headline}
          </p>
          {turns.map((l) => (
            <p
              key={l.name}
              className="left-line fig"
              data-testid={`left-${side}-${l.name.toLowerCase().replaceAll(' ', '-')}`}
            >
              <span className="mut">{l.name}</span> {l.words}
            </p>
          ))}
          <p className="small mut">
            then camber {angle(camber!, form, 1)} ±{angle(left.band[0]!, form, 1).replace(/^[+−]/, '')}
            {steers &&
              ` · caster ${angle(caster!, form, 1)} ±${angle(left.band[1]!, form, 1).replace(/^[+−]/, '')}`}
            {toe && ` · toe ${angle(toeDeg!, form, 2)}`}
          </p>
        </>
      )}
      {left.taught.map((t) => (
        <p key={t} className="left-taught" data-testid={`taught-${side}`}>
          <Glyph name="watch" size={18} /> {t}
        </p>
      ))}
      {odds && left.odd.length > 0 && (
        <div data-testid={`odd-${side}`}>
          <p className="small">Came otherwise than expected. It could be:</p>
          <ul className="left-odd">
            {left.odd.map((o) => (
              <li key={o.what}>
                {o.what} <b>{inTen(o.odds)}</b>
              </li>
            ))}
          </ul>
          <Alike list={left.odd} name={(o) => o.what.replace(/\.$/, '')} />
          {left.look && (
            <p className="small" data-testid={`look-${side}`} style={{ marginTop: 4 }}>
              <b>One look tells them apart best.</b> {left.look.what}
            </p>
          )}
          <MoreLooks look={left.look} next={left.next_looks ?? []} also={left.also ?? []} />
        </div>
      )}
    </div>
  );
}

/** What is one for both wheels: how the axle lies under the car, and what is turned for it. */
function WholeCard({ whole, axle, toe }: { whole: Whole; axle: string; toe: boolean }) {
  const turns = whole.orders.filter((o) => o.line.direction !== 'leave' && (toe || !o.line.sets_toe));
  return (
    <div className="set-card left-card whole" data-testid="left-axle">
      <h3>The {axle} axle</h3>
      {whole.says.map((s) => (
        <p key={s} style={{ fontWeight: 600 }}>
          {s}
        </p>
      ))}
      {turns.map((o) => (
        <p key={`${o.side}${o.line.name}`} className="left-line fig">
          <span className="mut">
            {o.side ? `${sideWord(o.side)} ` : ''}
            {o.line.name}
          </span>{' '}
          {o.line.words}
        </p>
      ))}
      {whole.taught.map((t) => (
        <p key={t} className="left-taught">
          <Glyph name="watch" size={18} /> {t}
        </p>
      ))}
    </div>
  );
}

interface Props {
  left: Left;
  /** The axle as it is to be set, for the drawing of where each order sits. */
  drawings?: Record<SideName, Drawing> | undefined;
  /** Whether toe had its step: its orders are among these. */
  toe: boolean;
  /** Whether what may explain an odd reading is told here; elsewhere it stands by itself. */
  odds?: boolean;
  stale: boolean;
  problems: { field: string; wrong: string; right: string }[];
  turned: (as_done: Schemas['AsDone'][]) => void;
}

export function LeftToTurn({ left, drawings, toe, odds = true, stale, problems, turned }: Props) {
  const [tolds, setTolds] = useState<Tolds>({});
  const whole: Turn[] = (left.whole?.orders ?? []).map((o) => ({ side: o.side ?? undefined, line: o.line }));
  const own = sides.flatMap((side) => (left.sides[side]?.orders ?? []).map((line): Turn => ({ side, line })));
  const list = [...whole, ...own].filter((t) => toe || !t.line.sets_toe);
  // Of a live axle that was only taped no wheel is told of.
  const wheels = !left.whole || !!left.sides.left || !!left.sides.right;
  const some = turning(list).length > 0;
  const again = sides.some((s) => left.sides[s]?.again);
  const { unit } = useSettings();
  const told = asDone(list, tolds, unit);
  return (
    <section className="left-bar" data-testid={`left-to-turn-${left.axle}`} aria-live="polite">
      <h2>{some ? 'Left to turn' : again ? 'Read it again' : 'Nothing left to turn'}</h2>
      {some && toe && left.between && (
        <p className="left-between" data-testid="left-between">
          <Glyph name="watch" size={18} /> {left.between}
        </p>
      )}
      <div className="left-cards">
        {left.whole && <WholeCard whole={left.whole} axle={left.axle} toe={toe} />}
        {(wheels ? sides : []).map((s) => {
          const l = left.sides[s];
          return l ? (
            <Card
              key={s}
              left={l}
              side={s}
              steers={left.axle === 'front'}
              toe={toe}
              odds={odds}
              whole={turning(whole).some((t) => toe || !t.line.sets_toe)}
            />
          ) : (
            <div key={s} className="set-card left-card">
              <p className="small mut">{sideWord(s)}: not read since it was turned.</p>
            </div>
          );
        })}
      </div>
      {some && (
        <>
          <OrderInHand
            axle={left.axle}
            list={list}
            drawings={drawings}
            tolds={tolds}
            set={setTolds}
            problems={problems}
            stale={stale}
            finish={(t) => turned(asDone(list, t, unit))}
            fs={1}
            keyed={false}
          />
          <Button
            variant="outlined"
            sx={{ minHeight: 52, fontSize: 17, margin: '10px 18px 16px' }}
            disabled={stale}
            onClick={() => turned(told)}
            data-testid="turned-again"
          >
            {told.length ? 'All turned as typed' : 'All turned as ordered'}
          </Button>
        </>
      )}
    </section>
  );
}
