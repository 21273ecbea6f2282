// @vitest-environment happy-dom
// A car that came back, in a DOM: how far it fell, the trim as ordered and otherwise, what is due, and what closes it.
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import userEvent from '../../test/user';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { CollarFigure } from '../../figures/CollarFigure';
import { Falls } from '../../figures/Falls';
import { SettingsProvider } from '../../ui/settings';
import { dayFrom, daysTo } from '../../units/days';
import type { Corner } from '../../sheet/after';
import { LookNext } from './LookNext';
import { ThenToday } from './ThenToday';
import { TrimPane } from '../../sheet/TrimPane';

afterEach(cleanup);
beforeEach(() => localStorage.clear());

const order = {
  turns: 1.75,
  by_mm: 3,
  to_mm: 314,
  band_mm: 1,
  mm_per_turn: 1.7,
  records: 2,
  words: '1 3/4 turns up',
  amount: '1 3/4',
  by: { kind: 'collar' as const },
  clockwise: false,
  from: "original mark: 12 o'clock",
  to: "new mark: 3 o'clock",
  why: 'One turn is worth 1.7 mm at the arch here, by 2 that were recorded.',
  moves_deg: [0.1, 0, 0.06],
};
const corner = (more: Partial<Corner> = {}): Corner => ({
  axle: 'front',
  side: 'right',
  set_mm: 318,
  said_mm: 314,
  said_band_mm: 1,
  ring_mm: 2,
  back_mm: 311,
  now_mm: 311,
  rest: 'too_far',
  off_mm: -3,
  trim: order,
  turned_by: { kind: 'collar' },
  trims: [],
  ...more,
});
type Acts = Parameters<Parameters<typeof TrimPane>[0]['act']>[0];

describe('the trim', () => {
  const pane = (c: Corner, more: Partial<Parameters<typeof TrimPane>[0]> = {}) => {
    const act = vi.fn<(a: Acts) => void>();
    render(
      <SettingsProvider>
        <TrimPane
          corner={c}
          turned={{ kind: 'collar', pitch_mm: 2, motion_ratio: null }}
          cautions={['Stands, never a jack alone.']}
          busy={false}
          problems={[]}
          act={act}
          tape={() => {}}
          {...more}
        />
      </SettingsProvider>,
    );
    return act;
  };
  it('is turned as ordered in one press, with which way from which mark to which', async () => {
    const act = pane(corner());
    const words = screen.getByTestId('trim').textContent ?? '';
    expect(words).toContain('1 3/4 turns up');
    expect(words).toContain('counter-clockwise on a right-hand thread');
    expect(words).toContain("new mark: 3 o'clock");
    expect(words).toContain('+0.10°');
    expect(words).toContain('Stands, never a jack alone.');
    await userEvent.click(screen.getByTestId('trimmed'));
    expect(act).toHaveBeenCalledWith({
      act: 'trimmed',
      axle: 'front',
      side: 'right',
      amount: '',
      could_not: null,
    });
  });
  it('takes what was really turned, and why it could not', async () => {
    const act = pane(corner(), {
      problems: [{ field: 'amount', wrong: '"a few" cannot be read', right: 'a count' }],
    });
    expect(screen.getByTestId('trim').textContent).toContain('cannot be read');
    fireEvent.change(screen.getByTestId('trim-really'), { target: { value: ' 1 1/2 ' } });
    await userEvent.click(screen.getByTestId('trim-seized'));
    await userEvent.click(screen.getByTestId('trimmed'));
    expect(act.mock.calls[0]![0]).toMatchObject({ amount: '1 1/2', could_not: 'seized' });
  });
  it('asks what is turned before it says how far, and takes the thread as typed', async () => {
    const act = pane(corner({ trim: null, turned_by: null }), { turned: undefined });
    expect(screen.getByTestId('trim-none').textContent).toContain('Say what is turned for height here');
    await userEvent.click(screen.getByTestId('by-bolt'));
    expect(act).toHaveBeenCalledWith({ act: 'turns_by', axle: 'front', turned: { kind: 'torsion_bolt' } });
    cleanup();
    const put = pane(corner());
    fireEvent.change(screen.getByTestId('by-pitch'), { target: { value: '1/16in' } });
    fireEvent.change(screen.getByTestId('by-ratio'), { target: { value: '0.8' } });
    await userEvent.click(screen.getByText('Take it'));
    const sent = put.mock.calls[0]![0] as { turned: { pitch_mm: number; motion_ratio: number } };
    expect(sent.turned.pitch_mm).toBeCloseTo(1.5875);
    expect(sent.turned.motion_ratio).toBe(0.8);
  });
  it('asks for the tape after a trim, and leaves what is in the ring', async () => {
    pane(
      corner({
        trim: null,
        rest: 'stale',
        off_mm: 0,
        trims: [
          {
            at: 'x',
            author: 'A',
            axle: 'front',
            side: 'right',
            ordered_turns: 1.75,
            turns: 1.5,
            words: '1 3/4 turns up',
            typed: '1 1/2',
            could_not: null,
          },
        ],
      }),
    );
    expect(screen.getByTestId('trim-none').textContent).toContain('tape it again');
    expect(screen.getByTestId('trims').textContent).toContain('really 1 1/2');
    cleanup();
    pane(corner({ trim: null, rest: 'as_said', off_mm: 0 }));
    expect(screen.getByTestId('trim-none').textContent).toContain('In the ring');
  });
});

