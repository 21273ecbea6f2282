// How high can it go: each set of parts a split ladder standing on the height axis, left half and right half; a half rung is as
// long as the share of the aim that side can be set into there. Heavy where it is sure, dashed where the model alone has it.
import { useRef, type PointerEvent } from 'react';
import type { Schemas } from '../api/client';
import { Bare } from '../ui/Press';
import { lengthChange, num, type LengthUnit } from '../units/print';
import { path, scale, ticks } from './plot';

type Ladders = Schemas['Ladders'];
type Ladder = Schemas['Ladder'];
const W = 300;
const H = 320;
const M = { l: 46, r: 6, t: 26, b: 26 };
const GAP = 2.5;

/** What a ladder is called. */
export const ladderName = (l: Ladder): string => (l.names.length ? l.names.join(' and ') : 'as built');

/** Where it ends and why, in words. */
export function ladderWords(l: Ladder, unit: LengthUnit): string {
  if (!l.may_mm) return `reaches nowhere here${l.above ? `: ${l.above.words}` : ''}`;
  const sure = l.sure_mm ? `sure ${lengthChange(l.sure_mm[1]!, unit)}` : 'nowhere sure';
  const may = `may ${lengthChange(l.may_mm[1]!, unit)}`;
  return `${sure}, ${may}${l.above ? `; above it ${l.above.words}` : ''}`;
}

interface Props {
  ladders: Ladders;
  unit: LengthUnit;
  /** As planned, and where it settles to and stands loaded, mm gained. */
  wanted: number;
  settled: number | undefined;
  loaded: number | undefined;
  /** Parts on the plan now. */
  fitted: string[];
  pick: (gain: number, l: Ladder) => void;
  /** The wanted height, dragged or stepped, mm gained. */
  onHeight: (gain: number) => void;
}

const same = (a: string[], b: string[]) => a.length === b.length && a.every((x) => b.includes(x));

