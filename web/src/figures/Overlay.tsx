// Corners drawn over each other from the front and from the left, each with its own line.
import type { Drawing } from '../api/client';
import { Ground } from '../ui/Car';

export const dashes = ['', '9 8', '3 6', '14 6 3 6'];
export const tones = ['var(--chalk)', 'var(--leftS)', 'var(--rightS)', 'var(--do)'];
/** Half a tyre's width, for the drawing only, mm. */
const HALF = 120;

interface Item {
  key: number;
  name: string;
  drawing: Drawing;
}
type Flat = (p: number[]) => [number, number];

function View({
  items,
  title,
  front,
  foot,
  moved,
}: {
  items: Item[];
  title: string;
  front: boolean;
  foot: string;
  moved: number[][];
}) {
  const flat: Flat = front ? (p) => [p[1]!, p[2]!] : (p) => [-p[0]!, p[2]!];
  const r = Math.max(...items.map((i) => i.drawing.loaded_radius_mm));
  const pts = items.flatMap((i) => {
    const c = flat(i.drawing.centre);
    const half = front ? HALF : r;
    return [
      ...i.drawing.bars.flatMap((b) => [flat(b.from), flat(b.to)]),
      [c[0] - half, 0] as [number, number],
      [c[0] + half, c[1] + r] as [number, number],
    ];
  });
  const xs = pts.map((p) => p[0]);
  const [x0, x1] = [Math.min(...xs) - 20, Math.max(...xs) + 20];
  const top = Math.max(...pts.map((p) => p[1])) + 20;
  const k = Math.min(384 / (x1 - x0), 232 / top);
  const P = (p: [number, number]): [number, number] => [200 + (p[0] - (x0 + x1) / 2) * k, 264 - p[1] * k];
  return (
    <svg viewBox="0 0 400 290" width="100%" role="img" aria-label={title}>
      <Ground x0={8} x1={392} y={264} />
      {items.map((it, n) => {
        const stroke = tones[n % 4]!;
        const line = (a: number[], b: number[], w: number) => {
          const [p, q] = [P(flat(a)), P(flat(b))];
          return (
            <path
              d={`M${p[0]} ${p[1]}L${q[0]} ${q[1]}`}
              stroke={stroke}
              strokeWidth={w}
              strokeDasharray={dashes[n % 4]}
              strokeLinecap="round"
            />
          );
        };
        const d = it.drawing;
        const c = P(flat(d.centre));
        // Seen from the front the wheel leans by its spin axis; from the side it is a circle.
        const lean = (Math.atan2(d.spin[2]!, d.spin[1]!) * -180) / Math.PI;
        return (
          <g key={it.key} fill="none">
            {front ? (
              <rect
                x={c[0] - HALF * k}
                y={c[1] - r * k}
                width={2 * HALF * k}
                height={2 * r * k}
                rx={14}
                transform={`rotate(${lean} ${c[0]} ${c[1]})`}
                stroke={stroke}
                strokeWidth="1.3"
                strokeDasharray={dashes[n % 4]}
              />
            ) : (
              <circle
                cx={c[0]}
                cy={c[1]}
                r={r * k}
                stroke={stroke}
                strokeWidth="1.3"
                strokeDasharray={dashes[n % 4]}
              />
            )}
            {d.bars.map((b, i) => (
              <g key={i}>{line(b.from, b.to, 2.4)}</g>
            ))}
            {d.axis && line(d.axis[0]!, d.axis[1]!, 4)}
            <circle cx={c[0]} cy={c[1]} r="5" fill="var(--slate2)" stroke={stroke} strokeWidth="2" />
          </g>
        );
      })}
      {moved.map((p, i) => {
        const [x, y] = P(flat(p));
        return <circle key={i} cx={x} cy={y} r="8" fill="none" stroke="var(--do)" strokeWidth="3" />;
      })}
      <text x="8" y="18" fontSize="19" fontWeight="700" fill="var(--chalk)">
        {title}
      </text>
      <text x="392" y="286" textAnchor="end" fontSize="17" fontWeight="600" fill="var(--chalk2)">
        {foot}
      </text>
    </svg>
  );
}

const middle = (v: number[]) => [...v].sort((a, b) => a - b)[Math.floor(v.length / 2)] ?? 0;

/**
 * Joints of the last drawing that stand more than half a millimetre from the first one's, seen from the body: the
 * drawings keep the wheel where it is, so what most body joints do together is taken off.
 */
export function movedJoints(items: Item[]): number[][] {
  const [a, b] = [items[0]?.drawing, items.at(-1)?.drawing];
  if (!a || !b || a === b) return [];
  const pairs = b.bars.flatMap((bar, i) => {
    const was = a.bars[i];
    return was && was.name === bar.name ? [[bar, was] as const] : [];
  });
  const body = pairs
    .filter(([bar]) => bar.on_body)
    .map(([bar, was]) => bar.from.map((v, k) => v - was.from[k]!));
  const shift = [0, 1, 2].map((k) => middle(body.map((d) => d[k]!)));
  const off = (p: number[], q: number[]) => Math.hypot(...p.map((v, k) => v - q[k]! - shift[k]!)) > 0.5;
  return pairs.flatMap(([bar, was]) => [
    ...(off(bar.from, was.from) ? [bar.from] : []),
    ...(off(bar.to, was.to) ? [bar.to] : []),
  ]);
}

export function Overlay({
  items,
  title = 'Left corner as set, true scale',
  mark = false,
}: {
  items: Item[];
  title?: string;
  mark?: boolean;
}) {
  const moved = mark ? movedJoints(items) : [];
  if (!items.length) return <p>Working…</p>;
  return (
    <div data-testid="overlay">
      <h3>{title}</h3>
      <ul style={{ listStyle: 'none', padding: 0, margin: '8px 0', display: 'grid', gap: 5 }}>
        {items.map((it, n) => (
          <li key={it.key} style={{ display: 'flex', gap: 9, alignItems: 'center', fontWeight: 600 }}>
            <svg width="44" height="10" aria-hidden="true">
              <path d="M2 5H42" stroke={tones[n % 4]} strokeWidth="2.6" strokeDasharray={dashes[n % 4]} />
            </svg>
            {it.key} {it.name}
          </li>
        ))}
      </ul>
      <div className="overlay-views">
        <View items={items} title="From the front" front foot="outboard ▸" moved={moved} />
        <View items={items} title="From the left" front={false} foot="◂ nose" moved={moved} />
      </div>
    </div>
  );
}
