// A contact patch seen from above, the nose up: each strip as long as it touches, brighter where it is pressed harder.
import type { Schemas } from '../api/client';

const W = 96;
const H = 92;

interface Props {
  patch: Schemas['Footprint'];
  /** Which edge is on the left of the picture. */
  innerOn: 'left' | 'right';
  /** Longest strip and highest pressure of all that are compared. */
  longest: number;
  hardest: number;
  label: string;
}

export function Patch({ patch, innerOn, longest, hardest, label }: Props) {
  const strips = innerOn === 'left' ? patch.strips : patch.strips.toReversed();
  const w = W / strips.length;
  const share = patch.thirds.map((t) => Math.round(100 * t));
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      width="100%"
      role="img"
      aria-label={`${label}: inner third ${share[0]}, middle ${share[1]}, outer ${share[2]} per cent of the load`}
    >
      <path d={`M0 ${H / 2}H${W}`} stroke="var(--slateline)" strokeWidth="1" strokeDasharray="3 3" />
      {strips.map((s, i) => {
        const h = (s.length_mm / longest) * (H - 4);
        return (
          <rect
            key={i}
            x={i * w + 0.4}
            y={(H - h) / 2}
            width={w - 0.8}
            height={h}
            fill="var(--chalk)"
            opacity={0.14 + 0.86 * (s.pressure_kpa / hardest)}
          />
        );
      })}
    </svg>
  );
}
