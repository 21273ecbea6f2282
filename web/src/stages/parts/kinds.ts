// What each kind of edit and adjuster has to say, for the form and for reading it back.
import { readNumber } from '../../units/notation';
import type { Schemas } from '../../api/client';

export type Edit = Schemas['Edit'];
export type Adjuster = Schemas['Adjuster'];
/** A part with every list there: the server leaves empty ones out of its description only. */
export type Part = Required<Omit<Schemas['Part'], 'sizes'>> & { sizes?: Schemas['Part']['sizes'] };
export type Field =
  | { key: string; label: string; type: 'number'; unit: string; usual: number }
  | { key: string; label: string; type: 'vector'; unit: string; usual: number[] }
  | { key: string; label: string; type: 'pair'; unit: string; usual: number[] }
  | {
      key: string;
      label: string;
      type: 'choice';
      options: string[];
      usual: string;
      words?: Record<string, string>;
    }
  | { key: string; label: string; type: 'text'; usual: string }
  | { key: string; label: string; type: 'list'; options: string[]; usual: string[] };

export interface KindInfo {
  word: string;
  fields: Field[];
}

const pivots = ['lower_front', 'lower_rear', 'upper_front', 'upper_rear', 'tie_inner', 'strut_top'];
const joints = ['lower', 'upper', 'tie'];
const arms = ['upper', 'lower'];
const by: Field = { key: 'by', label: 'Forward, outboard, up', type: 'vector', unit: 'mm', usual: [0, 0, 0] };
const point: Field = {
  key: 'point',
  label: 'Pivot, or a link by its name',
  type: 'text',
  usual: 'upper_front',
};
const direction: Field = {
  key: 'direction',
  label: 'Positive way: x, y, z',
  type: 'vector',
  unit: '',
  usual: [0, 1, 0],
};
const num = (key: string, label: string, unit: string, usual: number): Field => ({
  key,
  label,
  type: 'number',
  unit,
  usual,
});
const range = (key: string, unit: string, usual: number[]): Field => ({
  key,
  label: 'From, to',
  type: 'pair',
  unit,
  usual,
});

export const edits: Record<Edit['kind'], KindInfo> = {
  reshape_arm: {
    word: 'Different arm',
    fields: [
      { key: 'arm', label: 'Arm', type: 'choice', options: arms, usual: 'upper' },
      num('longer_mm', 'Longer', 'mm', 0),
      num('forward_mm', 'Joint forward', 'mm', 0),
    ],
  },
  move_pivot: { word: 'Pivot moved on the car', fields: [point, by] },
  shift_knuckle_point: {
    word: 'Joint moved on the knuckle',
    fields: [{ key: 'point', label: 'Joint', type: 'choice', options: joints, usual: 'upper' }, by],
  },
  lengthen_links: {
    word: 'Both links of an arm',
    fields: [
      { key: 'arm', label: 'Arm', type: 'choice', options: arms, usual: 'upper' },
      num('front_mm', 'Front link longer', 'mm', 0),
      num('rear_mm', 'Rear link longer', 'mm', 0),
    ],
  },
  lengthen_tie: { word: 'Longer tie rod', fields: [num('by_mm', 'Longer', 'mm', 0)] },
  lengthen_link: {
    word: 'Longer link',
    fields: [
      { key: 'name', label: 'Link', type: 'text', usual: 'camber_link' },
      num('by_mm', 'Longer', 'mm', 0),
    ],
  },
  knuckle_tilt: {
    word: 'Knuckle turned in the strut clamp, or wheel on its hub',
    fields: [
      num('camber_deg', 'Between knuckle and strut', '°', 0),
      num('toe_deg', 'Toe-in of a hub shim', '°', 0),
    ],
  },
  offset_upper_joint: {
    word: 'Upper joint of a live axle offset',
    fields: [num('out_deg', 'Kingpin top out', '°', 0), num('back_deg', 'Kingpin top back', '°', 0)],
  },
  turn_spin: {
    word: 'Wheel tilted on its knuckle',
    fields: [num('camber_deg', 'Camber', '°', 0), num('toe_deg', 'Toe-in', '°', 0)],
  },
  lean_kingpin: { word: 'Kingpin leaned', fields: [num('caster_deg', 'Caster', '°', 0)] },
  move_wheel_end: {
    word: 'Wheel end of a link moved',
    fields: [{ key: 'link', label: 'Link', type: 'text', usual: 'track_bar' }, by],
  },
  shift_wheel: { word: 'Wheel centre moved', fields: [by] },
  free_eccentrics: {
    word: 'Slots freed',
    fields: [{ key: 'points', label: 'Pivots', type: 'list', options: pivots, usual: ['lower_front'] }],
  },
  replace_eccentric: {
    word: 'Cams of another throw',
    fields: [
      { key: 'points', label: 'Pivots', type: 'list', options: pivots, usual: ['lower_front', 'lower_rear'] },
      num('eccentricity_mm', 'Throw', 'mm', 4),
      num('notches_per_half_turn', 'Notches in half a turn', '', 8),
    ],
  },
};

