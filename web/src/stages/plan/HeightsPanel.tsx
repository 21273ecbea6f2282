// Every height state with every angle's verdict: inside, how far outside, which way, on which side.
import type { PlanResult, Schemas } from '../../api/client';
import { Glyph, Half } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { angle, lengthChange } from '../../units/print';

type State = Schemas['StateResult'];
type Verdict = Schemas['AngleVerdict'];
const names: Record<Verdict['angle'], string> = {
  camber: 'camber',
  caster: 'caster',
  toe: 'toe',
  cross_camber: 'camber, left to right',
  cross_caster: 'caster, left to right',
};

function Cell({ v, side }: { v: Verdict | undefined; side: 'left' | 'right' }) {
  const { form } = useSettings();
  if (!v) return <td className="mut">not reached</td>;
  if (v.unread)
    return (
      <td>
        <span className="verdict-cell" title={v.words}>
          <Half side={side} size={13} hollow />
          <span className="fig chalk">{angle(v.value_deg, form, v.angle === 'toe' ? 2 : 1)}</span>
          <span className="verdict-word">
            <Glyph name="unread" size={13} />
            expected
          </span>
        </span>
      </td>
    );
  const on = v.off_deg === 0;
  return (
    <td>
      <span className="verdict-cell" title={v.words}>
        <Half side={side} size={13} />
        <b className="fig">{angle(v.value_deg, form, v.angle === 'toe' ? 2 : 1)}</b>
        <span className={on ? 'verdict-word' : 'plate verdict-word'}>
          <Glyph name={on ? 'aim' : 'short'} size={13} />
          {on
            ? 'in'
            : `${angle(Math.abs(v.off_deg), form, Math.abs(v.off_deg) < 0.095 ? 2 : 1)} ${v.off_deg > 0 ? 'high' : 'low'}`}
        </span>
      </span>
    </td>
  );
}

export function HeightsPanel({ result }: { result: PlanResult }) {
  const { unit } = useSettings();
  return (
    <div className="panel-scroll" data-testid="heights-panel">
      {result.states.map((s: State) => (
        <section key={`${s.kind}${s.name}`} className={`state-block ${s.judged ? 'judged' : ''}`}>
          <h3>
            {s.name}
            <span className="small">
              {s.kind === 'arrived' ? '' : lengthChange(s.own_mm, unit)}
              {s.judged ? ' · the aim counts here' : ''}
            </span>
          </h3>
          <table>
            <tbody>
              {(s.left ?? s.right)?.verdicts.map((v, i) => (
                <tr key={v.angle}>
                  <th scope="row">{names[v.angle]}</th>
                  <Cell v={s.left?.verdicts[i]} side="left" />
                  <Cell v={s.right?.verdicts[i]} side="right" />
                </tr>
              ))}
            </tbody>
          </table>
          {s.cross
            .filter((c) => c.off_deg !== 0)
            .map((c) => (
              <p key={c.angle} className="plate" style={{ margin: '4px 0 0' }}>
                <Glyph name="clash" size={14} /> {names[c.angle]}: {c.words}
              </p>
            ))}
          {!s.left && !s.right && <p className="mut">Cannot be reached.</p>}
        </section>
      ))}
    </div>
  );
}
