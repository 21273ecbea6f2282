// Every wheel in a row: how it stands, what came, what was said.
import type { AxleName, Schemas } from '../../api/client';
import { sideWord } from '../../sheet/sheet';
import { Glyph, Half, type GlyphName } from '../../ui/glyphs';
import { Plain } from '../../ui/Press';
import { useSettings } from '../../ui/settings';
import { angle, type AngleForm } from '../../units/print';
import { wayOf, worstOf } from './quoits';

type Wheel = Schemas['WheelProved'];

const digits = (a: string) => (a === 'toe' ? 2 : 1);

export function standsAs(w: Wheel, form: AngleForm): { glyph: GlyphName; word: string } {
  switch (w.stands) {
    case 'not_read':
      return { glyph: 'unread', word: 'Not read' };
    case 'stale':
      return { glyph: 'stale', word: 'Read it again' };
    case 'on_aim':
      return { glyph: 'aim', word: 'On aim' };
    default: {
      const worst = worstOf(w);
      const by = angle(Math.abs(worst?.off_aim_deg ?? 0), form, digits(worst?.angle ?? ''));
      if (!worst) return { glyph: 'short', word: 'Off aim' };
      return { glyph: worst.past ? 'past' : 'short', word: `${worst.angle} ${by} ${wayOf(worst)}` };
    }
  }
}

interface Props {
  proved: Schemas['Proved'];
  focus: AxleName;
  pick: (a: AxleName) => void;
}

export function Wheels({ proved, focus, pick }: Props) {
  const { form } = useSettings();
  const order = [...proved.wheels].toSorted((a, b) => (a.axle === b.axle ? 0 : a.axle === 'front' ? -1 : 1));
  return (
    <section className="pane prove-wheels" data-pane="Wheels" aria-label="Wheels">
      {order.map((w) => {
        const s = standsAs(w, form);
        return (
          <Plain
            key={w.axle + w.side}
            className={`prove-wheel ${w.axle === focus ? 'on' : ''}`}
            onClick={() => pick(w.axle)}
            data-testid={`wheel-${w.axle}-${w.side}`}
          >
            <span className="prove-wheel-head">
              <Half side={w.side} size={20} />
              <b>
                {sideWord(w.side)} {w.axle}
              </b>
              <span className="prove-stands">
                <Glyph name={s.glyph} size={18} /> {s.word}
              </span>
            </span>
            <span className="prove-figures">
              {w.angles.map((a) => (
                <span key={a.angle}>
                  <span className="fig prove-came">
                    {a.came && !a.came.stale ? (
                      <>
                        {angle(a.came.value_deg, form, digits(a.angle))}
                        <small> ±{angle(a.came.band_deg, form, 2).replace(/^[+−]/, '')}</small>
                      </>
                    ) : (
                      '—'
                    )}
                  </span>
                  <span className="small">
                    {a.angle}
                    {a.as_said === false && ', otherwise'}
                    <br />
                    said {angle(a.said_deg, form, digits(a.angle))}
                  </span>
                </span>
              ))}
            </span>
          </Plain>
        );
      })}
      {proved.thrust_deg !== null && proved.thrust_deg !== undefined && (
        <p className="prove-thrust" data-testid="prove-thrust">
          <b className="fig">{angle(Math.abs(proved.thrust_deg), form, 2)}</b>
          <span className="small">
            thrust
            {Math.abs(proved.thrust_deg) >= 0.005 && `, to the ${proved.thrust_deg > 0 ? 'right' : 'left'}`}
          </span>
        </p>
      )}
    </section>
  );
}
