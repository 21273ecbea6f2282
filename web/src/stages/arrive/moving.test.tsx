// @vitest-environment happy-dom
// A wheel measured moving: typed in the shop's notation, faults at their cell, in another unit, and what it says drawn.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { afterEach, expect, it, vi } from 'vitest';
import type { Geometry, Ticket } from '../../api/client';
import { SettingsProvider } from '../../ui/settings';
import { MoveIt } from './MoveIt';
import { inUnit, more, movingOf, movingTexts, noRows, typed, type MovingTexts } from './moving';

const said = (fits: boolean) => ({
  fits,
  geometry: {},
  read: [1, 2, 3].map(() => ({ camber_deg: 0.16, caster_deg: 0.41, toe_deg: 0.08 })),
  curve: [450, 500, 550].map((height_mm) => ({
    height_mm,
    told_deg: [0.1, 3, 0.05],
    fitted_deg: [0.2, 3.1, 0.02],
    band: { camber_deg: 0.1, caster_deg: 0.3, toe_deg: 0.05 },
    before: { camber_deg: 0.4, caster_deg: 0.5, toe_deg: 0.2 },
  })),
  narrower: fits ? [{ angle: 'camber', height_mm: 550, before_deg: 0.4, now_deg: 0.1 }] : [],
  moved_mm: 4.2,
  says: [fits ? '3 heights and the points go together' : 'This layout does not fit these readings'],
  unknown: ['How long the tie rod is.'],
});
const server = vi.hoisted(() => ({
  look: vi.fn((_b: unknown): Promise<unknown> => Promise.resolve({})),
  keep: vi.fn((_id: string, _b: unknown): Promise<unknown> => Promise.resolve({ id: 'own-a' })),
}));
vi.mock('../../api/calls', () => ({
  lookAtMoving: server.look,
  keepShape: server.keep,
  getMethods: () => Promise.resolve({ methods: [], prepare: [] }),
}));
afterEach(() => {
  cleanup();
  server.look.mockReset();
});

const rows = (list: [string, string, string][]): MovingTexts =>
  list.reduce<MovingTexts>(
    (t, [h, c, toe], i) =>
      typed(typed(typed(i < 3 ? t : more(t), i, 'height', h), i, 'camber', c), i, 'toe', toe),
    noRows(),
  );

it('reads sixteenths and minutes, leaves empty rows out, and names every cell that cannot be read', () => {
  const t = rows([
    ['19 1/2', "0°12'", "-3'"],
    ['500 mm', '-0.4', ''],
    ['', '', ''],
  ]);
  const { moving, bad } = movingOf(t, 'in', true);
  expect(bad).toEqual({});
  expect(moving!.rows.map((r) => Math.round(r.height_mm))).toEqual([495, 500]);
  expect(moving!.rows[0]!.toe_deg).toBeCloseTo(-0.05, 9);
  expect(moving!.rows[1]!.toe_deg).toBeNull();
  const wrong = movingOf(typed(typed(t, 2, 'toe', '0.1'), 0, 'camber', 'steep'), 'in', true).bad;
  expect(wrong).toEqual({ '0.camber': 'no angle', '2.height': 'at which height?' });
  expect(movingOf(noRows(), 'mm', true).moving).toBeNull();
});

it('comes back from what was kept, with the doubt of what the pad read, and in another unit', () => {
  const t = typed(rows([['500', '0.1', '0.05']]), 0, 'camber', '0.2', 0.06);
  const kept = movingOf(t, 'mm', false).moving!;
  expect([kept.rows[0]!.sigma!.camber_deg, kept.rows[0]!.sigma!.toe_deg]).toEqual([0.06, null]);
  const back = movingTexts(kept, 'in');
  expect(back.rows[0]!.height).toBe('19.685');
  expect(movingOf(back, 'in', false).moving!.rows[0]!.sigma!.camber_deg).toBe(0.06);
  expect(Number(inUnit(back, 'in', 'mm').rows[0]!.height)).toBeCloseTo(500, 2);
  // Typed over by hand it has no doubt of its own: the core takes the usual.
  expect(
    movingOf(typed(back, 0, 'camber', '0.3'), 'in', false).moving!.rows[0]!.sigma!.camber_deg,
  ).toBeNull();
});

function Bench({ start, saved = true }: { start: MovingTexts; saved?: boolean }) {
  const [t, set] = useState(start);
  return (
    <SettingsProvider>
      <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
        <MoveIt
          axle="front"
          geometry={{ layout: 'double_wishbone' } as unknown as Geometry}
          knowledge="archetype"
          designHeight={500}
          texts={t}
          change={set}
          ticket={{ job: { id: 'j' }, readings: [] } as unknown as Ticket}
          saved={saved}
        />
      </QueryClientProvider>
    </SettingsProvider>
  );
}
const three = rows([
  ['450', '0.3', '0.1'],
  ['500', '0.2', '0.05'],
  ['550', '0', '-0.1'],
]);

it('says what improved and what stays unknown, and draws the readings over both curves', async () => {
  server.look.mockResolvedValue(said(true));
  render(<Bench start={three} />);
  await screen.findByText(/go together/);
  expect(screen.getByTestId('moving-narrower').textContent).toContain('camber ±0.10° (was ±0.40°)');
  expect(screen.getByText('How long the tie rod is.')).toBeTruthy();
  const drawn = screen.getAllByRole('img').map((f) => f.getAttribute('aria-label'));
  expect(drawn[0]).toContain('camber over height: 0.30° at 450 mm');
  expect(drawn[0]).toContain('the points go with it');
  expect(drawn).toHaveLength(2);
});

it('asks nothing of two heights, and says plainly when the layout does not fit', async () => {
  server.look.mockResolvedValue(said(false));
  render(<Bench start={typed(typed(typed(three, 2, 'height', ''), 2, 'camber', ''), 2, 'toe', '')} />);
  expect(screen.queryByTestId('moving-said')).toBeNull();
  expect(server.look).not.toHaveBeenCalled();
  fireEvent.change(screen.getByTestId('moving-2-height'), { target: { value: '550' } });
  fireEvent.change(screen.getByTestId('moving-2-camber'), { target: { value: '0' } });
  const plate = await screen.findByText('This layout does not fit these readings');
  expect(plate.closest('.plate')).toBeTruthy();
  expect(screen.queryByTestId('moving-narrower')).toBeNull();
});

it('keeps a shape only of a car that is kept', async () => {
  server.look.mockResolvedValue(said(true));
  const { unmount } = render(<Bench start={three} saved={false} />);
  fireEvent.change(screen.getByTestId('shape-name'), { target: { value: 'Quarry front' } });
  expect(screen.getByTestId<HTMLButtonElement>('shape-keep').disabled).toBe(true);
  unmount();
  render(<Bench start={three} />);
  fireEvent.change(screen.getByTestId('shape-name'), { target: { value: 'Quarry front' } });
  fireEvent.click(screen.getByTestId('shape-keep'));
  await screen.findByText(/it stands first/);
  expect(server.keep.mock.calls[0]).toEqual(['j', { axle: 'front', name: 'Quarry front' }]);
});
