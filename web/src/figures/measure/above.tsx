// From above, nose of the car upwards: toe by every means, sweeps, diagonals, set-back, thrust.
import { clamp, Dim, H, Tag, TyreAbove, W, Word, type Shown } from './kit';

const rad = (d: number) => (d * Math.PI) / 180;

function Nose({ x = W / 2 }: { x?: number }) {
  return (
    <text x={x} y={30} textAnchor="middle" fontSize="18" fontWeight="600" fill="var(--chalk2)">
      nose ▴
    </text>
  );
}

/** Both wheels of an axle, toe drawn larger. */
function Pair({ s }: { s: Shown }) {
  const each = clamp(((s.value ?? 0.4) / 2) * 8, 8);
  const [lx, rx, y] = [130, 410, 196];
  const r = 96;
  // Inside lips, front and rear, with toe-in turning the noses together.
  const dx = Math.sin(rad(each)) * r;
  const edge = s.drawing === 'toe_scribed' ? 0 : 30;
  const front: [[number, number], [number, number]] = [
    [lx + edge + dx, y - r],
    [rx - edge - dx, y - r],
  ];
  const rear: [[number, number], [number, number]] = [
    [lx + edge - dx, y + r],
    [rx - edge + dx, y + r],
  ];
  const bars = s.drawing === 'toe_bars' || s.drawing === 'toe_plates';
  return (
    <>
      <Nose />
      <path d={`M${lx} ${y}H${rx}`} stroke="var(--steel)" strokeWidth="12" />
      <TyreAbove x={lx} y={y} deg={each} />
      <TyreAbove x={rx} y={y} deg={-each} />
      {bars &&
        [
          [lx, each, -1],
          [rx, -each, 1],
        ].map(([x, d, o]) => (
          <path
            key={x}
            d="M0 -132V132"
            transform={`translate(${x! + o! * 38} ${y}) rotate(${d})`}
            stroke="var(--chalk)"
            strokeWidth={s.drawing === 'toe_bars' ? 5 : 9}
          />
        ))}
      {s.drawing === 'toe_scribed' && (
        <>
          <path
            d={`M${lx} ${y - 96}V${y + 96}`}
            transform={`rotate(${each} ${lx} ${y})`}
            stroke="var(--do)"
            strokeWidth="1.6"
          />
          <path
            d={`M${rx} ${y - 96}V${y + 96}`}
            transform={`rotate(${-each} ${rx} ${y})`}
            stroke="var(--do)"
            strokeWidth="1.6"
          />
        </>
      )}
      {s.drawing === 'toe_rim' ? (
        <>
          <path d={`M${rear[0][0]} ${rear[0][1]}H${rear[1][0]}`} stroke="var(--chalk)" strokeWidth="4" />
          <path
            d={`M${front[0][0]} ${front[0][1]}H${front[1][0]}`}
            stroke="var(--chalk2)"
            strokeDasharray="7 5"
            strokeWidth="3"
          />
          <Word x={W / 2} y={rear[0][1] - 14} anchor="middle" size={18}>
            set behind
          </Word>
          <Word x={W / 2} y={front[0][1] + 28} anchor="middle" on={s.active === 'difference'}>
            {`change in front ${s.typed.difference ?? ''}`}
          </Word>
        </>
      ) : (
        <>
          <Dim
            a={bars ? [lx - 38 + dx, y - 128] : front[0]}
            b={bars ? [rx + 38 - dx, y - 128] : front[1]}
            name="front"
            label="front"
            s={s}
            below
          />
          <Dim
            a={bars ? [lx - 38 - dx, y + 128] : rear[0]}
            b={bars ? [rx + 38 + dx, y + 128] : rear[1]}
            name="rear"
            label="rear"
            s={s}
          />
        </>
      )}
      <Dim
        a={[lx - 68, y - (bars ? 128 : r)]}
        b={[lx - 68, y + (bars ? 128 : r)]}
        name="diameter"
        label=""
        s={s}
      />
      <Word x={lx - 76} y={y - (bars ? 138 : 106)} anchor="start" on={s.active === 'diameter'} size={17}>
        {`${bars ? 'along' : 'across'} ${s.typed.diameter ?? ''}`}
      </Word>
      {(s.active === 'height' || s.active === 'axle-height') && (
        <Word x={W / 2} y={y + 6} anchor="middle" on>
          {s.active === 'height'
            ? `tape above the floor ${s.typed.height ?? ''}`
            : `hub above the floor ${s.typed['axle-height'] ?? ''}`}
        </Word>
      )}
      <Tag>from above, toe drawn ×8</Tag>
      <Tag x={W - 16} anchor="end">
        left wheel on the left
      </Tag>
    </>
  );
}

