// The vehicle's outline in chalk; heights change the body over its wheels.
import { outlines } from './outlines';

interface CarProps {
  kind: string;
  x?: number;
  ground: number;
  scale: number;
  front?: number;
  rear?: number;
  stroke?: string;
  width?: number;
  ghost?: boolean;
}

export function Car({
  kind,
  x = 0,
  ground,
  scale,
  front = 0,
  rear = 0,
  stroke = 'var(--chalk)',
  width = 1.5,
  ghost,
}: CarProps) {
  const c = outlines[kind] ?? outlines.pickup;
  if (!c) return null;
  const tilt = (-Math.atan2(front - rear, c.wb) * 180) / Math.PI;
  const w = width / scale;
  return (
    <g
      transform={`translate(${x} ${ground}) scale(${scale} ${-scale})`}
      fill="none"
      stroke={stroke}
      strokeWidth={w}
      strokeLinejoin="round"
      strokeLinecap="round"
    >
      {!ghost &&
        [c.fx, c.fx + c.wb].map((wx) => (
          <g key={wx}>
            <circle cx={wx} cy={c.r} r={c.r} />
            <circle cx={wx} cy={c.r} r={c.r * 0.58} strokeWidth={w * 0.8} />
            <circle cx={wx} cy={c.r} r={c.r * 0.12} strokeWidth={w * 0.8} />
          </g>
        ))}
      <g transform={`translate(0 ${rear}) rotate(${tilt} ${c.fx + c.wb} 0)`}>
        <path d={c.body} strokeDasharray={ghost ? `${3 / scale} ${3 / scale}` : undefined} />
        {!ghost && c.extra.map((d) => <path key={d} d={d} strokeWidth={w * 0.7} opacity=".75" />)}
      </g>
    </g>
  );
}

/** Ground line with hatch below. */
export function Ground({ x0, x1, y }: { x0: number; x1: number; y: number }) {
  let hatch = '';
  for (let x = x0 + 4; x < x1; x += 8) hatch += `M${x} ${y + 2}l-4 5`;
  return (
    <>
      <path d={`M${x0} ${y}H${x1}`} stroke="var(--chalk2)" strokeWidth="1.4" />
      <path d={hatch} stroke="var(--ghost)" strokeWidth="1" />
    </>
  );
}
