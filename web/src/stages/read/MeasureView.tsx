// What exactly to measure, on slate.
import type { Quantity } from './ReadingPad';
import { Ground } from '../../shell/Car';

const text = { fill: 'var(--chalk)', fontSize: 22, fontWeight: 650 } as const;
const soft = { fill: 'var(--chalk2)', fontSize: 18, fontWeight: 600 } as const;

export function MeasureView({ quantity, side }: { quantity: Quantity; side: 'left' | 'right' }) {
  const flip = side === 'right';
  const words: Record<Quantity, string> = {
    height: 'Hub centre straight up to the arch lip',
    camber: 'Gauge upright on the hub or across the rim',
    caster: 'Line through the joints, or swing 20° each way',
    toe: 'Nose of the wheel in or out, one wheel',
  };
  return (
    <svg
      viewBox="0 0 540 330"
      width="100%"
      height="100%"
      role="img"
      aria-label={`${words[quantity]}, ${side} front wheel`}
    >
      <text x="16" y="32" {...text} fontSize="26" fontWeight="750">
        {words[quantity]}
      </text>
      {quantity === 'height' && (
        <g fill="none" stroke="var(--chalk)" strokeWidth="2">
          <Ground x0={60} x1={480} y={306} />
          <circle cx="270" cy="206" r="100" />
          <circle cx="270" cy="206" r="58" strokeWidth="1.4" />
          <circle cx="270" cy="206" r="6" fill="var(--do)" stroke="none" />
          <path d="M100 190Q130 92 200 74H340Q410 92 440 190" strokeWidth="2.4" />
          <path
            d="M270 206V76M258 88L270 76L282 88M258 194L270 206L282 194"
            stroke="var(--do)"
            strokeWidth="3"
          />
          <text x="286" y="150" stroke="none" fill="var(--do)" fontSize="26" fontWeight="750">
            height
          </text>
          <text x="60" y="326" stroke="none" {...soft}>
            from the {side} · {side === 'left' ? '◂ nose' : 'nose ▸'}
          </text>
        </g>
      )}
      {quantity === 'camber' && (
        <g
          fill="none"
          stroke="var(--chalk)"
          strokeWidth="2"
          transform={flip ? 'translate(540 0) scale(-1 1)' : ''}
        >
          <Ground x0={60} x1={480} y={306} />
          <g transform="rotate(-9 300 306)">
            <rect x="240" y="80" width="120" height="226" rx="26" />
            <rect x="364" y="120" width="14" height="146" fill="var(--steel)" />
            <rect x="380" y="168" width="62" height="48" rx="5" fill="var(--do)" stroke="none" />
          </g>
          <path d="M300 306V70" stroke="var(--leftS)" strokeDasharray="9 3 2 3" />
          <path d="M300 306L263 74L300 74Z" fill="var(--leftS)" opacity=".5" stroke="none" />
          <g transform={flip ? 'translate(540 0) scale(-1 1)' : ''} stroke="none">
            <text x={flip ? 420 : 60} y="118" textAnchor={flip ? 'start' : 'start'} {...text}>
              − top leans in
            </text>
            <text x={flip ? 60 : 400} y="60" {...soft}>
              {flip ? '◂ outboard' : 'outboard ▸'}
            </text>
            <text x="16" y="326" {...soft}>
              from the front · lean drawn larger
            </text>
          </g>
        </g>
      )}
      {quantity === 'caster' && (
        <g fill="none" stroke="var(--chalk)" strokeWidth="2">
          <Ground x0={20} x1={260} y={306} />
          <circle cx="140" cy="210" r="96" />
          <path d="M140 306V80" stroke="var(--chalk2)" strokeDasharray="9 3 2 3" />
          <path
            d={side === 'left' ? 'M122 306L168 84' : 'M158 306L112 84'}
            stroke="var(--do)"
            strokeWidth="3"
          />
          <circle cx={side === 'left' ? 151 : 129} cy="166" r="8" fill="var(--slate2)" />
          <circle cx={side === 'left' ? 132 : 148} cy="258" r="8" fill="var(--slate2)" />
          <text x="20" y="326" stroke="none" {...soft}>
            from the {side} · {side === 'left' ? '◂ nose' : 'nose ▸'}
          </text>
          <g transform="translate(410 196)">
            {[-20, 0, 20].map((a) => (
              <rect
                key={a}
                x="-30"
                y="-92"
                width="60"
                height="184"
                rx="18"
                transform={`rotate(${a})`}
                stroke={
                  a === 0 ? 'var(--ghost)' : a === (side === 'left' ? -20 : 20) ? 'var(--do)' : 'var(--chalk)'
                }
                strokeDasharray={a === 0 ? '5 4' : undefined}
              />
            ))}
            <text
              x={side === 'left' ? -64 : 64}
              y="-104"
              textAnchor="middle"
              stroke="none"
              fill="var(--do)"
              fontSize="22"
              fontWeight="750"
            >
              out 20°
            </text>
            <text x={side === 'left' ? 64 : -64} y="-104" textAnchor="middle" stroke="none" {...text}>
              in 20°
            </text>
            <text y="128" textAnchor="middle" stroke="none" {...soft}>
              from above · nose ▴ · brakes held
            </text>
          </g>
        </g>
      )}
      {quantity === 'toe' && (
        <g fill="none" stroke="var(--chalk)" strokeWidth="2" transform="translate(270 190)">
          <path d="M0 120V-130" stroke="var(--chalk2)" strokeDasharray="9 3 2 3" />
          <rect x="-36" y="-108" width="72" height="216" rx="20" transform={`rotate(${flip ? -9 : 9})`} />
          <path
            d={flip ? 'M0 0L-20 -124L0 -124Z' : 'M0 0L20 -124L0 -124Z'}
            fill={`var(--${side}S)`}
            opacity=".6"
            stroke="none"
          />
          <text x={flip ? -40 : 40} y="-116" textAnchor={flip ? 'end' : 'start'} stroke="none" {...text}>
            + toes in
          </text>
          <text x={flip ? 110 : -110} y="4" textAnchor="middle" stroke="none" {...soft}>
            {flip ? 'outboard ▸' : '◂ outboard'}
          </text>
          <text y="136" textAnchor="middle" stroke="none" {...soft}>
            from above · nose ▴ · drawn larger
          </text>
        </g>
      )}
    </svg>
  );
}
