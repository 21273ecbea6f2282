// @vitest-environment happy-dom
// What was really turned and what is left to turn, in a DOM.
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { SettingsProvider } from '../../ui/settings';
import user from '../../test/user';
import { asDone, turning, type Turn } from '../../sheet/asDone';
import { LeftToTurn } from '../../sheet/LeftToTurn';
import { ReadFirst } from '../../sheet/ReadFirst';
import type { Gate, Step } from '../../sheet/sheet';
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
    worked: true,
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
  bar({ axle: 'front', worked: true, sides: { left: side(), right: null } }, true);
  expect(screen.getByTestId('left-left-tie-rod').textContent).toContain('1/4 turn longer');
  cleanup();
  const words = 'Nothing left to turn: it stands in its windows.';
  bar({
    axle: 'rear',
    worked: true,
    sides: { left: side({ orders: [still], headline: words }), right: null },
  });
  expect(screen.getByTestId('left-words-left').textContent).toContain(words);
  expect(screen.queryByTestId('turned-again')).toBeNull();
});

it('orders nothing by a reading that taught nothing, and says what to look at after the best look', () => {
  const look = (what: string) => ({ what, minutes: 3, bits: 0.3 });
  const odd = (what: string, alike: boolean) => ({ what, odds: 0.4, given: [-1, 4, 0], alike });
  const words = 'Read it again before anything is turned.';
  const wheel = side({
    again: true,
    orders: [still],
    headline: words,
    odd: [odd('Front cam slipped.', true), odd('It was read on the jack.', true), odd('A sign.', false)],
    look: look('Look at the marks.'),
    next_looks: [look('Sweep caster again.')],
    also: ['Nothing odd.'],
  });
  bar({ axle: 'front', worked: true, sides: { left: wheel, right: null } });
  expect(screen.getByRole('heading', { name: 'Read it again' })).toBeTruthy();
  expect(screen.getByTestId('left-words-left').textContent).toContain(words);
  expect(screen.queryByTestId('turned-again')).toBeNull();
  expect(screen.getByTestId('alike').textContent).toBe(
    'Not told apart by what was read: Front cam slipped · It was read on the jack',
  );
  expect(screen.getByTestId('more-looks').textContent).toBe(
    'If that shows nothingSweep caster againNot ruled out either: Nothing odd',
  );
});

it('says once toe is among the orders that it is read before it is turned', () => {
  const between = 'Toe last: turn the others, read toe, then the tie rods by what it shows.';
  bar({ axle: 'front', worked: true, between, sides: { left: side(), right: null } }, true);
  expect(screen.getByTestId('left-between').textContent).toContain(between);
  cleanup();
  bar({ axle: 'front', worked: true, between, sides: { left: side(), right: null } });
  expect(screen.queryByTestId('left-between')).toBeNull();
});

it('asks for toe before its step, shows what was read and nothing that is stale', async () => {
  const pad = vi.fn();
  const step = {
    id: 'tie-rods',
    kind: 'step',
    helps: [{ axle: 'front', quantity: 'toe' }],
  } as unknown as Step;
  const none = { height: null, camber: null, caster: null, toe: null, wheelbase: null, centre: null };
  const toe = (value: number, stale: boolean) => ({ ...none, toe: { value, sigma: 0.03, stale } });
  const view = (left: typeof none, right: typeof none) =>
    ({
      visit: 'reswept',
      read: { front: { left, right }, rear: { left: none, right: none } },
    }) as unknown as Gate;
  const show = (v: Gate) =>
    render(
      <SettingsProvider>
        <ReadFirst step={step} view={v} pad={pad} />
      </SettingsProvider>,
    );
  show(view(toe(0.12, false) as never, toe(0.3, true) as never));
  expect(screen.getByTestId('first-front-toe-left').textContent).toContain('0.12°');
  expect(screen.getByTestId('first-front-toe-right').textContent).toContain('not read');
  expect(screen.getByTestId('read-first').textContent).toContain('Read toe as it stands now');
  await user.click(screen.getByTestId('first-front-toe-right'));
  expect(pad).toHaveBeenCalledWith('reswept', 'toe', 'front', 'right');
  cleanup();
  show(view(toe(0.12, false) as never, toe(0.3, false) as never));
  expect(screen.getByTestId('read-first').textContent).toContain('the turns below go by it');
  cleanup();
  const odd = { ...step, read_again: ['left'] } as unknown as Step;
  render(
    <SettingsProvider>
      <ReadFirst step={odd} view={view(toe(2.1, false) as never, toe(0.3, false) as never)} pad={pad} />
    </SettingsProvider>,
  );
  expect(screen.getByTestId('read-first').textContent).toContain('Left came odder than once in a hundred');
  expect(screen.getByTestId('read-first').textContent).not.toContain('the turns below go by it');
  cleanup();
  render(
    <SettingsProvider>
      <ReadFirst step={{ ...step, helps: [] }} view={undefined} pad={pad} />
    </SettingsProvider>,
  );
  expect(screen.queryByTestId('read-first')).toBeNull();
});

it('says caster of a wheel that steers alone, and that toe has its own step', () => {
  bar({ axle: 'rear', worked: true, sides: { left: side(), right: side({ orders: [still, rod] }) } });
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
    worked: true,
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
