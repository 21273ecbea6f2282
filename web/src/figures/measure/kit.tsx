// Pieces of the drawings that say what to measure: dimensions, tags, a tyre from the front and from above.
import type { ReactNode } from 'react';

export type Side = 'left' | 'right';
export interface Shown {
  side: Side;
  /** Entry that is typed now, by name. */
  active: string;
  /** What was typed, by entry, as it is printed. */
  typed: Record<string, string>;
  /** Value so far, degrees or mm. */
  value: number | undefined;
  /** Method. */
  drawing: string;
}

export const W = 540;
export const H = 378;
/** Out of the car on this side, in the picture: seen from the front a left wheel's outside is on the right. */
export const outward = (side: Side) => (side === 'left' ? 1 : -1);

const arrow = (x: number, y: number, ux: number, uy: number) => {
  const s = 9;
  const [nx, ny] = [-uy, ux];
  return `M${x - ux * s + nx * s * 0.6} ${y - uy * s + ny * s * 0.6}L${x} ${y}L${x - ux * s - nx * s * 0.6} ${y - uy * s - ny * s * 0.6}`;
};

/** A dimension with open arrows; yellow and larger while it is the one to type. */
export function Dim({
  a,
  b,
  name,
  label,
  s,
  off = 0,
  below = false,
  anchor = 'middle',
}: {
  a: [number, number];
  b: [number, number];
  name?: string;
  label: string;
  s: Shown;
  off?: number;
  below?: boolean;
  anchor?: 'start' | 'middle' | 'end';
}) {
  const on = name !== undefined && name === s.active;
  const stroke = on ? 'var(--do)' : 'var(--chalk2)';
  const L = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
  const u: [number, number] = [(b[0] - a[0]) / L, (b[1] - a[1]) / L];
  const text = label && name && s.typed[name] ? `${label} ${s.typed[name]}` : label;
  const upright = Math.abs(u[1]) > Math.abs(u[0]);
  const [mx, my] = [
    (a[0] + b[0]) / 2 + (upright ? off : 0),
    (a[1] + b[1]) / 2 + (upright ? 6 : below ? 24 : -9),
  ];
  return (
    <g data-on={on || undefined}>
      <path
        d={`M${a[0]} ${a[1]}L${b[0]} ${b[1]}${L > 26 ? arrow(a[0], a[1], -u[0], -u[1]) + arrow(b[0], b[1], u[0], u[1]) : ''}`}
        stroke={stroke}
        strokeWidth={on ? 3 : 1.8}
        fill="none"
      />
      <text
        x={mx}
        y={my}
        textAnchor={upright && off ? (off > 0 ? 'start' : 'end') : anchor}
        fontSize={on ? 24 : 19}
        fontWeight={on ? 750 : 650}
        fill={on ? 'var(--do)' : 'var(--chalk2)'}
        stroke="var(--slate2)"
        strokeWidth="5"
        paintOrder="stroke"
      >
        {text}
      </text>
    </g>
  );
}

/** Where it is seen from, and which way is which. */
export function Tag({
  x = 16,
  y = H - 10,
  children,
  anchor = 'start',
}: {
  x?: number;
  y?: number;
  children: ReactNode;
  anchor?: 'start' | 'end' | 'middle';
}) {
  return (
    <text x={x} y={y} textAnchor={anchor} fontSize="18" fontWeight="600" fill="var(--chalk2)">
      {children}
    </text>
  );
}

export function Word({
  x,
  y,
  on,
  children,
  anchor = 'start',
  size = 20,
}: {
  x: number;
  y: number;
  on?: boolean;
  children: ReactNode;
  anchor?: 'start' | 'end' | 'middle';
  size?: number;
}) {
  return (
    <text
      x={x}
      y={y}
      textAnchor={anchor}
      fontSize={on ? size + 3 : size}
      fontWeight={on ? 750 : 650}
      fill={on ? 'var(--do)' : 'var(--chalk)'}
      stroke="var(--slate2)"
      strokeWidth="5"
      paintOrder="stroke"
    >
      {children}
    </text>
  );
}

export interface FrontWheel {
  hub: [number, number];
  top: [number, number];
  bottom: [number, number];
  along: [number, number];
  out: [number, number];
  ground: number;
}

/** A wheel seen from the front: where its lips and hub face are when it leans by `lean` degrees (top out). */
export function frontWheel(side: Side, lean: number, cx = 250, ground = 338): FrontWheel {
  const m = outward(side);
  const t = (lean * Math.PI) / 180;
  const along: [number, number] = [m * Math.sin(t), -Math.cos(t)];
  const out: [number, number] = [m * Math.cos(t), Math.sin(t)];
  const c: [number, number] = [cx, ground - 138];
  const face = 38;
  const p = (r: number, f: number): [number, number] => [
    c[0] + along[0] * r + out[0] * f,
    c[1] + along[1] * r + out[1] * f,
  ];
  return { hub: p(0, face), top: p(92, face), bottom: p(-92, face), along, out, ground };
}

export function TyreFront({ w, cx = 250, ghost }: { w: FrontWheel; cx?: number; ghost?: boolean }) {
  const lean = (Math.atan2(w.along[0], -w.along[1]) * 180) / Math.PI;
  const y = w.ground - 138;
  return (
    <g
      transform={`rotate(${lean} ${cx} ${y})`}
      fill="none"
      stroke={ghost ? 'var(--ghost)' : 'var(--chalk)'}
      strokeDasharray={ghost ? '5 4' : undefined}
    >
      <rect
        x={cx - 44}
        y={y - 138}
        width="88"
        height="276"
        rx="24"
        strokeWidth={ghost ? 1.2 : 2}
        fill={ghost ? 'none' : 'var(--slate)'}
      />
      {!ghost && (
        <>
          <path
            d={`M${cx - 22} ${y - 132}V${y + 132}M${cx} ${y - 134}V${y + 134}M${cx + 22} ${y - 132}V${y + 132}`}
            strokeWidth="1"
            opacity=".5"
          />
          <path d={`M${cx - 38} ${y - 92}H${cx + 38}M${cx - 38} ${y + 92}H${cx + 38}`} strokeWidth="1.6" />
        </>
      )}
    </g>
  );
}

/** A tyre from above, nose of the car upwards; `deg` clockwise. */
export function TyreAbove({
  x,
  y,
  deg,
  ghost,
  now,
  r = 88,
  w = 30,
}: {
  x: number;
  y: number;
  deg: number;
  ghost?: boolean;
  now?: boolean;
  r?: number;
  w?: number;
}) {
  const c = now ? 'var(--do)' : ghost ? 'var(--ghost)' : 'var(--chalk)';
  return (
    <g
      transform={`translate(${x} ${y}) rotate(${deg})`}
      fill="none"
      stroke={c}
      strokeWidth={now ? 2.6 : ghost ? 1.2 : 2}
      strokeDasharray={ghost ? '5 4' : undefined}
    >
      <rect x={-w} y={-r} width={2 * w} height={2 * r} rx="16" fill={ghost ? 'none' : 'var(--slate)'} />
      {!ghost &&
        [-0.75, -0.5, -0.25, 0, 0.25, 0.5, 0.75].map((k) => (
          <path
            key={k}
            d={`M${-w + 6} ${r * k - 6}L0 ${r * k + 6}L${w - 6} ${r * k - 6}`}
            strokeWidth="1"
            opacity=".45"
          />
        ))}
    </g>
  );
}

export const clamp = (v: number, m: number) => Math.max(-m, Math.min(m, v));
