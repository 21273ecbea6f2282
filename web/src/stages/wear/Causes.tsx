// What eats the worst strip: shares by area, each with its own pattern.
import type { SceneWear } from '../../api/client';
import { useSettings } from '../../ui/settings';
import { angle, num, signed } from '../../units/print';
import { meanOf } from '../../shell/tread';

const fills = ['var(--ink)', 'url(#PAT1)', 'url(#PAT2)', 'none'];

export function Causes({
  title,
  t,
  id,
  whole,
}: {
  title: string;
  t: SceneWear;
  id: string;
  whole?: boolean;
}) {
  const { form } = useSettings();
  const s = whole ? t.mean_shares : t.shares;
  const camber = meanOf(t, 'camber_deg');
  const toe = meanOf(t, 'toe_deg');
  const list: [string, number][] = [
    [
      `Camber, ${camber < 0 ? 'top leans in' : 'top leans out'} ${angle(Math.abs(camber), form, 1)}`,
      s.camber,
    ],
    [`Toe, ${toe < 0 ? 'out' : 'in'} ${angle(Math.abs(toe), form, 2)}`, s.toe],
    ['Pressure against placard', s.pressure],
    ['Would wear anyway (use)', s.use],
  ];
  const positive = list.reduce((a, [, v]) => a + Math.max(0, v), 0);
  let x = 0;
  const fill = (i: number) => fills[i]!.replace('PAT', `${id}p`);
  return (
    <div>
      <h3 style={{ marginBottom: 7 }}>{title}</h3>
      <svg viewBox="0 0 318 32" width="100%" aria-hidden="true">
        <defs>
          <pattern
            id={`${id}p1`}
            width="6"
            height="6"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width="6" height="6" fill="var(--well)" />
            <path d="M1.5 0V6" stroke="var(--ink)" strokeWidth="3" />
          </pattern>
          <pattern id={`${id}p2`} width="6" height="6" patternUnits="userSpaceOnUse">
            <rect width="6" height="6" fill="var(--well)" />
            <circle cx="3" cy="3" r="1.4" fill="var(--ink)" />
          </pattern>
        </defs>
        {list.map(([n, v], i) => {
          if (v <= 0.004) return null;
          const w = (v / positive) * 318;
          const r = (
            <rect
              key={n}
              x={x + 1}
              y="1"
              width={Math.max(1, w - 3)}
              height="30"
              fill={fill(i)}
              stroke="var(--ink)"
              strokeWidth="1.5"
            />
          );
          x += w;
          return r;
        })}
      </svg>
      <ul style={{ listStyle: 'none', margin: '6px 0 0', padding: 0, display: 'grid', gap: 3 }}>
        {list.map(([n, v], i) => (
          <li
            key={n}
            style={{ display: 'flex', gap: 9, alignItems: 'center', fontWeight: 600, fontSize: 14.5 }}
          >
            <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true">
              <rect x="1" y="1" width="14" height="14" fill={fill(i)} stroke="var(--ink)" strokeWidth="1.5" />
            </svg>
            <span style={{ flex: 1 }}>{n}</span>
            <span className="fig" style={{ fontSize: 19 }}>
              {v < -0.004 ? `helps ${signed(v * 100)} %` : `${num(v * 100)} %`}
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}
