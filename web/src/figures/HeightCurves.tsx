// Camber, caster and toe over height; the handle on the planned height drags it, and nothing else does: a swipe over
// a curve scrolls the page.
import { useRef, type PointerEvent } from 'react';
import type { PlanResult, Schemas, SideName } from '../api/client';
import { angle, MM_PER_INCH, num, signed, tick, type AngleForm, type LengthUnit } from '../units/print';
import { path, ring, scale, stepOf, ticks as round } from './plot';

type Point = Schemas['CurvePoint'];
type Quantity = 'camber' | 'caster' | 'toe';

interface Props {
  result: PlanResult;
  lead: SideName;
  planned: number;
  settle: number;
  load: number;
  form: AngleForm;
  unit: LengthUnit;
  onHeight: (mm: number) => void;
  only?: Quantity | undefined;
}

const W = 222;
const H = 178;
const M = { l: 36, r: 8, t: 34, b: 22 };
/** Width of what can be gripped, drawing units; about a finger. */
const HANDLE = 46;
const decimals = { camber: 1, caster: 1, toe: 2 } as const;

const value = (p: Point, q: Quantity) =>
  q === 'camber' ? p.camber_deg : q === 'caster' ? p.caster_deg : p.toe_deg;
const band = (p: Point, q: Quantity) =>
  q === 'camber' ? p.doubt.camber_deg : q === 'caster' ? p.doubt.caster_deg : p.doubt.toe_deg;

/** Linear between the computed heights. */
export function valueAt(curve: Point[], q: Quantity, h: number): number | undefined {
  const i = curve.findIndex((p) => p.height_mm >= h);
  const b = curve[i];
  if (i < 0 || !b) return undefined;
  const a = curve[i - 1];
  if (!a) return Math.abs(b.height_mm - h) < 0.5 ? value(b, q) : undefined;
  const t = (h - a.height_mm) / (b.height_mm - a.height_mm);
  return value(a, q) + t * (value(b, q) - value(a, q));
}

export function HeightCurves(props: Props) {
  const rear = props.result.plane === 'camber_toe';
  const list: Quantity[] = props.only ? [props.only] : rear ? ['camber', 'toe'] : ['camber', 'caster', 'toe'];
  return (
    <div
      style={{
        display: 'grid',
        gridTemplateColumns: props.only ? '1fr' : 'repeat(3,1fr)',
        gap: 4,
        minWidth: 0,
        flex: 1,
      }}
    >
      {list.map((q) => (
        <Chart key={q} {...props} q={q} />
      ))}
    </div>
  );
}

/** Changes of height that are named under the chart, mm: tens of millimetres or whole inches. */
const heights = (unit: LengthUnit) =>
  unit === 'in'
    ? [-4, -3, -2, -1, 0, 1, 2, 3, 4, 5].map((i) => i * MM_PER_INCH)
    : [-90, -60, -30, 0, 30, 60, 90, 120];

