// All four tyres on paper: the screen has one of them in hand.
import type { CarWear } from '../../api/client';
import { capital, leadOf, placeName, range } from '../../shell/tread';
import { useSettings } from '../../ui/settings';
import { farUnit } from '../../units/measure';
import { num } from '../../units/print';

export function PrintTyres({ wear }: { wear: CarWear }) {
  const { units } = useSettings();
  return (
    <table className="print-tyres" data-testid="print-tyres">
      <thead>
        <tr>
          <th>Tyre</th>
          <th>Setting</th>
          <th>At its limit at (9 in 10)</th>
          <th>Where first</th>
          <th>Of that: camber, toe, pressure, use</th>
        </tr>
      </thead>
      <tbody>
        {wear.tyres.flatMap((t) =>
          t.scenes.map((s, i) => (
            <tr key={t.place + s.id}>
              <td>{i === 0 && <b>{capital(placeName(t.place))}</b>}</td>
              <td>
                {s.title}
                {s === leadOf(t) && ', planned'}
              </td>
              <td>
                {t.done
                  ? 'at its limit now'
                  : `${farUnit(s.band_km.median, units)} ${range(s.band_km, units)}`}
              </td>
              <td>{s.worst === 'even' ? 'the whole width' : s.worst_words}</td>
              <td>
                {[s.shares.camber, s.shares.toe, s.shares.pressure, s.shares.use]
                  .map((v) => `${num(v * 100)} %`)
                  .join(', ')}
              </td>
            </tr>
          )),
        )}
      </tbody>
    </table>
  );
}
