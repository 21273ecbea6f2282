// @vitest-environment happy-dom
// What was really turned and what is left to turn, in a DOM.
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { SettingsProvider } from '../../ui/settings';
import user from '../../test/user';
import { asDone, turning, type Turn } from '../../sheet/asDone';
import { LeftToTurn } from '../../sheet/LeftToTurn';
import { Rounds } from '../../sheet/Rounds';

afterEach(cleanup);

const line = (name: string, more: Partial<Schemas['SettingLine']> = {}): Schemas['SettingLine'] => ({
  name,
  position: 22.5,
  movement: 22.5,
  steps: 1,
  movement_mm: 1.5,
  direction: 'outboard',
  amount: '1 notch',
  way: 'outboard',
  words: '1 notch outboard',
  at_end: false,
  sets_toe: false,
  is_cam: true,
  notch_deg: 22.5,
  shared: false,
  ...more,
});
const still = line('Rear cam', { direction: 'leave', words: 'leave', movement: 0 });
const rod = line('Tie rod', { sets_toe: true, is_cam: false, words: '1/4 turn longer', direction: 'longer' });

it('sends what was told otherwise and nothing else', () => {
  const list: Turn[] = [
    { side: 'left', line: line('Front cam') },
    { side: 'right', line: line('Front cam') },
    { side: 'left', line: still },
    { side: undefined, line: line('Track bar') },
  ];
  expect(turning(list)).toHaveLength(3);
  expect(asDone(list, {}, 'in')).toEqual([]);
  expect(
    asDone(
      list,
      {
        'right/Front cam': { amount: ' -2 ' },
        'left/Front cam': { amount: '' },
        '/Track bar': { amount: '', could_not: 'seized' },
        'left/Rear cam': { amount: '3' },
      },
      'in',
    ),
  ).toEqual([
    { side: 'right', name: 'Front cam', amount: '-2', unit: 'in', could_not: null },
    { side: null, name: 'Track bar', amount: '', unit: 'in', could_not: 'seized' },
  ]);
});

const side = (more: Partial<NonNullable<Schemas['AxleLeft']['sides']['left']>> = {}) => ({
  headline: 'Left to turn. Followed to the letter it lands 9 times in 10.',
  orders: [line('Front cam'), still, rod],
  before: [-0.9, 3.4, 0.2],
  expected: [-0.4, 5, 0.1],
  expected_band: [0.3, 0.5, 0.1],
  expect: [-0.2, 4.6, 0.05],
  band: [0.2, 0.3, 0.05],
  odds: 0.9,
  reaches: true,
  taught: [],
  odd: [],
  rounds: 1,
  as_done: true,
  ...more,
});
const bar = (left: Schemas['AxleLeft'], toe = false) => {
  const turned = vi.fn();
  render(
    <SettingsProvider>
      <LeftToTurn left={left} toe={toe} stale={false} problems={[]} turned={turned} />
    </SettingsProvider>,
  );
  return turned;
};

it('says the next turn of each wheel, what it learned, and what an odd reading could be', async () => {
  const turned = bar({
    axle: 'front',
    sides: {
      left: side({
        taught: ['Front cam does 1.4 times what it is said to.'],
        odd: [{ what: 'Front cam was turned the other way.', odds: 0.71, given: [-1.2, 3.9, 0.1] }],
      }),
      right: null,
    },
  });
  expect(screen.getByTestId('left-left-front-cam').textContent).toContain('1 notch outboard');
  // Toe waits for its own step, and what stays is no order.
  expect(screen.queryByTestId('left-left-tie-rod')).toBeNull();
  expect(screen.queryByTestId('left-left-rear-cam')).toBeNull();
  expect(screen.getByTestId('taught-left').textContent).toContain('1.4 times');
  expect(screen.getByTestId('odd-left').textContent).toContain('the other way. 7 in 10');
  expect(screen.getByText(/Right: not read since it was turned/)).toBeTruthy();
  await user.click(screen.getByTestId('turned-again'));
  expect(turned).toHaveBeenLastCalledWith([]);
  fireEvent.change(screen.getByTestId('really-left-front-cam'), { target: { value: '2' } });
  expect(screen.getByTestId('turned-again').textContent).toBe('All turned as typed');
  await user.click(screen.getByTestId('turned-again'));
  expect(turned).toHaveBeenLastCalledWith([
    { side: 'left', name: 'Front cam', amount: '2', unit: 'mm', could_not: null },
  ]);
});

