// What of a plan's document belongs to which axle, and which joints a part moves.
import { describe, expect, it } from 'vitest';
import type { CarPlan, Ticket } from '../../api/client';
import { changeOf, inputOf, partOf } from '../../shell/ticket';
import type { Drawing } from '../../api/client';
import { movedJoints } from '../../figures/Overlay';

const doc = {
  format: 2,
  axles: {
    front: {
      height_change_mm: 65,
      settle_mm: 9,
      load_mm: 20,
      fitted: ['offset-upper-arm@7'],
      ways: [{ kind: 'bracket', gain_mm: 50 }],
      trim_mm: { left: 4, right: 0 },
    },
    rear: { height_change_mm: -10, settle_mm: 3, load_mm: 30, fitted: ['rear-toe-arm'] },
  },
  aim: { id: 'x' },
  limit_mm: 3,
} as unknown as CarPlan;

describe('a plan of a car', () => {
  it('goes over the wire whole, with what the job gives, and not before an axle was read', () => {
    const axles = { front: { geometry: 'front' }, rear: null };
    const turned = { front: { left: { cam: 0.5 } } };
    const t = { base: { axles }, turned: [{ plan_id: 'second', turned }] } as unknown as Ticket;
    expect(inputOf(t, { id: 'first' }, doc)).toEqual({ base: { axles }, plan: doc });
    // A plan made after work starts where that work left the car.
    expect(inputOf(t, { id: 'second' }, doc)).toEqual({ base: { axles, turned }, plan: doc });
    const unread = { base: { axles: { front: null, rear: null } }, turned: [] } as unknown as Ticket;
    expect(inputOf(unread, { id: 'first' }, doc)).toBeUndefined();
  });

  it('changes only the axle that is worked on, and keeps what it does not show', () => {
    for (const axle of ['front', 'rear'] as const) {
      const other = axle === 'front' ? 'rear' : 'front';
      const trim_mm = { left: 1, right: 2 };
      const now = { ...doc, ...changeOf(doc, axle, { height_change_mm: 12, fitted: [], trim_mm }) };
      expect(partOf(now, axle)).toEqual({
        ...partOf(doc, axle),
        height_change_mm: 12,
        fitted: [],
        trim_mm,
      });
      expect(partOf(now, other)).toEqual(partOf(doc, other));
      expect(now.aim).toBe(doc.aim);
    }
  });

  it('reads what an older plan leaves out as nothing decided', () => {
    const bare = { aim: { id: 'x' }, limit_mm: 3 } as unknown as CarPlan;
    expect(partOf(bare, 'rear')).toMatchObject({ height_change_mm: 0, fitted: [], picked: { left: null } });
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
