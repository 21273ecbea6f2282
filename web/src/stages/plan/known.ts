// What the shop found of a part that it plans with.
import type { Schemas } from '../../api/client';
import { halfWidth } from '../../units/measure';
import { num } from '../../units/print';

/** A line for each throw that was found other than sold. */
export function known(part: Pick<Schemas['Part'], 'adjusters'>): string[] {
  return (part.adjusters ?? []).flatMap((a) => {
    const k = a.known;
    if (!k) return [];
    const half = halfWidth(k.sd);
    const ends = [k.times * Math.exp(-half), k.times * Math.exp(half)];
    return [
      `${a.name}: moves ${num(k.times, 2)} times as sold here (${k.cars} ${k.cars === 1 ? 'car' : 'cars'}, ${num(ends[0]!, 1)} to ${num(ends[1]!, 1)})`,
    ];
  });
}