it('has toe among the orders once toe had its step, and nothing to press where nothing is left', () => {
  bar({ axle: 'front', sides: { left: side(), right: null } }, true);
  expect(screen.getByTestId('left-left-tie-rod').textContent).toContain('1/4 turn longer');
  cleanup();
  const words = 'Nothing left to turn: it stands in its windows.';
  bar({ axle: 'rear', sides: { left: side({ orders: [still], headline: words }), right: null } });
  expect(screen.getByTestId('left-words-left').textContent).toContain(words);
  expect(screen.queryByTestId('turned-again')).toBeNull();
});

it('says caster of a wheel that steers alone, and that toe has its own step', () => {
  bar({ axle: 'rear', sides: { left: side(), right: side({ orders: [still, rod] }) } });
  expect(screen.getByTestId('left-left').textContent).not.toContain('caster');
  expect(screen.getByTestId('left-words-right').textContent).toContain('toe comes at its own step');
});

it('keeps what was really done in words, the first order only where it was done otherwise', () => {
  const turn = (more: Partial<Schemas['AsTurned']>): Schemas['AsTurned'] => ({
    axle: 'front',
    side: 'left',
    name: 'Front cam',
    from: 0,
    ordered: 22.5,
    position: 22.5,
    words: '1 notch outboard',
    typed: null,
    could_not: null,
    ...more,
  });
  const at = { at: '2026-11-29T09:00:00Z', author: 'Specialist A' };
  render(
    <Rounds
      rounds={[
        { ...at, turned: [turn({}), turn({ side: 'right', typed: '3' })] },
        { ...at, turned: [turn({ could_not: 'seized', position: 0 })] },
      ]}
    />,
  );
  expect(screen.getAllByTestId('as-done-kept').map((e) => e.textContent)).toEqual([
    'right front cam 1 notch outboard, really 3',
    'again: left front cam 1 notch outboard, not turned (seized)',
  ]);
});

it('tells what is one for a live axle once, with its arms by their side, and sends it by the axle', async () => {
  const bare = line('Track bar', {
    is_cam: false,
    shared: true,
    words: '2 1/2 turns longer',
    direction: 'longer',
  });
  const arm = line('Lower arm', { is_cam: false, words: '1 1/2 turns longer', direction: 'longer' });
  const turned = bar({
    axle: 'front',
    sides: { left: null, right: null },
    whole: {
      says: ['The axle stands 5 mm too far to the left: turn the track bar on.'],
      orders: [
        { axle: 'front', side: 'left', line: arm },
        { axle: 'front', side: null, line: bare },
      ],
      taught: ['Track bar does 1.2 times what it is said to.'],
    },
  });
  const card = screen.getByTestId('left-axle').textContent;
  expect(card).toContain('5 mm too far to the left');
  expect(card).toContain('Left Lower arm');
  expect(card).toContain('2 1/2 turns longer');
  expect(card).toContain('1.2 times');
  // Only taped, no wheel is told of.
  expect(screen.queryByText(/not read since it was turned/)).toBeNull();
  await user.click(screen.getByTestId('order-axle-track-bar'));
  fireEvent.change(screen.getByTestId('really-axle-track-bar'), { target: { value: '2' } });
  await user.click(screen.getByTestId('turned-again'));
  expect(turned).toHaveBeenLastCalledWith([
    { side: null, name: 'Track bar', amount: '2', unit: 'mm', could_not: null },
  ]);
});
