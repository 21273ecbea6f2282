// Camber of both wheels over the turn of the steering, and how far the body is lifted by it.
import { tones, dashes } from '../../figures/Overlay';
import { every, path, scale, ticks } from '../../figures/plot';
import { signed, tick, type AngleForm } from '../../units/print';
import type { Stands } from './jig';

const W = 330;
const H = 190;
const m = { l: 40, r: 8, t: 8, b: 38 };

interface Props {
  items: { key: string; stands: Stands }[];
  steer: number;
  form: AngleForm;
  of: 'camber' | 'lift';
}

export function JigCurves({ items, steer, form, of }: Props) {
  const all = items.flatMap((i) =>
    i.stands.turns.flatMap((t) => (of === 'camber' ? [t.left_deg, t.right_deg] : [t.lift_mm])),
  );
  const low = Math.floor(Math.min(...all, of === 'camber' ? -1 : 0) - 0.2);
  const high = Math.ceil(Math.max(...all, 1) + 0.2);
  // As far as the steering was swept.
  const lock = Math.max(...items.flatMap((i) => i.stands.turns.map((t) => Math.abs(t.steer_deg))), 1);
  const x = scale([-lock, lock], [m.l, W - m.r]);
  const y = scale([low, high], [H - m.b, m.t]);
  const line = (get: (t: Stands['turns'][number]) => number, s: Stands) =>
    path(s.turns.map((t) => [x(t.steer_deg), y(get(t))]));
  const end = items.map((i) => ({ key: i.key, t: i.stands.turns.at(-1) }));
  const says =
    of === 'camber'
      ? `Camber over the turn of the steering. At ${Math.round(lock)} degrees to the left: ${end.map((e) => e.t && `${e.key} left wheel ${signed(e.t.left_deg, 1)}, right wheel ${signed(e.t.right_deg, 1)}`).join('; ')}.`
      : `Lift of the body over the turn of the steering. At ${Math.round(lock)} degrees to the left: ${end.map((e) => e.t && `${e.key} ${signed(e.t.lift_mm, 1)} mm`).join('; ')}.`;
  return (
    <svg viewBox={`0 0 ${W} ${H}`} width="100%" role="img" aria-label={says} data-testid={`jig-${of}`}>
      {ticks(low, high, 5).map((v) => (
        <g key={v}>
          <path
            d={`M${m.l} ${y(v)}H${W - m.r}`}
            stroke={v === 0 ? 'var(--edge)' : 'var(--line)'}
            strokeWidth={v === 0 ? 1.6 : 1}
          />
          <text x={m.l - 8} y={y(v) + 6} textAnchor="end" fontSize="16" fontWeight="600" fill="var(--ink2)">
            {of === 'camber' ? tick(v, form, 0, true) : v}
          </text>
        </g>
      ))}
      {every(-30, 30, 15).map((v) => (
        <g key={v}>
          <path d={`M${x(v)} ${m.t}V${H - m.b}`} stroke="var(--line)" />
          <text
            x={x(v)}
            y={H - m.b + 20}
            textAnchor="middle"
            fontSize="16"
            fontWeight="600"
            fill="var(--ink2)"
          >
            {Math.abs(v)}
          </text>
        </g>
      ))}
      <g fontSize="16" fontWeight="650" fill="var(--ink2)">
        <text x={m.l} y={H - 2}>
          ◂ to the right
        </text>
        <text x={W - m.r} y={H - 2} textAnchor="end">
          to the left ▸
        </text>
      </g>
      <path
        d={`M${x(steer)} ${m.t}V${H - m.b}`}
        stroke="var(--ink)"
        strokeWidth="1.6"
        strokeDasharray="3 3"
      />
      {items.map(({ key, stands }, n) =>
        of === 'camber' ? (
          <g key={key} fill="none" strokeDasharray={dashes[n % 4]}>
            <path d={line((t) => t.left_deg, stands)} stroke="var(--left)" strokeWidth="2.8" />
            <path d={line((t) => t.right_deg, stands)} stroke="var(--right)" strokeWidth="2.8" />
          </g>
        ) : (
          <path
            key={key}
            d={line((t) => t.lift_mm, stands)}
            fill="none"
            stroke="var(--ink)"
            strokeWidth="2.6"
            strokeDasharray={dashes[n % 4]}
          />
        ),
      )}
      {of === 'camber' && items[0] && (
        <g fontSize="16" fontWeight="750">
          <text
            x={x(lock) - 6}
            y={y(items[0].stands.turns.at(-1)?.left_deg ?? 0) - 8}
            textAnchor="end"
            fill="var(--left)"
          >
            left wheel
          </text>
          <text x={x(-lock) + 6} y={y(items[0].stands.turns[0]?.right_deg ?? 0) - 8} fill="var(--right)">
            right wheel
          </text>
        </g>
      )}
    </svg>
  );
}

/** Tone and dash of a setting, as a key on slate. */
export const keyOf = (n: number) => ({ stroke: tones[n % 4], dash: dashes[n % 4] });
