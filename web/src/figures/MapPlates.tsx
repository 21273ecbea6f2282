// What the reach map says, in words below it where there is no room in it.
import type { Aim, PlanResult, SideName } from '../api/client';
import { Glyph } from '../ui/glyphs';
import { angle, signed, tick, type AngleForm } from '../units/print';
import { cap, second, worst, type Focus } from './reach';

interface Props {
  result: PlanResult;
  aim: Aim;
  focus: Focus;
  form: AngleForm;
}

export function MapPlates({ result, aim, focus, form }: Props) {
  const axis2 = second(result);
  const rear = result.plane === 'camber_toe';
  const lead: SideName = focus === 'right' ? 'right' : 'left';
  const guessed = result.expected.some((e) => e.angle === 'camber' || e.angle === axis2.word);
  const small = (v: number) => (form === 'minutes' ? tick(v, form, 2, true) : signed(v, 2));
  const by = result[lead].reach?.by.slice(0, 2) ?? [];
  return (
    <ul className="map-plates" aria-label="What the map says">
      {(['left', 'right'] as const)
        .filter((s) => focus === 'both' || focus === s)
        .map((s) => {
          const [what, gap, word] = worst(result[s], aim, rear);
          const on = gap < 1e-6;
          return (
            <li key={s} className={on ? 'on' : 'plate'}>
              <Glyph name={on ? (guessed ? 'unread' : 'aim') : 'short'} size={19} />
              <b>
                {cap(s)} {on ? (guessed ? 'expected' : 'on aim') : what}
              </b>
              <span className="fig">
                {on
                  ? `${angle(result[s].set.camber_deg, form)} · ${angle(result[s].set[axis2.key], form, rear ? 2 : 1)}`
                  : `${word} ${angle(gap, form, gap < 0.095 ? 2 : 1)}`}
              </span>
            </li>
          );
        })}
      {result[lead].sensitivity
        .filter((x) => by.includes(x.name))
        .map((n) => (
          <li key={n.name} className="small">
            One step, {n.name.toLowerCase()}: camber {small(n.camber_deg)} · {axis2.word}{' '}
            {small(n[axis2.key])}
          </li>
        ))}
    </ul>
  );
}
