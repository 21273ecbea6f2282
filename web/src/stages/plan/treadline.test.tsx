// The tread in a line: the wheel that gains least speaks for its axle, and what overlaps is not called.
import { expect, it } from 'vitest';
import type { CarWear } from '../../api/client';
import { axleRatio, ratioWords } from './TreadLine';

const tyre = (place: string, ratio: number, low: number, high: number) => ({
  place,
  scenes: [{ id: 'found', ratio_to_lead: { ratio, low, high } }, { id: 'set' }],
});
const wear = {
  tyres: [
    tyre('left_front', 1.8, 1.4, 2.3),
    tyre('right_front', 1.3, 1.1, 1.6),
    tyre('left_rear', 1.05, 0.9, 1.2),
  ],
} as unknown as CarWear;

it('lets the wheel that gains least speak for its axle', () => {
  expect(ratioWords(axleRatio(wear, 'front')!)).toBe('1.3 times as far (1.1–1.6)');
});

it('does not call what overlaps, and says less where it is less', () => {
  expect(ratioWords(axleRatio(wear, 'rear')!)).toBe('too close to call');
  expect(ratioWords({ ratio: 0.7, low: 0.6, high: 0.9 })).toBe('0.7 times as far (0.6–0.9)');
  expect(axleRatio({ tyres: [] } as unknown as CarWear, 'front')).toBeUndefined();
});
