// @vitest-environment happy-dom
// One order in hand, in a DOM: told, closed, taken up again; and the drawings that count as the words do.
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { Drawing, Schemas } from '../../api/client';
import { AxleOrders } from '../../figures/AxleOrders';
import { TurnFigure } from '../../figures/TurnFigure';
import { asDone, current, type Tolds, type Turn } from '../../sheet/asDone';
import { OrderInHand } from '../../sheet/OrderInHand';
import { useTolds } from '../../sheet/tolds';
import { SettingsProvider } from '../../ui/settings';
import user from '../../test/user';

// No gauge: what is watched on one has a test of its own.
vi.mock('../../sheet/Loose', () => ({ Loose: () => null }));
afterEach(cleanup);
beforeEach(() => sessionStorage.clear());

const hand = (more: Partial<Schemas['InHand']> = {}): Schemas['InHand'] => ({
  turn: 'thread',
  counted: 'turns',
  ordered: 1.25,
  spot: [0, 600, 250],
  from: "original mark: 12 o'clock",
  to: "new mark: 9 o'clock",
  clockwise: false,
  thread: { ends: 2, left_hand: 'wheel', flats: 7.5, left_mm: 18, least_mm: 15 },
  ways: ['shorter', 'longer'],
  outboard: false,
  before: [-1.9, 0, 0.1],
  after: [-1.1, 0, -0.08],
  ...more,
});
const line = (name: string, more: Partial<Schemas['SettingLine']> = {}): Schemas['SettingLine'] => ({
  name,
  position: 1.25,
  movement: 1.25,
  steps: 1.25,
  movement_mm: 3.75,
  direction: 'longer',
  amount: '1 1/4 turns',
  way: 'longer',
  words: '1 1/4 turns longer',
  ends: [-6, 6],
  at_end: false,
  sets_toe: false,
  is_cam: false,
  shared: false,
  in_hand: hand(),
  ...more,
});
const list: Turn[] = [
  { side: 'left', line: line('Camber arm') },
  { side: 'right', line: line('Camber arm') },
  { side: 'left', line: line('Toe arm', { direction: 'leave', words: 'leave', movement: 0, in_hand: null }) },
];
const drawing: Drawing = {
  bars: [
    { name: 'upper', kind: 'upper_arm', from: [0, 400, 500], to: [0, 700, 500], on_body: true },
    { name: 'lower', kind: 'lower_arm', from: [0, 350, 250], to: [0, 750, 250], on_body: true },
    { name: 'knuckle', kind: 'knuckle', from: [0, 750, 250], to: [0, 700, 500], on_body: false },
  ],
  centre: [0, 780, 320],
  spin: [0, 1, 0],
  contact: [0, 780, 0],
  loaded_radius_mm: 320,
};

function Step({ finish, problems = [] }: { finish: (t: Tolds) => void; problems?: never[] | Fault[] }) {
  const [tolds, set] = useState<Tolds>({});
  return (
    <SettingsProvider>
      <OrderInHand
        axle="rear"
        list={list}
        drawings={{ left: drawing, right: drawing }}
        tolds={tolds}
        set={set}
        problems={problems}
        stale={false}
        finish={finish}
        fs={1}
      />
    </SettingsProvider>
  );
}
type Fault = { field: string; wrong: string; right: string };

it('holds one order at a time, closes it with a press or a key, and ends the step with the last', async () => {
  const finish = vi.fn();
  render(<Step finish={finish} />);
  expect(screen.getByTestId('in-hand-amount').textContent).toBe('1 1/4 turns');
  expect(screen.getByTestId('order-left-camber-arm').textContent).toContain('in hand');
  expect(screen.getByTestId('set-left-toe-arm').textContent).toBe('leave');
  expect(screen.getByTestId('in-hand').textContent).toContain('7 1/2 flats of a hex · 3.8 mm');
  expect(screen.getByTestId('in-hand').textContent).toContain('18.0 mm of thread stay');
  expect(screen.getByTestId('in-hand-after').textContent).toContain('−1.90° → −1.10°');
  await user.click(screen.getByTestId('as-ordered'));
  expect(screen.getByTestId('order-left-camber-arm').textContent).toContain('as ordered');
  expect(screen.getByTestId('order-right-camber-arm').textContent).toContain('in hand');
  expect(finish).not.toHaveBeenCalled();
  fireEvent.keyDown(window, { key: 'd' });
  expect(finish).toHaveBeenCalledTimes(1);
  expect(asDone(list, finish.mock.calls[0]![0] as Tolds, 'mm')).toEqual([]);
});

