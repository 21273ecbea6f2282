// What a reach map reads of a plan: its plane, the window of the aim on it, and what is farthest outside.
import type { Aim, PlanResult, SideName, SidePlan } from '../api/client';
import { angle, type AngleForm } from '../units/print';

export type Focus = SideName | 'both';

/** What the second axis of a plan's plane is. */
export const second = (r: Pick<PlanResult, 'plane'>) =>
  r.plane === 'camber_toe'
    ? ({ key: 'toe_deg', word: 'toe', step: 0.25, room: 0.1 } as const)
    : ({ key: 'caster_deg', word: 'caster', step: 1, room: 0.3 } as const);

/** The aim's window of one wheel on the plane, `[[camber], [second]]`. */
export function windowOf(r: Pick<PlanResult, 'plane'>, aim: Aim): [number[], number[]] {
  if (r.plane === 'camber_toe') {
    const toe = aim.rear_toe_total_deg ?? [0, 0.3];
    return [aim.rear_camber_deg ?? [-1.5, 0], toe.map((v) => v / 2)];
  }
  return [aim.camber_deg, aim.caster_deg];
}

/** The angle farthest outside its window, by how much, and whether it is over or short of it. */
export function worst(s: SidePlan, aim?: Aim, rear = false): [string, number, 'short' | 'over'] {
  const f = s.shortfall;
  const list: [string, number][] = [
    ['caster', f.caster_deg],
    ['camber', f.camber_deg],
    ['toe', f.toe_deg],
  ];
  const [what, gap] = list.reduce((a, b) => (b[1] > a[1] ? b : a));
  const top =
    what === 'caster'
      ? aim?.caster_deg[1]
      : what === 'camber'
        ? (rear ? (aim?.rear_camber_deg ?? [-1.5, 0]) : aim?.camber_deg)?.[1]
        : ((rear ? (aim?.rear_toe_total_deg ?? [0, 0.3]) : aim?.toe_total_deg)?.[1] ?? 0) / 2;
  const value = what === 'caster' ? s.set.caster_deg : what === 'camber' ? s.set.camber_deg : s.set.toe_deg;
  return [what, gap, top !== undefined && value > top ? 'over' : 'short'];
}

export const cap = (s: string) => s.charAt(0).toUpperCase() + s.slice(1);

export function sideWords(s: SideName, p: SidePlan, form: AngleForm, rear = false): string {
  const [what, gap] = worst(p);
  const other = rear ? `toe ${angle(p.set.toe_deg, form, 2)}` : `caster ${angle(p.set.caster_deg, form)}`;
  const set = `camber ${angle(p.set.camber_deg, form)}, ${other}`;
  return gap < 1e-6 ? `${cap(s)} on aim, ${set}` : `${cap(s)}, ${set}, short ${angle(gap, form)} ${what}`;
}
