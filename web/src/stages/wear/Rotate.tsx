// Rotation: which tyre goes where, and what each pattern does to the set.
import { Bare } from '../../ui/Press';
import { useState } from 'react';
import type { CarWear, Schemas } from '../../api/client';
import { Glyph } from '../../ui/glyphs';
import { useBench } from '../../shell/ticket';
import { useSettings } from '../../ui/settings';
import { far as told, farUnit, measure, unitName } from '../../units/measure';
import { num } from '../../units/print';
import { capital, placeName, places, wearFacts } from '../../shell/tread';

type Plan = Schemas['RotationPlan'];
const spot: Record<string, [number, number]> = {
  left_front: [52, 46],
  right_front: [148, 46],
  left_rear: [52, 174],
  right_rear: [148, 174],
};

/** Seen from above, nose up: each tyre and the way it goes. */
function Ways({ plan, big }: { plan: Plan; big?: boolean }) {
  return (
    <svg
      viewBox="0 0 200 220"
      style={big ? { width: '100%', maxWidth: 300 } : { width: 64, height: 70 }}
      role="img"
      aria-label={places.map((p, i) => `${placeName(p)} goes ${placeName(plan.goes_to[i]!)}`).join(', ')}
    >
      <path
        d="M70 18C80 6 120 6 130 18V202C120 214 80 214 70 202Z"
        fill="var(--steel)"
        stroke="var(--chalk)"
        strokeWidth="1.5"
      />
      {places.map((p, i) => {
        const [x, y] = spot[p]!;
        const to = plan.goes_to[i]!;
        const [u, v] = spot[to]!;
        const left = p.startsWith('left');
        const dx = u - x;
        const dy = v - y;
        const len = Math.hypot(dx, dy) || 1;
        // Side by side, so that two tyres that change places show two ways.
        const off = 9;
        const [nx, ny] = [(-dy / len) * off, (dx / len) * off];
        const cut = 30 / len;
        const a: [number, number] = [x + dx * cut + nx, y + dy * cut + ny];
        const b: [number, number] = [u - dx * cut + nx, v - dy * cut + ny];
        const t = Math.atan2(dy, dx);
        const head = (turn: number): [number, number] => [
          b[0] - 12 * Math.cos(t + turn),
          b[1] - 12 * Math.sin(t + turn),
        ];
        return (
          <g key={p}>
            <rect
              x={x - 13}
              y={y - 26}
              width="26"
              height="52"
              rx="6"
              fill="var(--slate)"
              stroke={`var(--${left ? 'left' : 'right'}S)`}
              strokeWidth="3"
            />
            {to !== p && (
              <path
                d={`M${a[0]} ${a[1]}L${b[0]} ${b[1]}M${head(0.5)[0]} ${head(0.5)[1]}L${b[0]} ${b[1]}L${head(-0.5)[0]} ${head(-0.5)[1]}`}
                fill="none"
                stroke={`var(--${left ? 'left' : 'right'}S)`}
                strokeWidth="3.4"
                strokeDasharray={left ? undefined : '8 4'}
              />
            )}
          </g>
        );
      })}
      {big && (
        <text x="100" y="27" textAnchor="middle" fontSize="13" fontWeight="700" fill="var(--chalk)">
          ▲ nose
        </text>
      )}
    </svg>
  );
}

