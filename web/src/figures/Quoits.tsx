// Said, came, should be: a rope ring is what was said, the half-disc peg is what came, the hatched window is where it should
// be. In the ring judges us, in the window judges the car.
import type { SideName } from '../api/client';
import { Glyph, halfPath } from '../ui/glyphs';
import { angle, tick, type AngleForm } from '../units/print';
import { every, scale } from './plot';
import { Hop, Ring } from './Ring';
import { Hatch } from './Hatch';

type Pair = [number, number];

export interface Quoit {
  side: SideName;
  /** What was said: camber, then caster or toe, degrees. */
  said: Pair;
  /** 90 % half widths of saying and reading together. */
  ring: Pair;
  /** Before it was turned last. */
  before: Pair;
  /** What came, with the reading's own 90 % half widths. */
  came?: { at: Pair; own: Pair; stale: boolean } | undefined;
  /** Where it should be: ends of camber, ends of the other. */
  window?: [Pair, Pair] | undefined;
  /** Where the next order brings it. */
  hop?: Pair | undefined;
  /** How far outside the window, for the plate: which angle, how far, and which way: past is turned through it. */
  off?: { word: string; by: number; way: 'past' | 'over' | 'under' } | undefined;
}

export interface WouldBe {
  tag: string;
  at: Pair;
}

interface Props {
  axle: 'front' | 'rear';
  second: 'caster' | 'toe';
  quoits: Quoit[];
  would: WouldBe[];
  form: AngleForm;
  width?: number;
  height?: number;
}

const steps = [0.05, 0.1, 0.2, 0.5, 1, 2];
/** A step that makes at most so many lines. */
const stepFor = (from: number, to: number, most: number) => steps.find((s) => (to - from) / s <= most) ?? 5;

