// What can be turned as found: reading and changing one adjuster of the list, side by side.
import type { Schemas, SideName } from '../../api/client';
import type { FieldKind } from '../../input/kinds';
import { patch, at } from '../../input/paths';

export type Found = Schemas['FoundAdjuster'];
export type Held = Schemas['Held'];
export type HeightBy = Schemas['HeightBy'];

/** How it stands on one side. */
export interface Standing {
  position: number;
  unseen: boolean;
  held: Held | null;
}

/** How an adjuster stands on a side: the right as the left while nothing else is told. */
export function standing(a: Found, side: SideName): Standing {
  const r = side === 'right' ? a.right : null;
  return r
    ? { position: r.position ?? 0, unseen: r.unseen ?? false, held: r.held ?? null }
    : { position: a.position ?? 0, unseen: a.unseen ?? false, held: a.held ?? null };
}

/** Whether both sides are told as one. */
export const alike = (a: Found): boolean => !a.right;

/** Tells the sides apart, or as one again (as the left stands). */
export const apart = (a: Found, on: boolean): Found => ({
  ...a,
  right: on ? { ...standing(a, 'right'), room: a.right?.room ?? null } : null,
});

/** The adjuster with how it stands on a side; where the sides are told as one, on both. */
export function stand(a: Found, side: SideName, to: Partial<Standing>): Found {
  if (side === 'right' && a.right) return { ...a, right: { ...a.right, ...to } };
  return { ...a, ...to };
}

/** Lowest and highest position, and one step of it. */
export function room(a: Found): { low: number; high: number; step: number } {
  switch (a.kind) {
    case 'eccentric':
    case 'cam_bolt':
      return {
        low: a.min_deg,
        high: a.max_deg,
        step: a.notches_per_half_turn ? 180 / a.notches_per_half_turn : 15,
      };
    case 'thread':
      return { low: a.turns[0]!, high: a.turns[1]!, step: 0.25 };
    case 'slide':
      return { low: a.range_mm[0]!, high: a.range_mm[1]!, step: a.step_mm ?? 0.5 };
    case 'shims':
      return { low: a.range_mm[0]!, high: a.range_mm[1]!, step: a.step_mm };
    case 'tilt':
      return { low: a.camber_deg[0]!, high: a.camber_deg[1]!, step: a.step_deg ?? 0.25 };
    case 'wedge':
      return { low: a.caster_deg[0]!, high: a.caster_deg[1]!, step: a.step_deg };
    default:
      return { low: 0, high: 360 - 360 / a.positions, step: 360 / a.positions };
  }
}

/** A step more or less, within what it has. */
export function stepped(a: Found, side: SideName, by: 1 | -1): Found {
  const { low, high, step } = room(a);
  const now = standing(a, side).position;
  const to = Math.min(high, Math.max(low, (Math.round(now / step) + by) * step));
  return stand(a, side, { position: Math.abs(to) < 1e-9 ? 0 : to, unseen: false });
}

/** Where a cam's mark points, seen from its bolt head: the clock face a shop names it by. */
export function clock(deg: number): string {
  const at = ((deg / 30) % 12) + 12;
  const half = Math.round(at * 2) / 2;
  const hour = Math.floor(half) % 12 || 12;
  return half % 1 ? `half past ${hour}` : `${hour} o’clock`;
}

/** Where the turn is named by a clock face. */
export const turnsRound = (a: Found): boolean =>
  a.kind === 'eccentric' || a.kind === 'cam_bolt' || a.kind === 'sleeve';

/** Sizes of a kind: path, label, kind of figure, unit behind the label. */
export function sizes(a: Found): [string, string, FieldKind, string | undefined][] {
  switch (a.kind) {
    case 'eccentric':
      return a.notches_per_half_turn
        ? [
            ['eccentricity_mm', 'Throw', 'length', undefined],
            ['notches_per_half_turn', 'Notches in half a turn', 'number', undefined],
          ]
        : [['eccentricity_mm', 'Offset', 'length', undefined]];
    case 'cam_bolt':
      return [
        ['amplitude_deg', 'Gives at a quarter turn', 'angle', undefined],
        ['notches_per_half_turn', 'Notches in half a turn', 'number', undefined],
      ];
    case 'thread':
      return [
        ['pitch_mm', 'Thread', 'number', 'mm a turn'],
        ['turns.0', 'Turns left, shorter', 'number', undefined],
        ['turns.1', 'Turns left, longer', 'number', undefined],
        ['engaged_mm', 'Thread in hold', 'length', undefined],
      ];
    case 'slide':
      return [
        ['range_mm.0', 'From', 'length', undefined],
        ['range_mm.1', 'To', 'length', undefined],
      ];
    case 'shims':
      return [
        ['range_mm.0', 'Can come out', 'length', undefined],
        ['range_mm.1', 'Can go in', 'length', undefined],
        ['step_mm', 'Thinnest on hand', 'length', undefined],
      ];
    case 'tilt':
      return [
        ['camber_deg.0', 'Top in to', 'angle', undefined],
        ['camber_deg.1', 'Top out to', 'angle', undefined],
      ];
    case 'wedge':
      return [
        ['caster_deg.0', 'From', 'angle', undefined],
        ['caster_deg.1', 'To', 'angle', undefined],
        ['step_deg', 'Steps', 'angle', undefined],
      ];
    default:
      return [
        ['amount_deg', 'Offset', 'angle', undefined],
        ['positions', 'Positions round', 'number', undefined],
      ];
  }
}

/** What comes out or gets shorter is told without its sign. */
const shownWithoutSign = (a: Found, path: string) =>
  (a.kind === 'thread' && path === 'turns.0') || (a.kind === 'shims' && path === 'range_mm.0');

/** A size as it is shown. */
export function sizeOf(a: Found, path: string): number | undefined {
  const v = at(a, path);
  if (typeof v !== 'number') return undefined;
  return shownWithoutSign(a, path) ? Math.abs(v) : v;
}

/** The adjuster with a size, as it was typed: then it was measured. */
export function sized(a: Found, path: string, v: number | undefined): Found {
  const signed = v !== undefined && shownWithoutSign(a, path) ? -Math.abs(v) : v;
  return { ...patch(a, path, signed ?? null), measured: true };
}

/** The side of one arm of a live axle, which turns for both wheels: it has no other side to differ from. */
export const oneArm = (a: Found): SideName | undefined =>
  a.kind === 'thread' ? (/_(left|right)$/.exec(a.link)?.[1] as SideName | undefined) : undefined;
