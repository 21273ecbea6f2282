// What one order does, drawn: a sleeve with both its ends, a cam in its walls, a slide along its marks, a stack of shims. The
// original mark is a square and the new one a pointer, whatever the colours.
import type { Schemas, SideName } from '../api/client';
import { CamFigure } from './CamFigure';
import { MarkClock } from './MarkClock';

type Line = Schemas['SettingLine'];
type InHand = Schemas['InHand'];

interface Props {
  line: Line;
  side: SideName | undefined;
}

const square = (x: number, y: number) => (
  <rect x={x - 8} y={y - 8} width="16" height="16" fill="none" stroke="var(--chalk)" strokeWidth="2.6" />
);
const pointer = (x: number, y: number, turn = 0) => (
  <path
    transform={`translate(${x} ${y}) rotate(${turn})`}
    d="M-9 -14H9L0 4Z"
    fill="var(--do)"
    stroke="var(--doink)"
    strokeWidth="1.5"
  />
);

/** Square and pointer with what they say. */
function Legend({ hand, x, y }: { hand: InHand; x: number; y: number }) {
  return (
    <g fontSize="16" fontWeight="600">
      {square(x, y)}
      <text x={x + 18} y={y + 6} fill="var(--chalk)">
        {hand.from}
      </text>
      {pointer(x, y + 30, 0)}
      <text x={x + 18} y={y + 32} fill="var(--do)">
        {hand.to}
      </text>
    </g>
  );
}

/** A threaded sleeve or link: body in hand, ends and their threads, arrows out for longer. */
function Thread({ line, hand }: { line: Line; hand: InHand }) {
  const t = hand.thread;
  const longer = line.movement > 0;
  const left = t?.left_hand;
  const arrow = (x: number, dir: number) => (
    <path
      d={`M${x - dir * 22} 26H${x + dir * 20}M${x + dir * 11} 19L${x + dir * 21} 26L${x + dir * 11} 33`}
      fill="none"
      stroke="var(--do)"
      strokeWidth="2.6"
    />
  );
  const end = (x: number, dir: number) => (
    <g fill="none" stroke="var(--chalk)" strokeWidth="1.6">
      <path d={`M${x} 62H${x + dir * 74}`} strokeWidth="11" stroke="var(--chalk2)" />
      {Array.from({ length: 6 }, (_, i) => (
        <path key={i} d={`M${x + dir * (20 + i * 8)} 55l${dir * 4} 14`} stroke="var(--slate2)" />
      ))}
      <circle cx={x} cy="62" r="14" fill="var(--slate2)" strokeWidth="2.4" />
      <circle cx={x} cy="62" r="6" />
      <rect x={x + dir * 66 - 6} y="50" width="12" height="24" rx="2" fill="var(--slate)" />
    </g>
  );
  const handWord = (which: 'inner' | 'wheel') =>
    left == null ? 'hand not seen' : left === which ? 'left-hand' : 'right-hand';
  const two = t?.ends === 2;
  return (
    <g>
      {end(22, 1)}
      {end(328, -1)}
      <g stroke="var(--doink)" strokeWidth="1.4">
        <rect x="94" y="46" width="162" height="32" fill="var(--do)" />
        <path d="M94 56H256M94 68H256" />
      </g>
      {two ? (
        <>
          {arrow(52, longer ? -1 : 1)}
          {arrow(298, longer ? 1 : -1)}
        </>
      ) : (
        arrow(298, longer ? 1 : -1)
      )}
      <g fontSize="18" fontWeight="600" fill="var(--chalk)">
        <text x="8" y="100">
          {two ? handWord('inner') : 'inner end'}
        </text>
        {two && (
          <text x="8" y="119" fill="var(--chalk2)">
            inner end
          </text>
        )}
        <text x="342" y="100" textAnchor="end">
          {handWord('wheel')}
        </text>
        <text x="342" y="119" textAnchor="end" fill="var(--chalk2)">
          wheel end
        </text>
      </g>
      {hand.clockwise == null ? (
        <g fontSize="20" fontWeight="650" fill="var(--chalk)">
          {square(20, 152)}
          <text x="40" y="158">
            {hand.from}
          </text>
          <text x="12" y="188" fill="var(--do)">
            {hand.to}
          </text>
        </g>
      ) : (
        <>
          <g transform="translate(0 6)">
            <MarkClock turns={line.movement} clockwise={hand.clockwise} cx={88} cy={182} />
          </g>
          <Legend hand={hand} x={178} y={150} />
          <text x="170" y="218" fontSize="18" fontWeight="600" fill="var(--chalk2)">
            {hand.clockwise ? 'clockwise' : 'counter-clockwise'},
          </text>
          <text x="170" y="236" fontSize="18" fontWeight="600" fill="var(--chalk2)">
            seen from the wheel
          </text>
        </>
      )}
    </g>
  );
}

/** An offset sleeve clocked in its seat. */
function Sleeve({ line, hand }: { line: Line; hand: InHand }) {
  return (
    <g>
      <MarkClock turns={line.movement / 360} clockwise={line.movement > 0} cx={110} cy={100} />
      <Legend hand={hand} x={24} y={206} />
    </g>
  );
}

