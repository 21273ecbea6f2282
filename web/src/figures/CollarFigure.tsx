// A coilover's collar, or a torsion bar's bolt, and the turns it takes: which way, seen from where, from mark to mark.
import { MarkClock } from './MarkClock';

interface Props {
  what: 'collar' | 'bolt';
  /** Turns, up positive. */
  turns: number;
  /** As it is looked at: a collar from above, a bolt from its head. */
  clockwise: boolean;
  words: string;
  /** The new mark, in words. */
  to: string;
}

export function CollarFigure({ what, turns, clockwise, words, to }: Props) {
  const cx = 245;
  const cy = 104;
  const coil = [0, 1, 2, 3, 4, 5].map((i) => `M34 ${44 + i * 17}L106 ${50 + i * 17}`).join('');
  const seen = what === 'collar' ? 'collar, seen from above' : 'bolt, seen from its head';
  return (
    <svg
      viewBox="0 0 350 210"
      width="100%"
      role="img"
      aria-label={`${words}, ${clockwise ? 'clockwise' : 'counter-clockwise'}, ${seen}: ${to}`}
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
      <MarkClock turns={turns} clockwise={clockwise} cx={cx} cy={cy} />
      <text x={cx} y="196" fontSize="16" fontWeight="600" fill="var(--chalk2)" textAnchor="middle">
        {seen}
      </text>
    </svg>
  );
}
