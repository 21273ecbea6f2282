// Where on its way an adjuster stands, by the camber a gauge shows: between the points the core worked out of that way.
import type { Schemas } from '../api/client';

export type Way = Schemas['OnTheWay'][];

/** Less than this over the whole order and a gauge does not tell it from its own noise, degrees (judgement, no source). */
export const LEAST_DEG = 0.15;
/** As near as a hand on a wrench and a gauge come together, degrees (judgement, no source). */
export const THERE_DEG = 0.04;

const ordered = (way: Way) => way.find((p) => Math.abs(p.share - 1) < 1e-9);

/** Whether camber tells how far this order is. */
export const told = (way: Way) => {
  const [first, last] = [way[0], ordered(way)];
  return !!first && !!last && Math.abs(last.camber_deg - first.camber_deg) >= LEAST_DEG;
};

export interface Stands {
  /** How much of the order is done. */
  share: number;
  camber_deg: number;
  caster_deg: number;
  toe_deg: number;
  /** Camber that is left to go, degrees, as it will change. */
  left_deg: number;
  /** Turned past the order. */
  past: boolean;
  there: boolean;
  /** How much of the order a gauge leaves open here: much where a cam is at the end of its throw and moves little. */
  open: number;
  /** More than what turns here can give: not what was watched from the beginning. */
  beyond: boolean;
}

/** Where the wheel stands with this camber; along the last piece of the way where it is farther than any. */
export function stands(way: Way, camber: number): Stands | undefined {
  const [first, last] = [way[0], ordered(way)];
  if (!first || !last || way.length < 2) return undefined;
  const up = last.camber_deg > first.camber_deg ? 1 : -1;
  let k = 1;
  while (k < way.length - 1 && (way[k]!.camber_deg - camber) * up < 0) k += 1;
  const [a, b] = [way[k - 1]!, way[k]!];
  const run = b.camber_deg - a.camber_deg;
  const t = Math.abs(run) < 1e-9 ? 0 : (camber - a.camber_deg) / run;
  const at = (f: (p: Way[number]) => number) => f(a) + t * (f(b) - f(a));
  const left = last.camber_deg - camber;
  const past = left * up < -THERE_DEG;
  return {
    share: at((p) => p.share),
    camber_deg: camber,
    caster_deg: at((p) => p.caster_deg),
    toe_deg: at((p) => p.toe_deg),
    left_deg: left,
    past,
    there: Math.abs(left) <= THERE_DEG,
    open: Math.abs(run) < 1e-9 ? 1 : Math.abs((THERE_DEG * (b.share - a.share)) / run),
    // Past the order where it is at its end, or against the way it turns by more than a gauge's own.
    beyond: past && way.at(-1) === last,
  };
}
