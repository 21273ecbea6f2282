// One view of the car to scale: from the front, from the left or from above. Computed from the model.
import type { Schemas } from '../api/client';
import { Ground } from '../ui/Car';
import { leaders } from './place';
import { bar, girth, polygon, project, tyre, type Look, type V2 } from './solids';

export type CornerDrawing = Schemas['CornerDrawing'];

interface Props {
  corners: CornerDrawing[];
  /** As designed, drawn as a ghost. */
  ghost?: CornerDrawing[] | undefined;
  look: Look;
  tyreWidth: number;
  width: number;
  height: number;
  /** mm shown left to right; the picture is centred on them. */
  span: [number, number];
  /** mm of the floor below the picture's lower edge. */
  floor?: number;
  /** A point of the vehicle to ring, and its name. */
  hot?: { at: number[]; name: string } | undefined;
  /** Numbered places, with leaders to a row along the middle of the car: seen from above. */
  spots?: { at: number[]; label: string; on: boolean }[] | undefined;
  /** Where the middle of the car runs from above, px; in the middle of the picture unless told. */
  middle?: number | undefined;
  tags?: boolean;
  label: string;
}

const words: Record<Look, [string, string]> = {
  front: ['from the front', 'left side of the car ▸'],
  side: ['from the left', '◂ nose'],
  top: ['from above', '◂ nose · left side at the bottom'],
};

export function CarView({
  corners,
  ghost,
  look,
  tyreWidth,
  width,
  height,
  span,
  floor = 34,
  hot,
  spots,
  middle,
  tags = true,
  label,
}: Props) {
  const k = width / (span[1] - span[0]);
  const ground = look === 'top' ? (middle ?? (height + 14) / 2) : height - floor;
  const at = (p: V2): V2 => [(p[0] - span[0]) * k, ground - p[1] * k];
  const P = (p: readonly number[]) => at(project[look](p));
  const draw = (list: CornerDrawing[], before: boolean) => (
    <g
      fill="none"
      stroke={before ? 'var(--ghost)' : 'var(--chalk)'}
      strokeWidth={before ? 1 : 1.4}
      strokeDasharray={before ? '4 3' : undefined}
      strokeLinejoin="round"
    >
      {list.map((c) => {
        const d = c.drawing;
        if (!d) return null;
        return (
          <path
            key={`${c.axle}${c.side}`}
            d={polygon(tyre(d, tyreWidth, look), at)}
            fill={before ? 'none' : 'var(--slate)'}
            fillOpacity={look === 'front' ? 0.55 : 0.35}
          />
        );
      })}
      {list.map((c) =>
        // The sideways stiffness of a leaf spring is no link that could be seen.
        c.drawing?.bars.map((b, i) => {
          if (b.name.includes('sideways')) return null;
          const [p, q] = [P(b.from), P(b.to)];
          const [w0, w1] = girth[b.kind];
          const thin = k < 0.11 ? 0.62 : 1;
          return (
            <g key={`${c.axle}${c.side}${i}`}>
              <path
                d={bar(p, q, w0 * thin, w1 * thin)}
                fill={before ? 'none' : 'var(--steel)'}
                strokeWidth={before ? 1 : 1.2}
              />
              {!before && b.kind !== 'knuckle' && b.kind !== 'beam' && (
                <>
                  {b.on_body && <circle cx={p[0]} cy={p[1]} r={4.6 * thin} fill="var(--slate2)" />}
                  <circle cx={q[0]} cy={q[1]} r={3.6 * thin} fill="var(--chalk)" stroke="none" />
                </>
              )}
            </g>
          );
        }),
      )}
      {!before &&
        look !== 'top' &&
        list.map((c) => {
          const a = c.drawing?.axis as [number[], number[]] | null | undefined;
          const g = c.drawing?.pierce;
          if (!a || !g || c.axle === 'rear') return null;
          if (look === 'side' && c.side === 'right') return null;
          const [low, high] = [P(g), P([0, 1, 2].map((i) => (a[1][i] ?? 0) * 1.25 - (a[0][i] ?? 0) * 0.25))];
          return (
            <path
              key={`axis${c.axle}${c.side}`}
              d={`M${low[0]} ${low[1]}L${high[0]} ${high[1]}`}
              stroke="var(--do)"
              strokeWidth="1.9"
            />
          );
        })}
    </g>
  );
  const ring = hot && P(hot.at);
  const flip = ring && ring[0] > width * 0.55;
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width="100%"
      role="img"
      aria-label={label}
      style={{ overflow: 'hidden' }}
    >
      {look === 'top' ? (
        <path d={`M0 ${ground}H${width}`} stroke="var(--slateline)" strokeDasharray="14 4 3 4" />
      ) : (
        <Ground x0={8} x1={width - 8} y={ground} />
      )}
      {ghost && draw(ghost, true)}
      {draw(corners, false)}
      {ring && hot && (
        <g>
          <circle cx={ring[0]} cy={ring[1]} r="9" fill="none" stroke="var(--do)" strokeWidth="3" />
          <path
            d={`M${ring[0]} ${ring[1] - 10}V${Math.max(16, ring[1] - 34)}`}
            stroke="var(--do)"
            strokeWidth="1.4"
          />
          <text
            x={ring[0] + (flip ? -6 : 6)}
            y={Math.max(15, ring[1] - 26)}
            textAnchor={flip ? 'end' : 'start'}
            fontSize="18"
            fontWeight="700"
            fill="var(--do)"
          >
            {hot.name}
          </text>
        </g>
      )}
      {spots && (
        <g fontSize="18" fontWeight="700" textAnchor="middle">
          {leaders(
            spots.map((s) => ({ ...s, p: P(s.at) })),
            width,
          ).map((s) => (
            <g key={s.label}>
              <path
                d={`M${s.p[0]} ${s.p[1]}L${s.x} ${ground + 40}`}
                stroke={s.on ? 'var(--do)' : 'var(--chalk2)'}
                strokeWidth={s.on ? 2.4 : 1.2}
                fill="none"
              />
              <circle
                cx={s.p[0]}
                cy={s.p[1]}
                r={s.on ? 9 : 5}
                fill={s.on ? 'none' : 'var(--chalk2)'}
                stroke={s.on ? 'var(--do)' : 'none'}
                strokeWidth="3"
              />
              <rect
                x={s.x - 14}
                y={ground + 12}
                width="28"
                height="28"
                rx="4"
                fill={s.on ? 'var(--do)' : 'var(--slate)'}
                stroke={s.on ? 'var(--do)' : 'var(--chalk2)'}
              />
              <text x={s.x} y={ground + 33} fill={s.on ? 'var(--doink)' : 'var(--chalk)'}>
                {s.label}
              </text>
            </g>
          ))}
        </g>
      )}
      {tags && (
        <g fontSize="16" fontWeight="600" fill="var(--chalk2)">
          <text x="10" y={look === 'top' ? 18 : height - 8}>
            {words[look][0]}
          </text>
          <text x={width - 10} y={look === 'top' ? 18 : height - 8} textAnchor="end">
            {words[look][1]}
          </text>
        </g>
      )}
    </svg>
  );
}
