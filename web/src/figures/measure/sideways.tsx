// From the side: heights, joint line, wheelbase; and the section of a tread, a valve, an axle between its arches.
import { Ground } from '../../ui/Car';
import { clamp, Dim, H, Tag, TyreFront, frontWheel, W, Word, type Shown } from './kit';

const nose = (s: Shown) => (s.side === 'left' ? '◂ nose' : 'nose ▸');

function Wheel({ x, y, r }: { x: number; y: number; r: number }) {
  return (
    <g fill="none" stroke="var(--chalk)" strokeWidth="2">
      <circle cx={x} cy={y} r={r} fill="var(--slate)" />
      <circle cx={x} cy={y} r={r * 0.6} strokeWidth="1.4" />
      <circle cx={x} cy={y} r={r * 0.1} strokeWidth="1.4" />
    </g>
  );
}

function Height({ s }: { s: Shown }) {
  const [x, ground, r] = [270, 338, 92];
  const hub = ground - r;
  const arch = hub - 148;
  const frame = ground - 78;
  return (
    <>
      <Ground x0={40} x1={W - 40} y={ground} />
      <Wheel x={x} y={hub} r={r} />
      <path
        d={`M80 ${hub + 20}C92 ${arch + 40} 176 ${arch - 8} ${x} ${arch - 10}C364 ${arch - 8} 448 ${arch + 40} 460 ${hub + 20}`}
        fill="none"
        stroke="var(--chalk)"
        strokeWidth="2.4"
      />
      {s.drawing === 'height_hub' && (
        <Dim a={[x, hub]} b={[x, arch - 10]} name="value" label="height" s={s} off={14} />
      )}
      {s.drawing === 'height_floor' && (
        <Dim a={[x + 104, ground]} b={[x + 104, arch + 6]} name="value" label="height" s={s} off={14} />
      )}
      {s.drawing === 'height_frame' && (
        <>
          <path d={`M60 ${frame}H${W - 60}`} stroke="var(--steel)" strokeWidth="14" />
          <Dim a={[440, ground]} b={[440, frame + 7]} name="value" label="height" s={s} off={-14} />
        </>
      )}
      <Tag>
        from the {s.side} · {nose(s)}
      </Tag>
    </>
  );
}

function JointLine({ s }: { s: Shown }) {
  const m = s.side === 'left' ? 1 : -1;
  const lean = clamp((s.value ?? 4) * 3, 30) * m;
  const t = (lean * Math.PI) / 180;
  const [x, y] = [250, 210];
  const p = (k: number): [number, number] => [x + Math.sin(t) * k, y - Math.cos(t) * k];
  const [a, b] = [p(-120), p(120)];
  return (
    <>
      <Ground x0={40} x1={W - 40} y={344} />
      <path d={`M${x} 334V52`} stroke="var(--chalk2)" strokeWidth="1.2" strokeDasharray="9 3 2 3" />
      <path d={`M${x} ${y}L${p(130).join(' ')}L${x} ${y - 130}Z`} fill={`var(--${s.side}S)`} opacity=".5" />
      <path d={`M${a.join(' ')}L${b.join(' ')}`} stroke="var(--chalk)" strokeWidth="7" />
      {[p(-100), p(88)].map(([cx, cy]) => (
        <circle key={cy} cx={cx} cy={cy} r="13" fill="var(--slate)" stroke="var(--chalk)" strokeWidth="2.4" />
      ))}
      <g transform={`translate(${p(20).join(' ')}) rotate(${lean})`}>
        <rect
          x="8"
          y="-30"
          width="30"
          height="60"
          rx="6"
          fill={s.active === 'angle' ? 'var(--do)' : 'var(--chalk)'}
        />
      </g>
      <Word x={p(20)[0] + 54} y={p(20)[1] + 8} on={s.active === 'angle'}>
        {s.typed.angle ?? 'angle'}
      </Word>
      <Word x={p(88)[0] + 26} y={p(88)[1] - 6} size={18}>
        upper joint centre
      </Word>
      <Word x={p(-100)[0] + 26} y={p(-100)[1] + 18} size={18}>
        lower joint centre
      </Word>
      {s.active === 'body-pitch' && <Word x={40} y={90} on>{`nose up ${s.typed['body-pitch'] ?? ''}`}</Word>}
      <Tag>
        from the {s.side} · {nose(s)} · drawn ×3
      </Tag>
    </>
  );
}

