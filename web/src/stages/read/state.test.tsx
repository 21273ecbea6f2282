// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// What was read, as a table and as suspicions, in a DOM: units of figures and doubts, what is stale, and the way to a reading.
import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '../../test/user';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { SettingsProvider } from '../../ui/settings';
import type { Figure, Method, Suspicion, VisitView } from '../../pad/readings';
import { FiguresTable } from './FiguresTable';
import { Suspicions } from './Suspicions';

const figure = (over: Partial<Figure>): Figure =>
  ({
    quantity: 'camber',
    place: { axle: 'front', side: 'left' },
    value: -0.8,
    sigma: 0.105,
    method: 'camber-gauge',
    visit: 'found',
    reading: 'r1',
    at: Date.now() / 1000 - 600,
    stale: null,
    shared: false,
    ...over,
  }) as Figure;
const view = (over: Partial<VisitView['picture']>, suspicions: Suspicion[] = []): VisitView =>
  ({
    kind: 'found',
    suspicions,
    picture: { order: [], current: [], derived: [], missing: [], decision: 'Plan', ...over },
  }) as unknown as VisitView;
const methods = [{ id: 'camber-gauge', title: 'Camber gauge' }] as unknown as Method[];
const work = (unit: 'mm' | 'in', form: 'decimal' | 'minutes') =>
  localStorage.setItem('bold-stance.settings', JSON.stringify({ unit, form, theme: 'day' }));
const table = (v: VisitView, open = vi.fn()) => {
  render(
    <SettingsProvider>
      <FiguresTable view={v} open={open} methods={methods} />
    </SettingsProvider>,
  );
  return open;
};

beforeEach(() => work('mm', 'decimal'));
afterEach(() => {
  cleanup();
  localStorage.clear();
});

describe('the table of what was read', () => {
  const height = figure({ quantity: 'height', value: 498.475, sigma: 1 });
  const gap = {
    id: 'height_gap_front',
    label: 'Front, left less right',
    value: -3.2,
    sigma: 1.4,
    is_angle: false,
    stale: false,
    words: 'right higher',
  };
  const all = view({ current: [figure({}), height], derived: [gap] });

  it('tells value and doubt in millimetres and degrees', () => {
    table(all);
    expect(screen.getByTestId('value-camber-front-left').textContent).toBe('−0.8°');
    expect(screen.getByTestId('value-height-front-left').textContent).toBe('498 mm');
    expect(screen.getByTestId('derived-height_gap_front').textContent).toContain('±2.3 mm right higher');
    expect(document.body.textContent).not.toMatch(/\d in\b|′/);
  });

  it('tells both in inches and minutes, with nothing of the other left', () => {
    work('in', 'minutes');
    table(all);
    expect(screen.getByTestId('value-camber-front-left').textContent).toBe('−0°48′');
    expect(screen.getByTestId('value-height-front-left').textContent).toBe('19 5/8 in');
    expect(document.body.textContent).toContain('±0°10′');
    expect(screen.getByTestId('derived-height_gap_front').textContent).toContain('±1/16 in right higher');
    expect(document.body.textContent).not.toMatch(/mm|\d\.\d/);
  });

  it('says why a figure no longer holds, at which visit it was read, and that it is half of both', () => {
    const stale = 'the cams were moved after it was read';
    table(
      view({
        current: [
          figure({ stale, visit: 'settled' }),
          figure({ quantity: 'toe', value: 0.1, sigma: 0.02, shared: true }),
        ],
      }),
    );
    const cell = screen.getByTestId('value-camber-front-left').closest('button')!;
    expect(within(cell).getByTestId('stale-camber-front-left').textContent).toContain(stale);
    expect(cell.textContent).toContain('after height');
    expect(cell.title).toBe('Camber gauge');
    expect(screen.getByTestId('value-toe-front-left').closest('button')!.textContent).toContain(
      'half of both',
    );
  });

  it('opens the reading that is pressed, read or not, and asks no caster of the rear', async () => {
    const open = table(all);
    await userEvent.click(screen.getByTestId('value-camber-front-left'));
    expect(open).toHaveBeenLastCalledWith({ quantity: 'camber', place: { axle: 'front', side: 'left' } });
    const unread = screen.getAllByText('not read');
    // Four rows of four wheels without caster behind, two of them read.
    expect(unread).toHaveLength(14 - 2);
    await userEvent.click(unread.at(-1)!);
    expect(open).toHaveBeenLastCalledWith({ quantity: 'toe', place: { axle: 'rear', side: 'right' } });
  });
});

describe('what looks odd', () => {
  const odd = (rule: string, over: Partial<Suspicion> = {}): Suspicion =>
    ({
      rule,
      place: { axle: 'front', side: 'right' },
      quantity: 'camber',
      reading: 'r1',
      says: `${rule} says`,
      why: `${rule} why`,
      settle: `${rule} settle`,
      ...over,
    }) as Suspicion;
  const order = [{ figure: figure({}) }] as unknown as VisitView['picture']['order'];

  it('opens the first, names each with why and what settles it, and leads to the reading', async () => {
    const open = vi.fn();
    const list = [odd('jacked'), odd('floor_pattern', { place: null, quantity: null, reading: null })];
    render(<Suspicions view={view({ order }, list)} open={open} />);
    expect(screen.getByTestId('odd-count').textContent).toBe('2 to look at');
    const [first, second] = ['jacked', 'floor_pattern'].map((r) => screen.getByTestId(`odd-${r}`));
    expect((first as HTMLDetailsElement).open).toBe(true);
    expect((second as HTMLDetailsElement).open).toBe(false);
    for (const t of ['says', 'why', 'settle']) expect(first!.textContent).toContain(`jacked ${t}`);
    await userEvent.click(within(first!).getByRole('button', { name: 'Read it again' }));
    expect(open).toHaveBeenCalledWith({ quantity: 'camber', place: { axle: 'front', side: 'right' } });
    // What is about the visit has no one reading to go to.
    expect(within(second!).queryByRole('button')).toBeNull();
  });

  it('tells nothing odd from nothing read', () => {
    const { rerender } = render(<Suspicions view={view({ order })} open={vi.fn()} />);
    expect(screen.getByTestId('odd-count').textContent).toBe('Nothing looks odd');
    rerender(<Suspicions view={view({})} open={vi.fn()} />);
    expect(screen.getByTestId('odd-count').textContent).toBe('Nothing to check yet');
  });
});
