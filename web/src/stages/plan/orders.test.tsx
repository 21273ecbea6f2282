// @vitest-environment happy-dom
// The plan's own list of orders, and figures that a rear wheel has and has not.
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, expect, it } from 'vitest';
import type { AxleName, PlanResult, Schemas, SideName } from '../../api/client';
import { SettingsProvider } from '../../ui/settings';
import { AnglesTable } from './AnglesTable';
import { OrdersPanel } from './OrdersPanel';

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
const order = (axle: AxleName, side: SideName | undefined, l: Line) => ({
  axle,
  side: side ?? null,
  line: l,
});

it('shows every link of a rear axle on both sides, before the front it is set before', () => {
  const camber = line('Camber arm', '2 turns longer');
  const orders = [
    order('rear', 'left', camber),
    order('rear', 'left', line('Second link', '1 turn longer', { at_end: true })),
    order('rear', 'right', line('Camber arm', 'leave')),
    order('rear', 'left', line('Toe arm', '1/4 turn shorter', { sets_toe: true })),
    order('front', 'left', line('Tie rod', '1/2 turn longer', { sets_toe: true })),
  ];
  render(<OrdersPanel orders={orders} first="rear" />);
  expect(screen.getByTestId('order-rear-left-camber-arm').textContent).toContain('2 turns longer');
  expect(screen.getByTestId('order-rear-left-second-link').textContent).toContain('at its end');
  expect(screen.getByTestId('order-rear-left-toe-arm').textContent).toContain('toe, last');
  expect(screen.getByTestId('order-rear-right-camber-arm').textContent).toContain('leave');
  expect(screen.getByTestId('order-left-tie-rod').textContent).toContain('1/2 turn longer');
  expect(screen.getByText('The rear is set before the front.')).toBeTruthy();
  const heads = [...document.querySelectorAll('h3')].map((h) => h.textContent?.trim());
  expect(heads).toEqual(['Left rear', 'Right rear', 'Left front']);
});

it('shows what is one for the axle once', () => {
  render(
    <OrdersPanel orders={[order('front', undefined, line('Track bar', '13 mm longer'))]} first="front" />,
  );
  expect(screen.getAllByTestId('order-axle-track-bar')).toHaveLength(1);
  expect(screen.getByText('Both wheels, one for the front axle')).toBeTruthy();
});

it('says so where nothing turns', () => {
  render(<OrdersPanel orders={[]} first="front" />);
  expect(screen.getByTestId('orders-panel').textContent).toMatch(/Nothing on the front.*Nothing on the rear/);
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
