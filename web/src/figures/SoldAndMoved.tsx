// A part as it was sold and as it moved: a dot for each car, the rope is what is said of the next one.
import { scale } from './plot';
import { wholeRope } from './rope';

export interface MovedCar {
  ticket: number;
  times: number;
  /** Another cause explains it: an open dot that does not count. */
  odd: boolean;
}

interface Props {
  cars: MovedCar[];
  between: [number, number];
  known: boolean;
  label: string;
}

export const low = 0.5;
export const high = 1.7;
const W = 330;
const H = 44;
/** Where so many times its claim stands. */
export const at = scale([Math.log(low), Math.log(high)], [8, W - 8]).clamp(true);

export function SoldAndMoved({ cars, between, known, label }: Props) {
  const [a, b] = between.map((v) => at(Math.log(v))) as [number, number];
  const cx = (a + b) / 2;
  const rx = Math.max((b - a) / 2, 9);
  const r = wholeRope(cx, H / 2, rx, 15, 6);
  return (
    <svg viewBox={`0 0 ${W} ${H}`} width="100%" role="img" aria-label={label} style={{ display: 'block' }}>
      {[0.6, 0.8, 1, 1.2, 1.4, 1.6].map((v) => (
        <path
          key={v}
          d={`M${at(Math.log(v))} 0V${H}`}
          stroke={v === 1 ? 'var(--ink)' : 'var(--line)'}
          strokeWidth={v === 1 ? 2.4 : 1}
        />
      ))}
      {known ? (
        <>
          <path d={r.body} fillRule="evenodd" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="1.3" />
          <path d={r.twists} stroke="var(--ink)" strokeWidth="1.2" fill="none" />
        </>
      ) : (
        <ellipse
          cx={cx}
          cy={H / 2}
          rx={rx}
          ry="15"
          fill="none"
          stroke="var(--ink)"
          strokeWidth="2"
          strokeDasharray="0.1 5"
          strokeLinecap="round"
        />
      )}
      {cars.map((c, i) => (
        <circle
          key={`${c.ticket}${i}`}
          cx={at(Math.log(c.times))}
          cy={H / 2 + ((i % 3) - 1) * 6}
          r="4"
          fill={c.odd ? 'var(--sheet)' : 'var(--ink)'}
          stroke="var(--ink)"
          strokeWidth="1.6"
        />
      ))}
    </svg>
  );
}
