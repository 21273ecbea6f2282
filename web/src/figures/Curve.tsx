// A curve of the corner file: one or two lines over height or steering, with where the car stands.
import type { ReactNode } from 'react';
import type { Units } from '../units/measure';
import { angle, MM_PER_INCH, num, signed, tick } from '../units/print';
import { path, scale, stepOf, ticks } from './plot';

export interface Line {
  points: [number, number][];
  color: string;
  dash?: string;
  name?: string;
}

interface Props {
  title: string;
  /** What the values are kept in. */
  unit: 'mm' | '°';
  units: Units;
  digits: number;
  lines: Line[];
  /** The same as the plan sets it: dotted, and where the diamond stands. */
  set?: Line[] | undefined;
  xLabel: string;
  /** Over a height, mm, rather than a turn. */
  overHeight?: boolean;
  /** Heights (or turns) to mark: square as it came in, diamond as planned. */
  came?: number | undefined;
  planned?: number | undefined;
  usual?: [number, number] | undefined;
  signedX?: boolean;
  children?: ReactNode;
}

const W = 470;
const H = 236;
const M = { l: 52, r: 14, t: 42, b: 40 };

/** Linear between points. */
export function along(points: [number, number][], x: number): number | undefined {
  const i = points.findIndex((p) => p[0] >= x);
  const b = points[i];
  if (i < 0 || !b) return undefined;
  const a = points[i - 1];
  if (!a) return Math.abs(b[0] - x) < 1e-6 ? b[1] : undefined;
  return a[1] + ((x - a[0]) / (b[0] - a[0])) * (b[1] - a[1]);
}

/** Points in the shop's units. */
const by = (lines: Line[], fx: number, fy: number): Line[] =>
  lines.map((l) => ({ ...l, points: l.points.map(([x, y]): [number, number] => [x * fx, y * fy]) }));

