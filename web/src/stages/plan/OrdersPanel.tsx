// Everything a plan turns, of both sides: what is one for the axle once, what stays is said to stay, toe last.
import type { PlanResult, Schemas, SideName } from '../../api/client';
import { Glyph, Half } from '../../shell/glyphs';

type Line = Schemas['SettingLine'];
const sides: SideName[] = ['left', 'right'];

/** The lines of a side in the order they are turned: toe after everything else. */
export const inOrder = (lines: Line[]): Line[] => [
  ...lines.filter((l) => !l.sets_toe),
  ...lines.filter((l) => l.sets_toe),
];

function Row({ line, test }: { line: Line; test: string }) {
  const leave = line.direction === 'leave';
  return (
    <li className="order-row" data-testid={test}>
      <span>
        {line.name}
        {line.sets_toe && <span className="small chalk"> · toe, last</span>}
      </span>
      <b className="fig">
        {leave ? 'leave' : line.words}
        {!leave && line.at_end && (
          <span className="word small">
            <Glyph name="watch" size={13} /> {line.is_cam && line.notch_deg ? 'last notch' : 'at its end'}
          </span>
        )}
      </b>
    </li>
  );
}

export function OrdersPanel({ result }: { result: PlanResult }) {
  const shared = inOrder(result.left.setting.filter((l) => l.shared));
  const own = (s: SideName) => inOrder(result[s].setting.filter((l) => !l.shared));
  const nothing = !shared.length && !sides.some((s) => own(s).length);
  const id = (l: Line) => l.name.toLowerCase().replaceAll(' ', '-');
  return (
    <div className="panel-scroll" data-testid="orders-panel">
      {nothing && <p>Nothing on this axle is known to turn: as built, or not told yet.</p>}
      {shared.length > 0 && (
        <section className="state-block">
          <h3>Both wheels, one for the axle</h3>
          <ul>
            {shared.map((l) => (
              <Row key={l.name} line={l} test={`order-axle-${id(l)}`} />
            ))}
          </ul>
        </section>
      )}
      {sides
        .filter((s) => own(s).length > 0)
        .map((s) => (
          <section key={s} className="state-block">
            <h3>
              <span className="word">
                <Half side={s} size={16} /> {s === 'left' ? 'Left' : 'Right'}
              </span>
            </h3>
            <ul>
              {own(s).map((l) => (
                <Row key={l.name} line={l} test={`order-${s}-${id(l)}`} />
              ))}
            </ul>
          </section>
        ))}
    </div>
  );
}
