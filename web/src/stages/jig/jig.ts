// What is on the jig, in the words of the page.
import type { Schemas } from '../../api/client';

export type Setting = Schemas['JigSetting'];
export type Stands = Schemas['JigStands'];
export type Asked = Schemas['JigAsked'];
export type Shape = Schemas['JigShape'];

/** Two ways to two degrees: the case the page opens with. */
export const first: Asked = {
  shape: 'wishbones',
  settings: [
    { camber_at: 'knuckle', camber_deg: -2, caster_deg: 5, more_lean_deg: 0, toe_deg: 0.05, wheel_out_mm: 0 },
    { camber_at: 'top', camber_deg: -2, caster_deg: 5, more_lean_deg: 0, toe_deg: 0.05, wheel_out_mm: 0 },
  ],
  steer_deg: 0,
  travel_mm: 0,
  roll_deg: 0,
};

export const placeWord = (at: Setting['camber_at'], shape: Shape): string =>
  at === 'top'
    ? shape === 'strut'
      ? 'strut top'
      : 'upper arm'
    : at === 'lower_arm'
      ? 'lower arm'
      : shape === 'strut'
        ? 'strut clamp'
        : 'knuckle';

/** Camber of the wheel outside a turn, degrees: the right wheel where the steering is turned to the left. */
export const outside = (s: Stands): { steer: number; camber: number } | undefined => {
  const last = s.turns.at(-1);
  return last && { steer: last.steer_deg, camber: last.right_deg };
};

export interface Handle {
  name: 'camber_deg' | 'caster_deg' | 'more_lean_deg' | 'toe_deg' | 'wheel_out_mm';
  label: string;
  low: number;
  high: number;
  step: number;
  digits: number;
}

/** What is turned on a setting. */
export const handles: readonly Handle[] = [
  { name: 'camber_deg', label: 'Camber', low: -4, high: 4, step: 0.1, digits: 1 },
  { name: 'caster_deg', label: 'Caster', low: -2, high: 12, step: 0.25, digits: 2 },
  { name: 'more_lean_deg', label: 'Axis leans more', low: -5, high: 5, step: 0.25, digits: 2 },
  { name: 'toe_deg', label: 'Toe, one wheel', low: -1, high: 1, step: 0.05, digits: 2 },
  { name: 'wheel_out_mm', label: 'Wheel farther out', low: -40, high: 40, step: 1, digits: 0 },
];
