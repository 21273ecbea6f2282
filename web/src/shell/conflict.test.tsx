// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// One plan changed on two screens: what differs, whose it is, and the document made of both.
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { CarPlan, Plan } from '../api/client';
import user from '../test/user';
import { SettingsProvider } from '../ui/settings';
import { Conflict } from './Conflict';
import { differences, idOf, merged } from './conflict';
import { partOf, type Bench } from './ticket';

beforeEach(() => localStorage.clear());
afterEach(cleanup);

const doc = (front: object = {}, more: object = {}): CarPlan =>
  ({ aim: { name: 'Even wear' }, limit_mm: 3, axles: { front, rear: {} }, ...more }) as unknown as CarPlan;
const base = doc({ height_change_mm: 40, fitted: ['arm'] });

describe('what differs', () => {
  it('is nothing where only the writing differs', () => {
    const other = doc({ fitted: ['arm'], height_change_mm: 40, settle_mm: 0, only: {} }, { as_sold: false });
    expect(differences(base, other, base)).toEqual([]);
  });
  it('is named by who touched it since both had the same', () => {
    const mine = doc({ height_change_mm: 55, fitted: ['arm'], settle_mm: 5 });
    const theirs = doc({ height_change_mm: 40, fitted: ['arm', 'shims'], settle_mm: 8 }, { limit_mm: 4 });
    const said = (from: CarPlan | undefined) =>
      Object.fromEntries(differences(mine, theirs, from).map((d) => [idOf(d.field), d.changed]));
    expect(said(base)).toEqual({
      'front-height': 'mine',
      'front-settle': 'both',
      'front-parts': 'theirs',
      'car-limit': 'theirs',
    });
    // Nobody knows what both began from.
    expect(new Set(Object.values(said(undefined)))).toEqual(new Set(['both']));
  });
});

it('makes one document of both, and changes neither', () => {
  const mine = doc({ height_change_mm: 55, fitted: ['arm'] });
  const theirs = doc(
    { height_change_mm: 40, fitted: ['arm', 'shims'], only: { shims: 'left' } },
    { limit_mm: 4 },
  );
  const out = merged(mine, theirs, {
    'front-parts': 'theirs',
    'front-height': 'mine',
    'car-limit': 'theirs',
  });
  expect(partOf(out, 'front')).toMatchObject({
    height_change_mm: 55,
    fitted: ['arm', 'shims'],
    only: { shims: 'left' },
  });
  expect(out.limit_mm).toBe(4);
  expect(mine.limit_mm).toBe(3);
  expect(partOf(mine, 'front').fitted).toEqual(['arm']);
  // A plan without axles yet takes an axle of theirs.
  const bare = { ...mine, axles: undefined } as unknown as CarPlan;
  expect(partOf(merged(bare, theirs, { 'front-parts': 'theirs' }), 'front').fitted).toEqual(['arm', 'shims']);
});

it('shows both of what each field says, and keeps what was chosen', async () => {
  const mine = doc({ height_change_mm: 50.8, fitted: ['arm'] });
  const theirs = {
    name: 'Lift',
    document: doc({ height_change_mm: 40, fitted: ['arm', 'shims'] }),
  } as unknown as Plan;
  const keep = vi.fn();
  localStorage.setItem('bold-stance.settings', JSON.stringify({ unit: 'in', form: 'decimal' }));
  render(
    <SettingsProvider>
      <Conflict
        bench={{ draft: mine, answer: undefined } as unknown as Bench}
        theirs={theirs}
        base={base}
        keep={keep}
        close={() => {}}
      />
    </SettingsProvider>,
  );
  expect(screen.getByTestId('mine-front-height').textContent).toBe('yours: +2 in');
  expect(screen.getByTestId('theirs-front-parts').textContent).toBe('theirs: arm; shims');
  // Theirs alone touched the parts, I alone the height.
  expect(screen.getByTestId('theirs-front-parts').getAttribute('aria-pressed')).toBe('true');
  expect(screen.getByTestId('mine-front-height').getAttribute('aria-pressed')).toBe('true');
  await user.click(screen.getByTestId('theirs-front-height'));
  await user.click(screen.getByTestId('conflict-keep'));
  const kept = keep.mock.calls[0]![0] as CarPlan;
  expect(partOf(kept, 'front')).toMatchObject({ height_change_mm: 40, fitted: ['arm', 'shims'] });
});
