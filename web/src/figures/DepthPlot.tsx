// A tyre's depth over distance at three grooves: read, expected by the model alone, and after learning.
import type { Schemas, SideName } from '../api/client';
import { bare, far as told, inUnits, kept, unitName, type Units } from '../units/measure';
import { num } from '../units/print';
import { path, scale, ticks as round } from './plot';

type Learned = Schemas['LearnedTyre'];

interface Props {
  side: SideName;
  learned: Learned;
  depthNow: number[];
  rate: number[];
  limit: number;
  fresh: number;
  units: Units;
}

const W = 838;
const H = 296;
const names = ['inner', 'centre', 'outer'] as const;
const dash = ['', '9 5', '2 4'];
/** Strips nearest the grooves that are read. */
const strips = [3, 10, 17];

export function DepthPlot({ side, learned, depthNow, rate, limit, fresh, units }: Props) {
  // The model's own band may be far longer than what was learned: it is let run off the edge, with its end said.
  const far = Math.max(
    Math.min(learned.before.high, 1.5 * learned.after.high),
    learned.after.high,
    learned.km + 2000,
    12000,
  );
  const top = Math.max(fresh, ...learned.points.flatMap((p) => p.read_mm), 6) + 0.6;
  const X = scale([0, far], [60, W - 68]).clamp(true);
  const Y = scale([0, top], [H - 48, 24]);
  const ticks = round(0, inUnits('distance', far, units), 6);
  const deep = round(0, inUnits('tread', top, units), 6);
  const line = (pts: [number, number][]) => path(pts.map(([k, d]) => [X(k), Y(d)]));
  const colour = `var(--${side}S)`;
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      width="100%"
      className="depth-svg"
      role="img"
      aria-label={`Depth over distance of tyre ${learned.mark}: ${learned.points
        .map(
          (p) =>
            `at ${told(p.km, units)} ${unitName('distance', units)} ${p.read_mm.map((d) => bare('tread', d, units)).join(', ')} ${unitName('tread', units)} read`,
        )
        .join('; ')}`}
    >
      {deep.map((d) => (
        <g key={d}>
          <path d={`M60 ${Y(kept('tread', d, units))}H${W - 60}`} stroke="var(--slateline)" />
          <text
            x="50"
            y={Y(kept('tread', d, units)) + 6}
            textAnchor="end"
            fontSize="18"
            fontWeight="600"
            fill="var(--chalk2)"
          >
            {num(d)}
          </text>
        </g>
      ))}
      <text x="4" y="20" fontSize="18" fontWeight="650" fill="var(--chalk2)">
        {unitName('tread', units).replace(/^\//, '1/')}
      </text>
      {ticks.map((k) => (
        <text
          key={k}
          x={X(kept('distance', k, units))}
          y={H - 22}
          textAnchor="middle"
          fontSize="18"
          fontWeight="600"
          fill="var(--chalk2)"
        >
          {k ? num(k).replace(/\B(?=(\d{3})+$)/g, '\u00a0') : '0'}
        </text>
      ))}
      <text x={W - 60} y={H - 4} textAnchor="end" fontSize="18" fontWeight="650" fill="var(--chalk2)">
        {unitName('distance', units)} on this tyre
      </text>
      {(
        [
          ['before', learned.before, 0],
          ['after', learned.after, 1],
        ] as const
      ).map(([word, b, i]) => (
        <g
          key={word}
          stroke={i ? colour : 'var(--ghost)'}
          strokeWidth="2"
          strokeDasharray={i ? undefined : '5 3'}
        >
          <path
            d={
              b.high <= far
                ? `M${X(b.low)} ${Y(limit) + 13 + i * 15}L${X(b.median)} ${Y(limit) + 6 + i * 15}L${X(b.high)} ${Y(limit) + 13 + i * 15}L${X(b.median)} ${Y(limit) + 20 + i * 15}Z`
                : `M${X(far)} ${Y(limit) + 6 + i * 15}H${X(b.median)}L${X(b.low)} ${Y(limit) + 13 + i * 15}L${X(b.median)} ${Y(limit) + 20 + i * 15}H${X(far)}`
            }
            fill={i ? colour : 'none'}
            fillOpacity=".4"
          />
          {b.high > far && (
            <text
              x={W - 56}
              y={Y(limit) + 19 + i * 15}
              fontSize="17"
              fontWeight="700"
              stroke="none"
              fill={i ? colour : 'var(--chalk2)'}
            >
              to {told(b.high, units)}
            </text>
          )}
          <text
            x={X(b.low) - 8}
            y={Y(limit) + 19 + i * 15}
            textAnchor="end"
            fontSize="17"
            fontWeight="700"
            stroke="none"
            fill={i ? colour : 'var(--chalk2)'}
          >
            {i ? 'after depths' : 'model alone'}
          </text>
        </g>
      ))}
      <path d={`M60 ${Y(limit)}H${W - 60}`} stroke="var(--do)" strokeWidth="2.8" />
      <text x={W - 56} y={Y(limit) - 5} fontSize="18" fontWeight="750" fill="var(--do)">
        limit
      </text>
      {names.map((n, g) => {
        const pts: [number, number][] = [
          [0, fresh],
          ...learned.points.map((p): [number, number] => [p.km, p.after_mm[g]!]),
        ];
        const from: [number, number] = [learned.km, depthNow[strips[g]!]!];
        const end = learned.km + (Math.max(0, from[1] - limit) * 1000) / Math.max(1e-6, rate[strips[g]!]!);
        const to: [number, number] = [
          Math.min(end, far),
          end > far ? from[1] - (rate[strips[g]!]! * (far - learned.km)) / 1000 : limit,
        ];
        const before: [number, number][] = [
          [0, fresh],
          ...learned.points.map((p): [number, number] => [p.km, p.before_mm[g]!]),
        ];
        return (
          <g key={n} fill="none">
            <path d={line(before)} stroke="var(--ghost)" strokeWidth="1.4" strokeDasharray="4 3" />
            <path d={line([...pts, from])} stroke={colour} strokeWidth="2.4" strokeDasharray={dash[g]} />
            <path
              d={line([from, to])}
              stroke={colour}
              strokeWidth="1.6"
              strokeDasharray={dash[g]}
              opacity=".7"
            />
            {learned.points.map((p) => (
              <g key={p.km}>
                <path
                  d={`M${X(p.km)} ${Y(p.read_mm[g]!)}V${Y(p.after_mm[g]!)}`}
                  stroke="var(--chalk)"
                  strokeWidth="1.4"
                />
                <circle cx={X(p.km)} cy={Y(p.read_mm[g]!)} r="5" fill="var(--chalk)" />
              </g>
            ))}
          </g>
        );
      })}
      <g fontSize="18" fontWeight="700">
        {names.map((n, g) => (
          <g key={n} transform={`translate(${W - 330 + g * 100} 14)`}>
            <path d="M0 0H26" stroke={colour} strokeWidth="2.4" strokeDasharray={dash[g]} />
            <text x="32" y="6" fill="var(--chalk)">
              {n}
            </text>
          </g>
        ))}
      </g>
    </svg>
  );
}
