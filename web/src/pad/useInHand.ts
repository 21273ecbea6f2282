// Both hands at the wheel: each angle that comes to rest is taken, said and kept, and the next place is said.
import { useEffect, useRef, useState } from 'react';
import { num } from '../units/print';
import { placeWords, short } from './readings';
import { say } from './say';
import { armed, atRest, hold, type Hold } from './steady';
import type { PadState } from './usePad';

const KEY = 'bold-stance.in-hand';

/** Whether this device reads with the gauge in hand; outlives the change to the next place. */
export const isInHand = () => localStorage.getItem(KEY) === 'yes';

export function useInHand(pad: PadState, simulated: boolean) {
  const [on, setOn] = useState(isInHand);
  const rest = useRef<Hold>(atRest);
  // What was taken and is not judged yet.
  const waits = useRef(false);
  const { place, target, active } = pad;
  const where = `${placeWords(place)} ${short[target.quantity]}`;
  useEffect(() => {
    rest.current = simulated ? armed : atRest;
    if (on) say(where);
    // The place and what is entered next, whichever changed.
  }, [on, simulated, where, active]);
  // Every angle as it comes.
  const heard = (deg: number) => {
    if (!on || waits.current) return;
    const { next, take } = hold(rest.current, deg);
    rest.current = next;
    if (take === undefined) return;
    const text = num(take, 2);
    pad.set(() => text.replace('−', '-'));
    say(`${where} ${text}°`);
    const more = pad.missing.find((n) => n !== active);
    if (more) pad.setActive(more);
    else waits.current = true;
  };
  const { data, fault, fresh, away } = pad.preview;
  const { mutate, isPending } = pad.keep;
  useEffect(() => {
    if (!on || !waits.current || isPending || !fresh) return;
    if (fault) {
      waits.current = false;
      say('not taken: look at the pad', false);
      // Without the server it waits in the browser, as what is typed does.
    } else if (data || away) {
      waits.current = false;
      mutate();
    }
  }, [on, data, fault, fresh, away, isPending, mutate]);
  const turn = (to: boolean) => {
    localStorage.setItem(KEY, to ? 'yes' : 'no');
    waits.current = false;
    setOn(to);
  };
  return { on, turn, heard };
}
