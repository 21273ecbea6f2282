// The second map: camber of both wheels' roles at full lock, from the same settings as the reach.
import { every } from './plot';
import type { Aim, PlanResult, SideName } from '../api/client';
import { halfPath } from '../ui/glyphs';
import { angle, signed, type AngleForm } from '../units/print';
import type { Point } from './place';

const path = (p: Point[]) => p.map(([x, y], i) => `${i ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`).join('');

export function LockMap({
  result,
  aim,
  focus,
  form,
  width = 530,
  height = 392,
}: {
  result: PlanResult;
  aim: Aim;
  focus: SideName | 'both';
  form: AngleForm;
  width?: number;
  height?: number;
}) {
  const m = { l: 56, r: 14, t: 12, b: 46 };
  const sides = (['right', 'left'] as const).filter((s) => focus === 'both' || focus === s);
  const of = (s: SideName) => result[s].lock;
  const all: Point[] = sides.flatMap((s) => {
    const l = of(s);
    if (!l) return [];
    return [
      ...(l.outline as Point[]),
      ...[l.before, l.after, l.set].map((x): Point => [x.outer_deg, x.inner_deg]),
    ];
  });
  if (aim.lock)
    all.push(
      [aim.lock.outer_deg[0]!, aim.lock.inner_deg[0]!],
      [aim.lock.outer_deg[1]!, aim.lock.inner_deg[1]!],
    );
  const span = (i: 0 | 1): [number, number] => [
    Math.floor(Math.min(...all.map((p) => p[i]), 0) - 0.4),
    Math.ceil(Math.max(...all.map((p) => p[i]), 0) + 0.4),
  ];
  const [[x0, x1], [y0, y1]] = [span(0), span(1)];
  const X = (v: number) => m.l + ((v - x0) / (x1 - x0)) * (width - m.l - m.r);
  const Y = (v: number) => m.t + ((y1 - v) / (y1 - y0)) * (height - m.t - m.b);
  const P = ([a, b]: Point): Point => [X(a), Y(b)];
  const ticks = (a: number, b: number) => every(a, b, Math.max(1, Math.ceil((b - a) / 7)));
  const turn = of('left')?.turn;
  const lead = focus === 'right' ? 'right' : 'left';
  const l = of(lead);
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width="100%"
      height="100%"
      preserveAspectRatio="xMidYMid meet"
      role="img"
      data-testid="lock-map"
      aria-label={
        l
          ? `Camber at full lock, set: outside wheel ${angle(l.set.outer_deg, form)}, inside wheel ${angle(l.set.inner_deg, form)}`
          : 'No steering axis'
      }
    >
      {ticks(x0, x1).map((v) => (
        <g key={`x${v}`}>
          <path
            d={`M${X(v)} ${m.t}V${height - m.b}`}
            stroke={v === 0 ? 'var(--edge)' : 'var(--line)'}
            strokeWidth={v === 0 ? 1.6 : 1}
          />
          <text
            x={X(v)}
            y={height - m.b + 19}
            textAnchor="middle"
            fontSize="17"
            fontWeight="600"
            fill="var(--ink2)"
          >
            {signed(v)}°
          </text>
        </g>
      ))}
      {ticks(y0, y1).map((v) => (
        <g key={`y${v}`}>
          <path d={`M${m.l} ${Y(v)}H${width - m.r}`} stroke={v === 0 ? 'var(--edge)' : 'var(--line)'} />
          <text x={m.l - 8} y={Y(v) + 6} textAnchor="end" fontSize="17" fontWeight="600" fill="var(--ink2)">
            {signed(v)}°
          </text>
        </g>
      ))}
      <g fontSize="17" fontWeight="750" fill="var(--ink)">
        <text x={(m.l + width - m.r) / 2} y={height - 4} textAnchor="middle">
          camber, outside wheel{turn ? ` at ${turn.outer_deg.toFixed(0)}° of turn` : ''}
        </text>
        <text transform={`translate(15 ${(m.t + height - m.b) / 2}) rotate(-90)`} textAnchor="middle">
          inside wheel{turn ? ` at ${turn.inner_deg.toFixed(0)}°` : ''}
        </text>
      </g>
      {aim.lock && (
        <g>
          <rect
            x={X(aim.lock.outer_deg[0]!)}
            y={Y(aim.lock.inner_deg[1]!)}
            width={X(aim.lock.outer_deg[1]!) - X(aim.lock.outer_deg[0]!)}
            height={Y(aim.lock.inner_deg[0]!) - Y(aim.lock.inner_deg[1]!)}
            fill="none"
            stroke="var(--aim)"
            strokeWidth="2.6"
          />
          <text
            x={X(aim.lock.outer_deg[0]!) + 6}
            y={Y(aim.lock.inner_deg[1]!) + 20}
            fontSize="18"
            fontWeight="750"
            fill="var(--aim)"
          >
            Aim at lock
          </text>
        </g>
      )}
      {sides.map((s) => {
        const k = of(s);
        if (!k) return null;
        const at = (v: { outer_deg: number; inner_deg: number }): Point => P([v.outer_deg, v.inner_deg]);
        const [b, a, c] = [at(k.before), at(k.after), at(k.set)];
        const ring = (k.outline as Point[]).map(P);
        return (
          <g key={s} color={`var(--${s})`}>
            <path
              d={`${path(ring)}${ring.length > 2 ? 'Z' : ''}`}
              fill={s === 'left' ? 'var(--shade)' : 'var(--shadeR)'}
              stroke="currentColor"
              strokeWidth="2"
            />
            <path
              d={`M${b[0]} ${b[1]}L${a[0]} ${a[1]}L${c[0]} ${c[1]}`}
              fill="none"
              stroke="currentColor"
              strokeWidth="2"
              strokeDasharray="1 5"
              strokeLinecap="round"
            />
            <path d={halfPath(s, b[0], b[1], 9)} fill="var(--sheet)" stroke="currentColor" strokeWidth="2" />
            <path d={halfPath(s, a[0], a[1], 10)} fill="currentColor" />
            <circle cx={c[0]} cy={c[1]} r="6" fill="var(--sheet)" stroke="currentColor" strokeWidth="3" />
          </g>
        );
      })}
      {l && (
        <g
          fontSize="19"
          fontWeight="700"
          fill="var(--ink)"
          paintOrder="stroke"
          stroke="var(--sheet)"
          strokeWidth="4"
          strokeLinejoin="round"
        >
          <text x={width - m.r - 8} y={m.t + 24} textAnchor="end">
            {lead} set: outside {angle(l.set.outer_deg, form)}, inside {angle(l.set.inner_deg, form)}
          </text>
          <text x={width - m.r - 8} y={m.t + 46} textAnchor="end" fontSize="17" fontWeight="600">
            found: {angle(l.before.outer_deg, form)}, {angle(l.before.inner_deg, form)}
          </text>
        </g>
      )}
    </svg>
  );
}