export function HeightLadder({ ladders, unit, wanted, settled, loaded, fitted, pick, onHeight }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const list = ladders.ladders;
  const all = list.flatMap((l) => l.rungs.map((r) => r.gain_mm));
  if (!all.length) return null;
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const Y = scale([low, high], [H - M.b, M.t]);
  const each = (W - M.l - M.r) / list.length;
  const half = Math.min(26, each / 2 - 5);
  const middle = (i: number) => M.l + each * (i + 0.5);
  const rail = (l: Ladder, i: number, side: 'left' | 'right', sure: boolean): [number, number][] =>
    l.rungs
      .filter((r) => (sure ? r.sure : r.may))
      .map((r) => [middle(i) + (side === 'left' ? -1 : 1) * (GAP + half * r.share[side]), Y(r.gain_mm)]);
  const top = ladders.highest_mm;
  const within = (mm: number) => Math.round(Math.max(low, Math.min(high, mm)));
  const drag = (e: PointerEvent) => {
    const box = svg.current?.getBoundingClientRect();
    if (box?.height) onHeight(within(Y.invert(((e.clientY - box.top) / box.height) * H)));
  };
  const steps: Record<string, number> = { ArrowUp: 1, ArrowDown: -1, PageUp: 5, PageDown: -5 };
  // What each set says of the wanted height.
  const holds = list
    .map((l) => {
      const at = l.rungs.toSorted((a, b) => Math.abs(a.gain_mm - wanted) - Math.abs(b.gain_mm - wanted))[0];
      return `${ladderName(l)} ${at?.sure ? 'holds' : at?.may ? 'may hold' : 'short'}`;
    })
    .join(', ');
  return (
    <div className="ladder-box">
      <svg
        ref={svg}
        viewBox={`0 0 ${W} ${H}`}
        width="100%"
        role="group"
        aria-label={`${ladders.says}. Planned ${lengthChange(wanted, unit)}.`}
      >
        <defs>
          <pattern
            id="nothing"
            width="7"
            height="7"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <path d="M0 0V7" stroke="var(--ghost)" strokeWidth="1.4" />
          </pattern>
        </defs>
        {top != null && top < high - 1 && (
          <g>
            <rect
              x={M.l}
              y={M.t}
              width={W - M.l - M.r}
              height={Y(top) - M.t}
              fill="url(#nothing)"
              opacity="0.5"
            />
            <text
              x={(M.l + W - M.r) / 2}
              y={M.t - 8}
              textAnchor="middle"
              fontSize="15"
              fontWeight="700"
              fill="var(--chalk)"
            >
              nothing here reaches
            </text>
          </g>
        )}
        {ticks(low, high, 7).map((v) => (
          <g key={v}>
            <path d={`M${M.l} ${Y(v)}H${W - M.r}`} stroke="var(--slateline)" strokeWidth="1" />
            <text x={M.l - 6} y={Y(v) + 5} textAnchor="end" fontSize="14" fill="var(--chalk2)">
              {lengthChange(v, unit).replace(/ ?(mm|in)$/, '')}
            </text>
          </g>
        ))}
        {[
          [settled, 'settled'],
          [loaded, 'loaded'],
        ].map(([v, name]) =>
          typeof v === 'number' ? (
            <g key={String(name)}>
              <path
                d={`M${M.l} ${Y(v)}H${W - M.r}`}
                stroke="var(--chalk2)"
                strokeWidth="1.2"
                strokeDasharray="2 4"
              />
              <text x={M.l + 3} y={Y(v) - 3} fontSize="13" fill="var(--chalk2)">
                {name}
              </text>
            </g>
          ) : null,
        )}
        {list.map((l, i) => {
          const on = same(l.parts, fitted);
          return (
            <g key={l.parts.join()}>
              {(['left', 'right'] as const).map((side) => {
                const colour = `var(--${side}S)`;
                return (
                  <g key={side} stroke={colour} fill="none">
                    <path d={path(rail(l, i, side, false))} strokeWidth="1.1" strokeDasharray="3 3" />
                    <path d={path(rail(l, i, side, true))} strokeWidth="2.2" />
                    {l.rungs
                      .filter((r) => r.sure)
                      .map((r) => {
                        const x0 = middle(i) + (side === 'left' ? -GAP : GAP);
                        const by = (side === 'left' ? -1 : 1) * half * r.share[side];
                        return <path key={r.gain_mm} d={`M${x0} ${Y(r.gain_mm)}h${by}`} strokeWidth="2.6" />;
                      })}
                  </g>
                );
              })}
              {l.sure_mm && (
                <g>
                  <rect
                    x={middle(i) - 24}
                    y={Y(l.sure_mm[1]!) - 22}
                    width="48"
                    height="21"
                    rx="3"
                    fill={on ? 'var(--chalk)' : 'var(--slate)'}
                    stroke="var(--chalk)"
                    strokeWidth="1.4"
                  />
                  <text
                    x={middle(i)}
                    y={Y(l.sure_mm[1]!) - 6}
                    textAnchor="middle"
                    fontSize="15"
                    fontWeight="800"
                    fill={on ? 'var(--slate)' : 'var(--chalk)'}
                  >
                    {lengthChange(l.sure_mm[1]!, unit).replace(/ ?(mm|in)$/, '')}
                  </text>
                </g>
              )}
              <text
                x={middle(i)}
                y={H - 7}
                textAnchor="middle"
                fontSize="15"
                fontWeight="700"
                fill="var(--chalk)"
              >
                {i + 1}
              </text>
              {!l.may_mm && (
                <text x={middle(i)} y={Y(0)} textAnchor="middle" fontSize="13" fill="var(--chalk2)">
                  none
                </text>
              )}
            </g>
          );
        })}
        <g
          role="slider"
          tabIndex={0}
          className="ladder-line"
          aria-label="Wanted height"
          aria-orientation="vertical"
          aria-valuemin={Math.round(low)}
          aria-valuemax={Math.round(high)}
          aria-valuenow={Math.round(wanted)}
          aria-valuetext={`${lengthChange(wanted, unit)}, ${holds}`}
          data-testid="ladder-line"
          onKeyDown={(e) => {
            const by = steps[e.key];
            if (by === undefined) return;
            e.preventDefault();
            onHeight(within(wanted + by));
          }}
          onPointerDown={(e) => {
            // A finger on the line scrolls: it moves by the handle alone.
            if (e.pointerType === 'touch' && !(e.target as Element).closest('.ladder-grip')) return;
            e.currentTarget.setPointerCapture(e.pointerId);
            e.preventDefault();
          }}
          onPointerMove={(e) => e.currentTarget.hasPointerCapture(e.pointerId) && drag(e)}
        >
          {/* About a finger high, so that it can be gripped. */}
          <rect x="0" y={Y(wanted) - 20} width={W} height="40" fill="transparent" />
          <path d={`M${M.l - 4} ${Y(wanted)}H${W - M.r}`} stroke="var(--slate)" strokeWidth="5" />
          <path d={`M${M.l - 4} ${Y(wanted)}H${W - M.r}`} stroke="var(--do)" strokeWidth="3" />
          <path d={`M${M.l - 11} ${Y(wanted)}l7 -6v12Z`} fill="var(--do)" />
          <g className="ladder-grip" transform={`translate(${W - M.r - 22} ${Y(wanted)})`}>
            <rect x="-30" y="-28" width="60" height="56" fill="transparent" />
            <rect
              x="-16"
              y="-20"
              width="32"
              height="40"
              rx="16"
              fill="var(--slate)"
              stroke="var(--do)"
              strokeWidth="2.6"
            />
            <path d="M-7 -6L0 -13L7 -6M-7 6L0 13L7 6" fill="none" stroke="var(--do)" strokeWidth="2.6" />
          </g>
        </g>
      </svg>
      <ul className="ladder-list">
        {list.map((l, i) => {
          const on = same(l.parts, fitted);
          const to = l.sure_mm?.[1] ?? l.may_mm?.[1];
          return (
            <li key={l.parts.join()} className={on ? 'on' : ''}>
              <Bare
                disabled={to === undefined}
                aria-pressed={on}
                onClick={() => to !== undefined && pick(Math.floor(to), l)}
                data-testid={`ladder-${l.parts.join('+') || 'as-built'}`}
              >
                <b>
                  <span className="fig">{i + 1}</span> {ladderName(l)}
                </b>
                {l.labour_minutes > 0 && (
                  <span className="small fig"> {num(l.labour_minutes / 60, 1)} h</span>
                )}
                <span className="small" style={{ display: 'block' }}>
                  {ladderWords(l, unit)}
                </span>
              </Bare>
            </li>
          );
        })}
      </ul>
    </div>
  );
}
