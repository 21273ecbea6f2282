import { describe, expect, it } from 'vitest';
import { at, patch } from './paths';

const doc = {
  axles: { front: { track_mm: 1560, shaft: [0, 180, 372] }, rear: { track_mm: 1540 } },
  name: 'x',
};

describe('a field by its path', () => {
  it('is found, in records and lists, and nothing is nothing', () => {
    expect(at(doc, 'axles.front.track_mm')).toBe(1560);
    expect(at(doc, 'axles.front.shaft.1')).toBe(180);
    expect([at(doc, 'axles.middle.track_mm'), at(doc, 'name.first'), at(null, 'name')]).toEqual([
      undefined,
      undefined,
      undefined,
    ]);
  });
  it('is changed in a new document, and what it does not name is the same', () => {
    const out = patch(doc, 'axles.front.shaft.1', 190);
    expect(out.axles.front.shaft).toEqual([0, 190, 372]);
    expect(doc.axles.front.shaft[1]).toBe(180);
    expect(out.axles.rear).toBe(doc.axles.rear);
    expect(patch(doc, 'name', 'y')).toEqual({ ...doc, name: 'y' });
    expect(patch(doc, '', 1)).toBe(doc);
  });
});
