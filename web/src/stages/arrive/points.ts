// Points of a geometry file of any layout by path, with what to put the tape on.
import type { Geometry } from '../../api/client';

export interface PointRow {
  path: string;
  label: string;
  where: string;
}

const known: Record<string, [string, string]> = {
  lower_front: [
    'Lower arm, front pivot',
    'Centre of the bolt where the lower arm meets the frame, front one.',
  ],
  lower_rear: ['Lower arm, rear pivot', 'Centre of the bolt where the lower arm meets the frame, rear one.'],
  lower_outer: ['Lower ball joint', 'Centre of the ball, not the stud nut: middle of the joint body.'],
  upper_front: ['Upper arm, front pivot', 'Centre of the upper arm bolt, front one.'],
  upper_rear: ['Upper arm, rear pivot', 'Centre of the upper arm bolt, rear one.'],
  upper_outer: ['Upper ball joint', 'Centre of the ball: middle of the joint body.'],
  tie_inner: [
    'Tie rod, inner joint',
    'Middle of the inner ball, under the boot: feel for it with the wheels straight.',
  ],
  tie_outer: ['Tie rod, outer joint', 'Middle of the outer ball at the steering arm.'],
  strut_top: ['Strut mount', 'Middle of the top bearing, where the rod goes through.'],
  strut_bottom: ['Strut, low on the tube', 'Centre of the strut tube just above the knuckle.'],
  arm_inner: ['Hinge, inboard end', 'Centre of the inner hinge bolt.'],
  arm_outer: ['Hinge, outboard end', 'Centre of the outer hinge bolt.'],
  pivot_left: ['Beam hinge, left', 'Centre of the left hinge bolt.'],
  pivot_right: ['Beam hinge, right', 'Centre of the right hinge bolt; y is negative there.'],
};

const spoken = (name: string) => name.replaceAll('_', ' ').replace(/^./, (c) => c.toUpperCase());

/** Every point, in the order of a survey: body side first, wheel centre last; the right side's own points after it. */
export function rowsOf(g: Geometry): PointRow[] {
  const left = oneSide(g);
  if (!g.right) return left;
  const right = oneSide({ ...g, ...g.right, drag_link: null, tie_rod: null });
  return [
    ...left,
    ...right.map((r) => ({
      path: `right.${r.path}`,
      label: `Right: ${r.label.replace(/^./, (c) => c.toLowerCase())}`,
      where: `${r.where} On the right side; y counts outward there too.`,
    })),
  ];
}

/** The file with points of its own on the right, at first the left ones, or without them. */
export function withRight(g: Geometry, own: boolean): Geometry {
  if (!own) return { ...g, right: null };
  return {
    ...g,
    right: structuredClone({ points: g.points ?? null, links: g.links ?? null, wheel: g.wheel }),
  };
}

/** Whether both wheels hang on one body, so that the file holds both sides already. */
export const isWholeAxle = (g: Geometry) => g.layout === 'solid_axle' || g.layout === 'twist_beam';

function oneSide(g: Geometry): PointRow[] {
  const out: PointRow[] = [];
  for (const name of Object.keys(known))
    if (g.points?.[name])
      out.push({ path: `points.${name}`, label: known[name]![0], where: known[name]![1] });
  for (const [name, l] of Object.entries(g.links ?? {})) {
    const axle = g.layout === 'solid_axle';
    const ends: [string, string][] = axle
      ? [
          ['chassis', 'body end'],
          ['axle', 'axle end'],
        ]
      : [
          ['inner', 'body end'],
          ['outer', 'wheel end'],
        ];
    for (const [k, w] of ends)
      if (l[k as keyof typeof l])
        out.push({
          path: `links.${name}.${k}`,
          label: `${spoken(name)}${/bar|link|rod/.test(name) || !axle ? '' : ' link'}, ${w}`,
          where: `Centre of the bolt or ball at that link's ${w}${name.includes('right') ? '; y is negative on the right' : ''}.`,
        });
  }
  if (g.drag_link)
    for (const [k, w] of [
      ['chassis', 'pitman arm end'],
      ['axle', 'axle end'],
    ] as const)
      out.push({
        path: `drag_link.${k}`,
        label: `Drag link, ${w}`,
        where: 'Middle of the ball, steering straight.',
      });
  if (g.tie_rod)
    for (const k of ['left', 'right'] as const)
      out.push({
        path: `tie_rod.${k}`,
        label: `Tie rod, ${k} end`,
        where: 'Middle of the ball at the steering arm.',
      });
  out.push({
    path: 'wheel.center',
    label: 'Wheel centre',
    where: 'Hub centre in the middle plane of the wheel; its height is the hub over the floor.',
  });
  return out;
}

/** The point at a path. */
export function pointAt(g: Geometry, path: string): number[] {
  let v: unknown = g;
  for (const k of path.split('.')) v = (v as Record<string, unknown> | undefined)?.[k];
  return Array.isArray(v) ? (v as number[]) : [0, 0, 0];
}

/** The geometry with another point at a path. */
export function withPoint(g: Geometry, path: string, value: number[]): Geometry {
  const out = structuredClone(g);
  const keys = path.split('.');
  const last = keys.pop()!;
  let v = out as unknown as Record<string, unknown>;
  for (const k of keys) v = v[k] as Record<string, unknown>;
  v[last] = value;
  return out;
}

export const layoutWords: Record<Geometry['layout'], string> = {
  double_wishbone: 'Double wishbone',
  strut: 'Strut',
  five_link: 'Multi-link',
  single_arm: 'Single arm',
  solid_axle: 'Live axle',
  twist_beam: 'Twist beam',
};