/** The axis as a gauge or rack shows it: its lean, and the figure on the display. */
function Scale({ s }: { s: Shown }) {
  const m = s.side === 'left' ? 1 : -1;
  const t = (clamp((s.value ?? 4) * 3, 30) * m * Math.PI) / 180;
  const [x, y] = [190, 210];
  const p = (k: number): [number, number] => [x + Math.sin(t) * k, y - Math.cos(t) * k];
  const shows = s.active === 'sai' ? (s.typed.sai ?? 'lean inward') : (s.typed.angle ?? 'caster');
  return (
    <>
      <Ground x0={40} x1={W - 40} y={344} />
      <circle cx={x} cy={y} r="128" fill="none" stroke="var(--chalk2)" strokeWidth="2" />
      <path d={`M${x} 334V52`} stroke="var(--chalk2)" strokeWidth="1.2" strokeDasharray="9 3 2 3" />
      <path d={`M${x} ${y}L${p(130).join(' ')}L${x} ${y - 130}Z`} fill={`var(--${s.side}S)`} opacity=".5" />
      <path d={`M${p(-130).join(' ')}L${p(130).join(' ')}`} stroke="var(--chalk)" strokeWidth="4" />
      <rect
        x="352"
        y="120"
        width="160"
        height="92"
        rx="8"
        fill="var(--slate2)"
        stroke="var(--chalk)"
        strokeWidth="2"
      />
      <Word x={372} y={176} on={s.active === 'angle' || s.active === 'sai'}>
        {shows}
      </Word>
      <Word x={352} y={240} size={18}>
        as the gauge shows it
      </Word>
      <Tag>
        from the {s.side} · {nose(s)} · drawn ×3
      </Tag>
    </>
  );
}

function Wheelbase({ s }: { s: Shown }) {
  const [a, b, ground, r] = [120, 420, 318, 58];
  return (
    <>
      <Ground x0={30} x1={W - 30} y={ground} />
      <Wheel x={a} y={ground - r} r={r} />
      <Wheel x={b} y={ground - r} r={r} />
      <path
        d={`M50 ${ground - 60}V${ground - 130}H150L200 ${ground - 196}H360L400 ${ground - 130}H490V${ground - 60}`}
        fill="none"
        stroke="var(--chalk)"
        strokeWidth="2"
      />
      <Dim a={[a, ground - r]} b={[b, ground - r]} name="value" label="hub to hub" s={s} />
      <Tag>
        from the {s.side} · {nose(s)}
      </Tag>
    </>
  );
}

