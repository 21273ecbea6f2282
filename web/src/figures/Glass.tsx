// A glass over a map: what a finger hides, beside it and nearer.
import type { Point } from './place';

interface Props {
  at: Point;
  says: string;
  within: boolean;
  /** Of the whole drawing. */
  width: number;
  /** What it looks at, by its id. */
  of: string;
}

export function Glass({ at, says, within, width, of }: Props) {
  const r = 62;
  const times = 2.4;
  const x = Math.max(r + 4, Math.min(width - r - 4, at[0]));
  // Over the finger; beside it where there is no room over it.
  const over = at[1] - 2 * r - 34 > 0;
  const [cx, cy]: Point = over
    ? [x, at[1] - r - 40]
    : [at[0] > width / 2 ? at[0] - r - 56 : at[0] + r + 56, r + 4];
  return (
    <g data-testid="map-glass" pointerEvents="none">
      <clipPath id="glass-clip">
        <circle cx={cx} cy={cy} r={r} />
      </clipPath>
      <circle cx={cx} cy={cy} r={r} fill="var(--sheet)" />
      <g clipPath="url(#glass-clip)">
        <use
          href={`#${of}`}
          transform={`translate(${cx - at[0] * times} ${cy - at[1] * times}) scale(${times})`}
        />
        <path
          d={`M${cx - 16} ${cy}h32M${cx} ${cy - 16}v32`}
          stroke="var(--ink)"
          strokeWidth="2.5"
          strokeDasharray={within ? undefined : '3 3'}
        />
        <rect x={cx - r} y={cy + 22} width={2 * r} height={r} fill="var(--sheet)" />
        <text x={cx} y={cy + 44} textAnchor="middle" fontSize="19" fontWeight="750" fill="var(--ink)">
          {says}
        </text>
        {!within && (
          <text x={cx} y={cy + 58} textAnchor="middle" fontSize="13" fontWeight="650" fill="var(--ink)">
            out of reach
          </text>
        )}
      </g>
      <circle cx={cx} cy={cy} r={r} fill="none" stroke="var(--ink)" strokeWidth="3" />
    </g>
  );
}
