// Angles of every wheel as it left and as it is today; what was not read today is read from here.
import type { AxleName, Schemas, SideName } from '../../api/client';
import type { Quantity } from '../../pad/readings';
import { sideWord } from '../../sheet/sheet';
import { Glyph, Half } from '../../ui/glyphs';
import { Plain } from '../../ui/Press';
import { useSettings } from '../../ui/settings';
import { angle } from '../../units/print';

interface Props {
  returned: Schemas['Returned'];
  read: (axle: AxleName, side: SideName, q: Quantity) => void;
}

export function ThenToday({ returned, read }: Props) {
  const { form } = useSettings();
  const wheels = (['front', 'rear'] as const).flatMap((axle) =>
    (['left', 'right'] as const).map((side) => ({ axle, side })),
  );
  const there = wheels.filter((w) => returned.angles.some((a) => a.axle === w.axle && a.side === w.side));
  return (
    <section className="pane return-table" aria-label="Angles then and today">
      <table>
        <thead>
          <tr>
            <th>set, then today</th>
            <th>camber</th>
            <th>caster</th>
            <th>toe</th>
            <th aria-label="How it stands" />
          </tr>
        </thead>
        <tbody>
          {there.map(({ axle, side }) => {
            const own = returned.angles.filter((a) => a.axle === axle && a.side === side);
            const off = own.some((a) => a.off_aim_deg !== 0);
            const seen = own.some((a) => a.now_deg != null);
            return (
              <tr key={axle + side}>
                <th scope="row">
                  <Half side={side} size={17} /> {sideWord(side)} {axle}
                </th>
                {(['camber', 'caster', 'toe'] as const).map((q) => {
                  const a = own.find((x) => x.angle === q);
                  const digits = q === 'toe' ? 2 : 1;
                  if (!a) return <td key={q}>–</td>;
                  return (
                    <td key={q}>
                      <Plain
                        className="return-cell"
                        onClick={() => read(axle, side, q)}
                        aria-label={`Read ${side} ${axle} ${q}`}
                        data-testid={`today-${axle}-${side}-${q}`}
                      >
                        <span className="mut">
                          {a.set_deg == null ? '–' : angle(a.set_deg, form, digits)}
                        </span>{' '}
                        <b className="fig">{a.now_deg == null ? 'read' : angle(a.now_deg, form, digits)}</b>
                      </Plain>
                    </td>
                  );
                })}
                <td>
                  <Glyph name={!seen ? 'unread' : off ? 'short' : 'aim'} size={18} />
                  <span className="vh">{!seen ? 'not read' : off ? 'off aim' : 'on aim'}</span>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
