// The two joints, before and after, to scale: from the front and from the side.
import type { Drawing, SideName } from '../api/client';
import type { Alignment } from './types';
import { Ground } from '../ui/Car';
import { bar, girth, type V2 as V } from './solids';

interface Props {
  side: SideName;
  before?: Drawing | undefined;
  now: Drawing;
  beforeAngles?: Alignment | undefined;
  angles: Alignment;
  text: (deg: number) => string;
  /** A length with its unit. */
  size: (mm: number) => string;
  lift?: string | undefined;
  width?: number;
}

/** Arms, links and knuckle of one corner, seen through `F`. */
function Bars({ d, ghost, F }: { d: Drawing; ghost: boolean; F: (p: number[]) => V }) {
  const fill = ghost ? 'none' : 'var(--steel)';
  return (
    <>
      {d.bars.map((b, i) => {
        const [w0, w1] = girth[b.kind];
        return <path key={i} d={bar(F(b.from), F(b.to), w0, w1)} fill={fill} />;
      })}
      {d.bars.map((b, i) => {
        if (b.kind === 'knuckle' || b.kind === 'beam') return null;
        const [p, q] = [F(b.from), F(b.to)];
        return (
          <g key={i}>
            {b.on_body && (
              <circle cx={p[0]} cy={p[1]} r={ghost ? 4 : 5.5} fill={ghost ? 'none' : 'var(--slate2)'} />
            )}
            <circle cx={q[0]} cy={q[1]} r={ghost ? 4.5 : 6} fill={ghost ? 'none' : 'var(--slate2)'} />
            {!ghost && <circle cx={q[0]} cy={q[1]} r="2.6" fill="var(--chalk)" />}
          </g>
        );
      })}
    </>
  );
}

/** Where the stub axle leaves the knuckle: on the steering axis at the height of the wheel centre. */
function knuckle(d: Drawing, F: (p: number[]) => V): V | undefined {
  if (!d.axis) return undefined;
  const [l, u] = d.axis as [number[], number[]];
  const t = (d.centre[2]! - l[2]!) / (u[2]! - l[2]! || 1);
  return F([0, 1, 2].map((i) => l[i]! + (u[i]! - l[i]!) * t));
}

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
    <g textAnchor={a} paintOrder="stroke" stroke="var(--slate2)" strokeWidth="5" strokeLinejoin="round">
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

export function JointView({ side, before, now, beforeAngles, angles, text, size, lift, width = 316 }: Props) {
  const R = now.loaded_radius_mm;
  const half = 135;
  const h = 222;
  const fz = 206;
  // Outboard is to the right for the left corner seen from the front, to the left for the right one.
  const out = side === 'left' ? 1 : -1;
  const inner = Math.max(0, Math.min(...now.bars.map((b) => b.from[1]!))) - 60;
  const outer = now.contact[1]! + half + 10;
  const S = Math.min(190 / (2 * R), (width - 128) / (outer - inner));
  const fx = width / 2;
  const F = (p: number[]): V => [fx + out * (p[1]! - (inner + outer) / 2) * S, fz - p[2]! * S];
  const front = (d: Drawing, a: Alignment, ghost: boolean) => {
    const c = F(d.contact);
    const lean = out * a.camber_deg;
    const wc = F(d.centre);
    const hub = knuckle(d, F);
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
        <Bars d={d} ghost={ghost} F={F} />
        {!ghost && hub && <path d={bar(hub, wc, 9, 6)} fill={fill} />}
      </g>
    );
  };
  const axisTop = (U: V, L: V, y: number): V => {
    const t = (y - U[1]) / (L[1] - U[1]);
    return [U[0] + (L[0] - U[0]) * t, y];
  };
  const axis = (now.axis ?? [now.contact, now.centre]) as [number[], number[]];
  const pierce = now.pierce ?? now.contact;
  const [U, L] = [F(axis[1]), F(axis[0])];
  const g1 = F(pierce);
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
    return (
      <g
        fill="none"
        stroke={ghost ? 'var(--ghost)' : 'var(--chalk)'}
        strokeWidth={ghost ? 1 : 1.5}
        strokeLinejoin="round"
        strokeDasharray={ghost ? '4 3' : undefined}
      >
        <Bars d={d} ghost={ghost} F={G} />
      </g>
    );
  };
  const [u2, l2] = [G(axis[1]), G(axis[0])];
  const p2 = G(pierce);
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
        style={{ overflow: 'hidden' }}
        role="img"
        aria-label={`${side} corner from the front: camber ${text(angles.camber_deg)}, axis lean ${text(angles.sai_deg)}, scrub ${size(angles.scrub_radius_mm)}`}
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
        {now.axis && (
          <Figure
            x={near}
            y={22}
            end={out < 0}
            label="axis lean"
            value={text(angles.sai_deg)}
            was={beforeAngles && text(beforeAngles.sai_deg)}
          />
        )}
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
          label={now.axis ? 'scrub' : 'half track'}
          value={size(now.axis ? angles.scrub_radius_mm : angles.half_track_mm)}
          was={beforeAngles && size(now.axis ? beforeAngles.scrub_radius_mm : beforeAngles.half_track_mm)}
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
        style={{ overflow: 'hidden' }}
        role="img"
        aria-label={`${side} corner from the side: caster ${text(angles.caster_deg)}, trail ${size(angles.mechanical_trail_mm)}`}
      >
        <Ground x0={10} x1={width - 10} y={sz} />
        <circle cx={wc2[0]} cy={wc2[1]} r={R * S2} fill="none" stroke="var(--chalk)" strokeWidth="1.5" />
        <circle cx={wc2[0]} cy={wc2[1]} r={R * S2 * 0.55} fill="none" stroke="var(--chalk)" opacity=".7" />
        {before && flank(before, true)}
        {flank(now, false)}
        {now.axis && (
          <>
            <path d={`M${p2[0]} ${sz}L${t2[0]} ${t2[1]}L${p2[0]} ${t2[1]}Z`} fill="var(--do)" opacity=".45" />
            <path d={`M${p2[0]} ${sz}L${t2[0]} ${t2[1]}`} stroke="var(--do)" strokeWidth="1.9" />
          </>
        )}
        <path d={`M${wc2[0]} 6V${sz}`} stroke="var(--chalk2)" strokeDasharray="9 3 2 3" />
        <Figure
          x={rightX}
          y={30}
          end
          label={now.axis ? 'caster' : 'toe, in +'}
          value={text(now.axis ? angles.caster_deg : angles.toe_deg)}
          was={beforeAngles && text(now.axis ? beforeAngles.caster_deg : beforeAngles.toe_deg)}
        />
        <Figure
          x={rightX}
          y={146}
          end
          label={now.axis ? 'trail' : 'wheel moved'}
          value={size(now.axis ? angles.mechanical_trail_mm : angles.wheel_x_mm)}
          was={now.axis && beforeAngles ? size(beforeAngles.mechanical_trail_mm) : undefined}
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
