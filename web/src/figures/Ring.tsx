// The ring of what was said, on its side's own half, and the hop of an order.
import type { SideName } from '../api/client';
import { dotted, rope } from './rope';

interface RingProps {
  side: SideName;
  x: number;
  y: number;
  rx: number;
  ry: number;
  thick: number;
}

/** A rope on the side's own half, round dots on the other: both sides alike close into one whole rope. */
export function Ring({ side, x, y, rx, ry, thick }: RingProps) {
  const colour = `var(--${side})`;
  const r = rope(side, x, y, rx, ry, thick);
  return (
    <>
      <path
        d={dotted(side, x, y, rx, ry)}
        fill="none"
        stroke={colour}
        strokeWidth="2.6"
        strokeDasharray="0.1 5.4"
        strokeLinecap="round"
      />
      <path d={r.body} fill="var(--sheet)" stroke={colour} strokeWidth="1.5" />
      <path d={r.twists} fill="none" stroke={colour} strokeWidth="1.4" />
    </>
  );
}

/** An order's way from where it stands to where it brings it: yellow with an ink edge. */
export function Hop({ d }: { d: string }) {
  return (
    <>
      <path d={d} fill="none" stroke="var(--doink)" strokeWidth="7" />
      <path d={d} fill="none" stroke="var(--do)" strokeWidth="4" />
    </>
  );
}
