// Sixteenths to drag, whole inches at both ends.
import { Plain } from '../ui/Press';
import { useRef } from 'react';
import { inches, MM_PER_INCH, sixteenths } from '../units/print';

/** A length in mm as it would be typed in inches. */
export function inchText(mm: number): string {
  return inches(mm).replace('−', '-');
}

export function Ruler({ mm, change }: { mm: number; change: (mm: number) => void }) {
  const track = useRef<HTMLDivElement>(null);
  const sign = mm < 0 ? -1 : 1;
  const total = Math.round((Math.abs(mm) / MM_PER_INCH) * 16);
  const whole = Math.floor(total / 16);
  const part = total % 16;
  const put = (n: number) => change((sign * Math.max(0, n) * MM_PER_INCH) / 16);
  const at = (x: number) => {
    const b = track.current?.getBoundingClientRect();
    if (b) put(whole * 16 + Math.round(Math.max(0, Math.min(1, (x - b.left - 12) / (b.width - 24))) * 16));
  };
  const s = sixteenths(mm);
  return (
    <div className="ruler">
      <Plain className="fig" onClick={() => put(total - 16)} aria-label="One inch less">
        −1
      </Plain>
      <div
        ref={track}
        role="slider"
        tabIndex={0}
        aria-label="Sixteenths of an inch"
        aria-valuemin={0}
        aria-valuemax={16}
        aria-valuenow={part}
        aria-valuetext={`${s.sign}${s.whole} ${s.fraction} inches`}
        data-testid="ruler"
        className="grip"
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          at(e.clientX);
        }}
        onPointerMove={(e) => e.buttons && at(e.clientX)}
        onKeyDown={(e) => {
          const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[e.key];
          if (by) {
            e.preventDefault();
            put(total + by);
          }
        }}
      >
        <svg viewBox="0 0 300 56" width="100%" height="56" preserveAspectRatio="none" aria-hidden="true">
          <rect x="12" y="0" width={(276 * part) / 16} height="32" fill="var(--do)" />
          <path
            d={Array.from(
              { length: 17 },
              (_, i) =>
                `M${12 + (276 * i) / 16} 0V${i % 8 === 0 ? 32 : i % 4 === 0 ? 26 : i % 2 === 0 ? 20 : 13}`,
            ).join('')}
            stroke="var(--ink)"
            strokeWidth="2"
            vectorEffect="non-scaling-stroke"
          />
        </svg>
        <div className="ruler-marks fig" aria-hidden="true">
          <span>{whole}</span>
          <span>¼</span>
          <span>½</span>
          <span>¾</span>
          <span>{whole + 1}</span>
        </div>
      </div>
      <Plain className="fig" onClick={() => put(total + 16)} aria-label="One inch more">
        +1
      </Plain>
    </div>
  );
}
