import { expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { inTurns, stepped } from './counted';

const hand = (counted: Schemas['CountedIn'], ordered: number) => ({ counted, ordered }) as Schemas['InHand'];

it('writes turns in the fractions a spanner follows', () => {
  expect(inTurns(1.25)).toBe('1 1/4');
  expect(inTurns(2 / 3)).toBe('2/3');
  expect(inTurns(-1 / 12)).toBe('-1/12');
  expect(inTurns(3)).toBe('3');
  expect(inTurns(0)).toBe('0');
  // 7/24 of a turn is nobody's, and still said as it is.
  expect(inTurns(7 / 24)).toBe('7/24');
});

it('steps from what was ordered in whole notches, hours of a turn, half mm or 16ths', () => {
  expect(stepped(hand('notches', 3), '', 1, 'mm')).toBe('4');
  expect(stepped(hand('notches', 3), '4', -1, 'mm')).toBe('3');
  expect(stepped(hand('notches', 0), '0', -1, 'mm')).toBe('-1');
  expect(stepped(hand('turns', 1.25), '', 1, 'mm')).toBe('1 1/3');
  expect(stepped(hand('turns', 1.25), '1 1/3', -1, 'mm')).toBe('1 1/4');
  // A twenty-fourth goes onto the comb, up or down.
  expect(stepped(hand('turns', 1 / 24), '', 1, 'mm')).toBe('1/12');
  expect(stepped(hand('length', 3), '', 1, 'mm')).toBe('3.5');
  expect(stepped(hand('length', 25.4), '', -1, 'in')).toBe('15/16 in');
  expect(stepped(hand('degrees', 0.5), '', 1, 'mm')).toBe('0.6');
});

it('steps from what is typed in any notation of the shop', () => {
  expect(stepped(hand('turns', 1), '1½', 1, 'mm')).toBe('1 7/12');
  expect(stepped(hand('length', 1), '1/8', 1, 'in')).toBe('3/16 in');
  expect(stepped(hand('length', 1), '3 mm', 1, 'mm')).toBe('3.5');
  expect(stepped(hand('notches', 1), '−2', 1, 'mm')).toBe('-1');
  expect(stepped(hand('degrees', 1), "0°30'", 1, 'mm')).toBe('0.6');
});

it('leaves alone what it cannot read', () => {
  expect(stepped(hand('notches', 3), 'two too far', 1, 'mm')).toBeUndefined();
});
