// One angle over height as a wheel was measured moving: dots as read with their doubt, the curve of the points as told dashed, the
// curve the readings make of it whole with its band.
import type { Schemas } from '../api/client';
import { angle, length, tick, type AngleForm, type LengthUnit } from '../units/print';
import { path, ring, scale, ticks } from './plot';

type Said = Schemas['MovingSaid'];
type Row = Schemas['MovedRow'];
const W = 430;
const H = 190;
const M = { l: 52, r: 12, t: 30, b: 34 };
export type Which = 'camber' | 'toe' | 'caster';
const at: Record<Which, number> = { camber: 0, caster: 1, toe: 2 };

export function MovingFigure({
  which,
  rows,
  said,
  unit,
  form,
}: {
  which: Which;
  rows: Row[];
  said: Said | undefined;
  unit: LengthUnit;
  form: AngleForm;
}) {
  const k = at[which];
  const field = `${which}_deg` as const;
  const read = rows.flatMap((r, i) => {
    const v = r[field];
    return v == null ? [] : [{ h: r.height_mm, v, half: said?.read[i]?.[field] ?? 0 }];
  });
  const curve = said?.curve ?? [];
  const told = curve.flatMap((p): [number, number][] => (p.told_deg ? [[p.height_mm, p.told_deg[k]!]] : []));
  const fits = said?.fits ?? false;
  const fitted = fits
    ? curve.flatMap((p) =>
        p.fitted_deg ? [{ h: p.height_mm, v: p.fitted_deg[k]!, half: p.band?.[field] ?? 0 }] : [],
      )
    : [];
  const hs = [...read.map((r) => r.h), ...told.map((p) => p[0])];
  const vs = [
    ...read.flatMap((r) => [r.v - r.half, r.v + r.half]),
    ...told.map((p) => p[1]),
    ...fitted.flatMap((p) => [p.v - p.half, p.v + p.half]),
  ];
  if (hs.length < 2) return null;
  const [x0, x1] = [Math.min(...hs), Math.max(...hs)];
  let [lo, hi] = [Math.min(...vs), Math.max(...vs)];
  if (hi - lo < 0.4) [lo, hi] = [(lo + hi) / 2 - 0.2, (lo + hi) / 2 + 0.2];
  const X = scale([x0, x1], [M.l, W - M.r]);
  const Y = scale([lo - 0.08 * (hi - lo), hi + 0.08 * (hi - lo)], [H - M.b, M.t]);
  const through = (p: [number, number][]) => path(p.map(([x, y]) => [X(x), Y(y)]));
  const band: [number, number][] = [
    ...fitted.map((p): [number, number] => [X(p.h), Y(p.v + p.half)]),
    ...[...fitted].reverse().map((p): [number, number] => [X(p.h), Y(p.v - p.half)]),
  ];
  const label = `${which} over height: ${read
    .map((r) => `${angle(r.v, form, 2)} at ${length(r.h, unit)}`)
    .join(', ')}${said ? (fits ? '; the points go with it' : '; the points do not go with it') : ''}`;
  return (
    <svg viewBox={`0 0 ${W} ${H}`} width="100%" role="img" aria-label={label} className="moving-figure">
      <text x="4" y="18" fontSize="16" fontWeight="700" fill="var(--chalk)">
        {which}
      </text>
      {ticks(lo, hi, 4).map((v) => (
        <g key={v}>
          <path d={`M${M.l} ${Y(v)}H${W - M.r}`} stroke="var(--slateline)" strokeWidth="1" />
          <text x={M.l - 6} y={Y(v) + 5} textAnchor="end" fontSize="14" fill="var(--chalk2)">
            {tick(v, form, 2)}
          </text>
        </g>
      ))}
      {ticks(x0, x1, 4).map((h) => (
        <text key={h} x={X(h)} y={H - 12} textAnchor="middle" fontSize="14" fill="var(--chalk2)">
          {length(h, unit)}
        </text>
      ))}
      {band.length > 2 && <path d={ring(band)} fill="var(--chalk)" opacity="0.16" />}
      <path d={through(told)} fill="none" stroke="var(--ghost)" strokeWidth="1.8" strokeDasharray="5 4" />
      {fitted.length > 1 && (
        <path
          d={through(fitted.map((p) => [p.h, p.v]))}
          fill="none"
          stroke="var(--chalk)"
          strokeWidth="2.4"
        />
      )}
      {read.map((r) => (
        <g key={`${r.h} ${r.v}`}>
          <path d={`M${X(r.h)} ${Y(r.v - r.half)}V${Y(r.v + r.half)}`} stroke="var(--do)" strokeWidth="1.6" />
          <circle cx={X(r.h)} cy={Y(r.v)} r="5" fill="var(--do)" stroke="var(--slate)" strokeWidth="1.5" />
        </g>
      ))}
    </svg>
  );
}
