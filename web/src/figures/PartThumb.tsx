// The reach map at 64 px: where a part's reach lies against the window.
import { ring } from './plot';
import type { Point } from './place';

export function PartThumb({
  window: win,
  base,
  part,
  fitted,
}: {
  window: [number[], number[]];
  base: [number, number][];
  part: [number, number][];
  fitted: boolean;
}) {
  const all = [...base, ...part, [win[0][0]!, win[1][0]!], [win[0][1]!, win[1][1]!]] as [number, number][];
  const xs = all.map((p) => p[0]);
  const ys = all.map((p) => p[1]);
  const grow = 0.12 * (Math.max(...ys) - Math.min(...ys) || 0.2);
  const [x0, x1, y0, y1] = [
    Math.min(...xs, -1.5),
    Math.max(...xs, 0.6),
    Math.min(...ys) - grow,
    Math.max(...ys) + grow,
  ];
  const P = (p: [number, number]): Point => [
    4 + ((p[0] - x0) / (x1 - x0)) * 56,
    4 + ((y1 - p[1]) / (y1 - y0)) * 56,
  ];
  const [wx, wy] = P([win[0][0]!, win[1][1]!]);
  const [vx, vy] = P([win[0][1]!, win[1][0]!]);
  return (
    <svg width="64" height="64" viewBox="0 0 64 64" aria-hidden="true" style={{ flex: 'none' }}>
      <rect x=".5" y=".5" width="63" height="63" rx="3" fill="var(--well)" stroke="var(--line)" />
      <rect
        x={wx}
        y={wy}
        width={Math.max(2, vx - wx)}
        height={Math.max(2, vy - wy)}
        fill="none"
        stroke="var(--aim)"
        strokeWidth="1.8"
      />
      {base.length > 0 && <path d={ring(base.map(P))} fill="none" stroke="var(--edge)" />}
      {part.length > 0 && (
        <path
          d={ring(part.map(P))}
          fill="var(--shade)"
          stroke="var(--left)"
          strokeWidth="2"
          strokeDasharray={fitted ? undefined : '5 3'}
        />
      )}
    </svg>
  );
}
