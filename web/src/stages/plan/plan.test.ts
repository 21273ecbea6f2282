// What of a plan's document belongs to which axle, and what a part's form reads.
import { describe, expect, it } from 'vitest';
import type { PlanDocument, Ticket } from '../../api/client';
import { changeOf, inputOf, partOf } from '../../shell/ticket';
import type { Drawing } from '../../api/client';
import { movedJoints } from '../../figures/Overlay';
import { readNumber } from '../../units/number';
import { adjusters, edits, fresh, readNumbers } from '../parts/kinds';

const doc = {
  height_change_mm: 65,
  rear_change_mm: -10,
  settle_mm: 9,
  load_mm: 20,
  rear_settle_mm: 3,
  rear_load_mm: 30,
  fitted: ['offset-upper-arm@7'],
  rear_fitted: ['rear-toe-arm'],
  ways: [{ kind: 'bracket', gain_mm: 50 }],
  trim_mm: [4, 0],
  aim: { id: 'x' },
  limit_mm: 3,
} as unknown as PlanDocument;

describe('a plan of two axles', () => {
  it('gives each axle its own part and the other one’s heights', () => {
    const base = { geometry: 'front' };
    const rear = { geometry: 'rear' };
    const t = { base, rear_base: rear } as unknown as Ticket;
    const f = inputOf(t, doc) as unknown as Record<string, unknown>;
    expect(f).toMatchObject({
      geometry: 'front',
      height_change_mm: 65,
      other_change_mm: -10,
      other_settle_mm: 3,
      other_load_mm: 30,
      fitted: ['offset-upper-arm@7'],
      trim_mm: [4, 0],
    });
    const r = inputOf(t, doc, 'rear') as unknown as Record<string, unknown>;
    expect(r).toMatchObject({
      geometry: 'rear',
      height_change_mm: -10,
      other_change_mm: 65,
      settle_mm: 3,
      other_settle_mm: 9,
      fitted: ['rear-toe-arm'],
      ways: [],
      picked: [null, null],
    });
    // Nothing of the document that the computation does not know goes over the wire.
    expect(Object.keys(f)).not.toContain('limit_mm');
    expect(Object.keys(f)).not.toContain('rear_fitted');
    expect(inputOf({ base: null, rear_base: null } as unknown as Ticket, doc)).toBeUndefined();
  });

  it('changes only the axle that is worked on', () => {
    for (const axle of ['front', 'rear'] as const) {
      const other = axle === 'front' ? 'rear' : 'front';
      const now = { ...doc, ...changeOf(axle, { height: 12, fitted: [], trim: [1, 2] }) };
      expect(partOf(now, axle)).toMatchObject({ height: 12, fitted: [], trim: [1, 2] });
      expect(partOf(now, other)).toEqual(partOf(doc, other));
    }
  });
});

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
        for (const f of info.fields) expect(e[f.key]).toEqual(f.usual);
      }
  });
});

describe('what a part moves', () => {
  const bar = (name: string, to: number[]) => ({ name, kind: 'link', from: [0, 0, 0], to, on_body: true });
  const drawing = (to: number[]) => ({ bars: [bar('a', [1, 1, 1]), bar('b', to)] }) as unknown as Drawing;
  it('rings the joints that left their place and no others', () => {
    const items = [drawing([5, 5, 5]), drawing([5, 5, 6])].map((d, i) => ({ key: i, name: '', drawing: d }));
    expect(movedJoints(items)).toEqual([[5, 5, 6]]);
    expect(movedJoints(items.slice(0, 1))).toEqual([]);
    const near = [drawing([5, 5, 5]), drawing([5, 5, 5.3])].map((d, i) => ({ key: i, name: '', drawing: d }));
    expect(movedJoints(near)).toEqual([]);
    // The whole body drawn 3 mm along: nothing of it moved.
    const along = {
      bars: drawing([5, 5, 5]).bars.map((b) => ({
        ...b,
        from: [3, 0, 0],
        to: b.to.map((v, k) => v + (k ? 0 : 3)),
      })),
    };
    const two = [drawing([5, 5, 5]), along as unknown as Drawing].map((d, i) => ({
      key: i,
      name: '',
      drawing: d,
    }));
    expect(movedJoints(two)).toEqual([]);
  });
});