export function Quoits({ axle, second, quoits, would, form, width = 620, height = 440 }: Props) {
  const L = 62;
  const R = width - 18;
  // What is off stands over the field, never over a peg.
  const T = quoits.some((q) => q.off && q.came) ? 48 : 16;
  const B = height - 52;
  const all: Pair[] = quoits.flatMap((q) => [
    q.before,
    [q.said[0] - q.ring[0], q.said[1] - q.ring[1]] as Pair,
    [q.said[0] + q.ring[0], q.said[1] + q.ring[1]] as Pair,
    ...(q.came ? [q.came.at] : []),
    ...(q.hop ? [q.hop] : []),
    ...(q.window
      ? ([
          [q.window[0][0], q.window[1][0]],
          [q.window[0][1], q.window[1][1]],
        ] as Pair[])
      : []),
  ]);
  const span = (k: 0 | 1, least: number): Pair => {
    const v = all.map((p) => p[k]);
    const [a, b] = [Math.min(...v), Math.max(...v)];
    const room = Math.max((b - a) * 0.09, (least - (b - a)) / 2);
    return [a - room, b + room];
  };
  const [x0, x1] = span(0, 0.6);
  const [y0, y1] = span(1, second === 'toe' ? 0.4 : 0.8);
  const px = scale([x0, x1], [L, R]);
  const py = scale([y0, y1], [B, T]);
  const to = ([c, s]: Pair): Pair => [px(c), py(s)];
  const perX = (R - L) / (x1 - x0);
  const perY = (B - T) / (y1 - y0);
  const dx = stepFor(x0, x1, 7);
  const dy = stepFor(y0, y1, 6);
  const digits = (d: number) => (d < 0.1 ? 2 : 1);
  const windows = quoits.filter((q) => q.window);
  const apart =
    windows.length > 1 && JSON.stringify(windows[0]!.window) !== JSON.stringify(windows.at(-1)!.window);
  const spoken = quoits
    .map((q) => {
      const say = ([a, b]: Pair) =>
        `camber ${angle(a, form, 1)}, ${second} ${angle(b, form, second === 'toe' ? 2 : 1)}`;
      const came = q.came ? `came ${say(q.came.at)}` : 'not read';
      const off = q.off ? `, ${q.off.word} ${angle(q.off.by, form, 1)} ${q.off.way}` : '';
      return `${q.side} ${axle}: said ${say(q.said)}, ${came}${off}`;
    })
    .join('. ');
  const two = (v: Pair) => `${angle(v[0], form, 1)} · ${angle(v[1], form, second === 'toe' ? 2 : 1)}`;
  const wide = form === 'minutes' ? 128 : 104;
  // Figures stand outward of what they belong to where there is room, above the whiskers, and never over each other.
  const labels = quoits.map((q) => {
    const out = q.side === 'left' ? -1 : 1;
    const [x, y] = to(q.came ? q.came.at : q.said);
    const off = q.came ? 20 : Math.max(q.ring[0] * perX, 9) + 12;
    const fits = out < 0 ? x - off - wide > L : x + off + wide < R;
    const dir = fits ? out : -out;
    const at = Math.min(Math.max(x + dir * off, L + (dir < 0 ? wide : 0)), R - (dir < 0 ? 0 : wide));
    const anchor = dir < 0 ? ('end' as const) : ('start' as const);
    return { q, x: at, y: Math.min(Math.max(y - 12, T + 40), B - 6), from: dir < 0 ? at - wide : at, anchor };
  });
  const [one, other] = labels;
  if (one && other && Math.abs(one.from - other.from) < wide && Math.abs(one.y - other.y) < 48) {
    const [upper, lower] = one.y <= other.y ? [one, other] : [other, one];
    lower.y = Math.min(upper.y + 52, B - 4);
    upper.y = Math.min(upper.y, lower.y - 52);
  }
  // In the window's foot, else at its head, else above or below it: wherever no figure stands.
  const free = (x: number, y: number, tall: number) =>
    [y + tall - 9, y + 20, y - 7, y + tall + 19].find((at) =>
      labels.every((l) => l.from > x + 84 || l.from + wide < x || at < l.y - 38 || at - 16 > l.y),
    ) ?? y + tall - 9;
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width="100%"
      role="img"
      aria-label={`Said and came, ${axle} axle. ${spoken}`}
      data-testid={`quoits-${axle}`}
      style={{ display: 'block', fontFamily: 'var(--figure)' }}
    >
      <defs>
        <Hatch id={`aim-${axle}`} />
      </defs>
      {every(x0, x1, dx).map((v) => (
        <g key={`x${v}`}>
          <path d={`M${px(v)} ${T}V${B}`} stroke="var(--line)" />
          <text x={px(v)} y={B + 19} fontSize="16" fontWeight="600" fill="var(--ink2)" textAnchor="middle">
            {tick(v, form, digits(dx))}
          </text>
        </g>
      ))}
      {every(y0, y1, dy).map((v) => (
        <g key={`y${v}`}>
          <path d={`M${L} ${py(v)}H${R}`} stroke="var(--line)" />
          <text x={L - 8} y={py(v) + 5} fontSize="16" fontWeight="600" fill="var(--ink2)" textAnchor="end">
            {tick(v, form, digits(dy))}
          </text>
        </g>
      ))}
      <text
        x={(L + R) / 2}
        y={height - 10}
        fontSize="18"
        fontWeight="700"
        fill="var(--ink)"
        textAnchor="middle"
      >
        camber
      </text>
      <text x={L} y={height - 10} fontSize="16" fontWeight="600" fill="var(--ink2)">
        ◂ top leans in
      </text>
      <text
        transform={`translate(15 ${(T + B) / 2}) rotate(-90)`}
        fontSize="18"
        fontWeight="700"
        fill="var(--ink)"
        textAnchor="middle"
      >
        {second === 'toe' ? 'toe, in is up' : 'caster'}
      </text>
      {(apart ? windows : windows.slice(0, 1)).map((q) => {
        const [[a, b], [c, d]] = q.window!;
        const [x, y] = to([a, d]);
        return (
          <g key={`w${q.side}`}>
            <rect
              x={x}
              y={y}
              width={Math.max((b - a) * perX, 1)}
              height={Math.max((d - c) * perY, 1)}
              fill={`url(#aim-${axle})`}
              stroke="var(--aim)"
              strokeWidth="2.6"
            />
            <text
              x={x + 8}
              y={free(x, y, (d - c) * perY)}
              fontSize="18"
              fontWeight="700"
              fill="var(--aim)"
              className="halo"
            >
              {apart ? `${q.side} should be` : 'should be'}
            </text>
          </g>
        );
      })}
      {quoits.map((q) => {
        const colour = `var(--${q.side})`;
        const [sx, sy] = to(q.said);
        const [bx, by] = to(q.before);
        const rx = Math.max(q.ring[0] * perX, 9);
        const ry = Math.max(q.ring[1] * perY, 9);
        const end = q.came ? to(q.came.at) : [sx, sy];
        return (
          <g key={q.side}>
            <path d={`M${bx} ${by}L${end[0]} ${end[1]}`} stroke={colour} strokeWidth="2" />
            {q.came && (
              <path d={`M${bx} ${by}L${sx} ${sy}`} stroke={colour} strokeWidth="1.2" strokeDasharray="2 4" />
            )}
            <path d={halfPath(q.side, bx, by, 9)} fill="var(--sheet)" stroke={colour} strokeWidth="2" />
            <Ring side={q.side} x={sx} y={sy} rx={rx} ry={ry} thick={10} />
            <circle cx={sx} cy={sy} r="3" fill="var(--sheet)" stroke={colour} strokeWidth="1.6" />
          </g>
        );
      })}
      {would.map((w) => {
        const [x, y] = to([Math.min(Math.max(w.at[0], x0), x1), Math.min(Math.max(w.at[1], y0), y1)]);
        const [wx, wy] = [Math.min(Math.max(x, L + 13), R - 13), Math.min(Math.max(y, T + 13), B - 13)];
        return (
          <g key={w.tag}>
            <rect
              x={wx - 12}
              y={wy - 12}
              width="24"
              height="24"
              rx="3"
              fill="var(--sheet)"
              fillOpacity="0.85"
              stroke="var(--ink)"
              strokeWidth="1.6"
              strokeDasharray="4 3"
            />
            <text x={wx} y={wy + 6} fontSize="17" fontWeight="750" fill="var(--ink)" textAnchor="middle">
              {w.tag}
            </text>
          </g>
        );
      })}
      {quoits.map((q) => {
        const colour = `var(--${q.side})`;
        if (!q.came) return null;
        const [x, y] = to(q.came.at);
        const [ox, oy] = [q.came.own[0] * perX, q.came.own[1] * perY];
        // Hops go over everything, to where the next order brings it.
        const hop = q.hop && to(q.hop);
        const bow = q.side === 'left' ? 34 : -34;
        return (
          <g key={q.side}>
            <path
              d={`M${x - ox} ${y}H${x + ox}M${x} ${y - oy}V${y + oy}`}
              stroke={colour}
              strokeWidth="1.8"
            />
            <path
              d={halfPath(q.side, x, y, 15)}
              fill={q.came.stale ? 'var(--sheet)' : colour}
              stroke={colour}
              strokeWidth="2"
              strokeDasharray={q.came.stale ? '3 3' : undefined}
            />
            {hop && (
              <g>
                <Hop d={`M${x} ${y}Q${(x + hop[0]) / 2 + bow} ${(y + hop[1]) / 2} ${hop[0]} ${hop[1]}`} />
                <path
                  d={halfPath(q.side, hop[0], hop[1], 10)}
                  fill="var(--do)"
                  stroke="var(--doink)"
                  strokeWidth="2"
                />
              </g>
            )}
          </g>
        );
      })}
      {labels.map((l) => (
        <g key={l.q.side} fill={`var(--${l.q.side})`} fontWeight="700" className="halo">
          <text x={l.x} y={l.y - 22} fontSize="17" fontWeight="600" textAnchor={l.anchor}>
            {l.q.side} {l.q.came ? (l.q.came.stale ? 'came, before the last turn' : 'came') : 'said'}
          </text>
          <text x={l.x} y={l.y} fontSize="24" textAnchor={l.anchor}>
            {two(l.q.came ? l.q.came.at : l.q.said)}
          </text>
        </g>
      ))}
      {quoits
        .filter((q) => q.off && q.came)
        .map((q) => {
          const text = `${q.side} ${q.off!.word} ${angle(q.off!.by, form, second === 'toe' ? 2 : 1)} ${q.off!.way}`;
          const w = text.length * 8.2 + 40;
          const left = q.side === 'left' ? L : R - w;
          const top = 8;
          return (
            <g key={q.side} transform={`translate(${left} ${top})`}>
              <rect width={w} height="30" rx="4" fill="var(--plate)" />
              <g color="var(--plateink)">
                <Glyph name={q.off!.way === 'past' ? 'past' : 'short'} size={18} x={8} y={6} />
              </g>
              <text x="33" y="21" fontSize="18" fontWeight="700" fill="var(--plateink)">
                {text}
              </text>
            </g>
          );
        })}
    </svg>
  );
}
