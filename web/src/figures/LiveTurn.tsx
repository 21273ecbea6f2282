// The map's point while an adjuster is loose: the way of this order, the window it goes to, and where the gauge says it is.
import { halfPath } from '../ui/glyphs';
import type { SideName } from '../api/client';
import type { Stands, Way } from './onTheWay';
import { angle, tick, type AngleForm } from '../units/print';
import { Hatch } from './Hatch';
import { stepOf, ticks } from './plot';

interface Props {
  way: Way;
  /** Where it stands now; nothing while the gauge says nothing. */
  now: Stands | undefined;
  /** The aim of this wheel: ends of camber, ends of the other. */
  window: [number[], number[]];
  second: 'caster' | 'toe';
  side: SideName;
  form: AngleForm;
}

const [W, H] = [360, 250];
const [L, R, T, B] = [52, W - 12, 10, H - 40];

export function LiveTurn({ way, now, window: win, second, side, form }: Props) {
  const other = (p: { caster_deg: number; toe_deg: number }) =>
    second === 'caster' ? p.caster_deg : p.toe_deg;
  const [first, end] = [way[0]!, way.find((p) => Math.abs(p.share - 1) < 1e-9) ?? way.at(-1)!];
  // The way and the window, whatever the gauge does: the scale stays while it moves.
  const xs = [...way.map((p) => p.camber_deg), ...win[0]];
  const ys = [...way.map(other), ...win[1]];
  const room = (v: number[], least: number) => {
    const [a, b] = [Math.min(...v), Math.max(...v)];
    const grow = Math.max(0.12 * (b - a), (least - (b - a)) / 2);
    return [a - grow, b + grow] as const;
  };
  const [x0, x1] = room(xs, 0.6);
  const [y0, y1] = room(ys, second === 'caster' ? 0.6 : 0.3);
  const px = (v: number) => L + ((v - x0) / (x1 - x0)) * (R - L);
  const py = (v: number) => B - ((v - y0) / (y1 - y0)) * (B - T);
  const d = way.map((p, i) => `${i ? 'L' : 'M'}${px(p.camber_deg)} ${py(other(p))}`).join('');
  const hold = (v: number, a: number, b: number) => Math.max(a, Math.min(b, v));
  const at = now && ([hold(px(now.camber_deg), L, R), hold(py(other(now)), T, B)] as const);
  const digits = second === 'toe' ? 2 : 1;
  const places = (a: number, b: number) => (stepOf(a, b, 4) < 0.1 ? 2 : 1);
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      width="100%"
      role="img"
      aria-label={
        now
          ? `${side} wheel now: camber ${angle(now.camber_deg, form, 2)}, ${second} ${angle(other(now), form, digits)}, ${Math.round(now.share * 100)} in 100 of the order`
          : `${side} wheel: the gauge says nothing`
      }
      data-testid="live-turn"
      style={{ display: 'block', fontFamily: 'var(--figure)' }}
    >
      <defs>
        <Hatch id="aim-live" colour="var(--aimS)" />
      </defs>
      {ticks(x0, x1, 4).map((v) => (
        <g key={`x${v}`}>
          <path d={`M${px(v)} ${T}V${B}`} stroke="var(--slateline)" />
          <text x={px(v)} y={B + 17} fontSize="15" fontWeight="600" fill="var(--chalk2)" textAnchor="middle">
            {tick(v, form, places(x0, x1), true)}
          </text>
        </g>
      ))}
      {ticks(y0, y1, 4).map((v) => (
        <g key={`y${v}`}>
          <path d={`M${L} ${py(v)}H${R}`} stroke="var(--slateline)" />
          <text x={L - 6} y={py(v) + 5} fontSize="15" fontWeight="600" fill="var(--chalk2)" textAnchor="end">
            {tick(v, form, places(y0, y1))}
          </text>
        </g>
      ))}
      <text x={(L + R) / 2} y={H - 6} fontSize="16" fontWeight="700" fill="var(--chalk)" textAnchor="middle">
        camber
      </text>
      <text
        transform={`translate(13 ${(T + B) / 2}) rotate(-90)`}
        fontSize="16"
        fontWeight="700"
        fill="var(--chalk)"
        textAnchor="middle"
      >
        {second === 'toe' ? 'toe, in is up' : 'caster'}
      </text>
      <rect
        x={px(win[0][0]!)}
        y={py(win[1][1]!)}
        width={Math.max(px(win[0][1]!) - px(win[0][0]!), 1)}
        height={Math.max(py(win[1][0]!) - py(win[1][1]!), 1)}
        fill="url(#aim-live)"
        stroke="var(--aimS)"
        strokeWidth="2.4"
      />
      <path d={d} fill="none" stroke="var(--chalk2)" strokeWidth="2" strokeDasharray="2 5" />
      <path
        d={halfPath(side, px(first.camber_deg), py(other(first)), 8)}
        fill="none"
        stroke="var(--chalk)"
        strokeWidth="2"
      />
      {/* As ordered: the hollow it should come to rest in. */}
      <path
        d={halfPath(side, px(end.camber_deg), py(other(end)), 13)}
        fill="none"
        stroke="var(--do)"
        strokeWidth="3"
      />
      {at && (
        <path
          d={halfPath(side, at[0], at[1], 10)}
          fill={`var(--${side}S)`}
          stroke="var(--slate)"
          strokeWidth="2"
          data-testid="live-point"
        />
      )}
    </svg>
  );
}
