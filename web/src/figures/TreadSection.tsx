// A tyre's tread across its width: 21 ribs, worn part hatched, one doubt band, the limit following the crown.
import type { SideName } from '../api/client';
import { bare, measure, unitName, type Units } from '../units/measure';

interface Props {
  side: SideName;
  axle?: 'front' | 'rear';
  rate: number[];
  /** Depth now, mm: the same everywhere, or at each strip. */
  depth: number | number[];
  limit: number;
  km: number;
  /** Distance over median distance at the low and high end of the band. */
  spread: [number, number];
  label: string;
  units: Units;
  width?: number;
  height?: number;
}

/** Depth left at a strip, mm. */
export const depthAt = (depth: number, rate: number, km: number) => Math.max(0, depth - (rate * km) / 1000);

export function TreadSection({
  side,
  axle = 'front',
  rate,
  depth: start,
  limit,
  km,
  spread,
  label,
  units,
  width = 838,
  height = 188,
}: Props) {
  const n = rate.length;
  const depth = (i: number) => (typeof start === 'number' ? start : (start[i] ?? 0));
  const deepest = typeof start === 'number' ? start : Math.max(...start);
  const sc = 96 / Math.max(deepest, 8);
  const grooves: Record<number, number> = { 3: 15, 7: 14, 13: 14, 17: 15 };
  const x0 = 54;
  const x1 = width - 54;
  let total = 0;
  const widths = rate.map((_, i) => (i < 1 || i > n - 2 ? 30 : 25));
  widths.forEach((w, i) => {
    total += w + (i < n - 1 ? (grooves[i + 1] ?? 5.5) : 0);
  });
  const k = (x1 - x0) / total;
  let x = x0;
  const ribs = widths.map((w, i) => {
    const r = { x, w: w * k };
    x += (w + (grooves[i + 1] ?? 5.5)) * k;
    return r;
  });
  const mid = width / 2;
  const base = (i: number) => {
    const r = ribs[i]!;
    const u = (r.x + r.w / 2 - mid) / (width / 2);
    return 158 + u ** 4 * 16 + u * u * 8;
  };
  const left = (i: number, at = km) => depthAt(depth(i), rate[i] ?? 0, at);
  // Wearing faster looks like having driven farther.
  const low = (i: number) => left(i, km / spread[0]);
  const high = (i: number) => left(i, km / spread[1]);
  const centre = (i: number) => ribs[i]!.x + ribs[i]!.w / 2;
  const line = (f: (i: number) => number, back = false) => {
    const order = rate.map((_, i) => (back ? n - 1 - i : i));
    return order.map((i) => `L${centre(i).toFixed(1)} ${(base(i) - f(i) * sc).toFixed(1)}`).join('');
  };
  const id = `worn-${label.replace(/\W/g, '')}`;
  const figure = (i: number, anchor: 'start' | 'middle' | 'end', word: string) => {
    const r = ribs[i]!;
    const at = anchor === 'start' ? r.x : anchor === 'end' ? r.x + r.w : centre(i);
    const d = left(i);
    return (
      <text x={at} y="30" textAnchor={anchor} fontSize="31" fontWeight="800" fill="var(--chalk)">
        {bare('tread', d, units)}
        <tspan
          fontSize="18"
          fontWeight="600"
          fill="var(--chalk2)"
        >{`${unitName('tread', units).startsWith('/') ? '' : ' '}${unitName('tread', units)} ${word}`}</tspan>
      </text>
    );
  };
  const limitLine = `M${x0 - 26} ${base(0) - limit * sc + 2}${line(() => limit)}L${x1 + 26} ${base(n - 1) - limit * sc + 2}`;
  // Inner edge stays at the left for both wheels; the side is written.
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width="100%"
      className="tread-svg"
      role="img"
      aria-label={`${side} ${axle} tread, ${label}: inner edge ${measure('tread', left(0), units)}, centre ${measure('tread', left(10), units)}, outer edge ${measure('tread', left(n - 1), units)} left, limit ${measure('tread', limit, units)}`}
    >
      <defs>
        <pattern id={id} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
          <path d="M0 0V6" stroke="var(--ghost)" strokeWidth="1.3" opacity=".8" />
        </pattern>
      </defs>
      <path
        d={`M${x0 - 14} ${base(0) + 10}${ribs.map((r, i) => `L${r.x.toFixed(1)} ${base(i).toFixed(1)}L${(r.x + r.w).toFixed(1)} ${base(i).toFixed(1)}`).join('')}L${x1 + 14} ${base(n - 1) + 10}C${x1 + 34} ${base(n - 1) + 20} ${x1 + 38} ${height} ${x1 + 34} ${height}H${x0 - 34}C${x0 - 38} ${height} ${x0 - 34} ${base(0) + 20} ${x0 - 14} ${base(0) + 10}Z`}
        fill="var(--steel)"
        stroke="var(--chalk)"
        strokeWidth="1.4"
      />
      {ribs.map((r, i) => {
        const b = base(i);
        const fresh = b - depth(i) * sc;
        const now = b - left(i) * sc;
        const shoulder = i === 0 || i === n - 1;
        return (
          <g key={i}>
            <path
              d={`M${r.x + 1.5} ${fresh}H${r.x + r.w - 1.5}L${r.x + r.w} ${now}H${r.x}Z`}
              fill={`url(#${id})`}
              stroke="var(--ghost)"
              strokeDasharray="2.5 2.5"
            />
            <path
              d={`M${r.x - 1.2} ${b + 1}L${r.x} ${now + 2}Q${r.x} ${now} ${r.x + 2} ${now}H${r.x + r.w - 2}Q${r.x + r.w} ${now} ${r.x + r.w} ${now + 2}L${r.x + r.w + 1.2} ${b + 1}Z`}
              fill="var(--chalk)"
            />
            {shoulder && now < b - 10 && (
              <path
                d={`M${r.x + 5} ${now + 7}h${r.w - 10}M${r.x + 5} ${now + 13}h${r.w - 10}`}
                stroke="var(--slate2)"
                strokeWidth="1.5"
              />
            )}
          </g>
        );
      })}
      {km > 0 && (
        <path
          d={`M${centre(0)} ${base(0) - low(0) * sc}${line(low)}${line(high, true)}Z`}
          fill={`var(--${side}S)`}
          fillOpacity=".35"
          stroke={`var(--${side}S)`}
          strokeWidth="1.2"
          strokeDasharray="2 3"
        />
      )}
      <path d={limitLine} fill="none" stroke="var(--slate2)" strokeWidth="6" />
      <path d={limitLine} fill="none" stroke="var(--do)" strokeWidth="2.8" />
      <g transform={`translate(${mid} ${base(10) - limit * sc})`}>
        <g className="tag">
          <rect x="-66" y="-13" width="132" height="25" rx="4" fill="var(--do)" />
          <text y="6" textAnchor="middle" fontSize="19" fontWeight="750" fill="var(--doink)">
            limit {measure('tread', limit, units)}
          </text>
        </g>
      </g>
      {figure(0, 'start', 'inner edge')}
      {figure(10, 'middle', 'centre')}
      {figure(n - 1, 'end', 'outer edge')}
      <text x={mid} y={height - 6} textAnchor="middle" fontSize="20" fontWeight="750" fill="var(--chalk)">
        {side} {axle} · {label}
      </text>
    </svg>
  );
}
