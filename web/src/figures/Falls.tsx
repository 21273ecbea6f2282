// How far a corner fell: the disc as it was set, each half to where it came to rest, and the ring of what was said.
import type { SideName } from '../api/client';
import { halfPath } from '../ui/glyphs';
import { bareLength, length, type LengthUnit } from '../units/print';
import { every, path, scale } from './plot';
import { Hop, Ring } from './Ring';

export interface Fall {
  side: SideName;
  set?: number | undefined;
  said?: number | undefined;
  ring: number;
  /** As it came back; where it stands now when it was trimmed and taped since. */
  came?: number | undefined;
  now?: number | undefined;
  /** Where a trim brings it. */
  to?: number | undefined;
}

interface Props {
  axle: 'front' | 'rear';
  falls: Fall[];
  days: number;
  unit: LengthUnit;
  width?: number;
  height?: number;
}

/** A height to rest comes as springs settle: fast at first (drawn, not reckoned). */
const sag = (f: number) => 1 - Math.exp(-3.2 * f);

export function Falls({ axle, falls, days, unit, width = 340, height = 250 }: Props) {
  const L = 52;
  const R = width - 30;
  const T = 20;
  const B = height - 34;
  const all = falls.flatMap((f) => [
    ...(f.said === undefined ? [] : [f.said - f.ring, f.said + f.ring]),
    ...[f.set, f.came, f.now, f.to].filter((v): v is number => v !== undefined),
  ]);
  if (!all.length)
    return (
      <p className="mut" style={{ padding: '30px 18px' }}>
        No height of this axle was read when it was set, nor today.
      </p>
    );
  const room = Math.max(2, (Math.max(...all) - Math.min(...all)) * 0.12);
  const [low, high] = [Math.min(...all) - room, Math.max(...all) + room];
  const Y = scale([low, high], [B, T]);
  const X = scale([0, 1], [L + 26, R - 62]);
  const inch = unit === 'in';
  const step = inch ? 25.4 / 8 : high - low > 30 ? 10 : high - low > 14 ? 5 : 2;
  const show = (mm: number) => bareLength(mm, unit);
  const perMm = (B - T) / (high - low);
  const spoken = falls
    .map((f) => {
      const mm = (v: number | undefined) => (v === undefined ? 'not read' : length(v, unit));
      return `${f.side}: set ${mm(f.set)}, said ${mm(f.said)}, came ${mm(f.came ?? f.now)}`;
    })
    .join('. ');
  const end = X(1);
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width="100%"
      role="img"
      aria-label={`How far the ${axle} fell. ${spoken}`}
      data-testid={`falls-${axle}`}
      style={{ display: 'block', fontFamily: 'var(--figure)' }}
    >
      {every(low, high, step).map((v) => (
        <g key={v}>
          <path d={`M${L} ${Y(v)}H${R}`} stroke="var(--line)" />
          <text x={L - 8} y={Y(v) + 5} fontSize="15" fontWeight="600" fill="var(--ink2)" textAnchor="end">
            {show(v)}
          </text>
        </g>
      ))}
      {falls.map((f) => {
        if (f.set === undefined || f.said === undefined) return null;
        const colour = `var(--${f.side})`;
        const at = (drop: number): [number, number][] =>
          every(0, 1, 0.05).map((t) => [X(t), Y(f.set! - (drop * sag(t)) / sag(1))]);
        const drop = f.set - f.said;
        const band = [...at(drop - f.ring), ...at(drop + f.ring).toReversed()];
        return <path key={f.side} d={`${path(band)}Z`} fill={colour} opacity="0.12" />;
      })}
      {falls.map((f) => {
        const colour = `var(--${f.side})`;
        const came = f.came ?? f.now;
        if (f.set === undefined || came === undefined) return null;
        const line = every(0, 1, 0.05).map((t): [number, number] => [
          X(t),
          Y(f.set! - ((f.set! - came) * sag(t)) / sag(1)),
        ]);
        return (
          <path
            key={f.side}
            d={path(line)}
            fill="none"
            stroke={colour}
            strokeWidth="2.2"
            strokeDasharray={f.side === 'right' ? '9 5' : undefined}
          />
        );
      })}
      {falls.map((f) => {
        if (f.said === undefined) return null;
        const ry = Math.max(f.ring * perMm, 12);
        const rx = Math.min(Math.max(ry, 16), 42);
        return <Ring key={f.side} side={f.side} x={end} y={Y(f.said)} rx={rx} ry={ry} thick={8} />;
      })}
      {falls.map((f) => {
        const colour = `var(--${f.side})`;
        const out = f.side === 'left' ? -1 : 1;
        const came = f.came ?? f.now;
        const y = came === undefined ? 0 : Y(came);
        return (
          <g key={f.side}>
            {f.set !== undefined && <path d={halfPath(f.side, X(0), Y(f.set), 12)} fill={colour} />}
            {came !== undefined && <path d={halfPath(f.side, end, y, 12)} fill={colour} />}
            {f.now !== undefined && f.came !== undefined && f.now !== f.came && (
              <path
                d={halfPath(f.side, end + out * 26, Y(f.now), 9)}
                fill="var(--sheet)"
                stroke={colour}
                strokeWidth="2.4"
              />
            )}
            {came !== undefined && (
              <text
                x={end + out * (f.side === 'left' ? 50 : 48)}
                y={y + 8}
                fontSize="22"
                fontWeight="750"
                fill={colour}
                className="halo"
                textAnchor={f.side === 'left' ? 'end' : 'start'}
              >
                {show(came)}
              </text>
            )}
            {f.to !== undefined && came !== undefined && (
              <g>
                <Hop d={`M${end} ${y}Q${end + out * 40} ${(y + Y(f.to)) / 2} ${end} ${Y(f.to)}`} />
                <path
                  d={halfPath(f.side, end, Y(f.to), 9)}
                  fill="var(--do)"
                  stroke="var(--doink)"
                  strokeWidth="2"
                />
              </g>
            )}
          </g>
        );
      })}
      <path d={`M${L} ${B}H${R}`} stroke="var(--edge)" strokeWidth="2" />
      <text x={X(0)} y={height - 10} fontSize="17" fontWeight="700" fill="var(--ink)" textAnchor="middle">
        set
      </text>
      <text x={end} y={height - 10} fontSize="17" fontWeight="700" fill="var(--ink)" textAnchor="middle">
        today{days > 0 ? `, day ${days}` : ''}
      </text>
    </svg>
  );
}