/** A slide, slot, wedge or tilt along its range: outboard is on the outboard side. */
function Slide({ line, hand, side }: { line: Line; hand: InHand; side: SideName | undefined }) {
  const [low, high] = line.ends as [number, number];
  const span = Math.max(high - low, 1e-6);
  // Outboard of a left wheel is to the left, as the card has it.
  const flip = side === 'left' && hand.outboard ? -1 : 1;
  const X = (v: number) => 175 + flip * ((v - (low + high) / 2) / span) * 270;
  const was = line.position - line.movement;
  const n = 12;
  return (
    <g>
      <rect
        x="34"
        y="76"
        width="282"
        height="30"
        rx="15"
        fill="var(--slate)"
        stroke="var(--chalk2)"
        strokeWidth="2"
      />
      {Array.from({ length: n + 1 }, (_, i) => {
        const x = X(low + (span * i) / n);
        return (
          <path key={i} d={`M${x} 110V${i % 3 === 0 ? 122 : 117}`} stroke="var(--chalk2)" strokeWidth="1.6" />
        );
      })}
      <circle
        cx={X(was)}
        cy="91"
        r="12"
        fill="none"
        stroke="var(--ghost)"
        strokeWidth="2"
        strokeDasharray="4 3"
      />
      <circle cx={X(line.position)} cy="91" r="12" fill="var(--do)" stroke="var(--doink)" strokeWidth="2" />
      <path d={`M${X(was)} 91H${X(line.position)}`} stroke="var(--do)" strokeWidth="2.4" />
      <g fontSize="15" fontWeight="600" fill="var(--chalk2)">
        {[low, high].map((v, i) => (
          <text key={i} x={X(v)} y="138" textAnchor={X(v) < 175 ? 'start' : 'end'}>
            {hand.ways[i]}
          </text>
        ))}
      </g>
      {square(X(was), 60)}
      {pointer(X(line.position), 62)}
      <Legend hand={hand} x={24} y={160} />
    </g>
  );
}

/** A stack of shims: what is added hatched, what comes out dashed. */
function Shims({ line, hand }: { line: Line; hand: InHand }) {
  const add = line.movement > 0;
  const n = Math.max(1, Math.min(7, Math.round(Math.abs(line.movement) / 1.5)));
  return (
    <g>
      <rect
        x="40"
        y="30"
        width="70"
        height="96"
        fill="var(--steel)"
        stroke="var(--chalk)"
        strokeWidth="1.8"
      />
      <path d="M20 78H330" stroke="var(--chalk2)" strokeWidth="9" />
      {Array.from({ length: 3 }, (_, i) => (
        <rect
          key={i}
          x={112 + i * 13}
          y="42"
          width="10"
          height="72"
          fill="var(--chalk2)"
          stroke="var(--slate2)"
        />
      ))}
      {Array.from({ length: n }, (_, i) => (
        <rect
          key={i}
          x={151 + i * 13}
          y="42"
          width="10"
          height="72"
          fill={add ? 'var(--do)' : 'none'}
          stroke={add ? 'var(--doink)' : 'var(--do)'}
          strokeDasharray={add ? undefined : '4 3'}
        />
      ))}
      <rect
        x={156 + n * 13}
        y="36"
        width="60"
        height="84"
        fill="var(--steel)"
        stroke="var(--chalk)"
        strokeWidth="1.8"
      />
      <text x="12" y="146" fontSize="15" fontWeight="600" fill="var(--chalk2)">
        frame
      </text>
      <text x={160 + n * 13} y="146" fontSize="15" fontWeight="600" fill="var(--chalk2)">
        arm shaft
      </text>
      <Legend hand={hand} x={24} y={178} />
    </g>
  );
}

function Drawn({ line, hand, side }: { line: Line; hand: InHand; side: SideName | undefined }) {
  if (hand.turn === 'thread') return <Thread line={line} hand={hand} />;
  if (hand.turn === 'sleeve') return <Sleeve line={line} hand={hand} />;
  if (hand.turn === 'shims') return <Shims line={line} hand={hand} />;
  return <Slide line={line} hand={hand} side={side} />;
}

export function TurnFigure({ line, side }: Props) {
  const hand = line.in_hand;
  if (!hand) return null;
  if (line.is_cam)
    return (
      <div className="turn-figure on-slate">
        <CamFigure line={line} side={side ?? 'left'} size={176} />
        <p className="turn-mark">
          <svg width="20" height="20" aria-hidden="true">
            {square(10, 10)}
          </svg>
          {hand.from}
        </p>
        <p className="turn-mark to">
          <svg width="20" height="20" aria-hidden="true">
            {pointer(10, 15)}
          </svg>
          {hand.to}
        </p>
      </div>
    );
  return (
    <div className="turn-figure">
      <svg
        viewBox="0 0 350 260"
        width="100%"
        height="100%"
        role="img"
        aria-label={`${line.name}: ${line.words}. ${hand.from}. ${hand.to}.`}
        style={{ fontFamily: 'var(--figure)', display: 'block' }}
      >
        <Drawn line={line} hand={hand} side={side} />
      </svg>
    </div>
  );
}
