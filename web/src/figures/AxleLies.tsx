// How an axle lies under the car, seen from above and drawn many times as far off as it is: the outline is as found, the
// half-disc pegs are what came, the hatched windows where its ends may be.
import type { AxleName, SideName } from '../api/client';
import { halfPath } from '../ui/glyphs';
import { length, type LengthUnit } from '../units/print';
import { Hatch } from './Hatch';

export interface Lies {
  /** Left less right wheelbase, mm; none where it is not asked or not read. */
  apart?: number | undefined;
  /** How far it stands to the right, mm. */
  right?: number | undefined;
}

interface Props {
  axle: AxleName;
  found: Lies;
  came: Lies;
  stale: boolean;
  /** As far apart and as far aside as it may be, mm; none of what is not asked. */
  most: Lies;
  unit: LengthUnit;
}

const width = 620;
const height = 300;
const ends: Record<SideName, number> = { left: 150, right: 470 };
/** Pixels the farthest end is drawn off. */
const reach = 74;
const sideList: SideName[] = ['left', 'right'];

export function AxleLies({ axle, found, came, stale, most, unit }: Props) {
  const far = [found, came, most].flatMap((l) => [Math.abs(l.apart ?? 0) / 2, Math.abs(l.right ?? 0)]);
  const per = reach / Math.max(...far, 1);
  // A longer wheelbase is a front end farther forward, a rear end farther back; forward is up.
  const up = axle === 'front' ? -1 : 1;
  const at = (l: Lies, s: SideName): [number, number] => [
    ends[s] + (l.right ?? 0) * per,
    height / 2 + up * (s === 'left' ? 0.5 : -0.5) * (l.apart ?? 0) * per,
  ];
  const beam = (l: Lies) => {
    const [[x, y], [u, v]] = [at(l, 'left'), at(l, 'right')];
    return `M${x} ${y}L${u} ${v}`;
  };
  const measured = came.apart !== undefined || came.right !== undefined;
  const w = Math.max((most.right ?? 0) * per, 12);
  const h = Math.max(((most.apart ?? 0) / 2) * per, 12);
  const off = (l: Lies) =>
    [
      l.apart !== undefined &&
        (Math.abs(l.apart) < 0.05
          ? 'wheelbases alike'
          : `wheelbase ${length(Math.abs(l.apart), unit)} longer ${l.apart > 0 ? 'left' : 'right'}`),
      l.right !== undefined &&
        (Math.abs(l.right) < 0.05
          ? 'in the middle'
          : `${length(Math.abs(l.right), unit)} too far ${l.right > 0 ? 'right' : 'left'}`),
    ]
      .filter(Boolean)
      .join(', ');
  const may = [
    most.apart !== undefined && `wheelbases within ${length(most.apart, unit)}`,
    most.right !== undefined && `within ${length(most.right, unit)} of the middle`,
  ]
    .filter(Boolean)
    .join(', ');
  const says = measured ? off(came) : 'not measured since the work';
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width="100%"
      role="img"
      aria-label={`The ${axle} axle from above. As found: ${off(found)}. Now: ${says}${stale ? ', measured before the last work' : ''}. Should be: ${may}.`}
      data-testid={`lies-${axle}`}
    >
      <defs>
        <Hatch id={`lies-aim-${axle}`} />
      </defs>
      <path
        d={`M${width / 2} 34V${height - 40}`}
        stroke="var(--ghost)"
        strokeWidth="1.4"
        strokeDasharray="14 5 3 5"
      />
      <text x={width / 2} y="24" fontSize="16" fontWeight="600" fill="var(--ink2)" textAnchor="middle">
        nose ▴
      </text>
      {sideList.map((s) => (
        <g key={s}>
          <rect
            x={ends[s] - w}
            y={height / 2 - h}
            width={2 * w}
            height={2 * h}
            fill={`url(#lies-aim-${axle})`}
            stroke="var(--aim)"
            strokeWidth="2.6"
          />
          <text
            x={ends[s]}
            y={height - 44}
            fontSize="18"
            fontWeight="700"
            fill={`var(--${s})`}
            textAnchor="middle"
          >
            {s}
          </text>
        </g>
      ))}
      <path d={beam(found)} stroke="var(--ink2)" strokeWidth="2" strokeDasharray="7 5" />
      <text
        x={at(found, 'left')[0]}
        y={Math.min(at(found, 'left')[1], height / 2 - h) - 16}
        fontSize="16"
        fontWeight="600"
        fill="var(--ink2)"
        textAnchor="middle"
      >
        as found
      </text>
      {sideList.map((s) => {
        const [x, y] = at(found, s);
        return (
          <path key={s} d={halfPath(s, x, y, 9)} fill="var(--sheet)" stroke={`var(--${s})`} strokeWidth="2" />
        );
      })}
      {measured && (
        <>
          <path d={beam(came)} stroke="var(--ink)" strokeWidth={stale ? 2 : 5} />
          {sideList.map((s) => {
            const [x, y] = at(came, s);
            return (
              <path
                key={s}
                d={halfPath(s, x, y, 15)}
                fill={stale ? 'var(--sheet)' : `var(--${s})`}
                stroke={`var(--${s})`}
                strokeWidth="2"
              />
            );
          })}
        </>
      )}
      <text
        x={width / 2}
        y={height - 12}
        fontSize="18"
        fontWeight="700"
        fill="var(--ink)"
        textAnchor="middle"
      >
        {axle} axle: {says}
      </text>
    </svg>
  );
}
