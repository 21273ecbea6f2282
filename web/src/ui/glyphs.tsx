// State glyphs (every outline differs) and the split disc.
import type { ReactNode } from 'react';
import type { SideName } from '../api/client';

const c = 'currentColor';
const shapes = {
  aim: (
    <>
      <circle cx="10" cy="10" r="8" fill="none" stroke={c} strokeWidth="2.2" />
      <circle cx="10" cy="10" r="3.6" fill={c} />
    </>
  ),
  short: (
    <>
      <path d="M1.5 10H9.2M17.5 2.5V17.5" stroke={c} strokeWidth="3" fill="none" />
      <path d="M6.2 5.6L11 10L6.2 14.4" fill="none" stroke={c} strokeWidth="2.2" />
    </>
  ),
  past: (
    <>
      <path d="M7.5 2.5V17.5" stroke={c} strokeWidth="3" fill="none" />
      <path d="M1 10H17M12.6 5.6L17.4 10L12.6 14.4" fill="none" stroke={c} strokeWidth="2.4" />
    </>
  ),
  clash: (
    <>
      <rect x="2" y="2" width="10.4" height="10.4" fill="none" stroke={c} strokeWidth="2.2" />
      <rect x="7.6" y="7.6" width="10.4" height="10.4" fill="none" stroke={c} strokeWidth="2.2" />
      <rect x="7.6" y="7.6" width="4.8" height="4.8" fill={c} />
    </>
  ),
  unread: <circle cx="10" cy="10" r="8" fill="none" stroke={c} strokeWidth="2.2" strokeDasharray="3.4 2.9" />,
  stale: (
    <path
      d="M4 2H16M4 18H16M5.5 2.5C5.5 8 14.5 12 14.5 17.5M14.5 2.5C14.5 8 5.5 12 5.5 17.5"
      fill="none"
      stroke={c}
      strokeWidth="2.2"
    />
  ),
  gate: (
    <>
      <path d="M3 2V18M17 2V18" stroke={c} strokeWidth="2.2" />
      <path d="M3 10H17" stroke={c} strokeWidth="5.4" />
    </>
  ),
  done: <path d="M2 10.5L7.5 16L18 4.5" fill="none" stroke={c} strokeWidth="3.2" />,
  now: <path d="M3 2.5L17.5 10L3 17.5Z" fill={c} />,
  watch: (
    <>
      <path d="M1.5 10C5 4 15 4 18.5 10C15 16 5 16 1.5 10Z" fill="none" stroke={c} strokeWidth="2.2" />
      <circle cx="10" cy="10" r="2.7" fill={c} />
    </>
  ),
  none: <path d="M3 10H17" stroke={c} strokeWidth="2.2" />,
} satisfies Record<string, ReactNode>;

export type GlyphName = keyof typeof shapes;

export function Glyph({ name, size = 20, x, y }: { name: GlyphName; size?: number; x?: number; y?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 20 20" x={x} y={y} aria-hidden="true">
      {shapes[name]}
    </svg>
  );
}

/** Path of a half disc whose data point is the middle of the flat edge. */
export function halfPath(side: SideName, x: number, y: number, r: number): string {
  return `M${x} ${y - r}A${r} ${r} 0 0 ${side === 'left' ? 0 : 1} ${x} ${y + r}Z`;
}

export function Half({
  side,
  size = 16,
  color,
  hollow,
}: {
  side: SideName;
  size?: number;
  color?: string;
  hollow?: boolean;
}) {
  const col = color ?? `var(--${side})`;
  const x = side === 'left' ? size * 0.56 : size * 0.06;
  return (
    <svg
      width={size * 0.62}
      height={size}
      viewBox={`0 0 ${size * 0.62} ${size}`}
      aria-hidden="true"
      style={{ flex: 'none' }}
    >
      <path
        d={halfPath(side, x, size / 2, size / 2 - 1.2)}
        fill={hollow ? 'none' : col}
        stroke={col}
        strokeWidth="1.6"
        strokeLinejoin="round"
      />
    </svg>
  );
}

export function Logo({ size = 44 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 34 34" aria-hidden="true">
      <path
        d="M15.4 3A14 14 0 0 0 15.4 31Z"
        fill="none"
        stroke="var(--chalk)"
        strokeWidth="2.6"
        strokeLinejoin="round"
      />
      <path d="M18.6 3A14 14 0 0 1 18.6 31Z" fill="var(--do)" />
      <path d="M2 33.4H32" stroke="var(--chalk)" strokeWidth="1.6" />
    </svg>
  );
}

/** A sixteenth fraction set as a fraction. */
export function Inches({ mm, sign }: { mm: number; sign?: boolean }) {
  const t = Math.round((Math.abs(mm) / 25.4) * 16);
  const whole = Math.floor(t / 16);
  let n = t % 16;
  let d = 16;
  while (n > 0 && n % 2 === 0) {
    n /= 2;
    d /= 2;
  }
  return (
    <>
      {mm < 0 && t ? '−' : sign && t ? '+' : ''}
      {whole || !n ? whole : ''}
      {n ? <span className="frac">{`${n}/${d}`}</span> : null}
    </>
  );
}
