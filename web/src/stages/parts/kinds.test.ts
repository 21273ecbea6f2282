// What a part's form reads, and what every kind of edit and adjuster starts from.
import { describe, expect, it } from 'vitest';
import { readNumber } from '../../units/notation';
import { adjusters, edits, fresh, readNumbers } from './kinds';

describe('the form of a part', () => {
  it('reads numbers as they are typed and refuses what is none', () => {
    expect(readNumber('−1,5')).toBe(-1.5);
    expect(readNumber(' 14 ')).toBe(14);
    expect(readNumber('')).toBeUndefined();
    expect(readNumber('a lot')).toBeUndefined();
    expect(readNumbers('0  2 0', 3)).toEqual([0, 2, 0]);
    expect(readNumbers('8, 14, 20')).toEqual([8, 14, 20]);
    expect(readNumbers('0 2', 3)).toBeUndefined();
    expect(readNumbers('0 x 1', 3)).toBeUndefined();
  });

  it('has every field of every kind with a usual value', () => {
    for (const kinds of [edits, adjusters])
      for (const [kind, info] of Object.entries(kinds)) {
        const e = fresh(kinds, kind);
        expect(e.kind).toBe(kind);
        for (const f of info.fields) expect(e[f.key] ?? '').toEqual(f.usual);
      }
  });

  it('leaves out which end is left-hand until it is told', () => {
    expect('left_hand' in fresh(adjusters, 'thread')).toBe(false);
  });
});
