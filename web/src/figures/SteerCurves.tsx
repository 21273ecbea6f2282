// Camber of both front wheels from lock to lock: as set solid, as found dashed; the line is where the steering wheel stands.
import type { Schemas } from '../api/client';
import { angle, num, tick, type AngleForm } from '../units/print';
import { path, scale, stepOf, ticks } from './plot';

type Path = Schemas['TurnPath'];
type Point = Schemas['TurnPoint'];

const W = 300;
const H = 168;
const M = { l: 34, r: 10, t: 18, b: 30 };

interface Props {
  steer: Path;
  /** Mean turn of the front wheels, degrees, to the left positive. */
  at: number;
  /** Turns of the steering wheel for one of the wheels. */
  ratio: number;
  form: AngleForm;
}

/** A point between those that were worked out. */
export function pointAt(list: Point[], at: number): Point | undefined {
  const sorted = list.toSorted((a, b) => a.mean_deg - b.mean_deg);
  const i = sorted.findIndex((p) => p.mean_deg >= at);
  const [a, b] = i <= 0 ? [sorted[i < 0 ? sorted.length - 1 : 0], undefined] : [sorted[i - 1], sorted[i]];
  if (!a) return undefined;
  if (!b) return a;
  const t = (at - a.mean_deg) / (b.mean_deg - a.mean_deg);
  const mix = (x: Schemas['TurnSide'], y: Schemas['TurnSide']): Schemas['TurnSide'] => ({
    turn_deg: x.turn_deg + t * (y.turn_deg - x.turn_deg),
    camber_deg: x.camber_deg + t * (y.camber_deg - x.camber_deg),
    rise_mm: x.rise_mm + t * (y.rise_mm - x.rise_mm),
    forward_mm: x.forward_mm + t * (y.forward_mm - x.forward_mm),
  });
  return { mean_deg: at, left: mix(a.left, b.left), right: mix(a.right, b.right) };
}

export function SteerCurves({ steer, at, ratio, form }: Props) {
  const all = [...steer.found, ...steer.set];
  const cambers = all.flatMap((p) => [p.left.camber_deg, p.right.camber_deg]);
  const turns = all.map((p) => p.mean_deg);
  const pad = Math.max(0.5, 0.08 * (Math.max(...cambers) - Math.min(...cambers)));
  const [lo, hi] = [Math.min(...cambers) - pad, Math.max(...cambers) + pad];
  const [t0, t1] = [Math.min(...turns), Math.max(...turns)];
  // Turned to the left stands on the left.
  const X = scale([t1, t0], [M.l, W - M.r]);
  const Y = scale([lo, hi], [H - M.b, M.t]);
  const line = (list: Point[], of: 'left' | 'right') =>
    path(list.map((p): [number, number] => [X(p.mean_deg), Y(p[of].camber_deg)]));
  const step = stepOf(lo, hi, 4);
  const now = pointAt(steer.set, at);
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      width="100%"
      role="img"
      aria-label={`Camber over the steering wheel: left ${now ? num(now.left.camber_deg, 1) : ''}, right ${now ? num(now.right.camber_deg, 1) : ''} degrees`}
    >
      {ticks(lo, hi, 4).map((v) => (
        <g key={v}>
          <path
            d={`M${M.l} ${Y(v)}H${W - M.r}`}
            stroke="var(--slateline)"
            strokeWidth={Math.abs(v) < 1e-9 ? 1.6 : 1}
          />
          <text x={M.l - 5} y={Y(v) + 5} textAnchor="end" fontSize="15" fill="var(--chalk2)">
            {tick(v, form, step < 1 ? 1 : 0)}
          </text>
        </g>
      ))}
      {ticks(t0 * ratio, t1 * ratio, 5).map((v) => (
        <text key={v} x={X(v / ratio)} y={H - 14} textAnchor="middle" fontSize="15" fill="var(--chalk2)">
          {num(Math.abs(v))}°
        </text>
      ))}
      <text x={M.l} y={H - 1} fontSize="14" fill="var(--chalk2)">
        ◂ turned left
      </text>
      <text x={W - M.r} y={H - 1} textAnchor="end" fontSize="14" fill="var(--chalk2)">
        turned right ▸
      </text>
      <text x={M.l} y={13} fontSize="16" fontWeight="700" fill="var(--chalk)">
        camber over the steering wheel
      </text>
      {(['left', 'right'] as const).map((s) => (
        <g key={s} fill="none" stroke={`var(--${s}S)`}>
          <path d={line(steer.found, s)} strokeWidth="1.3" strokeDasharray="4 3" opacity="0.75" />
          <path
            d={line(steer.set, s)}
            strokeWidth="2.4"
            strokeDasharray={s === 'right' ? '9 4' : undefined}
          />
        </g>
      ))}
      {now && (
        <g>
          <path d={`M${X(at)} ${M.t}V${H - M.b}`} stroke="var(--chalk)" strokeWidth="1.4" />
          {(['left', 'right'] as const).map((s) => {
            const [x, y] = [X(at), Y(now[s].camber_deg)];
            const d =
              s === 'left'
                ? `M${x} ${y - 7}A7 7 0 0 0 ${x} ${y + 7}Z`
                : `M${x} ${y - 7}A7 7 0 0 1 ${x} ${y + 7}Z`;
            return <path key={s} d={d} fill={`var(--${s}S)`} />;
          })}
        </g>
      )}
      <text x={W - M.r} y={13} textAnchor="end" fontSize="14" fill="var(--chalk2)">
        {now ? `L ${angle(now.left.camber_deg, form)} · R ${angle(now.right.camber_deg, form)}` : ''}
      </text>
    </svg>
  );
}
