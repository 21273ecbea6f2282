// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// The list of parts in a DOM: what does not stand alone is fitted with what it needs, what is on can go on one side only.
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { afterEach, expect, it, vi } from 'vitest';
import type { Candidate, PlanResult } from '../../api/client';
import type { Bench } from '../../shell/ticket';
import { SettingsProvider } from '../../ui/settings';
import { PartsPane } from './PartsPane';

vi.mock('../../figures/PartThumb', () => ({ PartThumb: () => null }));
vi.mock('../../figures/reach', () => ({
  windowOf: () => [
    [-1, 0],
    [2, 4],
  ],
}));
vi.mock('./PlanMenu', () => ({ PlanMenu: () => null }));
vi.mock('./TreadLine', () => ({ TreadLine: () => null }));
vi.mock('./AimDialog', () => ({ AimDialog: () => null }));
vi.mock('./known', () => ({ known: () => [] }));
afterEach(() => {
  cleanup();
  localStorage.clear();
});

const candidate = (id: string, status: string, kit: string[] = []): Candidate =>
  ({
    part: { id, name: `Rear ${id}`, summary: 's', labour_minutes: 60, cost: 100 },
    kit: kit.map((k) => ({ id: k, name: `Rear ${k}`, labour_minutes: 30, cost: 50 })),
    sizes: [],
    status,
    short_deg: 0,
    does: 'camber',
    costs: 'rattles',
    fouls: [],
    left_outline: [],
    right_outline: [],
  }) as unknown as Candidate;

function open(
  candidates: Candidate[],
  current: Candidate,
  more: Partial<Parameters<typeof PartsPane>[0]> = {},
) {
  const shortfall = { camber_deg: 1.2, caster_deg: 0 };
  const result = {
    verdict: { reached: false },
    candidates,
    expected: [],
    left: { shortfall },
    right: { shortfall },
  } as unknown as PlanResult;
  const bench = {
    draft: { aim: { name: 'Even wear', rear_toe_total_deg: [0, 0.3] }, limit_mm: 3 },
    ticket: { tyres: {}, vehicle: { facts: {} } },
  } as unknown as Bench;
  const calls = { fit: vi.fn(), setOnly: vi.fn(), setFitted: vi.fn(), pick: vi.fn() };
  render(
    <MemoryRouter>
      <SettingsProvider>
        <PartsPane
          bench={bench}
          axle="rear"
          result={result}
          fitted={candidates.filter((c) => c.status === 'fitted').map((c) => c.part.id)}
          current={current}
          only={{}}
          {...calls}
          {...more}
        />
      </SettingsProvider>
    </MemoryRouter>,
  );
  return calls;
}

it('fits a part with what it does not stand without, and counts the work of both', () => {
  const arm = candidate('camber-arm', 'reaches', ['toe-arm']);
  const { fit } = open([arm, candidate('plain', 'short')], arm);
  expect(screen.getByTestId('kit-camber-arm').textContent).toBe(
    'with rear toe-arm: it does not stand without',
  );
  expect(screen.getByTestId('part-camber-arm').textContent).toContain('1.5 h');
  expect(screen.queryByTestId('kit-plain')).toBeNull();
  const press = screen.getByTestId('fit');
  expect(press.textContent).toBe('Fit rear camber-arm and rear toe-arm');
  fireEvent.click(press);
  expect(fit).toHaveBeenCalledTimes(1);
});

it('puts what is on on one side, and back on both', () => {
  const on = candidate('sleeve', 'fitted');
  const { setOnly } = open([on], on);
  fireEvent.click(screen.getByTestId('side-left'));
  expect(setOnly).toHaveBeenLastCalledWith('sleeve', 'left');
  cleanup();
  const again = open([on], on, { only: { sleeve: 'left' } });
  const sides = screen.getByRole('group', { name: 'Which side rear sleeve goes on' });
  expect(within(sides).getByTestId('side-left').getAttribute('aria-pressed')).toBe('true');
  fireEvent.click(screen.getByTestId('side-both'));
  expect(again.setOnly).toHaveBeenLastCalledWith('sleeve', undefined);
});

it('offers no side of what is not on', () => {
  const off = candidate('sleeve', 'reaches');
  open([off], off);
  expect(screen.queryByTestId('side-left')).toBeNull();
});
