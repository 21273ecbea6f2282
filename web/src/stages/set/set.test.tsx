// @vitest-environment happy-dom
// The gate in a DOM: what is off is said, a reason opens it, and what was done says what it said then.
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Schemas, Ticket } from '../../api/client';
import { SettingsProvider } from '../../shell/settings';
import { GateBar } from './GateBar';
import { findingWords } from './gateWords';
import { Ladder } from './Ladder';
import { gatesOf, orderOf, readAt, type Sheet, type Step } from './sheet';

afterEach(cleanup);

const step = (id: string, kind: 'step' | 'gate', more: Partial<Step> = {}): Step => ({
  id,
  kind,
  title: id,
  detail: `do ${id}`,
  ticks: [],
  needs: [],
  cautions: [],
  ...more,
});
const reading = (quantity: string, side: string, value: number, at = '2026-11-27T10:00:00Z') =>
  ({
    visit: 'reswept',
    axle: 'front',
    quantity,
    side,
    value,
    sigma: 0.06,
    taken_at: at,
  }) as Schemas['Reading'];
const record = (detail: string): Schemas['DoneRecord'] => ({
  title: '',
  detail,
  ordered: [],
  off: [],
  reason: null,
});
const ticket = (done: Partial<Schemas['Done']>[], readings: Schemas['Reading'][] = []): Ticket =>
  ({
    done: done.map((d) => ({
      plan_id: 'p',
      author: 'Specialist A',
      done_at: '2026-11-27T09:00:00Z',
      record: record(''),
      ...d,
    })),
    readings,
    visits: [],
  }) as unknown as Ticket;

const off: Schemas['GateFinding'] = {
  about: 'camber',
  side: 'left',
  read: -1.4,
  expected: -0.1,
  band: 0.3,
  aim: [-0.5, 0.1],
  off_expected: -1.3,
  off_aim: -0.9,
  stale: false,
};

describe('a gate', () => {
  const g = step('reswept', 'gate', { ticks: ['Roll 3 m'], needs: ['camber'] });
  const both = [reading('camber', 'left', -1.4), reading('camber', 'right', 0)];
  const bar = (t: Ticket, found: Schemas['GateFinding'][], pass = vi.fn()) => {
    render(
      <SettingsProvider>
        <GateBar
          gate={g}
          gates={gatesOf(t, 'p')}
          off={found}
          open
          stale={false}
          fault={undefined}
          tick={vi.fn()}
          pass={pass}
          pad={vi.fn()}
        />
      </SettingsProvider>,
    );
    return pass;
  };
  it('stays shut while something is missing', () => {
    bar(ticket([]), []);
    expect(screen.getByTestId<HTMLButtonElement>('gate-pass').disabled).toBe(true);
    expect(screen.getByTestId('gate-camber-left').textContent).toContain('not read');
  });
  it('opens without a word when all is near', async () => {
    const pass = bar(ticket([{ step: 'reswept/Roll 3 m' }], both), []);
    await userEvent.click(screen.getByTestId('gate-pass'));
    expect(pass).toHaveBeenCalledWith(undefined);
  });
  it('says what is off and by how much, and asks for a reason', async () => {
    const pass = bar(ticket([{ step: 'reswept/Roll 3 m' }], both), [off]);
    const said = screen.getByTestId('gate-off').textContent;
    expect(said).toContain('Left camber −1.4°');
    expect(said).toContain('0.9° under the aim −0.5° to 0.1°');
    expect(said).toContain('expected −0.1° ±0.3°');
    const go = screen.getByTestId<HTMLButtonElement>('gate-pass');
    expect(go.disabled).toBe(true);
    await userEvent.type(screen.getByTestId('gate-reason'), 'owner wants it home tonight');
    await userEvent.click(go);
    expect(pass).toHaveBeenCalledWith('owner wants it home tonight');
  });
});

describe('words of findings', () => {
  it('follow the units', () => {
    const high: Schemas['GateFinding'] = {
      ...off,
      about: 'height',
      read: 473,
      expected: 498,
      band: 5,
      aim: null,
      off_aim: 0,
      off_expected: -20,
    };
    expect(findingWords(high, 'in', 'decimal')).toBe('Left height 18 5/8 in: expected 19 5/8 in ±3/16 in');
    expect(findingWords(off, 'mm', 'minutes')).toContain('Left camber −1°24′');
  });
  it('say a reading that is older than the work', () => {
    expect(findingWords({ ...off, stale: true }, 'mm', 'decimal')).toContain('read it again');
  });
});

describe('the ladder', () => {
  it('shows what was done as it was done, and what the plan no longer has', () => {
    const sheet = { steps: [step('cams', 'step', { detail: 'right 4 notches' })] } as unknown as Sheet;
    const t = ticket([
      { step: 'cams', record: record('right 8 notches') },
      { step: 'fit-old-arm', record: { ...record('bolts snug'), title: 'Fit old arm' } },
    ]);
    render(
      <SettingsProvider>
        <Ladder
          sheet={sheet}
          gates={gatesOf(t, 'p')}
          now={undefined}
          done={t.done}
          veiled={() => false}
          undo={vi.fn()}
          big={false}
          setBig={vi.fn()}
        />
      </SettingsProvider>,
    );
    expect(screen.getByTestId('step-cams').textContent).toContain('right 8 notches');
    expect(screen.getByTestId('step-cams').textContent).not.toContain('4 notches');
    expect(screen.getByTestId('step-fit-old-arm').textContent).toContain('no longer in the plan');
  });
});

describe('an order of height', () => {
  const sheet = {
    result: { left: { planned_height_mm: 561 }, right: { planned_height_mm: 565 } },
  } as unknown as Sheet;
  it('is in the unit the specialist works in', () => {
    const height = step('height', 'step');
    expect(orderOf(height, sheet, 'mm')).toBe('left 561 mm, right 565 mm, hub to arch');
    expect(orderOf(height, sheet, 'in')).toBe('left 22 1/16 in, right 22 1/4 in, hub to arch');
    expect(orderOf(step('cams', 'step'), sheet, 'in')).toBe('do cams');
  });
});

describe('readings at gates', () => {
  it('are stale when the work came after them', () => {
    const t = ticket(
      [{ step: 'cams', done_at: '2026-11-27T11:00:00Z' }],
      [
        reading('camber', 'left', -1, '2026-11-27T10:00:00Z'),
        reading('camber', 'right', -1, '2026-11-27T12:00:00Z'),
      ],
    );
    const [l, r] = readAt(t, 'p')!.reswept!;
    expect(l!.camber?.stale).toBe(true);
    expect(r!.camber?.stale).toBe(false);
  });
});
