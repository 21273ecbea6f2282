// The four tyres as a row: which one, how far, where it goes first.
import { Bare } from '../../ui/Press';
import type { CarWear } from '../../api/client';
import { Half } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { far, unitName } from '../../units/measure';
import { capital, leadOf, placeName, places, sideOf, type Place, type TyreForecast } from '../../shell/tread';

function Mini({ t, km }: { t: TyreForecast; km: number }) {
  const r = leadOf(t).rate_mm_per_1000km;
  const top = Math.max(...t.depth_now_mm, 1);
  return (
    <svg width="78" height="30" viewBox="0 0 78 30" aria-hidden="true">
      {r.map((v, i) => {
        const h = (Math.max(0, t.depth_now_mm[i]! - (v * km) / 1000) / top) * 28;
        return <rect key={i} x={i * 3.7} y={30 - h} width="2.7" height={h} fill="currentColor" />;
      })}
    </svg>
  );
}

export function FourTyres({
  wear,
  place,
  pick,
  km,
}: {
  wear: CarWear | undefined;
  place: Place;
  pick: (p: Place) => void;
  km: number;
}) {
  const { units } = useSettings();
  return (
    <div className="four-tyres">
      {places.map((p) => {
        const t = wear?.tyres.find((x) => x.place === p);
        const on = p === place;
        return (
          <Bare
            key={p}
            className={`${on ? 'on' : ''}`}
            aria-pressed={on}
            disabled={!t && !!wear}
            onClick={() => pick(p)}
            data-testid={`tyre-${p}`}
          >
            <span className="who">
              <Half side={sideOf(p)} size={20} color={on ? `var(--${sideOf(p)}S)` : undefined} />
              <b>{capital(placeName(p))}</b>
            </span>
            {t ? (
              <>
                <Mini t={t} km={km} />
                <span className="fig">
                  {t.done ? 'at its limit' : far(Math.max(0, leadOf(t).band_km.median), units)}{' '}
                  {!t.done && <small>{unitName('distance', units)}</small>}
                </span>
                <span className="small">{leadOf(t).worst_words}</span>
              </>
            ) : (
              <span className="small">{wear ? 'axle not read' : '…'}</span>
            )}
          </Bare>
        );
      })}
    </div>
  );
}
