// Woven reach: what two cams can give at the planned height, against the aim window.
import { useRef, useState, type KeyboardEvent, type MouseEvent } from 'react';
import type { Aim, Candidate, PlanResult, SideName } from '../api/client';
import { Glyph, halfPath } from '../ui/glyphs';
import { ChipButton } from '../ui/Press';
import { angle, num, signed, tick, type AngleForm } from '../units/print';
import { path, ring } from './plot';
import { pinched, seen, stepped, whole, type Nearer } from './closer';
import { Glass } from './Glass';
import { MapGrid } from './MapGrid';
import { inside, useRange } from './mapRange';
import { cap, second, sideWords, windowOf, worst, type Focus } from './reach';
import { place, type Box, type Point } from './place';
import { useFingers } from './useFingers';

interface Props {
  result: PlanResult;
  aim: Aim;
  focus: Focus;
  planned: number;
  form: AngleForm;
  candidate?: Candidate | undefined;
  stale: boolean;
  width?: number;
  height?: number;
  /** The drawing alone: what is written beside it stands below, in `MapPlates`. */
  bare?: boolean;
  /** A point picked by hand on the lead side's reach. */
  onPick?: (side: SideName, at: [number, number]) => void;
}

export function ReachMap({
  result,
  aim,
  focus,
  planned,
  form,
  candidate,
  stale,
  width = 530,
  height = 392,
  bare = false,
  onPick,
}: Props) {
  const axis2 = second(result);
  const k2 = axis2.key;
  // A step of one notch is small: minutes, or hundredths of a degree.
  const small = (v: number) => (form === 'minutes' ? tick(v, form, 2, true) : signed(v, 2));
  const rear = result.plane === 'camber_toe';
  const lead: SideName = focus === 'right' ? 'right' : 'left';
  // Hundredths of a degree behind the words of the axis.
  const m = { l: rear ? 80 : 50, r: 14, t: 10, b: 42 };
  const sides: SideName[] = ['right', 'left'];
  const cand = (s: SideName) =>
    (candidate && candidate.status !== 'fitted'
      ? s === 'left'
        ? candidate.left_outline
        : candidate.right_outline
      : []) as [number, number][];
  const [wx, wy] = windowOf(result, aim);
  const corners: [number, number][] = [
    [wx[0] ?? 0, wy[0] ?? 0],
    [wx[1] ?? 0, wy[1] ?? 0],
  ];
  // A part with a wide reach runs out of the map rather than shrinking what is there.
  const near = (list: [number, number][]) => {
    const hold = (v: number, low: number, high: number) => Math.max(low, Math.min(high, v));
    const mid = result[lead].set;
    const room = rear ? 0.6 : 1.6;
    return list.map(([c, k]): [number, number] => [
      hold(c, mid.camber_deg - 1.4, mid.camber_deg + 1.4),
      hold(k, mid[k2] - room, mid[k2] + room),
    ]);
  };
  const pts = (s: SideName) => (result[s].reach?.outline ?? []) as [number, number][];
  const all = useRange(
    [
      ...corners,
      ...sides.flatMap((s) => [
        ...(rear ? near(pts(s)) : pts(s)),
        ...near(cand(s)),
        [result[s].before.camber_deg, result[s].before[k2]] as [number, number],
        [result[s].after.camber_deg, result[s].after[k2]] as [number, number],
        [result[s].set.camber_deg, result[s].set[k2]] as [number, number],
      ]),
    ],
    rear,
  );
  const [nearer, setNearer] = useState<Nearer>(whole);
  const range = seen(all, nearer);
  const X = (c: number) => m.l + ((c - range.c0) / (range.c1 - range.c0)) * (width - m.l - m.r);
  const Y = (k: number) => m.t + ((range.k1 - k) / (range.k1 - range.k0)) * (height - m.t - m.b);
  const P = (p: [number, number]): Point => [X(p[0]), Y(p[1])];
  const area: Box = { x: m.l + 4, y: m.t + 2, w: width - m.l - m.r - 8, h: height - m.t - m.b - 4 };
  const shown = (s: SideName) => focus === 'both' || focus === s;
  const win: Box = {
    x: X(corners[0]![0]),
    y: Y(corners[1]![1]),
    w: X(corners[1]![0]) - X(corners[0]![0]),
    h: Y(corners[0]![1]) - Y(corners[1]![1]),
  };
  const drift = (s: SideName) => {
    const target = result.stop ? result.stop.used_mm : planned;
    return result[s].curve
      .filter((p) =>
        target >= 0 ? p.height_mm >= 0 && p.height_mm <= target : p.height_mm <= 0 && p.height_mm >= target,
      )
      .map((p) => [p.camber_deg, p[k2]] as [number, number]);
  };
  // Obstacles for the labels: the lead side's weave, both discs and paths.
  const busy: Point[] = sides
    .filter(shown)
    .flatMap((s) => [
      ...(result[s].reach?.dots ?? []).map((d) => P(d as [number, number])),
      ...pts(s).map(P),
      ...drift(s).map(P),
      P([result[s].before.camber_deg, result[s].before[k2]]),
      P([result[s].set.camber_deg, result[s].set[k2]]),
    ]);
  // Drawn nearer, what lies beside the field is not named.
  const onField = ([x, y]: Point) =>
    nearer.times === 1 || (x > m.l && x < width - m.r && y > m.t && y < height - m.b);
  const winSeen =
    nearer.times === 1 ||
    (win.x < width - m.r && win.x + win.w > m.l && win.y < height - m.b && win.y + win.h > m.t);
  const boxes: Box[] = [win];
  const put = (w: number, h: number, anchor: Point) => {
    const b = place(area, w, h, anchor, busy, boxes);
    boxes.push(b);
    return b;
  };
  // Where nobody read one of the two, where it stands is what the model expects.
  const guessed = result.expected.some((e) => e.angle === 'camber' || e.angle === (rear ? 'toe' : 'caster'));
  const callouts = sides.filter(shown).map((s) => {
    const set = result[s].set;
    const [what, gap, word] = worst(result[s], aim, rear);
    const on = gap < 1e-6;
    const at = P([set.camber_deg, set[k2]]);
    return {
      s,
      at,
      on,
      what,
      gap,
      word,
      // Said below instead, it takes no room from the other words.
      box: bare
        ? { x: 0, y: 0, w: 0, h: 0 }
        : put(on ? 140 : 128, on ? 54 : 46, [at[0] + (s === 'left' ? -120 : 120), at[1] - 20]),
    };
  });
  const aimLabel = put(bare ? 100 : 116, bare ? 24 : 40, [win.x + win.w + 62, win.y + 16]);
  const by = result[lead].reach?.by ?? [];
  const notch = result[lead].sensitivity.filter((x) => by.slice(0, 2).includes(x.name)).slice(0, 2);
  const inset = notch.length === 2 && !bare ? put(156, 122, [width - 80, height - 110]) : undefined;
  const d = result[lead].doubt;
  const before = result[lead].before;
  const afterLabel = put(106, 20, [X(result[lead].after.camber_deg) - 30, Y(result[lead].after[k2]) + 30]);
  // With the keys: a cross that goes by twentieths of a degree from where the wheel is set, and is picked with Enter.
  const [cross, setCross] = useState<[number, number]>();
  const svg = useRef<SVGSVGElement>(null);
  const [glass, setGlass] = useState<Point>();
  const wasNearer = useRef<Nearer>(whole);
  /** A point of the drawing as parts of the map's field. */
  const field = ([x, y]: Point): [number, number] => [
    (x - m.l) / (width - m.l - m.r),
    (y - m.t) / (height - m.t - m.b),
  ];
  const onMap = ([x, y]: [number, number]): Point | undefined => {
    const m0 = svg.current?.getScreenCTM?.()?.inverse();
    if (!m0) return undefined;
    const at = new DOMPoint(x, y).matrixTransform(m0);
    return [at.x, at.y];
  };
  const valueAt = ([x, y]: Point): [number, number] => [
    Math.round((range.c0 + ((x - m.l) / (width - m.l - m.r)) * (range.c1 - range.c0)) * 100) / 100,
    Math.round((range.k1 - ((y - m.t) / (height - m.t - m.b)) * (range.k1 - range.k0)) * 100) / 100,
  ];
  const picks = (e: MouseEvent) => {
    const at = onMap([e.clientX, e.clientY]);
    // The whole polygon is one target; the solver snaps to the nearest whole notch.
    if (at && inside(at, pts(lead).map(P))) onPick?.(lead, valueAt(at));
  };
  useFingers(
    svg,
    {
      pinch: (spread, from, to, first) => {
        if (first) wasNearer.current = nearer;
        const [a, b] = [onMap(from), onMap(to)];
        if (a && b) setNearer(pinched(wasNearer.current, spread, field(a), field(b)));
      },
      look: (at) => {
        const p = onMap(at);
        if (!p) return;
        setGlass(p);
        setCross(valueAt(p));
      },
      lifted: (there) => {
        if (there && cross && inside(P(cross), pts(lead).map(P))) onPick?.(lead, cross);
        setGlass(undefined);
        setCross(undefined);
      },
    },
    !!onPick,
  );
  const within = !!cross && inside(P(cross), pts(lead).map(P));
  const setAt: [number, number] = [result[lead].set.camber_deg, result[lead].set[k2]];
  /** A point of the map as parts of the whole of it. */
  const part = ([c, k]: [number, number]): [number, number] => [
    (c - all.c0) / (all.c1 - all.c0),
    (all.k1 - k) / (all.k1 - all.k0),
  ];
  const keys = (e: KeyboardEvent) => {
    const by: Record<string, [number, number]> = {
      ArrowLeft: [-0.05, 0],
      ArrowRight: [0.05, 0],
      ArrowUp: [0, rear ? 0.02 : 0.05],
      ArrowDown: [0, rear ? -0.02 : -0.05],
    };
    const step = by[e.key];
    if (step) {
      const [c, k] = cross ?? setAt;
      const hold = (v: number, a: number, b: number) => Math.round(Math.max(a, Math.min(b, v)) * 100) / 100;
      setCross([hold(c + step[0], range.c0, range.c1), hold(k + step[1], range.k0, range.k1)]);
    } else if (e.key === 'Enter' && cross && within) {
      onPick?.(lead, cross);
      setCross(undefined);
    } else if (e.key === 'Escape' && cross) setCross(undefined);
    else if (e.key === '+' || e.key === '-') {
      setNearer(stepped(nearer, e.key === '+' ? 1.5 : 1 / 1.5, part(cross ?? setAt)));
    } else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const crossSays =
    cross &&
    `${lead}: camber ${angle(cross[0], form, 2)}, ${axis2.word} ${angle(cross[1], form, 2)}, ${within ? 'within reach, Enter sets it there' : 'out of reach'}`;
  return (
    <>
      <svg
        viewBox={`0 0 ${width} ${height}`}
        width="100%"
        height="100%"
        preserveAspectRatio="xMidYMid meet"
        {...(onPick
          ? {
              role: 'application',
              'aria-roledescription': 'map',
              tabIndex: 0,
              onKeyDown: keys,
              onBlur: () => setCross(undefined),
            }
          : { role: 'img' })}
        aria-label={
          crossSays ?? `Reach map. ${sides.map((s) => sideWords(s, result[s], form, rear)).join('. ')}.`
        }
        ref={svg}
        className="reach-map"
        data-testid="reach-map"
        onClick={onPick && picks}
        style={{ cursor: onPick ? 'crosshair' : undefined }}
      >
        <defs>
          <pattern
            id="aim-hatch"
            width="7"
            height="7"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <path d="M0 0V7" stroke="var(--aim)" strokeWidth="1.5" opacity=".55" />
          </pattern>
          <clipPath id="map-clip">
            <rect x={m.l} y={m.t} width={width - m.l - m.r} height={height - m.t - m.b} />
          </clipPath>
        </defs>
        <g id="map-drawn">
          <MapGrid {...{ range, X, Y, width, height, m, form, rear }} whole={nearer.times === 1} />
          <g clipPath="url(#map-clip)" opacity={stale ? 0.35 : 1}>
            {shown(lead) && result[lead].bare_reach && (
              <path
                d={ring((result[lead].bare_reach?.outline ?? []).map((p) => P(p as [number, number])))}
                fill="none"
                stroke="var(--edge)"
                strokeWidth="1.4"
                strokeDasharray="2 4"
              />
            )}
            {sides.map(
              (s) =>
                cand(s).length > 0 &&
                (shown(s) || s === lead) && (
                  <path
                    key={s}
                    d={ring(cand(s).map(P))}
                    fill="none"
                    stroke={`var(--${s})`}
                    strokeWidth={s === lead ? 2 : 1.5}
                    strokeDasharray={s === lead ? '9 5' : '3 4'}
                  />
                ),
            )}
            {sides.map((s) => (
              <g key={s} className="weave" color={`var(--${s})`} opacity={shown(s) ? 1 : 0.55}>
                <path
                  d={(result[s].reach?.shape === 'line' ? path : ring)(pts(s).map(P))}
                  fill={
                    result[s].reach?.shape === 'line'
                      ? 'none'
                      : s === lead
                        ? s === 'left'
                          ? 'var(--shade)'
                          : 'var(--shadeR)'
                        : 'none'
                  }
                  stroke="currentColor"
                  strokeWidth={s === lead ? 2.4 : 1.8}
                />
                {s === lead && (
                  <>
                    <path
                      d={(result[s].reach?.threads ?? [])
                        .map((t) => path(t.map((p) => P(p as [number, number]))))
                        .join('')}
                      fill="none"
                      stroke="currentColor"
                      strokeWidth=".9"
                      opacity=".45"
                    />
                    {(result[s].reach?.dots ?? []).map((p, i) => {
                      const [x, y] = P(p as [number, number]);
                      return <circle key={i} cx={x} cy={y} r="2" fill="currentColor" />;
                    })}
                  </>
                )}
              </g>
            ))}
          </g>
          <rect
            {...{ x: win.x, y: win.y, width: Math.max(win.w, 3), height: Math.max(win.h, 3) }}
            fill="url(#aim-hatch)"
            stroke="var(--aim)"
            strokeWidth="2.6"
            clipPath={nearer.times > 1 ? 'url(#map-clip)' : undefined}
          />
          <g opacity={stale ? 0.35 : 1} clipPath="url(#map-clip)">
            <ellipse
              cx={X(result[lead].after.camber_deg)}
              cy={Y(result[lead].after[k2])}
              rx={Math.abs(X(d.camber_deg) - X(0))}
              ry={Math.abs(Y(d[k2]) - Y(0))}
              fill="none"
              stroke={`var(--${lead})`}
              strokeWidth="1.4"
              strokeDasharray="2 3"
            />
            {sides.filter(shown).map((s) => {
              const drifted = drift(s).map(P);
              const a = result[s].after;
              const b = result[s].before;
              const set = P([result[s].set.camber_deg, result[s].set[k2]]);
              const [ax, ay] = P([a.camber_deg, a[k2]]);
              return (
                <g key={s} color={`var(--${s})`}>
                  <path d={path([...drifted, [ax, ay]])} fill="none" stroke="var(--sheet)" strokeWidth="5" />
                  <path
                    d={path([...drifted, [ax, ay]])}
                    fill="none"
                    stroke="currentColor"
                    strokeWidth={s === lead ? 2.4 : 1.8}
                  />
                  <path
                    d={`M${ax} ${ay}L${set[0]} ${set[1]}`}
                    stroke="currentColor"
                    strokeWidth="2.4"
                    strokeDasharray="1 5"
                    strokeLinecap="round"
                  />
                  <Disc side={s} at={P([b.camber_deg, b[k2]])} r={9} hollow />
                  <Disc side={s} at={[ax, ay]} r={10} />
                  <circle
                    cx={set[0]}
                    cy={set[1]}
                    r="6"
                    fill="var(--sheet)"
                    stroke="currentColor"
                    strokeWidth="3"
                  />
                </g>
              );
            })}
          </g>
        </g>
        {cross && !glass && (
          <g data-testid="map-cross" pointerEvents="none">
            <path
              d={`M${X(cross[0]) - 14} ${Y(cross[1])}h28M${X(cross[0])} ${Y(cross[1]) - 14}v28`}
              stroke="var(--ink)"
              strokeWidth="2.5"
              strokeDasharray={within ? undefined : '3 3'}
            />
            <text
              x={Math.min(X(cross[0]) + 16, width - m.r - 118)}
              y={Math.max(Y(cross[1]) - 10, m.t + 18)}
              fontSize="18"
              fontWeight="750"
              fill="var(--ink)"
              {...halo}
            >
              {angle(cross[0], form, 2)} · {angle(cross[1], form, 2)} {within ? '↵' : 'out of reach'}
            </text>
          </g>
        )}
        <g fontWeight="650">
          {winSeen && (
            <>
              <text
                x={aimLabel.x}
                y={aimLabel.y + 18}
                fontSize="20"
                fontWeight="750"
                fill="var(--aim)"
                {...halo}
              >
                Aim window
              </text>
              {!bare && (
                <text x={aimLabel.x} y={aimLabel.y + 36} fontSize="17" fill="var(--aim)" {...halo}>
                  {aim.name.toLowerCase()}
                </text>
              )}
            </>
          )}
          {onField(P([result[lead].after.camber_deg, result[lead].after[k2]])) && (
            <text x={afterLabel.x} y={afterLabel.y + 16} fontSize="18" fill={`var(--${lead})`} {...halo}>
              {result[lead].reach ? 'untouched' : 'as built'}
            </text>
          )}
          {onField(P([before.camber_deg, before[k2]])) && (
            <text
              x={X(before.camber_deg) + (lead === 'left' ? -14 : 14)}
              y={Y(before[k2]) - 12}
              textAnchor={lead === 'left' ? 'end' : 'start'}
              fontSize="17"
              fill="var(--ink)"
              {...halo}
            >
              before
            </text>
          )}
        </g>
        {(bare ? [] : callouts.filter((c) => onField(c.at))).map(({ s, at, on, what, gap, word, box }) => (
          <g key={s}>
            <path
              d={`M${box.x + box.w / 2} ${box.y + box.h / 2}L${at[0]} ${at[1]}`}
              stroke={`var(--${s})`}
              strokeWidth="1.4"
            />
            <circle cx={at[0]} cy={at[1]} r="6" fill="var(--sheet)" stroke={`var(--${s})`} strokeWidth="3" />
            <g transform={`translate(${box.x} ${box.y})`} color={on ? 'var(--ink)' : 'var(--plateink)'}>
              <rect
                width={box.w}
                height={box.h}
                rx="4"
                fill={on ? 'var(--sheet)' : 'var(--plate)'}
                stroke={on ? `var(--${s})` : 'none'}
                strokeWidth="2"
              />
              <Glyph
                name={on ? (guessed ? 'unread' : 'aim') : 'short'}
                x={9}
                y={on ? 8 : 13}
                size={on ? 18 : 20}
              />
              <text x="36" y={on ? 23 : 19} fontSize="18" fontWeight={on ? 750 : 600} fill="currentColor">
                {on ? `${cap(s)} ${guessed ? 'expected' : 'on aim'}` : `${s} ${what}`}
              </text>
              {on ? (
                <text x="10" y="46" fontSize="22" fontWeight="800" fill={`var(--${s})`}>
                  {angle(result[s].set.camber_deg, form)} · {angle(result[s].set[k2], form, rear ? 2 : 1)}
                </text>
              ) : (
                <text x="36" y="40" fontSize="22" fontWeight="800" fill="currentColor">
                  {word} {angle(gap, form, gap < 0.095 ? 2 : 1)}
                </text>
              )}
            </g>
          </g>
        ))}
        {inset && (
          <g transform={`translate(${inset.x} ${inset.y})`}>
            <rect width="156" height="122" rx="4" fill="var(--well)" stroke="var(--line)" />
            <text x="11" y="21" fontSize="18.5" fontWeight="750" fill="var(--ink)">
              One step
            </text>
            {notch.map((n, i) => (
              <g key={n.name} transform={`translate(11 ${43 + i * 46})`}>
                <text fontSize="17" fontWeight="700" fill="var(--ink)">
                  {n.name.length > 22 ? `${n.name.slice(0, 21)}…` : n.name.toLowerCase()}
                </text>
                <text y="18" fontSize="16" fontWeight="600" fill="var(--ink2)">
                  {`camber ${small(n.camber_deg)} · ${axis2.word} ${small(n[k2])}`}
                </text>
              </g>
            ))}
          </g>
        )}
        {glass && cross && (
          <Glass
            at={glass}
            says={`${angle(cross[0], form, 2)} · ${angle(cross[1], form, 2)}`}
            within={within}
            width={width}
            of="map-drawn"
          />
        )}
      </svg>
      {(bare || nearer.times > 1) && (
        <ChipButton
          className="map-nearer"
          size="small"
          // What two fingers do, with one.
          onClick={() => setNearer(nearer.times > 1 ? whole : stepped(whole, 2, part(setAt)))}
          data-testid="map-nearer"
        >
          {nearer.times > 1 ? `×${num(nearer.times, 1)} · whole map` : 'Nearer'}
        </ChipButton>
      )}
      <span className="vh" aria-live="polite">
        {crossSays}
      </span>
    </>
  );
}

const halo = {
  paintOrder: 'stroke',
  stroke: 'var(--sheet)',
  strokeWidth: 4,
  strokeLinejoin: 'round',
} as const;

function Disc({ side, at, r, hollow }: { side: SideName; at: Point; r: number; hollow?: boolean }) {
  const d = halfPath(side, at[0], at[1], r);
  return (
    <>
      <path d={d} fill="none" stroke="var(--sheet)" strokeWidth="6" strokeLinejoin="round" />
      <path
        d={d}
        fill={hollow ? 'var(--sheet)' : 'currentColor'}
        stroke="currentColor"
        strokeWidth="2"
        strokeLinejoin="round"
      />
    </>
  );
}