export function Rotate({ modes, wear }: { modes: React.ReactNode; wear: CarWear }) {
  const { ticket } = useBench();
  const [chosen, setChosen] = useState<string>();
  const w = wearFacts(ticket);
  const list = wear.rotations;
  const best = list.find((r) => !r.hindered);
  const stay = list.find((r) => r.rotation === 'stay');
  const shown = list.find((r) => r.rotation === chosen) ?? best;
  if (!shown || !best || !stay)
    return (
      <main className="main wear-main">
        <section className="pane" style={{ padding: 24 }}>
          <h1 className="wear-head">Rotation needs all four tyres</h1>
          <p style={{ marginTop: 10 }}>
            Read height, camber and toe of the axle that is missing; then each pattern is followed to the
            limit.
          </p>
        </section>
        <section className="pane wear-side">{modes}</section>
      </main>
    );
  const { units } = useSettings();
  const far = Math.max(...list.map((r) => r.last_km));
  return (
    <main className="main wear-main">
      <section
        className="pane"
        data-pane="Wheels"
        style={{ display: 'flex', flexDirection: 'column', minWidth: 0, overflowY: 'auto' }}
      >
        <div style={{ padding: '12px 20px 10px' }}>
          <h1 className="wear-head" data-testid="rotate-statement">
            {best.rotation === 'stay' ? 'Leave them where they are' : best.name}
            <span className="band"> ×{num(best.ratio, 2)}</span>
          </h1>
          <p className="mut" style={{ marginTop: 6 }}>
            Now, then every {farUnit(w.rotate_every_km, units)}: first tyre done at{' '}
            {farUnit(best.first_km, units)}, {placeName(best.first_place)}. Left alone:{' '}
            {farUnit(stay.first_km, units)}, {placeName(stay.first_place)}. A mounted wheel keeps its inner
            side inner.
          </p>
        </div>
        <ul className="rotations" aria-label="Patterns, best first">
          {list.map((r) => (
            <li key={r.rotation}>
              <Bare
                className={`${r === shown ? 'on' : ''}`}
                aria-pressed={r === shown}
                onClick={() => setChosen(r.rotation)}
                data-testid={`rotation-${r.rotation}`}
              >
                <span className="slate">
                  <Ways plan={r} />
                </span>
                <span className="what">
                  <b>{r.name}</b>
                  {r.hindered ? (
                    <span className="word">
                      <Glyph name="clash" size={17} /> {capital(r.hindered)}
                    </span>
                  ) : (
                    <svg viewBox="0 0 500 30" width="100%" height="30" aria-hidden="true">
                      <path d="M0 15H500" stroke="var(--line)" strokeWidth="2" />
                      <rect x="0" y="5" width={(r.first_km / far) * 500} height="20" fill="var(--ink)" />
                      <rect
                        x={(r.first_km / far) * 500}
                        y="8"
                        width={((r.last_km - r.first_km) / far) * 500}
                        height="14"
                        fill="none"
                        stroke="var(--ink)"
                        strokeWidth="2"
                        strokeDasharray="5 3"
                      />
                      <path d={`M${(stay.first_km / far) * 500} 0V30`} stroke="var(--edge)" strokeWidth="3" />
                    </svg>
                  )}
                </span>
                <span className="fig">
                  {told(r.first_km, units)} <small>{unitName('distance', units)}</small>
                  <small className="money">×{num(r.ratio, 2)}</small>
                </span>
              </Bare>
            </li>
          ))}
        </ul>
        <p className="small" style={{ padding: '6px 20px 14px' }}>
          Solid: until the first tyre is at its limit. Dashed: until the last, were each replaced alone.
          Upright line: left where they are.
        </p>
      </section>
      <section className="pane wear-side" data-pane="Pattern" aria-label="Pattern">
        {modes}
        <h3>{shown.name}</h3>
        <div className="slate" style={{ display: 'grid', placeItems: 'center', padding: 10 }}>
          <Ways plan={shown} big />
        </div>
        <ul className="levers">
          {places.map((p, i) => (
            <li key={p}>
              <b>{capital(placeName(p))}</b>
              <span>{shown.goes_to[i] === p ? 'stays' : `to ${placeName(shown.goes_to[i]!)}`}</span>
            </li>
          ))}
        </ul>
        {shown.hindered && (
          <span className="plate wide">
            <Glyph name="clash" size={20} /> {capital(shown.hindered)}
          </span>
        )}
        <div className="watch-note">
          <Glyph name="watch" size={22} />
          <p className="small">
            Early saw-tooth wear asks for a crossed pattern: each tyre sees all four corners and both
            directions. Jack and stands as the maker says; wheel bolts to the maker&rsquo;s torque, and again
            after {measure('distance', 80, units)}.
          </p>
        </div>
      </section>
    </main>
  );
}