it('steps the amount on the comb of a spanner, and says no expectation once something was turned otherwise', async () => {
  const finish = vi.fn();
  render(<Step finish={finish} />);
  await user.click(screen.getByTestId('farther'));
  const field = screen.getByTestId<HTMLInputElement>('really-left-camber-arm');
  expect(field.value).toBe('1 1/3');
  expect(screen.getByTestId('as-ordered').textContent).toBe('As told: 1 1/3');
  await user.click(screen.getByTestId('as-ordered'));
  expect(screen.getByTestId('order-left-camber-arm').textContent).toContain('1 1/3');
  expect(screen.getByTestId('in-hand-after').textContent).toContain('turned otherwise');
  await user.click(screen.getByTestId('could-not-seized-right-camber-arm'));
  await user.click(screen.getByTestId('as-ordered'));
  expect(asDone(list, finish.mock.calls[0]![0] as Tolds, 'mm')).toEqual([
    { side: 'left', name: 'Camber arm', amount: '1 1/3', unit: 'mm', could_not: null },
    { side: 'right', name: 'Camber arm', amount: '', unit: 'mm', could_not: 'seized' },
  ]);
});

it('takes up again what was refused, with its fault and what was typed', async () => {
  const faults: Fault[] = [];
  const { rerender } = render(<Step finish={() => {}} problems={faults} />);
  fireEvent.change(screen.getByTestId('really-left-camber-arm'), { target: { value: 'two' } });
  await user.click(screen.getByTestId('as-ordered'));
  await user.click(screen.getByTestId('as-ordered'));
  rerender(
    <Step finish={() => {}} problems={[{ field: 'as_done.0.amount', wrong: '"two"', right: 'a count' }]} />,
  );
  const field = screen.getByTestId<HTMLInputElement>('really-left-camber-arm');
  expect([field.value, field.getAttribute('aria-invalid')]).toEqual(['two', 'true']);
  expect(screen.getByText(/a count/)).toBeTruthy();
});

it('says nothing of an order that another plan made since', () => {
  const told: Tolds = {
    'left/Camber arm': { amount: '2', closed: true, of: 1.25 },
    'right/Camber arm': { amount: '2', closed: true, of: 3 },
    'left/Shim': { amount: '1' },
  };
  expect(Object.keys(current(list, told))).toEqual(['left/Camber arm']);
});

it('keeps what was told over a reload, and forgets it once the step is closed', () => {
  const seen: Tolds[] = [];
  function Keeper({ act }: { act: 'tell' | 'look' | 'forget' }) {
    const [tolds, set, forget] = useTolds('p', 'cams');
    seen.push(tolds);
    return (
      <button
        onClick={() =>
          act === 'tell' ? set({ a: { amount: '2', closed: true } }) : act === 'forget' ? forget('cams') : 0
        }
      >
        go
      </button>
    );
  }
  const again = (act: 'tell' | 'look' | 'forget') => {
    cleanup();
    render(<Keeper act={act} />);
    fireEvent.click(screen.getByText('go'));
  };
  again('tell');
  again('look');
  expect(seen.at(-1)).toEqual({ a: { amount: '2', closed: true } });
  again('forget');
  again('look');
  expect(seen.at(-1)).toEqual({});
});

it('draws a front with its left on the right and a rear with its left on the left, the link in hand apart', () => {
  const place = (axle: 'front' | 'rear') => {
    cleanup();
    const { container } = render(
      <AxleOrders
        axle={axle}
        drawings={{ left: drawing, right: drawing }}
        spots={[{ n: 1, side: 'left', at: [0, 550, 500], state: 'now', link: true }]}
      />,
    );
    const hot = [...container.querySelectorAll('path')].filter((p) => p.getAttribute('fill') === 'var(--do)');
    expect(hot).toHaveLength(1);
    return Number(screen.getByText('left').getAttribute('x'));
  };
  expect(place('front')).toBeGreaterThan(250);
  expect(place('rear')).toBeLessThan(250);
});

it('says the marks, which way seen from where, and nothing of a way that nobody told', () => {
  const { rerender, container } = render(<TurnFigure line={line('Camber arm')} side="right" />);
  expect(container.textContent).toContain('counter-clockwise');
  expect(container.textContent).toContain('seen from the wheel');
  expect(container.textContent).toContain('left-hand');
  const unseen = hand({
    clockwise: null,
    from: 'mark where it stands, and count',
    to: '1 1/4 turns longer',
    thread: { ends: 2, left_hand: null, flats: 7.5, left_mm: null, least_mm: 15 },
  });
  rerender(<TurnFigure line={line('Camber arm', { in_hand: unseen })} side="right" />);
  expect(container.textContent).not.toContain('clockwise');
  expect(container.textContent).toContain('hand not seen');
});
