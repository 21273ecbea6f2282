// @vitest-environment happy-dom
// The plan's own list of orders, and figures that a rear wheel has and has not.
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, expect, it } from 'vitest';
import type { PlanResult, Schemas } from '../../api/client';
import { SettingsProvider } from '../../shell/settings';
import { AnglesTable } from './AnglesTable';
import { inOrder, OrdersPanel } from './OrdersPanel';

afterEach(cleanup);
type Line = Schemas['SettingLine'];
const line = (name: string, words: string, more: Partial<Line> = {}): Line =>
  ({
    name,
    words,
    direction: words === 'leave' ? 'leave' : 'longer',
    at_end: false,
    sets_toe: false,
    shared: false,
    is_cam: false,
    ...more,
  }) as Line;
const result = (left: Line[], right: Line[]) =>
  ({ left: { setting: left }, right: { setting: right } }) as unknown as PlanResult;

it('shows every link of a rear axle on both sides, the toe arm last', () => {
  const rear = [
    line('Toe arm', '1/4 turn shorter', { sets_toe: true }),
    line('Camber arm', '2 turns longer'),
    line('Second link', '1 turn longer', { at_end: true }),
  ];
  expect(inOrder(rear).map((l) => l.name)).toEqual(['Camber arm', 'Second link', 'Toe arm']);
  render(<OrdersPanel result={result(rear, [line('Camber arm', 'leave'), rear[0]!])} />);
  expect(screen.getByTestId('order-left-camber-arm').textContent).toContain('2 turns longer');
  expect(screen.getByTestId('order-left-second-link').textContent).toContain('at its end');
  expect(screen.getByTestId('order-left-toe-arm').textContent).toContain('toe, last');
  expect(screen.getByTestId('order-right-camber-arm').textContent).toContain('leave');
});

it('shows what is one for the axle once', () => {
  const bar = line('Track bar', '13 mm longer', { shared: true });
  render(<OrdersPanel result={result([bar], [bar])} />);
  expect(screen.getAllByTestId('order-axle-track-bar')).toHaveLength(1);
  expect(screen.queryByText('Left')).toBeNull();
});

it('says so where nothing turns', () => {
  render(<OrdersPanel result={result([], [])} />);
  expect(screen.getByTestId('orders-panel').textContent).toContain('Nothing on this axle');
});

it('gives a rear wheel no caster, lean, scrub or trail', () => {
  const a = {
    camber_deg: -1.2,
    caster_deg: 0,
    toe_deg: 0.1,
    sai_deg: 0,
    scrub_radius_mm: 0,
    mechanical_trail_mm: 0,
    half_track_mm: 790,
  };
  const side = { before: a, after: a, set: a };
  const r = { left: side, right: side } as unknown as PlanResult;
  const rows = () => [...document.querySelectorAll('tbody th')].map((t) => t.textContent);
  render(
    <SettingsProvider>
      <AnglesTable result={r} steered={false} />
    </SettingsProvider>,
  );
  expect(rows()).toEqual(['Camber', 'Toe, one wheel', 'Half track']);
  cleanup();
  render(
    <SettingsProvider>
      <AnglesTable result={r} steered />
    </SettingsProvider>,
  );
  expect(rows()).toHaveLength(7);
});
