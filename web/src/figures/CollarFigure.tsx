// A coilover's collar, or a torsion bar's bolt, and the turns it takes: which way, seen from where, from mark to mark.
import { path } from './plot';

interface Props {
  what: 'collar' | 'bolt';
  /** Turns, up positive. */
  turns: number;
  words: string;
}

/** Where a mark that stood at twelve ends, as on a clock: `3 o'clock`. */
export function clockOf(turns: number, clockwise: boolean): string {
  const hours = ((((clockwise ? 1 : -1) * Math.abs(turns) * 12) % 12) + 12) % 12;
  const h = Math.round(hours) % 12 || 12;
  return `${h} o'clock`;
}

export function CollarFigure({ what, turns, words }: Props) {
  // A right-hand thread: seen from above a collar rises counter-clockwise; a bolt seen from its head is wound up clockwise.
  const clockwise = what === 'bolt' ? turns > 0 : turns < 0;
  const cx = 245;
  const cy = 104;
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
  const coil = [0, 1, 2, 3, 4, 5].map((i) => `M34 ${44 + i * 17}L106 ${50 + i * 17}`).join('');
  const seen = what === 'collar' ? 'collar, seen from above' : 'bolt, seen from its head';
  return (
    <svg
      viewBox="0 0 350 210"
      width="100%"
      role="img"
      aria-label={`${words}, ${clockwise ? 'clockwise' : 'counter-clockwise'}, ${seen}: mark from 12 o'clock to ${clockOf(turns, clockwise)}`}
      style={{ fontFamily: 'var(--figure)', display: 'block', maxHeight: 214 }}
    >
      {what === 'collar' ? (
        <g fill="none" stroke="var(--chalk)" strokeWidth="1.8">
          <path d="M46 34L56 18H84L94 34Z" fill="var(--steel)" />
          <path d={coil} strokeWidth="7" stroke="var(--chalk2)" />
          <path d={coil} strokeWidth="3" stroke="var(--slate2)" />
          <rect x="30" y="146" width="80" height="15" rx="3" fill="var(--do)" stroke="var(--doink)" />
          <rect x="58" y="161" width="24" height="34" fill="var(--steel)" />
          <circle cx="70" cy="200" r="7" fill="var(--slate2)" />
        </g>
      ) : (
        <g fill="none" stroke="var(--chalk)" strokeWidth="1.8">
          <path d="M14 60H96" strokeWidth="9" stroke="var(--chalk2)" />
          <path d="M86 48L120 60L86 72Z" fill="var(--steel)" />
          <path d="M104 62V150" strokeWidth="10" stroke="var(--chalk2)" />
          <path d="M104 150V186" stroke="var(--doink)" strokeWidth="18" />
          <path d="M104 151V185" stroke="var(--do)" strokeWidth="14" />
          <text x="14" y="44" fontSize="15" fontWeight="600" fill="var(--chalk2)" stroke="none">
            torsion bar
          </text>
        </g>
      )}
      <path
        d={`M124 168V${turns > 0 ? 120 : 192}M118 ${turns > 0 ? 128 : 184}L124 ${turns > 0 ? 119 : 193}L130 ${turns > 0 ? 128 : 184}`}
        fill="none"
        stroke="var(--do)"
        strokeWidth="3"
      />
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
      <text x={cx} y="196" fontSize="16" fontWeight="600" fill="var(--chalk2)" textAnchor="middle">
        {seen}
      </text>
    </svg>
  );
}
