// An axle to scale with its orders numbered where they sit: a front seen from ahead, a rear from behind.
import type { AxleName, Drawing, SideName } from '../api/client';
import { Ground } from '../ui/Car';
import { leaders } from './place';
import { bar, girth, polygon, project, tyre, type V2 } from './solids';

export interface OrderSpot {
  n: number;
  side: SideName;
  /** Where it sits, in its side's own coordinates, mm. */
  at: readonly number[];
  state: 'done' | 'now' | 'waits';
  /** Whether it is a link that grows or shrinks. */
  link: boolean;
}

interface Props {
  axle: AxleName;
  drawings: Record<SideName, Drawing>;
  spots: OrderSpot[];
  tyreWidth?: number;
  width?: number;
  height?: number;
}

const sides: SideName[] = ['left', 'right'];
const middle = (b: { from: number[]; to: number[] }) => [0, 1, 2].map((i) => (b.from[i]! + b.to[i]!) / 2);
const far = (a: readonly number[], b: readonly number[]) => Math.hypot(...a.map((v, i) => v - (b[i] ?? 0)));

export function AxleOrders({ axle, drawings, spots, tyreWidth = 220, width = 500, height = 212 }: Props) {
  // Seen from ahead the car's left is on the right; from behind it is on the left.
  const hand = (s: SideName) => (s === 'left' ? 1 : -1) * (axle === 'front' ? 1 : -1);
  const half = Math.max(...sides.map((s) => Math.abs(drawings[s].contact[1] ?? 0))) + tyreWidth * 0.75;
  const top = Math.max(...sides.map((s) => 2 * drawings[s].loaded_radius_mm));
  const ground = height - 26;
  const k = Math.min((width - 16) / (2 * half), (ground - 46) / top);
  const at =
    (s: SideName) =>
    ([y, z]: V2): V2 => [width / 2 + hand(s) * y * k, ground - z * k];
  const P = (s: SideName, p: readonly number[]) => at(s)(project.front(p));
  // The link that a thread lengthens is the one whose middle is nearest to it.
  const now = spots.find((x) => x.state === 'now' && x.link);
  const links = now ? drawings[now.side].bars.filter((b) => b.kind !== 'knuckle' && b.kind !== 'beam') : [];
  const nearest = now && links.sort((a, b) => far(middle(a), now.at) - far(middle(b), now.at))[0];
  const placed = leaders(
    spots.map((s) => ({ ...s, p: P(s.side, s.at) })),
    width,
  );
  const word = axle === 'front' ? 'from the front' : 'from behind';
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width="100%"
      height="100%"
      role="img"
      aria-label={`${axle} axle ${word}, orders numbered where they sit`}
      style={{ fontFamily: 'var(--figure)', display: 'block' }}
    >
      <Ground x0={8} x1={width - 8} y={ground} />
      {sides.map((s) => {
        const d = drawings[s];
        return (
          <g key={s} fill="none" stroke="var(--chalk)" strokeWidth="1.4" strokeLinejoin="round">
            <path d={polygon(tyre(d, tyreWidth, 'front'), at(s))} fill="var(--slate)" fillOpacity="0.55" />
            {d.bars.map((b, i) => {
              if (b.name.includes('sideways')) return null;
              const [p, q] = [P(s, b.from), P(s, b.to)];
              const [w0, w1] = girth[b.kind];
              const hot = s === now?.side && b === nearest;
              return (
                <g key={i}>
                  <path
                    d={bar(p, q, hot ? Math.max(w0, 4) : w0, hot ? Math.max(w1, 4) : w1)}
                    fill={hot ? 'var(--do)' : 'var(--steel)'}
                    stroke={hot ? 'var(--doink)' : 'var(--chalk)'}
                    strokeWidth="1.2"
                  />
                  {b.kind !== 'knuckle' && b.kind !== 'beam' && (
                    <>
                      {b.on_body && <circle cx={p[0]} cy={p[1]} r="4.4" fill="var(--slate2)" />}
                      <circle cx={q[0]} cy={q[1]} r="3.4" fill="var(--chalk)" stroke="none" />
                    </>
                  )}
                </g>
              );
            })}
          </g>
        );
      })}
      <g fontSize="17" fontWeight="700" textAnchor="middle">
        {placed.map((s) => {
          const now = s.state === 'now';
          return (
            <g key={s.n} data-testid={`spot-${s.n}`}>
              <path
                d={`M${s.p[0]} ${s.p[1]}L${s.x} 34`}
                stroke={now ? 'var(--do)' : 'var(--chalk2)'}
                strokeWidth={now ? 2.2 : 1.1}
              />
              <circle
                cx={s.p[0]}
                cy={s.p[1]}
                r={now ? 8 : 4}
                fill={now ? 'none' : 'var(--chalk2)'}
                stroke={now ? 'var(--do)' : 'none'}
                strokeWidth="2.6"
              />
              <rect
                x={s.x - 13}
                y="8"
                width="26"
                height="26"
                rx="4"
                fill={now ? 'var(--do)' : 'var(--slate2)'}
                stroke={now ? 'var(--do)' : 'var(--chalk2)'}
                strokeDasharray={s.state === 'waits' ? '3 3' : undefined}
              />
              {s.state === 'done' ? (
                <path
                  d={`M${s.x - 6} 21l4.5 4.5 8-9`}
                  fill="none"
                  stroke="var(--chalk)"
                  strokeWidth="2.8"
                  strokeLinecap="round"
                />
              ) : (
                <text x={s.x} y="27" fill={now ? 'var(--doink)' : 'var(--chalk)'}>
                  {s.n}
                </text>
              )}
            </g>
          );
        })}
      </g>
      <g fontSize="16" fontWeight="650">
        <text x="10" y="20" fill="var(--chalk2)">
          {word}
        </text>
        {sides.map((s) => (
          <text
            key={s}
            x={P(s, drawings[s].contact)[0]}
            y={height - 6}
            textAnchor="middle"
            fill={`var(--${s}S)`}
          >
            {s}
          </text>
        ))}
      </g>
    </svg>
  );
}
