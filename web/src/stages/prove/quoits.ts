// What is drawn of an axle: each wheel as said, come and wanted; and the explanations of both wheels, likeliest first.
import type { AxleName, Schemas, SideName } from '../../api/client';
import type { Lies } from '../../figures/AxleLies';
import type { Quoit } from '../../figures/Quoits';

type Proved = Schemas['Proved'];
type Wheel = Schemas['WheelProved'];
type Angle = Schemas['AngleProved'];
export type Left = Schemas['AxleLeft'];

/** How an axle lies, as found, as it came and as far as it may; none where that is not asked. */
export function liesOf(placed: Schemas['Placed'][] | undefined, axle: AxleName) {
  const own = (placed ?? []).filter((p) => p.axle === axle);
  const of = (pick: (p: Schemas['Placed']) => number | null | undefined): Lies => ({
    apart: own.filter((p) => p.what === 'wheelbase').map(pick)[0] ?? undefined,
    right: own.filter((p) => p.what === 'centre').map(pick)[0] ?? undefined,
  });
  if (!own.length) return undefined;
  return {
    found: of((p) => p.found_mm),
    came: of((p) => p.came_mm),
    most: of((p) => p.most_mm),
    stale: own.some((p) => p.stale),
  };
}
export interface Told {
  side: SideName;
  what: string;
  odds: number;
  given: number[];
  alike?: boolean;
}

/** Explanations worth a line. */
const MOST = 3;

export const angleOf = (w: Wheel, name: Angle['angle']) => w.angles.find((a) => a.angle === name);

/** What stands over camber: caster where it is asked, else toe. */
export const secondOf = (p: Proved, axle: AxleName): 'caster' | 'toe' =>
  p.wheels.some((w) => w.axle === axle && angleOf(w, 'caster')) ? 'caster' : 'toe';

export function explained(left: Left | undefined): Told[] {
  const all = (['left', 'right'] as const).flatMap((side) =>
    (left?.sides[side]?.odd ?? []).map((e) => ({
      side,
      what: e.what,
      odds: e.odds,
      given: e.given,
      alike: !!e.alike,
    })),
  );
  return all.toSorted((a, b) => b.odds - a.odds).slice(0, MOST);
}

/** The angle of a wheel that is farthest out; none on aim. */
export function worstOf(w: Wheel): Angle | undefined {
  return w.angles
    .filter((a) => a.off_aim_deg !== 0)
    .toSorted((a, b) => Math.abs(b.off_aim_deg) - Math.abs(a.off_aim_deg))[0];
}

/** Turned through its window, or over or under it. */
export const wayOf = (a: Angle) => (a.past ? 'past' : a.off_aim_deg > 0 ? 'over' : 'under');

export function quoitsOf(p: Proved, left: Left | undefined, axle: AxleName, toeDone: boolean): Quoit[] {
  const second = secondOf(p, axle);
  return p.wheels
    .filter((w) => w.axle === axle)
    .flatMap((w): Quoit[] => {
      const [x, y] = [angleOf(w, 'camber'), angleOf(w, second)];
      if (!x || !y) return [];
      const next = left?.sides[w.side];
      const turns = next?.orders.some((l) => l.direction !== 'leave' && (toeDone || !l.sets_toe));
      const worst = worstOf(w);
      return [
        {
          side: w.side,
          said: [x.said_deg, y.said_deg],
          ring: [x.said_band_deg, y.said_band_deg],
          before: [x.before_deg, y.before_deg],
          came:
            x.came && y.came
              ? {
                  at: [x.came.value_deg, y.came.value_deg],
                  own: [x.came.band_deg, y.came.band_deg],
                  stale: x.came.stale || y.came.stale,
                }
              : undefined,
          window:
            x.aim_deg && y.aim_deg
              ? [
                  [x.aim_deg[0]!, x.aim_deg[1]!],
                  [y.aim_deg[0]!, y.aim_deg[1]!],
                ]
              : undefined,
          hop: turns && next ? [next.expect[0]!, next.expect[second === 'toe' ? 2 : 1]!] : undefined,
          off: worst && { word: worst.angle, by: Math.abs(worst.off_aim_deg), way: wayOf(worst) },
        },
      ];
    });
}

/** By what an explanation is called in the drawing and in its row. */
export const tag = (i: number) => String.fromCharCode(65 + i);
