// How a worn tread looks, drawn from depths over width and turn: what is gone is dark. Seen from the front.
const COLS = 9;
const ROWS = 10;

/** Wear 0 to 1 across (−1 inner to +1 outer) and round (0 to 1). */
const wear: Record<string, (e: number, r: number) => number> = {
  inner_edge: (e) => Math.max(0, (-e - 0.2) / 0.8),
  outer_edge: (e) => Math.max(0, (e - 0.2) / 0.8),
  both_edges: (e) => Math.max(0, (Math.abs(e) - 0.35) / 0.65),
  centre: (e) => Math.max(0, 1 - Math.abs(e) / 0.6),
  even_fast: () => 0.75,
  heel_toe: (_, r) => (r * 5) % 1,
  diagonal: (e, r) => Math.max(0, Math.sin((r * 2 + e * 0.45) * 2 * Math.PI)) ** 1.5,
  cupping: (e, r) => (e > 0.3 ? Math.max(0, Math.sin(r * 6 * Math.PI)) : 0),
  one_patch: (e, r) => (Math.hypot(e / 0.8, (r - 0.5) / 0.22) < 1 ? 0.95 : 0),
  even: () => 0.12,
};

export function WornTread({ kind }: { kind: string }) {
  const f = wear[kind] ?? wear.even!;
  const cells = [];
  for (let i = 0; i < COLS; i++)
    for (let j = 0; j < ROWS; j++) {
      const e = (2 * (i + 0.5)) / COLS - 1;
      const bend = 3.5 * e * e;
      const w = f(e, (j + 0.5) / ROWS);
      cells.push(
        <rect
          key={`${i}.${j}`}
          x={8 + i * 9.4}
          y={6 + j * 9 + bend}
          width={8}
          height={7.4}
          rx="1.4"
          fill="var(--chalk)"
          fillOpacity={1 - 0.86 * Math.min(1, w)}
          stroke="var(--chalk2)"
          strokeWidth={w > 0.5 ? 0.9 : 0}
          strokeDasharray="1.6 1.6"
        />,
      );
    }
  return (
    <svg viewBox="0 0 100 117" width="94" height="110" aria-hidden="true">
      <rect x="3" y="1" width="94" height="102" rx="12" fill="var(--steel)" />
      {cells}
      <text x="5" y="115" fontSize="14" fontWeight="650" fill="var(--chalk2)">
        inner
      </text>
      <text x="95" y="115" textAnchor="end" fontSize="14" fontWeight="650" fill="var(--chalk2)">
        outer
      </text>
    </svg>
  );
}
