// What one change is worth on this tyre, in distance and in money a year.
import { useSettings } from '../../ui/settings';
import { far, unitName } from '../../units/measure';
import { num } from '../../units/print';
import { tooClose, type TyreForecast } from '../../shell/tread';

export function Levers({ tyre }: { tyre: TyreForecast }) {
  const { units } = useSettings();
  if (!tyre.levers.length) return null;
  return (
    <div data-testid="levers">
      <h3>What one change is worth</h3>
      <ul className="levers">
        {tyre.levers.map((l) => {
          const unsure = tooClose(l.ratio);
          const less = l.gain_km < 0;
          const money = l.saves_a_year;
          return (
            <li key={l.id} data-testid={`lever-${l.id}`}>
              <span>
                <b>{l.title}</b>
                <small>
                  {l.detail}
                  {unsure && ' · too close to call'}
                </small>
              </span>
              <span className="fig">
                {Math.abs(l.gain_km) < 50 ? '0' : `${less ? '−' : '+'}${far(Math.abs(l.gain_km), units)}`}
                <small> {unitName('distance', units)}</small>
                {money != null && Math.abs(money) >= 0.5 && (
                  <small className="money">
                    {money > 0 ? 'saves' : 'costs'} {num(Math.abs(money))} a year
                  </small>
                )}
              </span>
            </li>
          );
        })}
      </ul>
    </div>
  );
}
