// The corner as it is held, to be turned in space: dragged, or with the arrows.
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { Drawing } from '../../api/client';
import { dashes, tones } from '../../figures/Overlay';
import { bar, girth, polygon, turned, tyre, type V2 } from '../../figures/solids';

const W = 620;
const H = 480;
const WIDE = 245;

interface Props {
  items: { key: string; name: string; drawing: Drawing }[];
  stale: boolean;
}

const hold = (v: number, low: number, high: number) => Math.max(low, Math.min(high, v));

export function JigView({ items, stale }: Props) {
  const [at, setAt] = useState({ yaw: 28, tip: 14 });
  const from = useRef<{ x: number; y: number; yaw: number; tip: number }>(undefined);
  const look = turned(at.yaw, at.tip);
  // One scale and one middle, whatever is turned: nothing jumps under the hand.
  const c = items[0]?.drawing;
  const k = 0.54;
  const P = (p: V2): V2 => [W / 2 + (p[0] - middle[0]) * k, H / 2 - (p[1] - middle[1]) * k];
  const middle = look(c ? [0, (c.centre[1] ?? 0) - 190, 330] : [0, 600, 330]);
  const spot = (p: readonly number[]) => P(look(p));
  const path = (p: readonly number[], q: readonly number[]) => `M${spot(p).join(' ')}L${spot(q).join(' ')}`;
  const down = (e: PointerEvent<SVGSVGElement>) => {
    from.current = { x: e.clientX, y: e.clientY, ...at };
    e.currentTarget.setPointerCapture?.(e.pointerId);
  };
  const move = (e: PointerEvent) => {
    const f = from.current;
    if (!f) return;
    setAt({
      yaw: hold(f.yaw + (e.clientX - f.x) * 0.4, -80, 170),
      tip: hold(f.tip + (e.clientY - f.y) * 0.3, -5, 85),
    });
  };
  const keys = (e: KeyboardEvent) => {
    const by: Record<string, [number, number]> = {
      ArrowLeft: [-6, 0],
      ArrowRight: [6, 0],
      ArrowUp: [0, 6],
      ArrowDown: [0, -6],
    };
    const step = by[e.key];
    if (!step) return;
    e.preventDefault();
    setAt((a) => ({ yaw: hold(a.yaw + step[0], -80, 170), tip: hold(a.tip + step[1], -5, 85) }));
  };
  const grid = [-400, -200, 0, 200, 400];
  const far = (c?.centre[1] ?? 800) + 260;
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      className="jig-view"
      role="application"
      aria-roledescription="view to be turned"
      aria-label={`${items.map((i) => `${i.key} ${i.name}`).join(', ')}; seen from ${Math.round(at.yaw)} degrees round, ${Math.round(at.tip)} up. Arrows turn it.`}
      tabIndex={0}
      data-testid="jig-view"
      onKeyDown={keys}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={() => (from.current = undefined)}
      onPointerCancel={() => (from.current = undefined)}
    >
      <g stroke="var(--slateline)" strokeWidth="1">
        {grid.map((x) => (
          <path key={`x${x}`} d={path([x, far - 800, 0], [x, far, 0])} />
        ))}
        {[0, 200, 400, 600, 800].map((y) => (
          <path key={`y${y}`} d={path([-400, far - y, 0], [400, far - y, 0])} />
        ))}
      </g>
      <g opacity={stale ? 0.5 : 1}>
        {items.map((it, n) => {
          const d = it.drawing;
          const tone = tones[n % 4];
          return (
            <g key={it.key}>
              <path
                d={polygon(tyre(d, WIDE, look), P)}
                fill={n === 0 ? 'var(--shade-slate, rgb(255 255 255 / .05))' : 'none'}
                stroke={tone}
                strokeWidth="2"
                strokeDasharray={dashes[n % 4]}
              />
              {d.bars.map((b, i) => {
                const [w0, w1] = girth[b.kind];
                return n === 0 ? (
                  <path key={i} d={bar(spot(b.from), spot(b.to), w0, w1)} fill={tone} opacity=".85" />
                ) : (
                  <path
                    key={i}
                    d={path(b.from, b.to)}
                    stroke={tone}
                    strokeWidth="2.4"
                    strokeDasharray={dashes[n % 4]}
                  />
                );
              })}
              {d.axis && d.pierce && (
                <path
                  d={path(d.pierce, d.axis[1]!)}
                  stroke="var(--do)"
                  strokeWidth={n === 0 ? 3 : 2}
                  strokeDasharray={n === 0 ? '9 5' : '2 4'}
                />
              )}
              {d.pierce && <circle cx={spot(d.pierce)[0]} cy={spot(d.pierce)[1]} r="5" fill="var(--do)" />}
              <circle
                cx={spot(d.contact)[0]}
                cy={spot(d.contact)[1]}
                r="5"
                fill="none"
                stroke={tone}
                strokeWidth="2.4"
              />
            </g>
          );
        })}
      </g>
      <g fontSize="22" fontWeight="650" fill="var(--chalk2)">
        <text x={spot([400, far - 520, 0])[0]} y={spot([400, far - 520, 0])[1]} textAnchor="middle">
          nose
        </text>
      </g>
    </svg>
  );
}
