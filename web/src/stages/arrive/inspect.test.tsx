// @vitest-environment happy-dom
// What is worn, in a DOM: pressed once, taken back by a press, and what it leads to said at once.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '../../test/user';
import { useState } from 'react';
import { afterEach, expect, it, vi } from 'vitest';
import { Inspect, tell, told, type Inspected } from './Inspect';

const answers = (id: string, first: string, stops = false) => [
  { id: 'sound', label: 'sound', first: '', stops: false, widen: { camber: 0, caster: 0, toe: 0 } },
  { id, label: id, first, stops, widen: { camber: 0, caster: 0, toe: 0 } },
];
vi.mock('../../api/calls', () => ({
  getInspection: () =>
    Promise.resolve([
      {
        id: 'tyres',
        each: 'wheel',
        ask: 'Tyre',
        answers: answers('cords', 'Cords show: new tyres first.', true),
      },
      { id: 'dampers', each: 'axle', ask: 'Dampers', answers: answers('leaking', 'Dampers leak: by pairs.') },
    ]),
}));
afterEach(cleanup);

let list: Inspected[] = [];
function Bench() {
  const [now, set] = useState<Inspected[]>([]);
  list = now;
  return <Inspect axle="rear" list={now} change={set} />;
}

it('is pressed for a side or an axle, counted, and taken back', async () => {
  render(
    <QueryClientProvider client={new QueryClient()}>
      <Bench />
    </QueryClientProvider>,
  );
  await userEvent.click(await screen.findByTestId('inspect-tyres-left-cords'));
  expect(list).toEqual([{ item: 'tyres', side: 'left', answer: 'cords' }]);
  expect(screen.getByTestId('inspect-tyres-left-first').textContent).toContain('new tyres first');
  expect(screen.getByTestId('inspect-tyres-left-first').className).toContain('plate');
  await userEvent.click(screen.getByTestId('inspect-dampers-leaking'));
  expect(screen.getByText(/1 of 2 looked at/)).toBeTruthy();
  await userEvent.click(screen.getByTestId('inspect-tyres-right-sound'));
  expect(screen.getByText(/2 of 2 looked at/)).toBeTruthy();
  await userEvent.click(screen.getByTestId('inspect-tyres-left-cords'));
  expect(list.some((i) => i.side === 'left')).toBe(false);
});

it('keeps one answer of an item and side', () => {
  const a = tell(tell([], 'tyres', 'left', 'sound'), 'tyres', 'left', 'cords');
  expect([a.length, told(a, 'tyres', 'left'), told(a, 'tyres', 'right')]).toEqual([1, 'cords', undefined]);
});
