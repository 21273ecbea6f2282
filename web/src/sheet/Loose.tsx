// While an adjuster is loose and the gauge is on its wheel: where the wheel is on its way, and what is left to turn.
import { Button } from '@mui/material';
import { useEffect, useRef, useState } from 'react';
import type { AxleName, SideName } from '../api/client';
import { LiveTurn } from '../figures/LiveTurn';
import { windowOf } from '../figures/reach';
import { useGauge } from '../gauge/useGauge';
import { say } from '../pad/say';
import { useBench, type Bench } from '../shell/ticket';
import { Glyph } from '../ui/glyphs';
import { ChipButton } from '../ui/Press';
import { useSettings } from '../ui/settings';
import { angle } from '../units/print';
import type { Turn } from './asDone';
import { amountWords, writtenAmount } from './counted';
import { stands, told } from '../figures/onTheWay';

type Hand = NonNullable<Turn['line']['in_hand']>;

/** About a second of angles together: a hand on the wrench shakes the gauge. */
const TOGETHER = 8;

interface Props {
  hand: Hand;
  side: SideName;
  axle: AxleName;
  /** What was really turned so far, in words of the order. */
  use: (amount: string) => void;
}

export function Loose({ hand, side, axle, use }: Props) {
  // None where the list stands in no job, as in a test.
  const bench = useBench() as Bench | undefined;
  const { form, unit } = useSettings();
  const recent = useRef<number[]>([]);
  const [shown, setShown] = useState<number>();
  // What the gauge showed while the wheel stood where the order begins, and what it counted from.
  const [start, setStart] = useState<{ deg: number; zeroed: boolean }>();
  const gauge = useGauge((deg) => {
    recent.current = [...recent.current.slice(1 - TOGETHER), deg];
    setShown(recent.current.reduce((a, b) => a + b, 0) / recent.current.length);
  });
  const way = hand.path ?? [];
  const first = way[0];
  // A gauge that is held, silent, or counts from elsewhere since says nothing of the wheel.
  const mute = !gauge.angle
    ? 'The gauge says nothing: is it on?'
    : gauge.angle.held
      ? 'The gauge is held: let it go.'
      : start && start.zeroed !== gauge.angle.zeroed
        ? 'The gauge was zeroed since, or no longer is: put it back, or begin again where the mark stands.'
        : undefined;
  const now =
    start && shown !== undefined && first && !mute
      ? stands(way, first.camber_deg + (shown - start.deg))
      : undefined;
  // Said once each time it comes there.
  const there = !!now?.there;
  useEffect(() => {
    if (there) say('stop');
  }, [there]);
  const aim = bench?.draft?.aim;
  if (!first || !aim) return null;
  if (!gauge.present)
    return gauge.connect && told(way) ? (
      <div className="loose" data-testid="loose-none-there">
        {gauge.fault && <p className="small">{gauge.fault}</p>}
        <ChipButton onClick={gauge.connect} data-testid="gauge-cable">
          Watch it turn: gauge by cable
        </ChipButton>
      </div>
    ) : null;
  if (!told(way))
    return (
      <p className="small loose-none" data-testid="loose-none">
        This one hardly moves camber: the gauge does not show how far it is. Count it.
      </p>
    );
  const second = axle === 'front' ? 'caster' : 'toe';
  const win = windowOf({ plane: axle === 'front' ? 'camber_caster' : 'camber_toe' }, aim);
  const left = now && hand.ordered * (1 - now.share);
  const amount = (v: number) => amountWords(hand, Math.abs(v), unit);
  // Where it moves little for much turning, a gauge does not tell one notch from the next.
  const about = now && now.open * hand.ordered > (hand.counted === 'notches' ? 0.5 : 0.1) ? 'about ' : '';
  if (!start)
    return (
      <div className="loose" data-testid="loose">
        <p className="small">
          Gauge on the {side} {axle} wheel, car on its wheels, nothing turned yet: it shows{' '}
          <b className="fig">{shown === undefined ? '—' : angle(shown, form, 2)}</b>, the sheet says{' '}
          {angle(first.camber_deg, form, 2)}.
        </p>
        <Button
          variant="outlined"
          disabled={shown === undefined || !!mute}
          onClick={() =>
            shown !== undefined && setStart({ deg: shown, zeroed: gauge.angle?.zeroed ?? false })
          }
          data-testid="loose-start"
        >
          From here: watch it
        </Button>
        {mute && <p className="small">{mute}</p>}
        {gauge.connect && (
          <ChipButton onClick={gauge.connect} data-testid="gauge-cable">
            Gauge by cable
          </ChipButton>
        )}
      </div>
    );
  return (
    <div className="loose on" data-testid="loose">
      <div className="slate">
        <LiveTurn way={way} now={now} window={win} second={second} side={side} form={form} />
      </div>
      <div>
        {now && left !== undefined ? (
          <>
            <p className="fig loose-left" data-testid="loose-left">
              {now.there ? (
                <span className="word">
                  <Glyph name="aim" size={26} /> Stop: there
                </span>
              ) : now.beyond ? (
                <span className="word small">
                  <Glyph name="watch" size={26} /> More than this can give: begin again, or read it
                </span>
              ) : (
                <span className="word">
                  {now.past && <Glyph name="past" size={26} />} {about}
                  {amount(left)} {now.past ? 'back' : 'left'}
                </span>
              )}
            </p>
            <p className="small">
              camber {angle(now.camber_deg, form, 2)} now, {angle(Math.abs(now.left_deg), form, 2)}{' '}
              {now.past ? 'past' : 'to go'}; {second} about{' '}
              {angle(second === 'caster' ? now.caster_deg : now.toe_deg, form, second === 'toe' ? 2 : 1)}
            </p>
          </>
        ) : (
          <p className="small">{mute}</p>
        )}
        <div className="loose-acts">
          {now && !now.beyond && (
            <Button
              variant="outlined"
              onClick={() => use(writtenAmount(hand, hand.ordered * now.share, unit))}
              data-testid="loose-use"
            >
              Tightened here
            </Button>
          )}
          <Button variant="outlined" onClick={() => setStart(undefined)} data-testid="loose-again">
            Begin again
          </Button>
        </div>
      </div>
    </div>
  );
}
