// @vitest-environment happy-dom
// Orders in a DOM: each side its own, one for the axle once, what stays is said to stay, an end is said to be one.
import { cleanup, render, screen, within } from '@testing-library/react';
import { afterEach, expect, it } from 'vitest';
import type { Schemas, SideName } from '../../api/client';
import { Orders, ToeOrders } from './Orders';

afterEach(cleanup);
type Line = Schemas['SettingLine'];
const line = (name: string, words: string, direction: string, more: Partial<Line> = {}): Line =>
  ({
    name,
    words,
    amount: words.replace(` ${direction}`, ''),
    way: direction === 'leave' ? 'where it stands' : direction,
    direction,
    position: 1,
    movement: 1,
    is_cam: false,
    notch_deg: null,
    at_end: false,
    sets_toe: false,
    shared: false,
    ...more,
  }) as Line;
const of = (side: SideName | null, ...lines: Line[]) =>
  lines.map((l) => ({ axle: 'front' as const, side, line: l }));
const text = (id: string) => screen.getByTestId(id).textContent;

it('gives each side its own order', () => {
  render(
    <Orders
      orders={[
        ...of('left', line('Front shim', '3 mm in', 'in')),
        ...of('right', line('Front shim', 'leave', 'leave')),
      ]}
      veiled={false}
      fs={1}
    />,
  );
  expect(text('set-left-front-shim')).toBe('3 mm');
  expect(text('set-right-front-shim')).toBe('leave');
  expect(screen.getByText('where it stands')).toBeTruthy();
});

it('prints what is one for the axle once', () => {
  const bar = line('Track bar', '13 mm longer', 'longer', { shared: true });
  const { container } = render(<Orders orders={of(null, bar)} veiled={false} fs={1} />);
  expect(screen.getAllByTestId('set-axle-track-bar')).toHaveLength(1);
  expect(within(container).getByText('Both wheels, one for the axle')).toBeTruthy();
  expect(screen.queryByText('Left')).toBeNull();
});

it('says an end is one, in the words of its kind', () => {
  const cam = { is_cam: true, notch_deg: 11.25, at_end: true, cam: null } as Partial<Line>;
  render(
    <Orders
      orders={[
        ...of('left', line('Slide', '6 mm out', 'out', { at_end: true })),
        ...of('right', line('Lower cam', '8 notches inboard', 'inboard', cam)),
      ]}
      veiled={false}
      fs={1}
    />,
  );
  expect(screen.getByText('out · at its end')).toBeTruthy();
  expect(screen.getByText('inboard · last notch')).toBeTruthy();
});

it('gives toe the angle that is expected after it, once for one tie rod', () => {
  const rod = line('Tie rod', '1/2 turn longer', 'longer', { sets_toe: true, shared: true });
  render(<ToeOrders orders={of(null, rod)} veiled={false} fs={1} toe={(s) => `${s} 0.05°`} />);
  expect(text('set-axle-tie-rod')).toBe('1/2 turn longer');
  expect(screen.getByText('toe to left 0.05°')).toBeTruthy();
  cleanup();
  const own = { ...rod, shared: false };
  render(
    <ToeOrders orders={[...of('left', own), ...of('right', own)]} veiled fs={1} toe={(s) => `${s} 0.05°`} />,
  );
  expect(screen.getByText('toe to right 0.05°')).toBeTruthy();
  expect(screen.getAllByText(/waits/)).toHaveLength(2);
});

it('shows nothing where nothing is turned', () => {
  const { container } = render(<Orders orders={[]} veiled={false} fs={1} />);
  expect(container.textContent).toBe('');
});
