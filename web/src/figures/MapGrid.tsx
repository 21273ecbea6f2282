// Lines of a reach map and what stands beside them, as near as it is looked at.
import { tick, type AngleForm } from '../units/print';
import { gridStep, type Range } from './closer';
import { every } from './plot';

interface Props {
  range: Range;
  X: (camber: number) => number;
  Y: (second: number) => number;
  width: number;
  height: number;
  /** Room for the words round the field. */
  m: { l: number; r: number; t: number; b: number };
  form: AngleForm;
  /** The second axis is toe, not caster. */
  rear: boolean;
  /** All of the map is seen. */
  whole: boolean;
}

export function MapGrid({ range, X, Y, width, height, m, form, rear, whole }: Props) {
  // Farther apart than the words beside them, whatever is seen.
  const cStep = whole
    ? range.c1 - range.c0 > 5
      ? 1
      : 0.5
    : gridStep(range.c1 - range.c0, [0.1, 0.2, 0.5, 1]);
  const kStep = rear
    ? range.k1 - range.k0 > 1.2
      ? 0.25
      : whole
        ? 0.1
        : gridStep(range.k1 - range.k0, [0.02, 0.05, 0.1])
    : whole
      ? range.k1 - range.k0 > 9
        ? 2
        : 1
      : gridStep(range.k1 - range.k0, [0.1, 0.2, 0.5, 1, 2]);
  return (
    <>
      {every(range.c0, range.c1, cStep).map((c) => (
        <g key={c}>
          <path
            d={`M${X(c)} ${m.t}V${height - m.b}`}
            stroke={c === 0 ? 'var(--edge)' : 'var(--line)'}
            strokeWidth={c === 0 ? 1.6 : 1}
          />
          <text
            x={X(c)}
            y={height - m.b + 19}
            textAnchor="middle"
            fontSize="17"
            fontWeight="600"
            fill="var(--ink2)"
          >
            {c === 0 ? '0' : tick(c, form, 1, true)}
          </text>
        </g>
      ))}
      {every(range.k0, range.k1, kStep).map((k) => (
        <g key={k}>
          <path d={`M${m.l} ${Y(k)}H${width - m.r}`} stroke="var(--line)" />
          <text x={m.l - 8} y={Y(k) + 6} textAnchor="end" fontSize="17" fontWeight="600" fill="var(--ink2)">
            {tick(k, form, rear ? 2 : kStep < 1 ? 1 : 0, rear)}
          </text>
        </g>
      ))}
      <g fontSize="17" fontWeight="600" fill="var(--ink2)">
        <text x={m.l} y={height - 4}>
          ◂ top leans in
        </text>
        <text x={width - m.r} y={height - 4} textAnchor="end">
          top leans out ▸
        </text>
        <text
          x={Math.min(Math.max(X(0), m.l + 140), width - 160)}
          y={height - 4}
          textAnchor="middle"
          fontWeight="750"
          fill="var(--ink)"
        >
          camber
        </text>
        <text
          transform={`translate(14 ${Y((range.k0 + range.k1) / 2) + 20}) rotate(-90)`}
          fontWeight="750"
          fill="var(--ink)"
        >
          {rear ? 'toe, one wheel, in +' : 'caster'}
        </text>
      </g>
    </>
  );
}
