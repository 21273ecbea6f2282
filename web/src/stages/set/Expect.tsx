// What is expected of an axle once it is set, in the bay: at the planned height, even where the aim counts under load.
import type { AxleName, PlanResult, Schemas, SideName } from '../../api/client';
import { Half } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { angle, length } from '../../units/print';
import { sides } from '../../sheet/sheet';

export const expectedOf = (r: PlanResult, s: SideName): Schemas['Alignment'] =>
  r.states.find((x) => x.kind === 'planned')?.[s]?.angles ?? r[s].set;

interface Props {
  result: PlanResult;
  axle: AxleName;
  toeBand: number;
  fs: number;
}

export function Expect({ result: r, axle, toeBand, fs }: Props) {
  const { unit, form } = useSettings();
  const rows = (s: SideName) =>
    [
      ['camber', expectedOf(r, s).camber_deg, r[s].doubt.camber_deg, 1],
      ...(axle === 'front' ? [['caster', expectedOf(r, s).caster_deg, r[s].doubt.caster_deg, 1]] : []),
      ['toe in', expectedOf(r, s).toe_deg, toeBandOf(r, s, toeBand), 2],
    ] as [string, number, number, number][];
  return (
    <div className="set-row" style={{ background: 'var(--well)', flex: 1, minHeight: 96 }}>
      {sides.map((s) => (
        <div key={s} className="set-card" data-testid={`expect-${s}`}>
          <span className="lab" style={{ display: 'flex', gap: 7, alignItems: 'center' }}>
            <Half side={s} size={17} /> Expect {s} {axle} at {length(r[s].planned_height_mm, unit)}
          </span>
          <div style={{ display: 'flex', gap: 24, marginTop: 6 }}>
            {rows(s).map(([w, v, d, dec]) => (
              <div key={w}>
                <div className="fig" style={{ fontSize: 31 * fs }}>
                  {angle(v, form, dec)}
                  <span className="mut" style={{ fontSize: 18, fontWeight: 600 }}>
                    {' '}
                    ±{angle(d, form, dec)}
                  </span>
                </div>
                <span className="small mut">
                  {w}
                  {unreadOf(r, w === 'toe in' ? 'toe' : (w as 'camber')) && ', not read'}
                </span>
              </div>
            ))}
          </div>
        </div>
      ))}
    </div>
  );
}

/** Whether an angle of the axle was not read: what is shown of it is expected. A result kept before has none of it. */
export const unreadOf = (r: PlanResult, angle: 'camber' | 'caster' | 'toe'): boolean =>
  (r.expected ?? []).some((e) => e.angle === angle);

/** Toe after the rods by what was read; as wide as what is expected where nobody read it, degrees. */
export const toeBandOf = (r: PlanResult, s: SideName, set_deg: number): number =>
  unreadOf(r, 'toe') ? r[s].doubt.toe_deg : set_deg;
