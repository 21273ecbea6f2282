// Distance under the hand: bands of both states above, the handle on the road.
import type { SceneWear, SideName } from '../../api/client';
import { scale, ticks as round } from '../../figures/plot';
import { useSettings } from '../../ui/settings';
import { far, farUnit, inUnits, kept } from '../../units/measure';

export function Scrubber({
  km,
  max,
  set,
  marks,
  side,
}: {
  km: number;
  max: number;
  set: (k: number) => void;
  marks: { t: SceneWear; word: string; dash: boolean }[];
  side: SideName;
}) {
  const { units } = useSettings();
  const W = 838;
  const X = scale([0, max], [28, W - 28]).clamp(true);
  const drag = (e: React.PointerEvent<SVGSVGElement>) => {
    const b = e.currentTarget.getBoundingClientRect();
    set(Math.round(X.invert(((e.clientX - b.left) / b.width) * W) / 500) * 500);
  };
  const ticks = round(0, inUnits('distance', max, units), 8).map((v) => kept('distance', v, units));
  return (
    <svg
      viewBox={`0 0 ${W} 112`}
      width="100%"
      className="road"
      role="slider"
      tabIndex={0}
      aria-label="Distance"
      aria-valuemin={0}
      aria-valuemax={max}
      aria-valuenow={km}
      aria-valuetext={farUnit(km, units)}
      data-testid="scrubber"
      onPointerDown={(e) => {
        // A finger anywhere else scrolls: it moves by the handle alone. A mouse may press where it should be.
        if (e.pointerType === 'touch' && !(e.target as Element).closest('.grip')) return;
        e.currentTarget.setPointerCapture(e.pointerId);
        drag(e);
      }}
      onPointerMove={(e) => e.currentTarget.hasPointerCapture(e.pointerId) && drag(e)}
      onKeyDown={(e) => {
        const d = {
          ArrowRight: 1000,
          ArrowUp: 1000,
          ArrowLeft: -1000,
          ArrowDown: -1000,
          PageUp: 5000,
          PageDown: -5000,
        }[e.key];
        if (d) {
          e.preventDefault();
          set(Math.max(0, Math.min(max, km + d)));
        }
      }}
    >
      {marks.map(({ t, word, dash }, i) => {
        const y = 12 + i * 20;
        const { low, median, high } = t.band_km;
        return (
          <g key={word} stroke={`var(--${side})`} strokeWidth="2" strokeDasharray={dash ? '5 3' : undefined}>
            <path
              d={`M${X(low)} ${y}L${X(median)} ${y - 8}L${X(high)} ${y}L${X(median)} ${y + 8}Z`}
              fill={dash ? 'none' : 'var(--shade)'}
            />
            <path d={`M${X(median)} ${y - 10}V66`} />
            <text
              x={X(high) > W - 90 ? X(low) - 8 : X(high) + 8}
              y={y + 6}
              textAnchor={X(high) > W - 90 ? 'end' : 'start'}
              stroke="none"
              fontSize="18"
              fontWeight="700"
              fill={`var(--${side})`}
            >
              {word}
            </text>
          </g>
        );
      })}
      {ticks.map((v) => (
        <g key={v}>
          <path d={`M${X(v)} 66v11`} stroke="var(--edge)" strokeWidth="1.4" />
          <text x={X(v)} y="106" textAnchor="middle" fontSize="18" fontWeight="600" fill="var(--ink2)">
            {v ? far(v, units) : '0'}
          </text>
        </g>
      ))}
      <path d={`M${X(0)} 66H${X(max)}`} stroke="var(--edge)" strokeWidth="5" strokeLinecap="round" />
      <path d={`M${X(0)} 66H${X(km)}`} stroke="var(--ink)" strokeWidth="7" strokeLinecap="round" />
      <g transform={`translate(${X(km)} 66)`} className="grip">
        {/* As large as a finger on a phone, where the drawing is a third of its size. */}
        <rect x="-62" y="-56" width="124" height="112" fill="transparent" />
        <rect
          x="-30"
          y="-22"
          width="60"
          height="44"
          rx="22"
          fill="var(--sheet)"
          stroke="var(--ink)"
          strokeWidth="2.6"
        />
        <path d="M-9 -9L-17 0L-9 9M9 -9L17 0L9 9M0 -11V11" fill="none" stroke="var(--ink)" strokeWidth="3" />
      </g>
    </svg>
  );
}