it('draws the fall, and says it', () => {
  render(
    <Falls
      axle="front"
      days={14}
      unit="mm"
      falls={[
        { side: 'left', set: 318, said: 314, ring: 2, came: 314, now: 314 },
        { side: 'right', set: 318, said: 314, ring: 2, came: 311, now: 311, to: 314 },
      ]}
    />,
  );
  expect(screen.getByTestId('falls-front').getAttribute('aria-label')).toContain(
    'right: set 318 mm, said 314 mm, came 311 mm',
  );
  expect(screen.getByText('today, day 14')).toBeTruthy();
  cleanup();
  render(<Falls axle="rear" days={0} unit="in" falls={[{ side: 'left', ring: 2 }]} />);
  expect(screen.getByText(/No height of this axle/)).toBeTruthy();
});

it('turns a collar and a bolt the right way round', () => {
  render(<CollarFigure what="bolt" turns={0.5} clockwise words="1/2 turn up" to="new mark: 6 o'clock" />);
  expect(screen.getByRole('img').getAttribute('aria-label')).toContain(
    "1/2 turn up, clockwise, bolt, seen from its head: new mark: 6 o'clock",
  );
});

it('says then and today, and reads what was not', async () => {
  const read = vi.fn();
  const of = (angle: Schemas['AngleName'], more: object) => ({
    axle: 'front' as const,
    side: 'left' as const,
    angle,
    set_deg: -0.8,
    now_deg: null,
    band_deg: 0.1,
    off_aim_deg: 0,
    ...more,
  });
  const angles = [of('camber', { now_deg: -0.9 }), of('caster', { set_deg: null }), of('toe', {})];
  render(
    <SettingsProvider>
      <ThenToday returned={{ angles } as unknown as Schemas['Returned']} read={read} />
    </SettingsProvider>,
  );
  expect(screen.getByTestId('today-front-left-camber').textContent).toContain('−0.8° −0.9°');
  expect(screen.getByTestId('today-front-left-caster').textContent).toContain('– read');
  await userEvent.click(screen.getByTestId('today-front-left-toe'));
  expect(read).toHaveBeenCalledWith('front', 'left', 'toe');
});

describe('what is due', () => {
  const next = (
    care: Schemas['Aftercare'],
    problems: { field: string; wrong: string; right: string }[] = [],
  ) => {
    const act = vi.fn();
    render(
      <SettingsProvider>
        <LookNext
          care={care}
          usual={{ days: 84, after_km: 5000 }}
          busy={false}
          problems={problems}
          act={act}
        />
      </SettingsProvider>,
    );
    return act;
  };
  it('offers the usual, keeps it, and closes by a name', async () => {
    const act = next({ turned: {} } as Schemas['Aftercare']);
    await userEvent.click(screen.getByTestId('look-next'));
    expect(act).toHaveBeenCalledWith({ act: 'look_next', on: dayFrom(84), after_km: 5000 });
    expect(screen.getByTestId<HTMLButtonElement>('close-job').disabled).toBe(true);
    await userEvent.type(screen.getByTestId('close-name'), 'Specialist A');
    await userEvent.click(screen.getByTestId('close-job'));
    expect(act).toHaveBeenLastCalledWith({ act: 'close', signed: 'Specialist A' });
  });
  it('says what is wrong at its field, and opens what was closed', async () => {
    next({} as Schemas['Aftercare'], [{ field: 'on', wrong: 'that day is gone', right: 'today or later' }]);
    expect(screen.getByText('that day is gone; today or later')).toBeTruthy();
    cleanup();
    const act = next({
      closed: { at: '2026-01-02T10:00:00Z', signed: 'Specialist B' },
    } as Schemas['Aftercare']);
    expect(screen.getByTestId('job-closed').textContent).toContain('Specialist B');
    await userEvent.click(screen.getByTestId('reopen'));
    expect(act).toHaveBeenCalledWith({ act: 'reopen' });
  });
  it('counts days from midnight to midnight', () => {
    const now = new Date(2026, 11, 31, 23, 50);
    expect(dayFrom(1, now)).toBe('2027-01-01');
    expect([daysTo('2027-01-01', now), daysTo('2026-12-31', now), daysTo('2026-12-29', now)]).toEqual([
      1, 0, -2,
    ]);
  });
});
