// Two plans of the same name: what both have otherwise, field by field, and one made of what was chosen of each.
import type { AxleName, AxlePlan, CarPlan } from '../api/client';
import { partOf } from './ticket';

export type Whose = 'mine' | 'theirs';

/** A field of a plan as somebody speaks of it. */
export interface Field {
  key: string;
  /** Which axle it is of; none where it is the car's. */
  axle: AxleName | undefined;
  /** The fields of the document that go together. */
  of: readonly string[];
}

const axleFields: Record<string, readonly (keyof AxlePlan)[]> = {
  height: ['height_change_mm', 'ways'],
  settle: ['settle_mm'],
  load: ['load_mm'],
  trim: ['trim_mm'],
  parts: ['fitted', 'only'],
  picked: ['picked'],
};
const carFields: Record<string, readonly (keyof CarPlan)[]> = {
  aim: ['aim'],
  limit: ['limit_mm'],
  as_sold: ['as_sold'],
};

const every: Field[] = [
  ...(['front', 'rear'] as const).flatMap((axle) =>
    Object.entries(axleFields).map(([key, of]): Field => ({ key, axle, of })),
  ),
  ...Object.entries(carFields).map(([key, of]): Field => ({ key, axle: undefined, of })),
];

/** The order of keys says nothing. */
const plain = (v: unknown): string =>
  JSON.stringify(v, (_, x: unknown) =>
    x && typeof x === 'object' && !Array.isArray(x)
      ? Object.fromEntries(Object.entries(x).toSorted(([a], [b]) => (a < b ? -1 : 1)))
      : x,
  );

const valueOf = (d: CarPlan, f: Field): unknown => {
  const from: Record<string, unknown> = f.axle ? { ...partOf(d, f.axle) } : { ...d };
  // As the server leaves it out.
  return f.of.map((k) => (k === 'as_sold' ? !!from[k] : from[k]));
};
const same = (a: CarPlan, b: CarPlan, f: Field) => plain(valueOf(a, f)) === plain(valueOf(b, f));

export interface Difference {
  field: Field;
  /** Who of the two changed it since both had the same; both where both did, or where nobody knows. */
  changed: Whose | 'both';
}

/** What stands otherwise in `mine` and `theirs`, both begun from `base`. */
export function differences(mine: CarPlan, theirs: CarPlan, base: CarPlan | undefined): Difference[] {
  return every
    .filter((f) => !same(mine, theirs, f))
    .map((field) => ({
      field,
      changed:
        base && same(mine, base, field) ? 'theirs' : base && same(theirs, base, field) ? 'mine' : 'both',
    }));
}

export const idOf = (f: Field) => `${f.axle ?? 'car'}-${f.key}`;

/** Mine, with the fields of theirs that were chosen. */
export function merged(mine: CarPlan, theirs: CarPlan, chosen: Record<string, Whose>): CarPlan {
  const out = structuredClone(mine);
  for (const f of every) {
    if (chosen[idOf(f)] !== 'theirs') continue;
    if (f.axle) {
      const axles = out.axles ?? { front: partOf(mine, 'front'), rear: partOf(mine, 'rear') };
      const from = partOf(theirs, f.axle);
      const take = Object.fromEntries(f.of.map((k) => [k, from[k as keyof AxlePlan]]));
      out.axles = { ...axles, [f.axle]: { ...partOf(out, f.axle), ...take } };
    } else Object.assign(out, Object.fromEntries(f.of.map((k) => [k, theirs[k as keyof CarPlan]])));
  }
  return out;
}