export const adjusters: Record<Adjuster['kind'], KindInfo> = {
  eccentric: {
    word: 'Cam in a slot',
    fields: [
      point,
      direction,
      num('eccentricity_mm', 'Throw', 'mm', 4),
      num('min_deg', 'Lowest', '°', -90),
      num('max_deg', 'Highest', '°', 90),
      num('notches_per_half_turn', 'Notches in half a turn', '', 8),
    ],
  },
  thread: {
    word: 'Thread',
    fields: [
      { key: 'link', label: 'Link: upper, lower, tie, or its name', type: 'text', usual: 'upper' },
      num('pitch_mm', 'Pitch', 'mm a turn', 1.5),
      num('ends', 'Threaded ends', '1 or 2', 1),
      {
        key: 'left_hand',
        label: 'Left-hand thread',
        type: 'choice',
        options: ['', 'neither', 'inner', 'wheel'],
        words: {
          '': 'not told',
          neither: 'none: one right-hand thread',
          inner: 'at the body',
          wheel: 'at the wheel',
        },
        usual: '',
      },
      range('turns', 'turns', [-5, 5]),
      num('engaged_mm', 'Thread in at 0', 'mm', 25),
      num('min_engaged_mm', 'Least thread in', 'mm', 15),
    ],
  },
  slide: {
    word: 'Sliding plate',
    fields: [point, direction, range('range_mm', 'mm', [-8, 8]), num('step_mm', 'Marks', 'mm', 1)],
  },
  shims: {
    word: 'Shim stack',
    fields: [point, direction, range('range_mm', 'mm', [-5, 5]), num('step_mm', 'Thinnest shim', 'mm', 1)],
  },
  tilt: {
    word: 'Slot or taper',
    fields: [
      range('camber_deg', '° of camber', [-2, 1]),
      num('toe_per_camber', 'Toe with each degree', '°', 0),
    ],
  },
  cam_bolt: {
    word: 'Cam bolt at the knuckle',
    fields: [
      num('amplitude_deg', 'Camber at a quarter turn', '°', 1.75),
      num('min_deg', 'Lowest', '°', -90),
      num('max_deg', 'Highest', '°', 90),
      num('notches_per_half_turn', 'Notches in half a turn', '', 16),
    ],
  },
  wedge: {
    word: 'Wedge',
    fields: [range('caster_deg', '° of caster', [-4, 4]), num('step_deg', 'Steps', '°', 1)],
  },
  sleeve: {
    word: 'Clocked sleeve',
    fields: [num('amount_deg', 'Offset', '°', 1), num('positions', 'Positions in a turn', '', 12)],
  },
};

/** A fresh entry of a kind with its usual values. */
export function fresh(kinds: Record<string, KindInfo>, kind: string): Record<string, unknown> {
  return Object.fromEntries([
    ['kind', kind],
    // What nobody told is left out.
    ...kinds[kind]!.fields.filter((f) => f.usual !== '' || f.type !== 'choice').map(
      (f) => [f.key, f.usual] as [string, unknown],
    ),
  ]);
}

/** `1, 2, 3` as so many numbers; undefined when they are not. */
export const readNumbers = (t: string, n?: number): number[] | undefined => {
  const v = t
    .split(/[;,]\s+|\s+|[;]/)
    .filter(Boolean)
    .map(readNumber);
  return v.length && v.every((x) => x !== undefined) && (n === undefined || v.length === n)
    ? (v as number[])
    : undefined;
};