/** One wheel: string along it, or straight off a gauge. */
function One({ s }: { s: Shown }) {
  const m = s.side === 'left' ? -1 : 1;
  const toe = clamp((s.value ?? 0.5) * 8, 9);
  const [x, y, r] = [W / 2 - m * (s.drawing === 'toe_string' ? 60 : 0), 196, 118];
  const inside = s.typed.reference === 'inside';
  const out = inside ? -m : m;
  const lineX = x + out * 120;
  const t = rad(toe) * -m;
  const edge = (k: number): [number, number] => [
    x + out * 34 * Math.cos(t) + k * r * Math.sin(t),
    y - k * r * Math.cos(t) + out * 34 * Math.sin(t),
  ];
  return (
    <>
      <Nose x={x} />
      <path d={`M${x} ${y + 142}V46`} stroke="var(--chalk2)" strokeWidth="1.2" strokeDasharray="9 3 2 3" />
      <TyreAbove x={x} y={y} deg={-m * toe} r={122} w={34} />
      {s.drawing === 'toe_string' ? (
        <>
          <path d={`M${lineX} 40V${H - 34}`} stroke={`var(--${s.side}S)`} strokeWidth="2.4" />
          <Dim a={edge(1)} b={[lineX, edge(1)[1]]} name="front-gap" label="" s={s} />
          <Dim a={edge(-1)} b={[lineX, edge(-1)[1]]} name="rear-gap" label="" s={s} />
          <Word
            x={lineX + out * 14}
            y={edge(1)[1] + 7}
            anchor={out > 0 ? 'start' : 'end'}
            on={s.active === 'front-gap'}
          >
            {`front gap ${s.typed['front-gap'] ?? ''}`}
          </Word>
          <Word
            x={lineX + out * 14}
            y={edge(-1)[1] + 7}
            anchor={out > 0 ? 'start' : 'end'}
            on={s.active === 'rear-gap'}
          >
            {`rear gap ${s.typed['rear-gap'] ?? ''}`}
          </Word>
          <Word x={lineX + out * 14} y={y + 6} anchor={out > 0 ? 'start' : 'end'} size={18}>
            string, hub high
          </Word>
          <Dim
            a={[x - out * 66, y - r]}
            b={[x - out * 66, y + r]}
            name="diameter"
            label="lip to lip"
            s={s}
            off={-out * 12}
          />
        </>
      ) : (
        <>
          <path
            d={`M${x} ${y}L${x - m * Math.sin(rad(toe)) * 140} ${y - Math.cos(rad(toe)) * 140}L${x} ${y - 140}Z`}
            fill={`var(--${s.side}S)`}
            opacity=".55"
          />
          <Word x={x - m * 54} y={y - 130} anchor={m < 0 ? 'start' : 'end'} on>
            {s.typed.value ?? '+ toes in'}
          </Word>
        </>
      )}
      <Tag>from above, toe drawn ×8</Tag>
      <Tag x={m > 0 ? W - 16 : 16} y={H - 36} anchor={m > 0 ? 'end' : 'start'}>
        {m > 0 ? 'outboard ▸' : '◂ outboard'}
      </Tag>
    </>
  );
}

