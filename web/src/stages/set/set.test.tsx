// @vitest-environment happy-dom
// The gate in a DOM: what is off is said, a reason opens it, and what was done says what it said then.
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '../../test/user';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Schemas, Ticket } from '../../api/client';
import { SettingsProvider } from '../../ui/settings';
import { GateBar } from '../../sheet/GateBar';
import { lastSigned } from '../../door/signed';
import { findingWords } from '../../sheet/gateWords';
import { Ladder } from './Ladder';
import { marks, readAt, type Gate, type Sheet, type Step } from '../../sheet/sheet';

afterEach(cleanup);

const step = (id: string, kind: 'step' | 'gate', more: Partial<Step> = {}): Step => ({
  id,
  kind,
  title: id,
  detail: `do ${id}`,
  orders: [],
  ticks: [],
  needs: [],
  cautions: [],
  ...more,
});
const record = (detail: string): Schemas['DoneRecord'] => ({
  title: '',
  detail,
  ordered: [],
  rounds: [],
  off: [],
  reason: null,
  signed: null,
  taught: null,
});
const ticket = (done: Partial<Schemas['Done']>[]): Ticket =>
  ({
    done: done.map((d) => ({
      plan_id: 'p',
      author: 'Specialist A',
      done_at: '2026-11-27T09:00:00Z',
      record: record(''),
      ...d,
    })),
    readings: [],
    visits: [],
  }) as unknown as Ticket;

const off: Schemas['GateFinding'] = {
  about: 'camber',
  axle: 'front',
  side: 'left',
  read: -1.4,
  expected: -0.1,
  band: 0.3,
  aim: [-0.5, 0.1],
  off_expected: -1.3,
  off_aim: -0.9,
  stale: false,
};

const empty = { height: null, camber: null, caster: null, toe: null, wheelbase: null, centre: null };
const none = { front: { left: empty, right: empty }, rear: { left: empty, right: empty } };
const camber = (value: number) => ({ ...empty, camber: { value, sigma: 0.06, stale: false } });
const view = (more: Partial<Gate> = {}): Gate => ({
  id: 'reswept',
  visit: 'reswept',
  ticked: ['roll'],
  read: { ...none, front: { left: camber(-1.4), right: camber(0) } },
  missing: [],
  off: [],
  ...more,
});

