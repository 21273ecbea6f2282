// The two joints, before and after, to scale: from the front and from the side.
import type { Drawing, SideName } from '../api/client';
import type { Alignment } from './types';
import { Ground } from '../shell/Car';

type V = [number, number];

interface Props {
  side: SideName;
  before?: Drawing | undefined;
  now: Drawing;
  beforeAngles?: Alignment | undefined;
  angles: Alignment;
  text: (deg: number) => string;
  lift?: string | undefined;
  width?: number;
}

/** A tapered solid from one joint to another. */
function bar(p: V, q: V, w0: number, w1: number): string {
  const [dx, dy] = [q[0] - p[0], q[1] - p[1]];
  const n = Math.hypot(dx, dy) || 1;
  const [ux, uy] = [-dy / n, dx / n];
  return `M${p[0] + ux * w0} ${p[1] + uy * w0}L${q[0] + ux * w1} ${q[1] + uy * w1}L${q[0] - ux * w1} ${q[1] - uy * w1}L${p[0] - ux * w0} ${p[1] - uy * w0}Z`;
}
const mid = (a: number[], b: number[]): number[] => a.map((v, i) => (v + (b[i] ?? 0)) / 2);

function Figure({
  x,
  y,
  label,
  value,
  was,
  end,
  hot,
}: {
  x: number;
  y: number;
  label: string;
  value: string;
  was?: string | undefined;
  end?: boolean;
  hot?: boolean;
}) {
  const a = end ? 'end' : 'start';
  return (
    <g textAnchor={a}>
      <text x={x} y={y} fontSize="18" fontWeight="600" fill="var(--chalk2)">
        {label}
      </text>
      <text x={x} y={y + 22} fontSize="24" fontWeight="750" fill={hot ? 'var(--do)' : 'var(--chalk)'}>
        {value}
      </text>
      {was && (
        <text x={x} y={y + 41} fontSize="17" fontWeight="600" fill="var(--chalk2)">
          was {was}
        </text>
      )}
    </g>
  );
}