/** The wheel swung both ways on its plate. */
function Sweep({ s }: { s: Shown }) {
  const m = s.side === 'left' ? -1 : 1;
  const second = s.active === 'camber-2' || s.active === 'steer-2' || s.active === 'axis-2';
  const num = (t: string | undefined, d: number) => {
    const v = Number((t ?? '').replace('−', '-').replace(/[^\d.-]/g, ''));
    return Number.isFinite(v) && t ? v : d;
  };
  // Steer is positive to the left; a turn to the left is against the clock from above.
  const d1 = -clamp(num(s.typed['steer-1'], m < 0 ? 20 : -20), 45);
  const d2 = -clamp(num(s.typed['steer-2'], m < 0 ? -20 : 20), 45);
  const [x, y] = [210, 206];
  let ticks = '';
  for (let a = -30; a <= 30; a += 2) {
    const k = a % 10 === 0 ? 15 : 8;
    ticks += `M${x + Math.sin(rad(a)) * 140} ${y - Math.cos(rad(a)) * 140}L${x + Math.sin(rad(a)) * (140 + k)} ${y - Math.cos(rad(a)) * (140 + k)}`;
  }
  const now = second ? d2 : d1;
  const label = (a: number, word: string, on: boolean) => (
    <Word
      x={x + Math.sin(rad(a)) * 176}
      y={y - Math.cos(rad(a)) * 176 + 20}
      anchor={a < 0 ? 'end' : 'start'}
      on={on}
    >
      {word}
    </Word>
  );
  const out = (d: number) => (d * m > 0 ? 'out' : 'in');
  return (
    <>
      <Nose x={x} />
      <circle cx={x} cy={y} r="128" stroke="var(--slateline)" strokeWidth="2" fill="none" />
      <path d={ticks} stroke="var(--chalk2)" strokeWidth="1.5" />
      <TyreAbove x={x} y={y} deg={0} ghost r={98} w={34} />
      <TyreAbove x={x} y={y} deg={second ? d1 : d2} r={98} w={34} />
      <TyreAbove x={x} y={y} deg={now} now r={98} w={34} />
      {label(d1, `${out(d1)} ${Math.abs(d1)}°`, !second)}
      {label(d2, `${out(d2)} ${Math.abs(d2)}°`, second)}
      <g>
        <Word
          x={396}
          y={120}
          on={s.active === 'camber-1'}
          size={19}
        >{`first ${s.typed['camber-1'] ?? '—'}`}</Word>
        <Word
          x={396}
          y={152}
          on={s.active === 'camber-2'}
          size={19}
        >{`second ${s.typed['camber-2'] ?? '—'}`}</Word>
        <Word x={396} y={204} size={18}>
          brakes held
        </Word>
        <Word x={396} y={230} size={18}>
          plates free
        </Word>
      </g>
      <Tag>from above</Tag>
      <Tag x={W - 16} anchor="end">
        left is plus
      </Tag>
    </>
  );
}

/** Four wheels: diagonals, set-back, thrust. */
function Car({ s }: { s: Shown }) {
  const [l, r, f, b] = [170, 370, 88, 308];
  const wheel = (x: number, y: number, d = 0) => (
    <TyreAbove key={`${x}${y}`} x={x} y={y} deg={d} r={44} w={17} />
  );
  const v = s.value ?? 0;
  return (
    <>
      <Nose />
      <path
        d={`M${l} ${f}H${r}M${l} ${b}H${r}M${W / 2} ${f - 30}V${b + 30}`}
        stroke="var(--slateline)"
        strokeWidth="4"
      />
      {wheel(l, f + (s.drawing === 'setback' ? clamp(-v, 14) : 0))}
      {wheel(r, f + (s.drawing === 'setback' ? clamp(v, 14) : 0))}
      {wheel(l, b, s.drawing === 'thrust' ? clamp(v * 8, 8) : 0)}
      {wheel(r, b, s.drawing === 'thrust' ? clamp(v * 8, 8) : 0)}
      {s.drawing === 'diagonal' && (
        <Dim
          a={s.side === 'left' ? [l, f] : [r, f]}
          b={s.side === 'left' ? [r, b] : [l, b]}
          name="value"
          label="corner to corner"
          s={s}
          below
        />
      )}
      {s.drawing === 'setback' && (
        <>
          <path d={`M${l - 40} 200H${r + 40}`} stroke="var(--chalk)" strokeWidth="2" strokeDasharray="10 4" />
          <Dim a={[l - 40, 200]} b={[l - 40, f]} name="left" label="left" s={s} off={-12} />
          <Dim a={[r + 40, 200]} b={[r + 40, f]} name="right" label="right" s={s} off={12} />
          <Word x={W / 2} y={224} anchor="middle" size={18}>
            one line across the frame
          </Word>
        </>
      )}
      {s.drawing === 'thrust' && (
        <>
          <path d={`M${W / 2} ${b}L${W / 2 + clamp(v * 8, 8) * 5} ${f}`} stroke="var(--do)" strokeWidth="3" />
          <Word
            x={l - 30}
            y={b + 6}
            anchor="end"
            on={s.active === 'rear-toe-left'}
          >{`left ${s.typed['rear-toe-left'] ?? ''}`}</Word>
          <Word
            x={r + 30}
            y={b + 6}
            on={s.active === 'rear-toe-right'}
          >{`right ${s.typed['rear-toe-right'] ?? ''}`}</Word>
        </>
      )}
      <Tag>from above{s.drawing === 'thrust' ? ', drawn ×8' : ''}</Tag>
      <Tag x={W - 16} anchor="end">
        left side on the left
      </Tag>
    </>
  );
}

export function AboveDrawing({ s }: { s: Shown }) {
  if (s.drawing === 'sweep') return <Sweep s={s} />;
  if (['diagonal', 'setback', 'thrust'].includes(s.drawing)) return <Car s={s} />;
  if (s.drawing === 'toe_string' || s.drawing === 'toe_gauge') return <One s={s} />;
  return <Pair s={s} />;
}
