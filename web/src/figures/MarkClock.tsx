// A clock for marks: the original mark a square at twelve, the turns as a spiral, the new mark a pointer where they end.
import { path } from './plot';

interface Props {
  turns: number;
  /** As it is looked at. */
  clockwise: boolean;
  cx: number;
  cy: number;
}

export function MarkClock({ turns, clockwise, cx, cy }: Props) {
  const whole = Math.abs(turns);
  const n = Math.max(12, Math.round(whole * 40));
  const dir = clockwise ? 1 : -1;
  const spiral = Array.from({ length: n + 1 }, (_, i): [number, number] => {
    const a = (dir * 2 * Math.PI * whole * i) / n;
    const r = 26 + (26 * i) / n;
    return [cx + r * Math.sin(a), cy - r * Math.cos(a)];
  });
  const end = dir * 2 * Math.PI * whole;
  const tip: [number, number] = [cx + 66 * Math.sin(end), cy - 66 * Math.cos(end)];
  return (
    <g>
      <circle cx={cx} cy={cy} r="58" fill="none" stroke="var(--ghost)" strokeWidth="1.5" />
      {Array.from({ length: 12 }, (_, i) => {
        const a = (i * Math.PI) / 6;
        const [s, c] = [Math.sin(a), -Math.cos(a)];
        return (
          <path
            key={i}
            d={`M${cx + 58 * s} ${cy + 58 * c}L${cx + 63 * s} ${cy + 63 * c}`}
            stroke="var(--chalk2)"
            strokeWidth="1.5"
          />
        );
      })}
      <circle cx={cx} cy={cy} r="14" fill="var(--do)" stroke="var(--doink)" strokeWidth="2" />
      <path d={path(spiral)} fill="none" stroke="var(--chalk)" strokeWidth="3" />
      <rect
        x={cx - 8}
        y={cy - 82}
        width="16"
        height="16"
        fill="none"
        stroke="var(--chalk)"
        strokeWidth="2.6"
      />
      <path
        transform={`translate(${tip[0]} ${tip[1]}) rotate(${(end * 180) / Math.PI})`}
        d="M-9 -14H9L0 4Z"
        fill="var(--do)"
        stroke="var(--doink)"
        strokeWidth="1.5"
      />
    </g>
  );
}
