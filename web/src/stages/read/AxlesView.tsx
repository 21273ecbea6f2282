// The car's current numbers as a picture: both axles from behind with their lean, and from above with their toe.
import { Ground } from '../../ui/Car';
import { useSettings } from '../../ui/settings';
import { angle, num } from '../../units/print';
import { show, type Figure, type Quantity, type Target, type VisitView } from '../../pad/readings';

const rad = (d: number) => (d * Math.PI) / 180;
const clamp = (v: number, m: number) => Math.max(-m, Math.min(m, v));
type Axle = 'front' | 'rear';
type Side = 'left' | 'right';

export function AxlesView({ view, open }: { view: VisitView; open: (t: Target) => void }) {
  const { form, units } = useSettings();
  const get = (q: Quantity, axle: Axle, side: Side): Figure | undefined =>
    view.picture.current.find((f) => f.quantity === q && f.place.axle === axle && f.place.side === side);
  const thrust = view.picture.derived.find((d) => d.id === 'thrust')?.value;
  const tap = (quantity: Quantity, axle: Axle, side: Side) => ({
    onClick: () => open({ quantity, place: { axle, side } }),
    style: { cursor: 'pointer' },
  });
  const text = (q: Quantity, axle: Axle, side: Side) => {
    const f = get(q, axle, side);
    return f ? `${show(q, f.value, units)}` : '—';
  };
  const wheel = (axle: Axle, side: Side, cx: number) => {
    const m = side === 'left' ? -1 : 1;
    const camber = get('camber', axle, side);
    const lean = clamp((camber?.value ?? 0) * 6, 16) * m;
    const ground = 214;
    const height = get('height', axle, side);
    return (
      <g key={axle + side} {...tap('camber', axle, side)}>
        {camber && Math.abs(lean) > 0.5 && (
          <path
            d={`M${cx} ${ground}L${cx + Math.sin(rad(lean)) * 152} ${ground - Math.cos(rad(lean)) * 152}L${cx} ${ground - 152}Z`}
            fill={`var(--${side}S)`}
            opacity=".5"
          />
        )}
        <path d={`M${cx} ${ground}V${ground - 152}`} stroke="var(--chalk2)" strokeDasharray="8 3 2 3" />
        <rect
          x={cx - 21}
          y={ground - 128}
          width="42"
          height="128"
          rx="13"
          transform={`rotate(${lean} ${cx} ${ground - 64})`}
          fill="var(--slate)"
          stroke={camber?.stale ? 'var(--chalk2)' : 'var(--chalk)'}
          strokeWidth="1.8"
          strokeDasharray={camber ? (camber.stale ? '6 4' : undefined) : '3 4'}
        />
        <text
          x={cx}
          y={ground + 26}
          textAnchor="middle"
          fontSize="24"
          fontWeight="700"
          fill={camber ? 'var(--chalk)' : 'var(--chalk2)'}
        >
          {text('camber', axle, side)}
        </text>
        <path
          d={`M${cx + m * 44} ${ground - 64}V${ground - 152}m-7 0h14M${cx + m * 44 - 7} ${ground - 64}h14`}
          stroke={`var(--${side}S)`}
          strokeWidth="1.8"
          fill="none"
        />
        <text
          x={cx + m * 52}
          y={ground - 100}
          textAnchor={m > 0 ? 'start' : 'end'}
          fontSize="21"
          fontWeight="700"
          fill={height ? 'var(--chalk)' : 'var(--chalk2)'}
        >
          {height ? show('height', height.value, units).replace(' mm', '').replace(' in', '″') : '—'}
        </text>
      </g>
    );
  };
  const panel = (axle: Axle, x: number) => (
    <g transform={`translate(${x} 0)`}>
      <text x="160" y="24" textAnchor="middle" fontSize="21" fontWeight="750" fill="var(--chalk)">
        {axle === 'front' ? 'Front axle' : 'Rear axle'}
      </text>
      <path d="M96 62Q160 34 224 62" fill="none" stroke="var(--steel)" strokeWidth="5" />
      <path d="M110 150H210" stroke="var(--steel)" strokeWidth="8" />
      <Ground x0={20} x1={300} y={214} />
      {wheel(axle, 'left', 108)}
      {wheel(axle, 'right', 212)}
      {axle === 'front' && (
        <text
          x="160"
          y="92"
          textAnchor="middle"
          fontSize="18"
          fontWeight="650"
          fill="var(--chalk2)"
          {...tap('caster', 'front', 'left')}
        >
          caster
          <tspan x="160" dy="24" fill="var(--chalk)" fontSize="20">
            {`${text('caster', 'front', 'left')} · ${text('caster', 'front', 'right')}`}
          </tspan>
        </text>
      )}
    </g>
  );
  const top = (axle: Axle, side: Side, x: number, y: number) => {
    const m = side === 'left' ? 1 : -1;
    const f = get('toe', axle, side);
    const d = clamp((f?.value ?? 0) * 20, 18) * m;
    return (
      <g key={`t${axle}${side}`} {...tap('toe', axle, side)}>
        <rect
          x={x - 12}
          y={y - 34}
          width="24"
          height="68"
          rx="8"
          transform={`rotate(${d} ${x} ${y})`}
          fill="var(--slate)"
          stroke={f?.stale ? 'var(--chalk2)' : 'var(--chalk)'}
          strokeWidth="1.8"
          strokeDasharray={f ? (f.stale ? '5 4' : undefined) : '3 4'}
        />
        <text
          x={x - m * 24}
          y={y + 7}
          textAnchor={m > 0 ? 'end' : 'start'}
          fontSize="21"
          fontWeight="700"
          fill={f ? 'var(--chalk)' : 'var(--chalk2)'}
        >
          {f ? angle(f.value, form, 2) : '—'}
        </text>
      </g>
    );
  };
  return (
    <svg
      viewBox="0 0 950 272"
      width="100%"
      role="img"
      aria-label="Camber and heights of both axles from behind, toe from above. The table below says the same."
      className="axles-view"
    >
      {panel('front', 0)}
      {panel('rear', 320)}
      <g transform="translate(650 0)">
        <text x="150" y="24" textAnchor="middle" fontSize="21" fontWeight="750" fill="var(--chalk)">
          Toe{' '}
          <tspan fill="var(--chalk2)" fontSize="18">
            nose ▴
          </tspan>
        </text>
        <path d="M100 84H200M100 196H200M150 60V220" stroke="var(--steel)" strokeWidth="5" fill="none" />
        {top('front', 'left', 100, 84)}
        {top('front', 'right', 200, 84)}
        {top('rear', 'left', 100, 196)}
        {top('rear', 'right', 200, 196)}
        {thrust !== undefined && (
          <>
            <path
              d={`M150 196L${150 + clamp(thrust * 20, 18) * 2.2} 50`}
              stroke="var(--do)"
              strokeWidth="2.4"
            />
            <text
              x="150"
              y="146"
              textAnchor="middle"
              fontSize="18"
              fontWeight="650"
              fill="var(--do)"
              stroke="var(--slate2)"
              strokeWidth="5"
              paintOrder="stroke"
            >
              {`thrust ${num(thrust, 2)}°`}
            </text>
          </>
        )}
      </g>
      <text x="16" y="266" fontSize="16" fontWeight="600" fill="var(--chalk2)">
        axles from behind, left on the left · lean ×6, toe ×20
      </text>
      <text x="934" y="266" textAnchor="end" fontSize="16" fontWeight="600" fill="var(--chalk2)">
        dashed: not read or stale
      </text>
    </svg>
  );
}