function Tread({ s }: { s: Shown }) {
  const m = s.side === 'left' ? 1 : -1;
  const x0 = 90;
  const w = 360;
  const top = 170;
  const grooves: [string, number][] = [
    ['inner', m > 0 ? 0.16 : 0.84],
    ['centre', 0.5],
    ['outer', m > 0 ? 0.84 : 0.16],
  ];
  return (
    <>
      <path
        d={`M${x0 - 26} ${top + 150}Q${x0 - 40} ${top + 20} ${x0} ${top}H${x0 + w}Q${x0 + w + 40} ${top + 20} ${x0 + w + 26} ${top + 150}Z`}
        fill="var(--slate)"
        stroke="var(--chalk)"
        strokeWidth="2"
      />
      {grooves.map(([name, at]) => {
        const x = x0 + w * at;
        const on = s.active === name;
        return (
          <g key={name}>
            <path
              d={`M${x - 16} ${top}V${top + 62}H${x + 16}V${top}`}
              fill="var(--slate2)"
              stroke={on ? 'var(--do)' : 'var(--chalk)'}
              strokeWidth={on ? 3 : 1.8}
            />
            <path
              d={`M${x - 34} ${top - 4}H${x + 34}M${x} ${top - 4}V${top + 60}`}
              stroke={on ? 'var(--do)' : 'var(--chalk2)'}
              strokeWidth="3"
            />
            <Word x={x} y={top - 22} anchor="middle" on={on}>
              {`${name} ${s.typed[name] ?? ''}`}
            </Word>
          </g>
        );
      })}
      <Tag>through the tread, from the front</Tag>
      <Tag x={m > 0 ? W - 16 : 16} y={62} anchor={m > 0 ? 'end' : 'start'}>
        {m > 0 ? 'outboard ▸' : '◂ outboard'}
      </Tag>
      <Word x={W / 2} y={top + 116} anchor="middle" size={18}>
        stroke it with a flat hand, both ways
      </Word>
    </>
  );
}

function Pressure({ s }: { s: Shown }) {
  return (
    <>
      <Wheel x={270} y={200} r={128} />
      <path d="M270 120V160M262 120H278" stroke="var(--do)" strokeWidth="5" />
      <Word x={296} y={120} on>
        {s.typed.value ?? 'cold'}
      </Word>
      <Tag>{s.side} wheel, from outside</Tag>
    </>
  );
}

function Centring({ s }: { s: Shown }) {
  const shift = clamp(s.value ?? 0, 20) * 0.6;
  const [l, r] = [150 - shift, 390 - shift];
  const [al, ar] = [86, 454];
  return (
    <>
      <Ground x0={30} x1={W - 30} y={338} />
      <path d={`M${l} 246H${r}`} stroke="var(--steel)" strokeWidth="16" />
      {[l, r].map((x) => (
        <g key={x} transform={`translate(${x - 250} 0) `}>
          <g transform="translate(250 338) scale(.62) translate(-250 -338)">
            <TyreFront w={frontWheel('left', 0)} />
          </g>
        </g>
      ))}
      <path
        d={`M${al - 20} 96Q${W / 2} 60 ${ar + 20} 96`}
        fill="none"
        stroke="var(--chalk)"
        strokeWidth="2.4"
      />
      {[al, ar].map((x) => (
        <g key={x} stroke="var(--chalk)" fill="var(--chalk)" strokeWidth="1.6">
          <path d={`M${x} 90V286`} fill="none" />
          <path d={`M${x - 6} 286H${x + 6}L${x} 306Z`} />
        </g>
      ))}
      <Dim a={[al, 262]} b={[l - 28, 262]} name="left" label="" s={s} />
      <Dim a={[r + 28, 262]} b={[ar, 262]} name="right" label="" s={s} />
      <Word
        x={al + 4}
        y={238}
        anchor="start"
        on={s.active === 'left'}
        size={18}
      >{`left ${s.typed.left ?? ''}`}</Word>
      <Word
        x={ar - 4}
        y={238}
        anchor="end"
        on={s.active === 'right'}
        size={18}
      >{`right ${s.typed.right ?? ''}`}</Word>
      {s.active === 'bar-angle' && (
        <Word x={W / 2} y={200} anchor="middle" on>{`bar from level ${s.typed['bar-angle'] ?? ''}`}</Word>
      )}
      <Tag y={H - 8}>from behind · left on the left</Tag>
    </>
  );
}

export function SideDrawing({ s }: { s: Shown }) {
  switch (s.drawing) {
    case 'joint_line':
      return <JointLine s={s} />;
    case 'caster_scale':
      return <Scale s={s} />;
    case 'wheelbase':
      return <Wheelbase s={s} />;
    case 'tread':
      return <Tread s={s} />;
    case 'pressure':
      return <Pressure s={s} />;
    case 'centring':
      return <Centring s={s} />;
    default:
      return <Height s={s} />;
  }
}