function Chart({ result, lead, planned, settle, load, form, unit, onHeight, q }: Props & { q: Quantity }) {
  const svg = useRef<SVGSVGElement>(null);
  const held = useRef<[number, number] | undefined>(undefined);
  const other: SideName = lead === 'left' ? 'right' : 'left';
  const curve = result[lead].curve;
  const ends = [curve[0]?.height_mm ?? -40, curve.at(-1)?.height_mm ?? 90] as const;
  const [h0, h1] = held.current ?? [Math.min(-40, ends[0]), Math.max(40, ends[1])];
  const vals = [...curve, ...result[other].curve].map((p) => value(p, q));
  const setAngle =
    q === 'camber'
      ? result[lead].set.camber_deg
      : q === 'caster'
        ? result[lead].set.caster_deg
        : result[lead].set.toe_deg;
  const least = q === 'toe' ? 0.6 : 1.6;
  let [lo, hi] = [Math.min(...vals, setAngle), Math.max(...vals, setAngle)];
  if (hi - lo < least) [lo, hi] = [(lo + hi) / 2 - least / 2, (lo + hi) / 2 + least / 2];
  const pad = (hi - lo) * 0.12;
  [lo, hi] = [lo - pad, hi + pad];
  const X = scale([h0, h1], [M.l, W - M.r]);
  const Y = scale([lo, hi], [H - M.b, M.t]);
  const through = (pts: Point[], f: (p: Point) => number) =>
    pts.map((p): [number, number] => [X(p.height_mm), Y(f(p))]);
  const doubted = ring([
    ...through(curve, (p) => value(p, q) + band(p, q)),
    ...through(curve, (p) => value(p, q) - band(p, q)).toReversed(),
  ]);
  const step = stepOf(lo, hi, 4);
  const ticks = round(lo, hi, 4);
  const move = (e: PointerEvent) => {
    const box = svg.current?.getBoundingClientRect();
    if (!box) return;
    const x = ((e.clientX - box.left) / box.width) * W;
    const h = X.invert(x);
    onHeight(Math.round(Math.max(h0, Math.min(h1, h))));
  };
  const before =
    q === 'camber'
      ? result[lead].before.camber_deg
      : q === 'caster'
        ? result[lead].before.caster_deg
        : result[lead].before.toe_deg;
  const after =
    q === 'camber'
      ? result[lead].after.camber_deg
      : q === 'caster'
        ? result[lead].after.caster_deg
        : result[lead].after.toe_deg;
  const at = (h: number) => valueAt(curve, q, h);
  const mark = (h: number, kind: 'stock' | 'settled' | 'loaded') => {
    const v = kind === 'stock' ? before : at(h);
    if (v === undefined) return null;
    const [x, y] = [X(h), Y(v)];
    const d =
      kind === 'stock'
        ? `M${x - 5} ${y - 5}h10v10h-10Z`
        : kind === 'settled'
          ? `M${x - 6} ${y - 4.5}H${x + 6}L${x} ${y + 6}Z`
          : `M${x - 3.5} ${y - 5}H${x + 3.5}L${x + 6.5} ${y + 5}H${x - 6.5}Z`;
    return <path d={d} fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />;
  };
  const name = q.charAt(0).toUpperCase() + q.slice(1);
  const clip = `clip-${q}`;
  const used = result.stop ? result.stop.used_mm : planned;
  return (
    <svg
      ref={svg}
      className="curve"
      viewBox={`0 0 ${W} ${H}`}
      width="100%"
      tabIndex={0}
      role="slider"
      aria-label={`${name} over front height`}
      aria-valuemin={Math.round(h0)}
      aria-valuemax={Math.round(h1)}
      aria-valuenow={planned}
      aria-valuetext={`front ${signed(planned)} millimetres, ${q} ${num(after, 2)} degrees`}
      data-testid={`curve-${q}`}
      onKeyDown={(e) => {
        const d = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1, PageUp: 5, PageDown: -5 }[e.key];
        if (d) {
          e.preventDefault();
          onHeight(planned + d);
        }
      }}
    >
      <defs>
        <clipPath id={clip}>
          <rect x={M.l} y={M.t - 4} width={W - M.l - M.r} height={H - M.t - M.b + 4} />
        </clipPath>
      </defs>
      {ticks.map((v) => (
        <g key={v}>
          <path d={`M${M.l} ${Y(v)}H${W - M.r}`} stroke="var(--line)" />
          <text x={M.l - 6} y={Y(v) + 5} textAnchor="end" fontSize="16" fontWeight="600" fill="var(--ink2)">
            {form === 'minutes' ? tick(v, form, 1) : num(v, step < 1 ? 1 : 0)}
          </text>
        </g>
      ))}
      {heights(unit)
        .filter((h) => h >= h0 && h <= h1)
        .map((h) => (
          <g key={h}>
            <path d={`M${X(h)} ${H - M.b}v4`} stroke="var(--edge)" />
            <text x={X(h)} y={H - 4} textAnchor="middle" fontSize="16" fontWeight="600" fill="var(--ink2)">
              {unit === 'in' ? `${signed(h / MM_PER_INCH)}″` : signed(h)}
            </text>
          </g>
        ))}
      <path d={`M${M.l} ${H - M.b}H${W - M.r}`} stroke="var(--edge)" />
      <g clipPath={`url(#${clip})`}>
        <path d={doubted} fill={lead === 'left' ? 'var(--shade)' : 'var(--shadeR)'} />
        <path
          d={path(through(result[other].curve, (p) => value(p, q)))}
          fill="none"
          stroke={`var(--${other})`}
          strokeWidth="1.8"
          strokeDasharray="7 3"
        />
        <path
          d={path(through(curve, (p) => value(p, q)))}
          fill="none"
          stroke={`var(--${lead})`}
          strokeWidth="2.4"
        />
        {result.stop && result.stop.asked_mm > 0 && (
          <path d={`M${X(ends[1])} ${M.t}V${H - M.b}`} stroke="var(--ink)" strokeWidth="3" />
        )}
      </g>
      <path d={`M${X(used)} ${M.t - 4}V${H - M.b}`} stroke="var(--ink)" strokeWidth="1.4" />
      {mark(0, 'stock')}
      {load > 0 && mark(used - load, 'loaded')}
      {settle > 0 && mark(used - settle, 'settled')}
      <circle
        cx={X(used)}
        cy={Y(setAngle)}
        r="5.5"
        fill="var(--sheet)"
        stroke={`var(--${lead})`}
        strokeWidth="3"
      />
      <path
        d={`M${X(used)} ${Y(after) - 8}L${X(used) + 8} ${Y(after)}L${X(used)} ${Y(after) + 8}L${X(used) - 8} ${Y(after)}Z`}
        fill="var(--ink)"
        stroke="var(--sheet)"
        strokeWidth="1.5"
      />
      <rect
        className="grip"
        data-testid={`handle-${q}`}
        x={X(used) - HANDLE / 2}
        y={M.t - 4}
        width={HANDLE}
        height={H - M.t - M.b + 4}
        fill="transparent"
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          held.current = [h0, h1];
        }}
        onPointerMove={(e) => held.current && move(e)}
        onPointerUp={() => {
          held.current = undefined;
        }}
        onPointerCancel={() => {
          held.current = undefined;
        }}
      />
      <text x="6" y="19" fontSize="20" fontWeight="750" fill="var(--ink)">
        {name}
      </text>
      <text x={W - M.r} y="19" textAnchor="end" fontSize="18" fontWeight="600" fill="var(--ink2)">
        {angle(before, form, decimals[q])} →{' '}
        <tspan fontSize="26" fontWeight="800" fill={`var(--${lead})`} data-testid={`after-${q}`}>
          {angle(after, form, decimals[q])}
        </tspan>
      </text>
    </svg>
  );
}
