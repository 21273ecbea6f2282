// A part made in this shop from a construction aid: where a point goes, and how long the arm or rod becomes. What it does is
// worked out by the exact model like that of any other part.
import type { Geometry, Schemas } from '../../api/client';
import { num } from '../../units/print';

type Aids = Schemas['Aids'];
type Part = Schemas['Part'];
export type Place = 'bisector' | 'exact';
export type Aid = 'upper_pivot' | 'tie_rod' | 'ackermann';

const pointsOf = (g: Geometry) => (g as unknown as { points: Record<string, number[] | undefined> }).points;
const apart = (a: number[], b: number[]) => Math.hypot(a[0]! - b[0]!, a[1]! - b[1]!, a[2]! - b[2]!);
const moved = (p: number[], by: number[]) => p.map((v, i) => v + by[i]!);
/** Hundredths of a millimetre are more than anybody welds to. */
const fine = (v: number) => Math.round(v * 100) / 100;

const blank = (id: string, name: string, summary: string, layout: string): Part =>
  ({
    id,
    name,
    summary,
    group: 'steering',
    purposes: ['bump_steer'],
    fits: { layouts: [layout], axles: ['front'], replaces: id },
    edits: [],
    adjusters: [],
    limits: {
      upper_joint_deg: null,
      lower_joint_deg: null,
      shaft_deg: null,
      bucket_mm: null,
      droop_mm: null,
    },
    requires: [],
    provides: [],
    conflicts: [],
    side_effect: 'Made here from the drawing: measure it again on the car.',
    labour_minutes: 240,
    cost: 0,
    rules: ['welding', 'cutting', 'moves_pivots'],
    access: '',
    cautions: ['Welded and cut suspension parts are for licensed inspection.'],
  }) as unknown as Part;

/** A made part with what a fabricator cuts it to, mm: the length now and then. */
export interface Made {
  part: Part;
  what: string;
  was_mm: number;
  now_mm: number;
}

/** The part that puts a point where an aid wants it; undefined where this axle has no such point. */
export function madeOf(aids: Aids, aid: Aid, place: Place, g: Geometry, ticket: number): Made | undefined {
  const p = pointsOf(g);
  const no = String(ticket).padStart(4, '0');
  const layout = g.layout as string;
  const of = (word: string, what: string, length: number) =>
    blank(
      `made-${aid.replaceAll('_', '-')}-${place}-${no}`,
      `${word}, made here for ticket ${no}`,
      `${what}; ${num(length, 1)} mm long`.slice(0, 160),
      layout,
    );
  if (aid === 'tie_rod' && aids.tie_rod && p.tie_inner && p.tie_outer) {
    const [y, z] = aids.tie_rod[place] as [number, number];
    const by = [0, fine(y - p.tie_inner[1]!), fine(z - p.tie_inner[2]!)];
    const was = apart(p.tie_outer, p.tie_inner);
    const now = apart(p.tie_outer, moved(p.tie_inner, by));
    const part = of('Inner tie-rod place', 'inner tie-rod joint moved', now);
    part.edits = [
      { kind: 'move_pivot', point: 'tie_inner', by },
      { kind: 'lengthen_tie', by_mm: fine(now - was) },
    ] as Part['edits'];
    return { part, what: 'rod, joint to joint', was_mm: was, now_mm: now };
  }
  if (aid === 'ackermann' && aids.ackermann && p.tie_inner && p.tie_outer) {
    const y = place === 'exact' ? aids.ackermann.exact_y : aids.ackermann.construction_y;
    const by = [0, fine(y - p.tie_outer[1]!), 0];
    const was = apart(p.tie_outer, p.tie_inner);
    const now = apart(moved(p.tie_outer, by), p.tie_inner);
    const part = of('Steering arm for Ackermann', 'outer tie-rod joint moved on the arm', now);
    part.edits = [
      { kind: 'shift_knuckle_point', point: 'tie', by },
      { kind: 'lengthen_tie', by_mm: fine(now - was) },
    ] as Part['edits'];
    part.rules = ['knuckle'] as Part['rules'];
    return { part, what: 'rod, joint to joint', was_mm: was, now_mm: now };
  }
  if (aid === 'upper_pivot' && aids.upper_pivot && p.upper_outer) {
    const a = aids.upper_pivot;
    const [y, z] = a[place] as [number, number];
    const by = [0, fine(y - a.now[0]!), fine(z - a.now[1]!)];
    const span = (q: number[]) => Math.hypot(p.upper_outer![1]! - q[0]!, p.upper_outer![2]! - q[1]!);
    const [was, now] = [span(a.now), span([y, z])];
    const part = of('Upper arm place', 'both upper pivots moved, arm to fit', now);
    part.group = 'upper_arm';
    part.purposes = ['roll_centre'];
    part.edits = [
      { kind: 'move_pivot', point: 'upper_front', by },
      { kind: 'move_pivot', point: 'upper_rear', by },
      { kind: 'reshape_arm', arm: 'upper', longer_mm: fine(now - was), forward_mm: 0 },
    ] as Part['edits'];
    part.rules = ['welding', 'cutting', 'moves_pivots', 'aftermarket_arms'] as Part['rules'];
    return { part, what: 'arm, pivot axis to joint', was_mm: was, now_mm: now };
  }
  return undefined;
}
