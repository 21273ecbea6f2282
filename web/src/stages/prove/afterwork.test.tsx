// @vitest-environment happy-dom
// What is turned at the gate of heights and after the road test, in a DOM: sent as typed, refused at its field, kept there.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { ApiProblem, type Ticket } from '../../api/client';
import type { Corner } from '../../sheet/after';
import { GateTrims } from '../../sheet/GateTrims';
import type { Sheet } from '../../sheet/sheet';
import user from '../../test/user';
import { SettingsProvider } from '../../ui/settings';
import { RoadPane } from './RoadPane';

const doAfter = vi.hoisted(() => vi.fn());
vi.mock('../../api/calls', async (real) => ({ ...(await real<object>()), doAfter }));
afterEach(cleanup);
beforeEach(() => doAfter.mockReset());

const ticket = { job: { id: 'j', version: 7, aftercare: {} } } as unknown as Ticket;
const shown = (what: ReactNode) =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <SettingsProvider>{what}</SettingsProvider>
    </QueryClientProvider>,
  );
const corner = (side: 'left' | 'right', off_mm: number, more: Partial<Corner> = {}): Corner => ({
  axle: 'front',
  side,
  said_mm: 340,
  said_band_mm: 0,
  ring_mm: 5,
  now_mm: 340 + off_mm,
  rest: off_mm < 0 ? 'too_far' : 'as_said',
  off_mm,
  trims: [],
  turned_by: { kind: 'collar' },
  trim:
    off_mm === 0
      ? null
      : {
          turns: 12.5,
          by_mm: 25,
          to_mm: 340,
          band_mm: 3,
          mm_per_turn: 2,
          records: 0,
          words: '12 1/2 turns up',
          amount: '12 1/2',
          by: { kind: 'collar' },
          clockwise: false,
          from: "original mark: 12 o'clock",
          to: "new mark: 6 o'clock",
          why: 'A turn is usually worth 2 mm.',
          moves_deg: [0.2, 0, 0.1],
        },
  ...more,
});
const gate = (settled: Corner[]) =>
  shown(
    <GateTrims
      ticket={ticket}
      corners={settled}
      cautions={['Springs hold force.']}
      kept={() => {}}
      stale={false}
      tape={() => {}}
    />,
  );

it('says nothing at the gate while every corner stands as planned', () => {
  gate([corner('left', 0), corner('right', 0)]);
  expect(screen.queryByTestId('gate-trims')).toBeNull();
});

it('takes up the corner that is farthest off, with its turns, its caution and every other corner beside it', async () => {
  doAfter.mockResolvedValue(ticket);
  gate([corner('left', 0), corner('right', -25)]);
  expect(screen.getByTestId('corner-front-right').textContent).toContain('−25 mm, too low');
  expect(screen.getByTestId('corner-front-left').textContent).toContain('as planned');
  expect(screen.getByTestId('trim-words').textContent).toBe('12 1/2 turns up');
  expect(screen.getByTestId('gate-trims').textContent).toContain('Springs hold force.');
  fireEvent.change(screen.getByTestId('trim-really'), { target: { value: '6' } });
  await user.click(screen.getByTestId('trimmed'));
  await waitFor(() => expect(doAfter).toHaveBeenCalled());
  expect(doAfter.mock.calls[0]).toEqual([
    'j',
    { version: 7, what: { act: 'trimmed', axle: 'front', side: 'right', amount: '6', could_not: null } },
  ]);
});

const road = (of: Partial<Sheet['road'] & object> | undefined, kept = vi.fn()) => {
  shown(
    <RoadPane
      ticket={ticket}
      sheet={
        {
          road: of && { off_deg: 8, headline: 'Off', orders: [], turned: false, felt: '', ...of },
        } as unknown as Sheet
      }
      kept={kept}
      stale={false}
    />,
  );
  return kept;
};

it('keeps what the road told, and what was typed where it is refused', async () => {
  const fault = { field: 'side', wrong: 'which way is not said', right: 'left or right' };
  doAfter.mockRejectedValueOnce(new ApiProblem(422, 'no', 'no', [fault]));
  const kept = road(undefined);
  fireEvent.change(screen.getByTestId('road-off'), { target: { value: '6' } });
  fireEvent.change(screen.getByTestId('road-felt'), { target: { value: 'no pull' } });
  await user.click(screen.getByTestId('road-keep'));
  await screen.findByText(/which way is not said/);
  expect(screen.getByTestId<HTMLInputElement>('road-off').value).toBe('6');
  expect(kept).not.toHaveBeenCalled();
  doAfter.mockResolvedValueOnce(ticket);
  await user.click(screen.getByTestId('road-left'));
  await user.click(screen.getByTestId('road-keep'));
  await waitFor(() => expect(kept).toHaveBeenCalled());
  expect(doAfter.mock.calls[1]![1]).toEqual({
    version: 7,
    what: { act: 'road_tested', wheel_off: '6', side: 'left', felt: 'no pull' },
  });
  expect(screen.getByTestId<HTMLInputElement>('road-off').value).toBe('');
});

it('orders both rods, and nothing once they were turned', async () => {
  const orders = [
    { side: 'left' as const, name: 'Tie rod', turns: -0.25, words: '1/4 turn shorter' },
    { side: 'right' as const, name: 'Tie rod', turns: 0.25, words: '1/4 turn longer' },
  ];
  doAfter.mockResolvedValue(ticket);
  road({ orders });
  expect(screen.getByTestId('road-left').textContent).toContain('to the left');
  expect(screen.getByTestId('road-test').textContent).toContain('Left tie rod 1/4 turn shorter');
  expect(screen.getByTestId('road-test').textContent).toContain('Right tie rod 1/4 turn longer');
  await user.click(screen.getByTestId('road-turned'));
  await waitFor(() => expect(doAfter.mock.calls[0]![1].what).toEqual({ act: 'wheel_turned' }));
  cleanup();
  road({ orders, turned: true });
  expect(screen.queryByTestId('road-turned')).toBeNull();
});

it('turns one drag link for both wheels of a live axle', () => {
  const order = { name: 'Drag link', turns: -1.25, words: '1 1/4 turns shorter' };
  road({ headline: 'Steering wheel 9° to the left: turn the drag link, toe stays.', orders: [order] });
  const said = screen.getByTestId('road-test').textContent;
  expect(screen.getByTestId('rod-axle').textContent).toContain('1 1/4 turns shorter');
  expect(said).toContain('while the link is turned');
  expect(screen.getByTestId('road-turned').textContent).toBe('Turned as ordered');
});