describe('a gate', () => {
  const g = step('reswept', 'gate', {
    ticks: [{ id: 'roll', words: 'Roll 3 m' }],
    needs: [{ axle: 'front', quantity: 'camber' }],
  });
  const bar = (v: Gate, pass = vi.fn(), more: Partial<Parameters<typeof GateBar>[0]> = {}) => {
    render(
      <SettingsProvider>
        <GateBar
          gate={g}
          view={v}
          marks={marks(ticket([{ step: 'reswept/roll' }]), 'p')}
          open
          stale={false}
          fault={undefined}
          tick={vi.fn()}
          pass={pass}
          pad={vi.fn()}
          {...more}
        />
      </SettingsProvider>,
    );
    return pass;
  };
  it('shows what was answered earlier and still holds', () => {
    bar(view());
    expect(screen.queryByTestId('gate-holds')).toBeNull();
    cleanup();
    bar(view({ holds: [{ ask: 'Floor falls to the left', answer: '0.6' }] }));
    expect(screen.getByTestId('gate-holds').textContent).toContain('floor falls to the left: 0.6');
  });
  it('stays shut while something is missing', () => {
    bar(view({ read: none, missing: [{ kind: 'tick', tick: 'roll' }] }));
    expect(screen.getByTestId<HTMLButtonElement>('gate-pass').disabled).toBe(true);
    expect(screen.getByTestId('gate-camber-left').textContent).toContain('not read');
  });
  it('measures where an axle lies once, with the side it is off to', async () => {
    const pad = vi.fn();
    const centre = { value: 6.35, sigma: 1, stale: false };
    const lies = { left: { ...empty, centre }, right: { ...empty, centre } };
    const bars = step('rear-read', 'gate', {
      needs: [
        { axle: 'rear', quantity: 'wheelbase' },
        { axle: 'rear', quantity: 'centre' },
      ],
    });
    bar(view({ read: { ...none, rear: lies } }), vi.fn(), { gate: bars, pad });
    expect(screen.getByTestId('gate-rear-wheelbase-left').textContent).toContain('wheelbase not read');
    const chip = screen.getByTestId('gate-rear-centre');
    expect(chip.textContent).toContain('rear axle centre 6 mm too far right');
    await userEvent.click(chip);
    expect(pad).toHaveBeenCalledWith('reswept', 'axle_offset', 'rear', 'left');
  });
  it('opens without a word when all is near', async () => {
    const pass = bar(view());
    await userEvent.click(screen.getByTestId('gate-pass'));
    expect(pass).toHaveBeenCalledWith(undefined, undefined);
  });
  it('says what is off and by how much, and asks for a reason', async () => {
    const pass = bar(view({ off: [off] }));
    const said = screen.getByTestId('gate-off').textContent;
    expect(said).toContain('Left front camber −1.4°');
    expect(said).toContain('0.9° under the aim −0.5° to 0.1°');
    expect(said).toContain('expected −0.1° ±0.3°');
    const go = screen.getByTestId<HTMLButtonElement>('gate-pass');
    expect(go.disabled).toBe(true);
    await userEvent.type(screen.getByTestId('gate-reason'), 'owner wants it home tonight');
    // Somebody has to stand for it, and is remembered on this device.
    expect(go.disabled).toBe(true);
    await userEvent.type(screen.getByTestId('gate-signed'), 'Specialist A');
    await userEvent.click(go);
    expect(pass).toHaveBeenCalledWith('owner wants it home tonight', 'Specialist A');
    expect(lastSigned()).toBe('Specialist A');
  });
  it('asks at the last gate who stands for the car, though nothing is off', async () => {
    const pass = bar(view({ id: 'proved' }), vi.fn(), { gate: step('proved', 'gate') });
    const name = screen.getByTestId<HTMLInputElement>('gate-signed');
    await userEvent.clear(name);
    expect(screen.getByTestId<HTMLButtonElement>('gate-pass').disabled).toBe(true);
    await userEvent.type(name, 'Specialist B');
    expect(screen.queryByTestId('gate-reason')).toBeNull();
    await userEvent.click(screen.getByTestId('gate-pass'));
    expect(pass).toHaveBeenCalledWith(undefined, 'Specialist B');
  });
  it('takes readings before it is its turn where a look is welcome', async () => {
    const pad = vi.fn();
    bar(view({ read: none }), vi.fn(), { open: false, early: true, pad });
    await userEvent.click(screen.getByTestId('gate-camber-left'));
    expect(pad).toHaveBeenCalled();
    expect(screen.getByTestId<HTMLButtonElement>('gate-pass').disabled).toBe(true);
  });
  it('takes back a tick only where it was set, and opens the pad at the wheel it names', async () => {
    const tick = vi.fn();
    bar(view(), vi.fn(), { tick });
    await userEvent.click(screen.getByRole('checkbox'));
    expect(tick).toHaveBeenCalledWith('roll', false);
    cleanup();
    // Said in the prepare list: it is taken back there.
    bar(view(), vi.fn(), { marks: marks(ticket([]), 'p') });
    expect(screen.getByRole<HTMLButtonElement>('checkbox').disabled).toBe(true);
    cleanup();
    const pad = vi.fn();
    const needs: Step['needs'] = [
      { axle: 'rear', quantity: 'toe' },
      { axle: 'front', quantity: 'toe' },
    ];
    bar(view({ visit: 'proved' }), vi.fn(), { gate: { ...g, needs }, pad });
    expect(screen.getByTestId('gate-rear-toe-right').textContent).toContain('rear toe not read');
    await userEvent.click(screen.getByTestId('gate-rear-toe-right'));
    expect(pad).toHaveBeenCalledWith('proved', 'toe', 'rear', 'right');
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
    expect(findingWords(high, 'in', 'decimal')).toBe(
      'Left front height 18 5/8 in: expected 19 5/8 in ±3/16 in',
    );
    expect(findingWords(off, 'mm', 'minutes')).toContain('Left front camber −1°24′');
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
          marks={marks(t, 'p')}
          now={undefined}
          veiled={() => false}
          undo={vi.fn()}
          trims={[]}
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

describe('what was read at a gate', () => {
  it('is found by its wheel, and is nothing where nobody read', () => {
    expect(readAt(view(), 'front', 'left', 'camber')?.value).toBe(-1.4);
    expect(readAt(view(), 'rear', 'left', 'camber')).toBeUndefined();
    expect(readAt(undefined, 'front', 'left', 'camber')).toBeUndefined();
  });
});
