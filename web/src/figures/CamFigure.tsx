// A cam between its guide walls with the comb of notches; the tie rod with the turn to make.
import type { Schemas, SideName } from '../api/client';

type Line = Schemas['SettingLine'];

/** Degrees of a comb tick where a cam has no notches of its own. */
const PLAIN_DEG = 15;

/**
 * Notch comb of this very cam, offset disc, the target notch numbered as the words count it; outboard is on the outboard
 * side of the card. Where it stands may be between notches.
 */
export function CamFigure({ line, side, size = 132 }: { line: Line; side: SideName; size?: number }) {
  const w = 150;
  const h = 134;
  const [cx, cy, r, e] = [75, 80, 35, 9.5];
  const sgn = side === 'left' ? -1 : 1;
  const step = line.notch_deg ?? PLAIN_DEG;
  const n = line.position / step;
  const was = (line.position - line.movement) / step;
  const moved = Math.abs(n - was) > 1e-6;
  const whole = Math.abs(n - Math.round(n)) < 1e-6;
  const rad = (v: number) => (v * step * sgn * Math.PI) / 180;
  const half = Math.floor(90 / step + 1e-9);
  const at = (v: number, d: number): [number, number] => [
    cx + d * Math.sin(rad(v)),
    cy - d * Math.cos(rad(v)),
  ];
  const ox = e * Math.sin(rad(n));
  const hex = Array.from({ length: 6 }, (_, i) => {
    const a = rad(n) + (i * Math.PI) / 3;
    return `${(cx + 15 * Math.sin(a)).toFixed(1)} ${(cy - 15 * Math.cos(a)).toFixed(1)}`;
  }).join('L');
  const comb = [];
  for (let i = -half; i <= half; i++) comb.push(i);
  const [tx, ty] = at(n, 77);
  const [p, q] = [at(was, 48), at(was + (n - was) * 0.86, 48)];
  const sweep = (n - was) * sgn > 0 ? 1 : 0;
  const out = side === 'left' ? '◂ out' : 'out ▸';
  return (
    <svg
      width={size}
      height={(size * 118) / 132}
      viewBox={`0 0 ${w} ${h}`}
      role="img"
      aria-label={`${side} ${line.name}: ${line.words}`}
    >
      {comb.map((i) => {
        const [a, b] = [at(i, 54), at(i, i === Math.round(n) && whole ? 66 : i === 0 ? 62 : 60)];
        return (
          <path
            key={i}
            d={`M${a[0]} ${a[1]}L${b[0]} ${b[1]}`}
            stroke="var(--ink)"
            strokeWidth={i === Math.round(n) && whole ? 4 : i === 0 ? 2.4 : 1.4}
          />
        );
      })}
      {whole && line.notch_deg != null && Math.round(n) !== 0 && (
        <text x={tx} y={ty + 7} textAnchor="middle" fontSize="22" fontWeight="800" fill="var(--ink)">
          {Math.abs(Math.round(n))}
        </text>
      )}
      {moved && (
        <>
          <circle
            cx={cx + e * Math.sin(rad(was))}
            cy={cy}
            r={r}
            fill="none"
            stroke="var(--edge)"
            strokeWidth="1.2"
            strokeDasharray="4 3"
          />
          <path
            d={`M${p[0]} ${p[1]}A48 48 0 0 ${sweep} ${q[0]} ${q[1]}`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth="3.4"
          />
          <path
            transform={`translate(${q[0]} ${q[1]}) rotate(${(rad(was + (n - was) * 0.9) * 180) / Math.PI + (sweep ? 0 : 180)})`}
            d="M-4 -7L9 0L-4 7Z"
            fill="var(--ink)"
          />
        </>
      )}
      <circle
        cx={cx + ox}
        cy={cy}
        r={r}
        fill="var(--well)"
        stroke="var(--ink)"
        strokeWidth={moved ? 3.4 : 2}
      />
      <path d={`M${hex}Z`} fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2.2" />
      <path d={`M${cx} ${cy}L${at(n, 30)[0]} ${at(n, 30)[1]}`} stroke="var(--ink)" strokeWidth="2.6" />
      <path
        d={`M${cx - 48} ${cy - 24}V${cy + 30}M${cx + 48} ${cy - 24}V${cy + 30}`}
        stroke="var(--ink)"
        strokeWidth="4"
      />
      <text
        x={side === 'left' ? 4 : w - 4}
        y={h - 2}
        textAnchor={side === 'left' ? 'start' : 'end'}
        fontSize="17"
        fontWeight="600"
        fill="var(--ink2)"
      >
        {out}
      </text>
    </svg>
  );
}

/** End view of the sleeve: whole turns written, the part of a turn filled. */
export function TieRodFigure({ line }: { line: Line }) {
  const turns = Math.abs(line.steps);
  const whole = Math.floor(turns + 1e-6);
  const part = turns - whole;
  const a = part * 2 * Math.PI * (line.steps < 0 ? -1 : 1);
  const [x, y] = [48 + 36 * Math.sin(a), 48 - 36 * Math.cos(a)];
  const longer = line.steps > 0;
  return (
    <svg width="158" height="80" viewBox="0 0 190 96" role="img" aria-label={`tie rod: ${line.words}`}>
      <circle cx="48" cy="48" r="38" fill="none" stroke="var(--edge)" strokeWidth="1.6" />
      {part > 0.01 && (
        <path d={`M48 48V12A36 36 0 ${part > 0.5 ? 1 : 0} ${longer ? 1 : 0} ${x} ${y}Z`} fill="var(--ink)" />
      )}
      {Array.from({ length: 12 }, (_, i) => {
        const t = (i * Math.PI) / 6;
        return (
          <path
            key={i}
            d={`M${48 + 34 * Math.sin(t)} ${48 - 34 * Math.cos(t)}L${48 + 40 * Math.sin(t)} ${48 - 40 * Math.cos(t)}`}
            stroke="var(--edge)"
            strokeWidth="1.6"
          />
        );
      })}
      <circle cx="48" cy="48" r="14" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
      {whole > 0 && (
        <text x="48" y="55" textAnchor="middle" fontSize="21" fontWeight="800" fill="var(--ink)">
          {whole}
        </text>
      )}
      <g fill="none" stroke="var(--ink)" strokeWidth="2" transform="translate(100 0)">
        <path d="M0 40H18V56H0M66 40H48V56H66" />
        <rect x="14" y="34" width="38" height="28" fill="var(--well)" />
        <circle cx="76" cy="48" r="9" />
        {turns > 0.01 && (
          <path
            d={
              longer
                ? 'M2 80H82M9 75L2 80L9 85M75 75L82 80L75 85'
                : 'M2 80H38M46 80H82M31 75L38 80L31 85M53 75L46 80L53 85'
            }
          />
        )}
      </g>
    </svg>
  );
}