export function Curve(props: Props) {
  const { title, unit, units, xLabel, signedX = true, overHeight } = props;
  const inches = units.length === 'in';
  const fx = overHeight && inches ? 1 / MM_PER_INCH : 1;
  const fy = unit === 'mm' && inches ? 1 / MM_PER_INCH : 1;
  const digits = fy === 1 ? props.digits : 2;
  const lines = by(props.lines, fx, fy);
  const set = by(props.set ?? [], fx, fy);
  const [came, planned] = [props.came, props.planned].map((v) => (v === undefined ? v : v * fx));
  const usual = props.usual?.map((v) => v * fy);
  const all = [...lines, ...set].flatMap((l) => l.points);
  if (all.length < 2) return null;
  const [x0, x1] = [Math.min(...all.map((p) => p[0])), Math.max(...all.map((p) => p[0]))];
  let [lo, hi] = [Math.min(...all.map((p) => p[1])), Math.max(...all.map((p) => p[1]))];
  const least = unit === '°' ? 0.4 : 8 * fy;
  if (hi - lo < least) [lo, hi] = [(lo + hi - least) / 2, (lo + hi + least) / 2];
  const pad = (hi - lo) * 0.1;
  [lo, hi] = [lo - pad, hi + pad];
  const X = scale([x0, x1], [M.l, W - M.r]);
  const Y = scale([lo, hi], [H - M.b, M.t]);
  const through = (points: [number, number][]) => path(points.map(([x, y]) => [X(x), Y(y)]));
  const first = lines[0];
  const then = set[0] ?? first;
  const mark = (x: number | undefined, kind: 'came' | 'planned') => {
    const on = kind === 'came' ? first : then;
    const y = x === undefined || !on ? undefined : along(on.points, x);
    if (x === undefined || y === undefined) return null;
    const [cx, cy] = [X(x), Y(y)];
    return kind === 'came' ? (
      <path d={`M${cx - 6} ${cy - 6}h12v12h-12Z`} fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2.2" />
    ) : (
      <path
        d={`M${cx} ${cy - 9}L${cx + 9} ${cy}L${cx} ${cy + 9}L${cx - 9} ${cy}Z`}
        fill="var(--ink)"
        stroke="var(--sheet)"
        strokeWidth="1.5"
      />
    );
  };
  const says = (x: number | undefined, on: Line | undefined) => {
    const y = x === undefined || !on ? undefined : along(on.points, x);
    return y === undefined
      ? undefined
      : unit === '°'
        ? angle(y, units.angle, digits)
        : `${num(y, digits)} ${units.length}`;
  };
  const [a, b] = [says(came, first), says(planned, then)];
  const step = stepOf(lo, hi, 5);
  const xStep = stepOf(x0, x1, 6);
  const decimals = step < 0.1 ? 2 : step < 1 ? 1 : 0;
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      width="100%"
      role="img"
      aria-label={`${title}: as it came ${a ?? 'not known'}${b ? `, planned ${b}` : ''}`}
    >
      {usual && (
        <rect
          x={M.l}
          width={W - M.l - M.r}
          y={Math.max(M.t, Y(usual[1]!))}
          height={Math.max(0, Math.min(H - M.b, Y(usual[0]!)) - Math.max(M.t, Y(usual[1]!)))}
          fill="var(--well)"
        />
      )}
      {ticks(lo, hi, 5).map((v) => (
        <g key={v}>
          <path d={`M${M.l} ${Y(v)}H${W - M.r}`} stroke="var(--line)" />
          <text x={M.l - 7} y={Y(v) + 5} textAnchor="end" fontSize="16" fontWeight="600" fill="var(--ink2)">
            {unit === '°' && units.angle === 'minutes' ? tick(v, units.angle, decimals) : num(v, decimals)}
          </text>
        </g>
      ))}
      {ticks(x0, x1, 6).map((v) => (
        <g key={v}>
          <path d={`M${X(v)} ${H - M.b}v5`} stroke="var(--edge)" />
          <text
            x={X(v)}
            y={H - M.b + 20}
            textAnchor="middle"
            fontSize="16"
            fontWeight="600"
            fill="var(--ink2)"
          >
            {signedX ? signed(v, xStep < 1 ? 1 : 0) : num(v)}
          </text>
        </g>
      ))}
      <path d={`M${M.l} ${H - M.b}H${W - M.r}`} stroke="var(--edge)" />
      {set.map((l, i) => (
        <path
          key={`set${i}`}
          data-testid="curve-set"
          d={through(l.points)}
          fill="none"
          stroke={l.color}
          strokeWidth="2.2"
          strokeDasharray="1.5 5"
          strokeLinecap="round"
        />
      ))}
      {lines.map((l, i) => (
        <path
          key={i}
          d={through(l.points)}
          fill="none"
          stroke={l.color}
          strokeWidth={i ? 1.9 : 2.5}
          strokeDasharray={l.dash}
        />
      ))}
      {lines
        .filter((l) => l.name)
        .map((l, i) => {
          const end = l.points.at(-1)!;
          const near = lines.some(
            (m, j) => j < i && Math.abs(Y((m.points.at(-1) ?? end)[1]) - Y(end[1])) < 16,
          );
          return (
            <text
              key={l.name}
              x={W - M.r - 2}
              y={Y(end[1]) + (near ? 18 : -7)}
              textAnchor="end"
              fontSize="16"
              fontWeight="700"
              fill={l.color}
            >
              {l.name}
            </text>
          );
        })}
      {mark(came, 'came')}
      {mark(planned, 'planned')}
      <text x="8" y="24" fontSize="21" fontWeight="750" fill="var(--ink)">
        {title}
      </text>
      <text x={W - M.r} y="24" textAnchor="end" fontSize="20" fontWeight="700" fill="var(--ink)">
        {a}
        {b && b !== a ? ` → ${b}` : ''}
      </text>
      <text x={W - M.r} y={H - 3} textAnchor="end" fontSize="15" fontWeight="600" fill="var(--ink2)">
        {xLabel}
      </text>
    </svg>
  );
}
