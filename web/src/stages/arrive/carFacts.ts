// Facts of the whole car as texts and back.
import { readField, wrongOf, type FieldKind } from '../../input/kinds';
import { at, patch } from '../../input/paths';
import type { CarFacts } from '../../api/client';
import { fieldText, type Kind, type Units } from '../../units/measure';
import { readLength, readNumber } from '../../units/notation';
import { MM_PER_INCH } from '../../units/print';

type Texts = Record<string, string>;

/** Every field of the fold-out: key, label, kind, unit, whether it may stay empty. */
export const carFields: [string, string, FieldKind, string | undefined, boolean][] = [
  ['lock_deg', 'Lock, inner', 'angle', undefined, false],
  ['steering_ratio', 'Steering ratio', 'number', 'to 1', false],
  ['cg_height_mm', 'CG height', 'length', undefined, false],
  ['brake_front_share', 'Front braking', 'number', '%', false],
  ['axles.rear.load_n', 'Rear load', 'load', undefined, false],
  ['axles.rear.settle_mm', 'Rear settles by', 'length', undefined, false],
  ['axles.front.tyre_gain_mm', 'Tyre gain, front', 'length', undefined, false],
  ['axles.rear.tyre_gain_mm', 'Tyre gain, rear', 'length', undefined, false],
  ['axles.front.spring.rate_n_mm', 'Front spring', 'rate', undefined, true],
  ['axles.front.spring.motion_ratio', 'Front ratio', 'number', 'to 1', true],
  ['axles.rear.spring.rate_n_mm', 'Rear spring', 'rate', undefined, true],
  ['axles.rear.spring.motion_ratio', 'Rear ratio', 'number', 'to 1', true],
  ['payload.mass_kg', 'Payload', 'mass', undefined, true],
  ['payload.behind_front_axle_mm', 'Payload back', 'length', undefined, true],
  ['axles.front.limits.shaft_inner.1', 'Shaft, out', 'length', undefined, true],
  ['axles.front.limits.shaft_inner.2', 'Shaft, up', 'length', undefined, true],
];

/** Records that are there whole or not at all: their fields with what the others are called, and what a new one starts from. */
const wholes: { at: string; keys: [string, string]; other: string; fresh: unknown }[] = [
  ...['front', 'rear'].map((axle) => ({
    at: `axles.${axle}.spring`,
    keys: [`axles.${axle}.spring.rate_n_mm`, `axles.${axle}.spring.motion_ratio`] as [string, string],
    other: 'the other spring figure',
    fresh: {},
  })),
  {
    at: 'payload',
    keys: ['payload.mass_kg', 'payload.behind_front_axle_mm'],
    other: 'the payload',
    fresh: { left_of_centre_mm: 0 },
  },
  {
    at: 'axles.front.limits.shaft_inner',
    keys: ['axles.front.limits.shaft_inner.1', 'axles.front.limits.shaft_inner.2'],
    other: 'the shaft',
    fresh: [0, 0, 0],
  },
];
const shareOf = 'brake_front_share';

export function carTexts(c: CarFacts, units: Units): Texts {
  const unit = units.length;
  const len = (mm: number) => String(Math.round((unit === 'mm' ? mm : mm / MM_PER_INCH) * 1000) / 1000);
  const nr = (v: number) => String(Math.round(v * 1000) / 1000);
  const text = (k: string, kind: FieldKind): string => {
    const v = at(c, k);
    if (typeof v !== 'number') return '';
    if (kind === 'length') return len(v);
    if (kind === 'number' || kind === 'angle') return nr(k === shareOf ? v * 100 : v);
    return fieldText(kind as Kind, v, units);
  };
  return {
    ...Object.fromEntries(carFields.map(([k, , kind]) => [k, text(k, kind)])),
    levels: c.levels.map((l) => `${l.name} ${len(l.mm.front)} ${len(l.mm.rear)}`).join('\n'),
    turns: c.turns.map((t) => `${nr(t.turns)} ${len(t.height_change_mm)}`).join('\n'),
  };
}

/** Facts from texts; what cannot be read lands in `bad` under `car.KEY`. */
export function readCar(was: CarFacts, t: Texts, units: Units, bad: Record<string, string>): CarFacts {
  const unit = units.length;
  // What stands as it was shown keeps its last digit; what no field shows (a payload's place across) is not touched.
  const shown = carTexts(was, units);
  const same = (...keys: string[]) => keys.every((k) => (t[k] ?? '') === (shown[k] ?? ''));
  const value = (k: string): number | undefined => {
    const field = carFields.find((f) => f[0] === k);
    const text = (t[k] ?? '').trim();
    if (!text) {
      if (!field?.[4]) bad[`car.${k}`] = 'nothing was entered';
      return undefined;
    }
    const kind = field?.[2] ?? 'number';
    const v = readField(kind, text, units);
    if (v === undefined) bad[`car.${k}`] = wrongOf(kind, text, units)?.wrong ?? 'cannot be read';
    return v;
  };
  const lines = (k: string) => (t[k] ?? '').split('\n').filter((l) => l.trim());
  const levels = lines('levels').flatMap((l) => {
    const m = /^(.+?)\s+(\S+)\s+(\S+)$/.exec(l.trim());
    const [f, r] = [m && readLength(m[2] ?? '', unit), m && readLength(m[3] ?? '', unit)];
    if (!m || f === undefined || f === null || r === undefined || r === null) {
      bad['car.levels'] = `"${l.trim().slice(0, 24)}" cannot be read`;
      return [];
    }
    return [{ name: m[1]!, mm: { front: f, rear: r } }];
  });
  const turns = lines('turns').flatMap((l) => {
    const m = /^(\S+)\s+(\S+)$/.exec(l.trim());
    const n = m ? readNumber(m[1] ?? '') : undefined;
    const h = m && readLength(m[2] ?? '', unit);
    if (n === undefined || h === undefined || h === null) {
      bad['car.turns'] = `"${l.trim().slice(0, 24)}" cannot be read`;
      return [];
    }
    return [{ turns: n, height_change_mm: h }];
  });
  let out = was;
  const inWhole = new Set(wholes.flatMap((w) => w.keys));
  for (const [k] of carFields) {
    if (inWhole.has(k) || same(k)) continue;
    const v = value(k);
    if (v !== undefined) out = patch(out, k, k === shareOf ? v / 100 : v);
  }
  for (const { at: path, keys, other, fresh } of wholes) {
    const [x, y] = keys.map(value);
    const [a, b] = keys;
    if ((x === undefined) !== (y === undefined) && !bad[`car.${a}`] && !bad[`car.${b}`])
      bad[`car.${x === undefined ? a : b}`] = `needed with ${other}`;
    if (same(...keys)) continue;
    out = patch(out, path, x === undefined || y === undefined ? null : (at(was, path) ?? fresh));
    if (x === undefined || y === undefined) continue;
    // The one nobody typed over keeps its last digit.
    if (!same(a)) out = patch(out, a, x);
    if (!same(b)) out = patch(out, b, y);
  }
  return { ...out, levels: same('levels') ? was.levels : levels, turns: same('turns') ? was.turns : turns };
}
