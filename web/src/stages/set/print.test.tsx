// @vitest-environment happy-dom
// The sheet on paper: units with every figure, what is off though nobody opened it, blanks for what was not read.
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import type { Schemas, Ticket } from '../../api/client';
import { SettingsProvider } from '../../ui/settings';
import { PrintSheet } from './PrintSheet';
import { marks, type Sheet } from '../../sheet/sheet';

afterEach(() => {
  cleanup();
  localStorage.clear();
});

const finding: Schemas['GateFinding'] = {
  about: 'caster',
  axle: 'front',
  side: 'right',
  read: 1.2,
  expected: 3.4,
  band: 0.5,
  aim: [3.7, 4.7],
  off_expected: -2.2,
  off_aim: -2.5,
  stale: false,
};
const gate = {
  id: 'reswept',
  kind: 'gate',
  title: 'Re-sweep',
  detail: 'sweep again',
  ticks: [],
  needs: [{ axle: 'front', quantity: 'caster' }],
  orders: [],
  cautions: [],
};
const rods = (orders: object[]) => ({
  id: 'tie-rods',
  kind: 'step',
  title: 'Tie rods',
  detail: 'straight and locked',
  ticks: [],
  needs: [],
  orders,
  cautions: ['Mark first.'],
});
const order = (side: string | null, words: string, axle = 'front') => ({
  axle,
  side,
  line: { name: 'Tie rod', words },
});
const angles = { camber_deg: -0.6, caster_deg: 3.2, toe_deg: 0.01 };
const side = {
  planned_height_mm: 561,
  doubt: { camber_deg: 0.3, caster_deg: 0.5, toe_deg: 0.3 },
  set: angles,
};
const axle = { left: side, right: side, states: [] };
const empty = { height: null, camber: null, caster: null, toe: null };
const read = { front: { left: empty, right: empty }, rear: { left: empty, right: empty } };
const sheet = (orders: object[], off: Schemas['GateFinding'][] = [], rear: object | null = null) =>
  ({
    steps: [gate, rods(orders)],
    gates: [{ id: 'reswept', off, read, ticked: [], missing: [] }],
    cautions: [],
    toe_band_deg: 0.08,
    answer: { axles: { front: axle, rear }, verdict: { reached: true, headline: '', sentence: '' } },
  }) as unknown as Sheet;
const ticket = (done: object[] = [], readings: object[] = []) =>
  ({
    vehicle: { facts: { name: 'Quarry 4x4 pickup' } },
    job: { ticket: 417, plan_id: 'p' },
    base: {},
    done,
    readings,
    visits: [],
  }) as unknown as Ticket;

function paper(t: Ticket, s: Sheet) {
  render(
    <SettingsProvider>
      <PrintSheet
        ticket={t}
        shop="Larkspur Axle & Arm"
        planName="Lift 65"
        planId="p"
        sheet={s}
        marks={marks(t, 'p')}
      />
    </SettingsProvider>,
  );
  return screen.getByTestId('print-sheet').textContent ?? '';
}

describe('the printed sheet', () => {
  it('leaves room for what was not read and prints each order with its side', () => {
    const text = paper(
      ticket(),
      sheet([order('left', '1 turn shorter'), order('right', '2 turns longer', 'rear')]),
    );
    expect(text).toContain('ticket 0417');
    expect(text).toContain('left front caster: ____');
    expect(text).toContain('Front left, Tie rod: 1 turn shorter');
    expect(text).toContain('Rear right, Tie rod: 2 turns longer');
    expect(text).toContain('Mark first.');
  });
  it('prints the rule book it keeps to, and that it is not the plan to set where it is not', () => {
    const t = ticket();
    expect(paper(t, sheet([]))).not.toContain('not the plan');
    cleanup();
    const base = { class_rules: { name: 'Club street', forbid: ['cutting', 'aftermarket_arms'] } };
    const other = { ...t, base, job: { ...t.job, plan_id: 'q' } } as unknown as Ticket;
    const text = paper(other, sheet([]));
    expect(text).toContain('Rule book: Club street: no cutting, factory arms stay.');
    expect(text).toContain('This is not the plan of the job that is the one to set.');
  });
  it('prints one rod of both wheels once', () => {
    const text = paper(ticket(), sheet([order(null, '1 turn shorter')]));
    expect(text).toContain('Front axle, both wheels, Tie rod: 1 turn shorter');
    expect(text.match(/Tie rod:/g)).toHaveLength(1);
  });
  it('says what is off at a gate that nobody opened', () => {
    const text = paper(ticket(), sheet([], [finding]));
    expect(text).toContain('Off, not opened: Right front caster 1.2°');
  });
  it('prints the reason of a gate opened off plan, with what was off then', () => {
    const record = {
      title: 'Re-sweep',
      detail: 'sweep again',
      ordered: [],
      off: [finding],
      reason: 'cams at their end',
    };
    const done = {
      plan_id: 'p',
      step: 'reswept',
      author: 'Specialist A',
      done_at: '2026-11-27T09:00:00Z',
      record,
    };
    const text = paper(ticket([done]), sheet([], [finding]));
    expect(text).toContain('Opened off plan: Right front caster 1.2°');
    expect(text).toContain('Reason: cams at their end');
    expect(text).not.toContain('not opened');
  });
  it('prints the rear first among what is expected, without caster', () => {
    const text = paper(ticket(), sheet([], [], axle));
    expect(text.indexOf('Rear left')).toBeGreaterThan(0);
    expect(text.indexOf('Rear left')).toBeLessThan(text.indexOf('Front left'));
    const row = [...document.querySelectorAll('tr')].find((r) => r.textContent?.startsWith('Rear left'))!;
    expect([...row.querySelectorAll('td')][3]!.textContent).toBe('–');
  });
  it('says of toe that nobody read it, and how wide that is', () => {
    const guessed = { ...axle, expected: [{ angle: 'toe' }] };
    const told = sheet([]);
    const text = paper(ticket(), {
      ...told,
      answer: { ...told.answer, axles: { front: guessed, rear: null } },
    } as never);
    expect(text).toContain('±0.30°, not read');
    expect(text).not.toContain('±0.08°');
  });

  it('gives every band the unit of its figure', () => {
    const s = sheet([]);
    expect(paper(ticket(), s)).toContain('−0.6° ±0.3°');
    cleanup();
    localStorage.setItem('bold-stance.settings', JSON.stringify({ form: 'minutes' }));
    const text = paper(ticket(), s);
    expect(text).toContain('degrees and minutes');
    expect(text).toContain('−0°36′ ±0°18′');
    expect(text).toContain('0°01′ ±0°05′');
  });
});
