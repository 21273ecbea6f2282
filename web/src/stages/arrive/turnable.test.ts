import { describe, expect, it } from 'vitest';
import {
  alike,
  apart,
  clock,
  room,
  sized,
  sizeOf,
  sizes,
  stand,
  standing,
  stepped,
  type Found,
} from './turnable';

const cam = {
  name: 'Cam, lower arm, front pivot',
  kind: 'eccentric',
  point: 'lower_front',
  direction: [0, 1, 0],
  eccentricity_mm: 3.2,
  min_deg: -90,
  max_deg: 90,
  notches_per_half_turn: 8,
  position: 0,
  unseen: true,
} as unknown as Found;
const rod = {
  name: 'Tie rod',
  kind: 'thread',
  link: 'tie',
  pitch_mm: 1.5,
  ends: 1,
  turns: [-8, 8],
  position: 0,
} as unknown as Found;

describe('an adjuster as found', () => {
  it('stands alike on both sides until it is told apart', () => {
    const left = stepped(cam, 'left', 1);
    expect(standing(left, 'right')).toEqual({ position: 22.5, unseen: false, held: null });
    const two = stand(apart(left, true), 'right', { held: 'seized', position: -45 });
    expect([standing(two, 'left').position, standing(two, 'right').position]).toEqual([22.5, -45]);
    expect(standing(two, 'right').held).toBe('seized');
    expect([alike(left), alike(two), alike(apart(two, false))]).toEqual([true, false, true]);
  });
  it('steps by notches and stops at its ends; a step is a look', () => {
    let a = cam;
    for (let i = 0; i < 9; i++) a = stepped(a, 'left', 1);
    expect(standing(a, 'left')).toEqual({ position: 90, unseen: false, held: null });
    expect(room(rod)).toEqual({ low: -8, high: 8, step: 0.25 });
  });
  it('is named by a clock face', () => {
    expect([0, 90, -90, 45, 180].map(clock)).toEqual([
      '12 o’clock',
      '3 o’clock',
      '9 o’clock',
      'half past 1',
      '6 o’clock',
    ]);
  });
  it('shows what is shorter without a sign, and is measured once a size was typed', () => {
    expect(sizes(rod).map(([p]) => p)).toContain('turns.0');
    expect(sizeOf(rod, 'turns.0')).toBe(8);
    const typed = sized(rod, 'turns.0', 5);
    expect([typed.kind === 'thread' && typed.turns[0], typed.measured]).toEqual([-5, true]);
    expect(sizeOf(cam, 'eccentricity_mm')).toBe(3.2);
  });
});