export function JointView({ side, before, now, beforeAngles, angles, text, lift, width = 316 }: Props) {
  const R = now.loaded_radius_mm;
  const half = 135;
  const h = 222;
  const fz = 206;
  // Outboard is to the right for the left corner seen from the front, to the left for the right one.
  const out = side === 'left' ? 1 : -1;
  const inner = Math.min(now.lower_front[1]!, now.lower_rear[1]!, now.upper_front[1]!) - 60;
  const outer = now.contact[1]! + half + 10;
  const S = Math.min(190 / (2 * R), (width - 128) / (outer - inner));
  const fx = width / 2;
  const F = (p: number[]): V => [fx + out * (p[1]! - (inner + outer) / 2) * S, fz - p[2]! * S];
  const front = (d: Drawing, a: Alignment, ghost: boolean) => {
    const c = F(d.contact);
    const lean = out * a.camber_deg;
    const up = F(mid(d.upper_front, d.upper_rear));
    const lp = F(mid(d.lower_front, d.lower_rear));
    const [U, L, T, I] = [F(d.upper_outer), F(d.lower_outer), F(d.tie_outer), F(d.tie_inner)];
    const wc = F(d.centre);
    const fill = ghost ? 'none' : 'var(--steel)';
    return (
      <g
        fill="none"
        stroke={ghost ? 'var(--ghost)' : 'var(--chalk)'}
        strokeWidth={ghost ? 1 : 1.5}
        strokeLinejoin="round"
        strokeDasharray={ghost ? '4 3' : undefined}
      >
        <g transform={`rotate(${lean} ${c[0]} ${c[1]})`}>
          <rect x={c[0] - half * S} y={c[1] - 2 * R * S} width={2 * half * S} height={2 * R * S} rx="13" />
          {!ghost && (
            <path
              d={`M${c[0]} ${c[1] - 2 * R * S - 14}V${c[1]}`}
              stroke={`var(--${side}S)`}
              strokeWidth="1.2"
              strokeDasharray="9 3 2 3"
            />
          )}
        </g>
        <path d={`M${I[0]} ${I[1]}L${T[0]} ${T[1]}`} strokeWidth={ghost ? 1 : 2.4} />
        <path d={bar(up, U, 6, 4)} fill={fill} />
        <path d={bar(lp, L, 8, 5)} fill={fill} />
        {!ghost && <path d={bar(U, L, 5, 6)} fill={fill} />}
        {!ghost && <path d={bar([(U[0] + L[0]) / 2, wc[1]], wc, 9, 6)} fill={fill} />}
        {[up, lp].map((q, i) => (
          <circle key={i} cx={q[0]} cy={q[1]} r={ghost ? 5 : 7} fill={ghost ? 'none' : 'var(--slate2)'} />
        ))}
        {[U, L].map((q, i) => (
          <g key={i}>
            <circle cx={q[0]} cy={q[1]} r={ghost ? 5 : 6.5} fill={ghost ? 'none' : 'var(--slate2)'} />
            {!ghost && <circle cx={q[0]} cy={q[1]} r="3" fill="var(--chalk)" />}
          </g>
        ))}
      </g>
    );
  };
  const axisTop = (U: V, L: V, y: number): V => {
    const t = (y - U[1]) / (L[1] - U[1]);
    return [U[0] + (L[0] - U[0]) * t, y];
  };
  const [U, L] = [F(now.upper_outer), F(now.lower_outer)];
  const g1 = F(now.pierce);
  const g0 = axisTop(U, L, 16);
  const c = F(now.contact);
  const lean = Math.tan((angles.camber_deg * Math.PI) / 180) * (c[1] - 10) * out;
  // Side view: nose to the left for the left corner (seen from the left), to the right for the right one.
  const S2 = Math.min(186 / (2 * R), 0.26);
  const sx = width / 2;
  const sz = 196;
  const nose = side === 'left' ? -1 : 1;
  const G = (p: number[]): V => [sx + nose * (p[0]! - now.contact[0]!) * S2, sz - p[2]! * S2];
  const flank = (d: Drawing, ghost: boolean) => {
    const [u, l] = [G(d.upper_outer), G(d.lower_outer)];
    const arms: [number[], V, number][] = [
      [d.upper_front, u, 3.5],
      [d.upper_rear, u, 3.5],
      [d.lower_front, l, 4.5],
      [d.lower_rear, l, 4.5],
    ];
    return (
      <g
        fill="none"
        stroke={ghost ? 'var(--ghost)' : 'var(--chalk)'}
        strokeWidth={ghost ? 1 : 1.5}
        strokeLinejoin="round"
        strokeDasharray={ghost ? '4 3' : undefined}
      >
        {arms.map(([p, q, w], i) => (
          <g key={i}>
            <path d={bar(G(p), q, w, w * 0.8)} fill={ghost ? 'none' : 'var(--steel)'} />
            <circle cx={G(p)[0]} cy={G(p)[1]} r={ghost ? 4 : 5.5} fill={ghost ? 'none' : 'var(--slate2)'} />
          </g>
        ))}
        {[u, l].map((q, i) => (
          <circle key={i} cx={q[0]} cy={q[1]} r={ghost ? 5 : 6.5} fill={ghost ? 'none' : 'var(--slate2)'} />
        ))}
      </g>
    );
  };
  const [u2, l2] = [G(now.upper_outer), G(now.lower_outer)];
  const p2 = G(now.pierce);
  const t2 = axisTop(u2, l2, 6);
  const wc2 = G(now.centre);
  const outWord = side === 'left' ? 'outboard ▸' : '◂ outboard';
  const leftX = 12;
  const rightX = width - 12;
  const near = out > 0 ? leftX : rightX;
  const far = out > 0 ? rightX : leftX;
  return (
    <div>
      <svg
        viewBox={`0 0 ${width} ${h}`}
        width="100%"
        role="img"
        aria-label={`${side} corner from the front: camber ${angles.camber_deg.toFixed(1)} degrees, axis lean ${angles.sai_deg.toFixed(1)} degrees, scrub ${angles.scrub_radius_mm.toFixed(0)} mm`}
      >
        <Ground x0={10} x1={width - 10} y={fz} />
        {before && beforeAngles && front(before, beforeAngles, true)}
        {front(now, angles, false)}
        <path d={`M${g1[0]} ${g1[1]}L${g0[0]} ${g0[1]}L${g1[0]} ${g0[1]}Z`} fill="var(--do)" opacity=".2" />
        <path d={`M${g1[0]} ${g1[1]}V${g0[1]}`} stroke="var(--do)" strokeDasharray="2 4" />
        <path d={`M${g0[0]} ${g0[1]}L${g1[0]} ${g1[1]}`} stroke="var(--do)" strokeWidth="1.9" />
        <path d={`M${c[0]} ${c[1]}L${c[0] + lean} 10L${c[0]} 10Z`} fill={`var(--${side}S)`} opacity=".55" />
        <path d={`M${c[0]} ${c[1]}V10`} stroke={`var(--${side}S)`} />
        <path d={`M${g1[0]} ${fz - 4}V${fz + 12}M${c[0]} ${fz - 4}V${fz + 12}`} stroke="var(--chalk)" />
        <Figure
          x={near}
          y={22}
          end={out < 0}
          label="axis lean"
          value={text(angles.sai_deg)}
          was={beforeAngles && text(beforeAngles.sai_deg)}
        />
        <Figure
          x={far}
          y={22}
          end={out > 0}
          label="camber"
          value={text(angles.camber_deg)}
          was={beforeAngles && text(beforeAngles.camber_deg)}
        />
        {lift && <Figure x={near} y={150} end={out < 0} label="frame" value={lift} hot />}
        <Figure
          x={far}
          y={150}
          end={out > 0}
          label="scrub"
          value={`${angles.scrub_radius_mm.toFixed(0)} mm`}
          was={beforeAngles && beforeAngles.scrub_radius_mm.toFixed(0)}
        />
        <text
          x={near}
          y={fz + 15}
          textAnchor={out < 0 ? 'end' : 'start'}
          fontSize="16"
          fontWeight="600"
          fill="var(--chalk2)"
        >
          from the front
        </text>
        <text
          x={far}
          y={fz + 15}
          textAnchor={out > 0 ? 'end' : 'start'}
          fontSize="16"
          fontWeight="600"
          fill="var(--chalk2)"
        >
          {outWord}
        </text>
      </svg>
      <svg
        viewBox={`0 0 ${width} 216`}
        width="100%"
        role="img"
        aria-label={`${side} corner from the side: caster ${angles.caster_deg.toFixed(1)} degrees, trail ${angles.mechanical_trail_mm.toFixed(0)} mm`}
      >
        <Ground x0={10} x1={width - 10} y={sz} />
        <circle cx={wc2[0]} cy={wc2[1]} r={R * S2} fill="none" stroke="var(--chalk)" strokeWidth="1.5" />
        <circle cx={wc2[0]} cy={wc2[1]} r={R * S2 * 0.55} fill="none" stroke="var(--chalk)" opacity=".7" />
        {before && flank(before, true)}
        {flank(now, false)}
        <path d={`M${p2[0]} ${sz}L${t2[0]} ${t2[1]}L${p2[0]} ${t2[1]}Z`} fill="var(--do)" opacity=".45" />
        <path d={`M${p2[0]} ${sz}L${t2[0]} ${t2[1]}`} stroke="var(--do)" strokeWidth="1.9" />
        <path d={`M${wc2[0]} 6V${sz}`} stroke="var(--chalk2)" strokeDasharray="9 3 2 3" />
        <Figure
          x={rightX}
          y={30}
          end
          label="caster"
          value={text(angles.caster_deg)}
          was={beforeAngles && text(beforeAngles.caster_deg)}
        />
        <Figure
          x={rightX}
          y={146}
          end
          label="trail"
          value={`${angles.mechanical_trail_mm.toFixed(0)} mm`}
          was={beforeAngles && beforeAngles.mechanical_trail_mm.toFixed(0)}
        />
        <text x={leftX} y={30} fontSize="17" fontWeight="600" fill="var(--chalk2)">
          {side === 'left' ? '◂ nose' : 'nose ▸'}
        </text>
        <text x={leftX} y={sz + 16} fontSize="16" fontWeight="600" fill="var(--chalk2)">
          from the {side} · true scale
        </text>
      </svg>
    </div>
  );
}
