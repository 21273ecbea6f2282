// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// A loose adjuster watched on a gauge, in a DOM: from where it stands, to go, there, past, and what it is told as.
import { act, cleanup, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { Schemas } from '../api/client';
import type { LiveGauge } from '../gauge/useGauge';
import user from '../test/user';
import { SettingsProvider } from '../ui/settings';
import { Loose } from './Loose';

const gauge = vi.hoisted(() => ({
  now: {} as Partial<LiveGauge>,
  heard: (() => {}) as (deg: number) => void,
  said: [] as string[],
}));
vi.mock('../gauge/useGauge', () => ({
  useGauge: (heard: (deg: number) => void) => {
    gauge.heard = heard;
    return gauge.now;
  },
}));
vi.mock('../pad/say', () => ({ say: (t: string) => gauge.said.push(t) }));
vi.mock('../shell/ticket', () => ({
  useBench: () => ({
    draft: { aim: { camber_deg: [-0.5, 0.5], caster_deg: [2, 4], toe_total_deg: [0, 0.2] } },
  }),
}));

beforeEach(() => {
  gauge.now = { present: true, angle: { deg: 0, held: false, zeroed: false } };
  gauge.said = [];
  localStorage.clear();
});
afterEach(cleanup);

const hand = (camber = 1): Schemas['InHand'] =>
  ({
    counted: 'notches',
    ordered: 4,
    before: [-1, 3, 0],
    after: [-1 + camber, 2.6, 0.3],
    path: [
      { share: 0, camber_deg: -1, caster_deg: 3, toe_deg: 0 },
      { share: 0.5, camber_deg: -1 + camber * 0.5, caster_deg: 2.8, toe_deg: 0.1 },
      { share: 1, camber_deg: -1 + camber, caster_deg: 2.6, toe_deg: 0.3 },
      { share: 1.25, camber_deg: -1 + camber * 1.25, caster_deg: 2.5, toe_deg: 0.4 },
    ],
  }) as unknown as Schemas['InHand'];
const use = vi.fn();
const open = (h = hand()) =>
  render(
    <SettingsProvider>
      <Loose hand={h} side="left" axle="front" use={use} />
    </SettingsProvider>,
  );
/** A second of the same angle, as the gauge shows it: 0.3 off what the sheet says. */
const shows = (deg: number) =>
  act(async () => Array.from({ length: 8 }).forEach(() => gauge.heard(deg + 0.3)));
const left = () => screen.getByTestId('loose-left').textContent?.trim();

it('follows from where the wheel stands, whatever the gauge reads there', async () => {
  open();
  expect(screen.getByTestId('loose-start').hasAttribute('disabled')).toBe(true);
  await shows(-1);
  expect(screen.getByTestId('loose').textContent).toContain('−0.70°');
  await user.click(screen.getByTestId('loose-start'));
  expect(left()).toBe('4 notches left');
  await shows(-0.75);
  expect(left()).toBe('3 notches left');
  expect(screen.getByTestId('live-turn').getAttribute('aria-label')).toContain('25 in 100 of the order');
  await shows(-0.25);
  expect(left()).toBe('1 notch left');
  expect(gauge.said).toEqual([]);
  await shows(0);
  expect(left()).toBe('Stop: there');
  // Said once, however long it stays there.
  await shows(0.01);
  expect(gauge.said).toEqual(['stop']);
  await shows(0.25);
  expect(left()).toBe('1 notch back');
  await user.click(screen.getByTestId('loose-use'));
  expect(use).toHaveBeenCalledWith('5');
  await user.click(screen.getByTestId('loose-again'));
  expect(screen.queryByTestId('loose-left')).toBeNull();
});

it('says where the gauge does not show it, and offers a cable where there is none', async () => {
  open(hand(0.1));
  expect(screen.getByTestId('loose-none').textContent).toContain('Count it');
  cleanup();
  const connect = vi.fn();
  gauge.now = { present: false, connect };
  open();
  await user.click(screen.getByTestId('gauge-cable'));
  expect(connect).toHaveBeenCalledOnce();
  cleanup();
  gauge.now = { present: false };
  const { container } = open();
  expect(container.textContent).toBe('');
});

it('tells what it was turned the other way as such, and says each amount with what it is counted in', async () => {
  open();
  await shows(-1);
  await user.click(screen.getByTestId('loose-start'));
  // A quarter of the order in the wrong direction.
  await shows(-1.25);
  expect(left()).toBe('5 notches left');
  await user.click(screen.getByTestId('loose-use'));
  expect(use).toHaveBeenLastCalledWith('-1');
  const counted = (of: string, ordered: number) => ({ ...hand(), counted: of, ordered }) as Schemas['InHand'];
  for (const [h, unit, words] of [
    [counted('turns', 2), 'mm', '2 turns left'],
    [counted('turns', 0.5), 'mm', '1/2 turn left'],
    [counted('degrees', 2.5), 'mm', '2.5° left'],
    [counted('length', 6.35), 'mm', 'about 6.3 mm left'],
    [counted('length', 6.35), 'in', 'about 1/4 in left'],
  ] as const) {
    cleanup();
    localStorage.setItem('bold-stance.settings', JSON.stringify({ unit, form: 'decimal' }));
    open(h);
    await shows(-1);
    await user.click(screen.getByTestId('loose-start'));
    expect(left()).toBe(words);
  }
});

it('believes no gauge that is held, silent, or counts from elsewhere since', async () => {
  open();
  await shows(-1);
  await user.click(screen.getByTestId('loose-start'));
  expect(left()).toBe('4 notches left');
  let deg = -0.5;
  const quiet = async (angle: LiveGauge['angle'], words: string) => {
    gauge.now = { present: true, angle };
    await shows((deg += 0.1));
    expect(screen.queryByTestId('loose-left')).toBeNull();
    expect(screen.queryByTestId('loose-use')).toBeNull();
    expect(screen.getByTestId('loose').textContent).toContain(words);
  };
  await quiet({ deg: 0, held: true, zeroed: false }, 'held');
  await quiet({ deg: 0, held: false, zeroed: true }, 'zeroed since');
  await quiet(undefined, 'is it on?');
});
