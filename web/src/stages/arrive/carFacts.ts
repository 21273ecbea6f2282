// Facts of the whole car as texts and back.
import { readField, wrongOf, type FieldKind } from '../../input/kinds';
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
  ['brake_share', 'Front braking', 'number', '%', false],
  ['rear_load_n', 'Rear load', 'load', undefined, false],
  ['rear_settle_mm', 'Rear settles by', 'length', undefined, false],
  ['front_tyre_gain_mm', 'Tyre gain, front', 'length', undefined, false],
  ['rear_tyre_gain_mm', 'Tyre gain, rear', 'length', undefined, false],
  ['front_rate', 'Front spring', 'rate', undefined, true],
  ['front_ratio', 'Front ratio', 'number', 'to 1', true],
  ['rear_rate', 'Rear spring', 'rate', undefined, true],
  ['rear_ratio', 'Rear ratio', 'number', 'to 1', true],
  ['payload_kg', 'Payload', 'mass', undefined, true],
  ['payload_x', 'Payload back', 'length', undefined, true],
  ['shaft_y', 'Shaft, out', 'length', undefined, true],
  ['shaft_z', 'Shaft, up', 'length', undefined, true],
];

export function carTexts(c: CarFacts, units: Units): Texts {
  const unit = units.length;
  const by = (kind: Kind, v: number | null | undefined) => fieldText(kind, v, units);
  const len = (mm: number | undefined) =>
    mm === undefined ? '' : String(Math.round((unit === 'mm' ? mm : mm / MM_PER_INCH) * 1000) / 1000);
  const nr = (v: number | undefined) => (v === undefined ? '' : String(Math.round(v * 1000) / 1000));
  return {
    lock_deg: nr(c.lock_deg),
    steering_ratio: nr(c.steering_ratio),
    cg_height_mm: len(c.cg_height_mm),
    brake_share: nr(c.brake_front_share * 100),
    rear_load_n: by('load', c.rear_load_n),
    rear_settle_mm: len(c.rear_settle_mm),
    front_tyre_gain_mm: len(c.front_tyre_gain_mm),
    rear_tyre_gain_mm: len(c.rear_tyre_gain_mm),
    front_rate: by('rate', c.front_spring?.rate_n_mm),
    front_ratio: nr(c.front_spring?.motion_ratio),
    rear_rate: by('rate', c.rear_spring?.rate_n_mm),
    rear_ratio: nr(c.rear_spring?.motion_ratio),
    payload_kg: by('mass', c.payload?.mass_kg),
    payload_x: len(c.payload?.behind_front_axle_mm),
    shaft_y: len(c.front_shaft_inner?.[1]),
    shaft_z: len(c.front_shaft_inner?.[2]),
    levels: c.levels.map((l) => `${l.name} ${len(l.front_mm)} ${len(l.rear_mm)}`).join('\n'),
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
  const both = (a: string, b: string, what: string) => {
    const [x, y] = [value(a), value(b)];
    if ((x === undefined) !== (y === undefined) && !bad[`car.${a}`] && !bad[`car.${b}`])
      bad[`car.${x === undefined ? a : b}`] = `needed with ${what}`;
    return x !== undefined && y !== undefined ? ([x, y] as const) : undefined;
  };
  const front = both('front_rate', 'front_ratio', 'the other spring figure');
  const rear = both('rear_rate', 'rear_ratio', 'the other spring figure');
  const payload = both('payload_kg', 'payload_x', 'the payload');
  const shaft = both('shaft_y', 'shaft_z', 'the shaft');
  const plain = (k: string, now: number): number => {
    const v = value(k);
    return same(k) ? now : (v ?? now);
  };
  const lines = (k: string) => (t[k] ?? '').split('\n').filter((l) => l.trim());
  const levels = lines('levels').flatMap((l) => {
    const m = /^(.+?)\s+(\S+)\s+(\S+)$/.exec(l.trim());
    const [f, r] = [m && readLength(m[2] ?? '', unit), m && readLength(m[3] ?? '', unit)];
    if (!m || f === undefined || f === null || r === undefined || r === null) {
      bad['car.levels'] = `"${l.trim().slice(0, 24)}" cannot be read`;
      return [];
    }
    return [{ name: m[1]!, front_mm: f, rear_mm: r }];
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
  return {
    ...was,
    lock_deg: plain('lock_deg', was.lock_deg),
    steering_ratio: plain('steering_ratio', was.steering_ratio),
    cg_height_mm: plain('cg_height_mm', was.cg_height_mm),
    brake_front_share: same('brake_share')
      ? was.brake_front_share
      : (value('brake_share') ?? was.brake_front_share * 100) / 100,
    rear_load_n: plain('rear_load_n', was.rear_load_n),
    rear_settle_mm: plain('rear_settle_mm', was.rear_settle_mm),
    front_tyre_gain_mm: plain('front_tyre_gain_mm', was.front_tyre_gain_mm),
    rear_tyre_gain_mm: plain('rear_tyre_gain_mm', was.rear_tyre_gain_mm),
    front_spring: same('front_rate', 'front_ratio')
      ? was.front_spring
      : front
        ? { ...was.front_spring, rate_n_mm: front[0], motion_ratio: front[1] }
        : null,
    rear_spring: same('rear_rate', 'rear_ratio')
      ? was.rear_spring
      : rear
        ? { ...was.rear_spring, rate_n_mm: rear[0], motion_ratio: rear[1] }
        : null,
    payload: same('payload_kg', 'payload_x')
      ? was.payload
      : payload
        ? { left_of_centre_mm: 0, ...was.payload, mass_kg: payload[0], behind_front_axle_mm: payload[1] }
        : null,
    front_shaft_inner: same('shaft_y', 'shaft_z')
      ? was.front_shaft_inner
      : shaft
        ? [was.front_shaft_inner?.[0] ?? 0, shaft[0], shaft[1]]
        : null,
    levels: same('levels') ? was.levels : levels,
    turns: same('turns') ? was.turns : turns,
  };
}
