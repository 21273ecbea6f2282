// Camber from the front: gauges, lines, levels, calliper, form, half a turn.
import { Ground } from '../../ui/Car';
import { clamp, Dim, frontWheel, outward, Tag, TyreFront, W, Word, type Shown } from './kit';

/** A gauge's housing with its bubble, on a face. */
function Box({
  at,
  out,
  along,
  on,
}: {
  at: [number, number];
  out: [number, number];
  along: [number, number];
  on: boolean;
}) {
  const deg = (Math.atan2(along[0], -along[1]) * 180) / Math.PI;
  const flip = out[0] < 0 ? -1 : 1;
  return (
    <g transform={`translate(${at[0]} ${at[1]}) rotate(${deg}) scale(${flip} 1)`}>
      <rect x="0" y="-34" width="30" height="68" rx="6" fill={on ? 'var(--do)' : 'var(--chalk)'} />
      <rect x="9" y="-20" width="12" height="40" rx="6" fill="var(--slate)" />
      <circle cx="15" cy="-3" r="5" fill={on ? 'var(--do)' : 'var(--chalk)'} />
    </g>
  );
}

export function FrontDrawing({ s }: { s: Shown }) {
  const { side, drawing, active } = s;
  const m = outward(side);
  const lean = clamp((s.value ?? (drawing === 'form' ? 1 : -1.2)) * 6, 15);
  const cx = W / 2 - m * 60;
  const w = frontWheel(side, lean, cx);
  const anchor = m > 0 ? 'start' : 'end';
  const wedge = s.value !== undefined && Math.abs(lean) > 0.6;
  const lineX = cx + m * 150;
  // A level touches the lip that stands out further; the gap is at the other one.
  const topOut = lean > 0;
  const level = topOut ? w.top[0] : w.bottom[0];
  const [open, touch] = topOut ? [w.bottom, w.top] : [w.top, w.bottom];
  const at = (p: [number, number], d: number): [number, number] => [p[0] + w.out[0] * d, p[1] + w.out[1] * d];
  // A straight bar on both lips, past them at either end.
  const end = (p: [number, number], past: number) =>
    at(p, 8)
      .map((v, i) => v + w.along[i]! * past)
      .join(' ');
  const rod = `M${end(w.top, 40)}L${end(w.bottom, -40)}`;
  return (
    <>
      <Ground x0={40} x1={W - 40} y={w.ground} />
      {drawing === 'runout' && <TyreFront w={frontWheel(side, lean - 5, cx)} cx={cx} ghost />}
      <TyreFront w={w} cx={cx} />
      <path d={`M${cx} ${w.ground}V48`} stroke="var(--chalk2)" strokeWidth="1.2" strokeDasharray="9 3 2 3" />
      {wedge && (
        <path
          d={`M${cx} ${w.ground}L${cx + w.along[0] * 270} ${w.ground + w.along[1] * 270}L${cx} ${w.ground - 270}Z`}
          fill={`var(--${side}S)`}
          opacity=".45"
        />
      )}
      {drawing === 'gauge_hub' && (
        <>
          <Box at={at(w.hub, 4)} out={w.out} along={w.along} on />
          <Word x={w.hub[0] + m * 52} y={w.hub[1] + 8} anchor={anchor} on>
            {s.typed.angle ?? 'angle'}
          </Word>
          <Word x={w.hub[0] + m * 52} y={w.hub[1] + 34} anchor={anchor} size={18}>
            hub face
          </Word>
        </>
      )}
      {drawing === 'gauge_bar' && (
        <>
          <path d={rod} stroke="var(--steel)" strokeWidth="13" />
          <path d={rod} stroke="var(--chalk)" strokeWidth="2" />
          <Box at={at(w.hub, 16)} out={w.out} along={w.along} on />
          <Word x={w.hub[0] + m * 64} y={w.hub[1] + 8} anchor={anchor} on>
            {s.typed.angle ?? 'angle'}
          </Word>
          <Word x={w.top[0] + m * 30} y={w.top[1] - 30} anchor={anchor} size={18}>
            bar on both lips
          </Word>
        </>
      )}
      {(drawing === 'plumb' || drawing === 'laser') && (
        <>
          {drawing === 'plumb' ? (
            <g stroke="var(--chalk)" fill="none" strokeWidth="1.8">
              <path d={`M${lineX - 16} 44H${lineX + 16}M${lineX} 44V${w.ground - 34}`} />
              <path
                d={`M${lineX - 7} ${w.ground - 34}H${lineX + 7}L${lineX} ${w.ground - 12}Z`}
                fill="var(--chalk)"
              />
            </g>
          ) : (
            <g stroke="var(--chalk)" fill="none" strokeWidth="1.8">
              <rect x={lineX - 17} y={w.ground - 28} width="34" height="26" rx="4" fill="var(--steel)" />
              <path
                d={`M${lineX} ${w.ground - 28}V44`}
                strokeDasharray="14 4"
                strokeWidth="2.4"
                stroke={`var(--${side}S)`}
              />
            </g>
          )}
          <Dim a={w.top} b={[lineX, w.top[1]]} name="top" label="top" s={s} />
          <Dim a={w.bottom} b={[lineX, w.bottom[1]]} name="bottom" label="bottom" s={s} below />
          <Dim
            a={[lineX + m * 34, w.top[1]]}
            b={[lineX + m * 34, w.bottom[1]]}
            name="span"
            label="span"
            s={s}
            off={m * 12}
          />
        </>
      )}
      {(drawing === 'gap' || drawing === 'calliper') && (
        <>
          <Level x={level} top={w.top[1] - 36} bottom={w.bottom[1] + 26} m={m} />
          <Dim a={open} b={[level, open[1]]} name={drawing === 'gap' ? 'top-gap' : 'gap'} label="" s={s} />
          <Word
            x={level + m * 44}
            y={open[1] + 8}
            anchor={anchor}
            on={active === 'top-gap' || active === 'gap'}
          >
            {`gap ${s.typed['top-gap'] ?? s.typed.gap ?? ''}`}
          </Word>
          <Word x={level + m * 44} y={touch[1] + 8} anchor={anchor} on={active === 'bulge'} size={18}>
            {active === 'bulge' ? `bulge ${s.typed.bulge ?? ''}` : 'touches the lip'}
          </Word>
          <Dim
            a={[cx - m * 70, w.top[1]]}
            b={[cx - m * 70, w.bottom[1]]}
            name={drawing === 'gap' ? 'span' : active === 'nominal' ? 'nominal' : 'diameter'}
            label={drawing === 'gap' ? 'span' : active === 'nominal' ? 'stamped' : 'lip to lip'}
            s={s}
            off={-m * 12}
          />
        </>
      )}
      {drawing === 'form' && (
        <>
          <path
            d={`M${w.bottom[0]} ${w.bottom[1]}V${w.top[1] - 30}`}
            stroke="var(--chalk)"
            strokeWidth="1.6"
          />
          <Dim a={[w.bottom[0], w.top[1] - 16]} b={[w.top[0], w.top[1] - 16]} name="offset" label="" s={s} />
          <Word x={w.top[0] + m * 40} y={w.top[1] - 8} anchor={anchor} on={active === 'offset'}>
            {`offset ${s.typed.offset ?? ''}`}
          </Word>
          <Dim
            a={[cx - m * 70, w.top[1]]}
            b={[cx - m * 70, w.bottom[1]]}
            name={active === 'nominal' ? 'nominal' : 'diameter'}
            label={active === 'nominal' ? 'rim size' : 'over'}
            s={s}
            off={-m * 12}
          />
        </>
      )}
      {drawing === 'runout' && (
        <>
          <Box at={at(w.hub, 4)} out={w.out} along={w.along} on />
          <Word x={w.hub[0] + m * 52} y={w.hub[1] - 14} anchor={anchor} on={active === 'first'}>
            {`first ${s.typed.first ?? ''}`}
          </Word>
          <Word x={w.hub[0] + m * 52} y={w.hub[1] + 18} anchor={anchor} on={active === 'second'}>
            {`half a turn on ${s.typed.second ?? ''}`}
          </Word>
        </>
      )}
      {drawing === 'dial' && (
        <>
          <g stroke="var(--chalk)" strokeWidth="2" fill="none">
            <circle cx={w.top[0] + m * 52} cy={w.top[1]} r="24" fill="var(--steel)" />
            <path
              d={`M${w.top[0] + m * 28} ${w.top[1]}H${w.top[0] + m * 4}M${w.top[0] + m * 52} ${w.top[1]}l${m * 10} -14M${w.top[0] + m * 52} ${w.top[1] + 24}V${w.ground}`}
            />
          </g>
          <Word x={w.top[0] + m * 86} y={w.top[1] - 6} anchor={anchor} on={active === 'high'}>
            {`highest ${s.typed.high ?? ''}`}
          </Word>
          <Word x={w.top[0] + m * 86} y={w.top[1] + 24} anchor={anchor} on={active === 'low'}>
            {`lowest ${s.typed.low ?? ''}`}
          </Word>
        </>
      )}
      <Tag>from the front{wedge ? ', lean drawn ×6' : ''}</Tag>
      <Tag x={m > 0 ? W - 16 : 16} y={62} anchor={m > 0 ? 'end' : 'start'}>
        {m > 0 ? 'outboard ▸' : '◂ outboard'}
      </Tag>
    </>
  );
}

function Level({ x, top, bottom, m }: { x: number; top: number; bottom: number; m: number }) {
  const h = bottom - top;
  return (
    <g fill="var(--steel)" stroke="var(--chalk)" strokeWidth="1.6">
      <rect x={m > 0 ? x : x - 22} y={top} width="22" height={h} rx="2" />
      <rect
        x={(m > 0 ? x : x - 22) + 5}
        y={top + h / 2 - 22}
        width="12"
        height="44"
        rx="6"
        fill="var(--slate)"
      />
      <circle cx={(m > 0 ? x : x - 22) + 11} cy={top + h / 2} r="4.5" fill="var(--chalk)" stroke="none" />
    </g>
  );
}
