// Label avoidance: put a box where it covers least, near what it speaks of.
export interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}
export type Point = [number, number];

const overlap = (a: Box, b: Box) =>
  Math.max(0, Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x)) *
  Math.max(0, Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y));

/** The place in `area` for a `w`×`h` box near `anchor` that covers fewest points and no boxes. */
export function place(area: Box, w: number, h: number, anchor: Point, points: Point[], boxes: Box[]): Box {
  let best: Box = { x: area.x, y: area.y, w, h };
  let cost = Infinity;
  for (let i = 0; i <= 12; i++) {
    for (let j = 0; j <= 12; j++) {
      const b = { x: area.x + ((area.w - w) * i) / 12, y: area.y + ((area.h - h) * j) / 12, w, h };
      const covered = points.filter(
        ([x, y]) => x > b.x - 5 && x < b.x + w + 5 && y > b.y - 5 && y < b.y + h + 5,
      ).length;
      const hits = boxes.reduce(
        (s, o) => s + overlap({ x: b.x - 5, y: b.y - 5, w: w + 10, h: h + 10 }, o),
        0,
      );
      const far = Math.hypot(b.x + w / 2 - anchor[0], b.y + h / 2 - anchor[1]);
      const c = covered * 60 + hits * 2 + far * 0.6;
      if (c < cost) {
        cost = c;
        best = b;
      }
    }
  }
  return best;
}

/** Places for numbers in a row: under what they name, side by side where that would overlap. */
export function leaders<T extends { p: Point }>(list: T[], width: number): (T & { x: number })[] {
  const gap = 36;
  const row = [...list].sort((a, b) => a.p[0] - b.p[0]).map((s) => ({ ...s, x: s.p[0] }));
  for (let i = 1; i < row.length; i++) row[i]!.x = Math.max(row[i]!.x, row[i - 1]!.x + gap);
  // Pushed past the edge, they close up to the left again.
  const over = Math.max(0, (row.at(-1)?.x ?? 0) - (width - 20));
  for (let i = row.length - 1; i >= 0; i--) {
    const most = i === row.length - 1 ? row[i]!.x - over : Math.min(row[i]!.x, row[i + 1]!.x - gap);
    row[i]!.x = Math.max(20, most);
  }
  return row;
}
