// Where a cam's or sleeve's mark points, and what the adjusters of an axle reach, small: pure drawings.
import type { Schemas, SideName } from '../api/client';
import { halfPath } from '../ui/glyphs';

type Reach = Schemas['Reach'];

/** Mark of a bolt on its clock: where it stands solid, where nobody looked dashed. */
export function MarkDial({
  deg,
  step,
  low,
  high,
  unseen,
  label,
}: {
  deg: number;
  step: number;
  low: number;
  high: number;
  unseen: boolean;
  label: string;
}) {
  const at = (d: number, r: number): [number, number] => [
    44 + r * Math.sin((d * Math.PI) / 180),
    44 - r * Math.cos((d * Math.PI) / 180),
  ];
  const ticks: number[] = [];
  for (let d = Math.ceil(low / step - 1e-9) * step; d <= high + 1e-9 && ticks.length < 60; d += step)
    ticks.push(d);
  const [mx, my] = at(deg, 26);
  return (
    <svg width="88" height="88" viewBox="0 0 88 88" role="img" aria-label={label}>
      {ticks.map((d) => {
        const [a, b] = [at(d, 33), at(d, Math.abs(d) < 1e-9 ? 43 : 39)];
        return (
          <path
            key={d}
            d={`M${a[0]} ${a[1]}L${b[0]} ${b[1]}`}
            stroke="var(--ink)"
            strokeWidth={Math.abs(d) < 1e-9 ? 3 : 1.4}
          />
        );
      })}
      <circle
        cx="44"
        cy="44"
        r="27"
        fill="none"
        stroke="var(--ink)"
        strokeWidth="2"
        strokeDasharray={unseen ? '5 4' : undefined}
      />
      <path d="M44 35L52 39.5V48.5L44 53L36 48.5V39.5Z" fill="none" stroke="var(--ink)" strokeWidth="2" />
      {!unseen && <path d={`M44 44L${mx} ${my}`} stroke="var(--ink)" strokeWidth="5" strokeLinecap="round" />}
    </svg>
  );
}

const box = (list: Reach[]) => {
  const all = list.flatMap((r) => r.outline);
  const xs = all.map((p) => p[0]!);
  const ys = all.map((p) => p[1]!);
  const mid = (v: number[]) => (Math.min(...v) + Math.max(...v)) / 2;
  const half = Math.max(
    0.25,
    (Math.max(...xs) - Math.min(...xs)) / 2,
    (Math.max(...ys) - Math.min(...ys)) / 2,
  );
  return { x: mid(xs), y: mid(ys), half };
};

/** One reach woven as the big map weaves it: an area, one thread, or a dot where nothing turns. `all` share one scale. */
export function ReachThumb({
  reach,
  all,
  side,
  label,
}: {
  reach: Reach | null;
  all: Reach[];
  side: SideName;
  label: string;
}) {
  const w = 104;
  const h = 84;
  if (!reach || all.length === 0)
    return (
      <svg width={w} height={h} role="img" aria-label={label}>
        <path d={halfPath(side, w / 2, h / 2, 7)} fill={`var(--${side})`} />
      </svg>
    );
  const b = box(all);
  const k = 36 / b.half;
  const P = (p: readonly number[]) =>
    `${(w / 2 + (p[0]! - b.x) * k).toFixed(1)} ${(h / 2 - (p[1]! - b.y) * k).toFixed(1)}`;
  const line = (pts: readonly (readonly number[])[], close: boolean) =>
    `M${pts.map(P).join('L')}${close ? 'Z' : ''}`;
  const area = reach.shape === 'area';
  return (
    <svg width={w} height={h} role="img" aria-label={label}>
      <path
        d={line(reach.outline, area)}
        fill={area ? `var(--shade${side === 'right' ? 'R' : ''})` : 'none'}
        stroke={`var(--${side})`}
        strokeWidth={area ? 1.6 : 2.4}
      />
      {reach.threads.map((t, i) => (
        <path
          key={i}
          d={line(t, false)}
          fill="none"
          stroke={`var(--${side})`}
          strokeWidth="0.7"
          opacity="0.7"
        />
      ))}
      {!area &&
        reach.dots.map((d, i) => {
          const [x, y] = P(d).split(' ');
          return <circle key={i} cx={x} cy={y} r="2.4" fill={`var(--${side})`} />;
        })}
    </svg>
  );
}
