// @vitest-environment happy-dom
// How high can it go, in a DOM: each set named with where it ends and why; pressed, it sets its height and its parts.
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import type { PlanResult, Schemas } from '../../api/client';
import { HeightLadder, ladderWords } from '../../figures/HeightLadder';
import { ladderSets, nearest, setsOf } from './LadderPanel';

type Ladder = Schemas['Ladder'];
afterEach(cleanup);

const ladder = (parts: string[], sure: number | undefined, may: number | undefined, more = {}): Ladder =>
  ({
    parts,
    names: parts.map((p) => p.replace('-', ' ')),
    labour_minutes: 60 * parts.length,
    rungs: [-60, 0, 30, 60, 120].map((gain_mm) => ({
      gain_mm,
      share: { left: 0.5, right: 0.2 },
      may: may !== undefined && gain_mm <= may,
      sure: sure !== undefined && gain_mm <= sure,
    })),
    sure_mm: sure === undefined ? undefined : [-60, sure],
    may_mm: may === undefined ? undefined : [-60, may],
    above: { angle: 'caster', words: 'caster gives out' },
    ...more,
  }) as unknown as Ladder;

const list = [ladder([], 38, 46), ladder(['offset-arm'], 78, 84), ladder(['shims'], undefined, undefined)];
const show = (pick = vi.fn(), fitted: string[] = [], onHeight = vi.fn()) => {
  const ladders = { axle: 'front', ladders: list, highest_mm: 78, says: 'as built to +38 mm' };
  render(
    <HeightLadder
      ladders={ladders as unknown as Schemas['Ladders']}
      unit="mm"
      wanted={65}
      settled={56}
      loaded={undefined}
      fitted={fitted}
      pick={pick}
      onHeight={onHeight}
    />,
  );
  return pick;
};

it('says of each set where it ends and what gives out', () => {
  expect(ladderWords(list[0]!, 'mm')).toBe('sure +38 mm, may +46 mm; above it caster gives out');
  expect(ladderWords(list[2]!, 'mm')).toBe('reaches nowhere here: caster gives out');
  show();
  const figure = screen.getByRole('group');
  expect(figure.getAttribute('aria-label')).toBe('as built to +38 mm. Planned +65 mm.');
  expect(figure.textContent).toContain('nothing here reaches');
  expect(figure.textContent).toContain('settled');
  expect(figure.textContent).not.toContain('loaded');
});

it('sets height and parts by the ladder that is pressed, and offers none that reaches nowhere', () => {
  const pick = show(vi.fn(), ['offset-arm']);
  expect(screen.getByTestId('ladder-offset-arm').getAttribute('aria-pressed')).toBe('true');
  fireEvent.click(screen.getByTestId('ladder-offset-arm'));
  expect(pick.mock.calls[0]).toEqual([78, list[1]]);
  fireEvent.click(screen.getByTestId('ladder-shims'));
  expect(pick).toHaveBeenCalledTimes(1);
});

it('draws no rung where it is not sure', () => {
  show();
  // Two halves a rung: three sure heights as built, four with the arm, none with the shims.
  const rungs = [...document.querySelectorAll('path')].filter((p) =>
    /h-?[\d.]+$/.test(p.getAttribute('d') ?? ''),
  );
  expect(rungs).toHaveLength(2 * (3 + 4));
});

it('asks for what is on the plan and the parts that come nearest', () => {
  const candidates = [
    { status: 'reaches', part: { id: 'a' } },
    { status: 'clash', part: { id: 'b' } },
    { status: 'short', part: { id: 'c' } },
    { status: 'fitted', part: { id: 'd' } },
    { status: 'fouls', part: { id: 'e' } },
    { status: 'short', part: { id: 'f' } },
  ];
  const result = { candidates } as unknown as PlanResult;
  expect(setsOf(['d'], result)).toEqual([['d'], ['a'], ['c'], ['e']]);
  expect(setsOf([], result, 1)).toEqual([['a']]);
});

it('is the slider of the wanted height, and says which set holds there', () => {
  const onHeight = vi.fn();
  show(vi.fn(), [], onHeight);
  const line = screen.getByTestId('ladder-line');
  expect(line.getAttribute('aria-valuetext')).toBe('+65 mm, as built short, offset arm holds, shims short');
  fireEvent.keyDown(line, { key: 'ArrowUp' });
  fireEvent.keyDown(line, { key: 'PageDown' });
  fireEvent.keyDown(line, { key: 'a' });
  expect(onHeight.mock.calls).toEqual([[66], [60]]);
});

it('gives a ladder to the best sets of several parts that were looked for, each once', () => {
  const result = {
    candidates: ['a', 'b'].map((id) => ({ status: 'short', part: { id } })),
  } as unknown as PlanResult;
  const found = [['b'], ['d', 'c'], [], ['a', 'c'], ['c', 'b'], ['x', 'y']];
  expect(ladderSets(['c', 'd'], result, found)).toEqual([
    ['c', 'd'],
    ['a'],
    ['b'],
    ['a', 'c'],
    ['c', 'b'],
    ['x', 'y'],
  ]);
  expect(ladderSets([], result, [])).toEqual([['a'], ['b']]);
});

it('names the nearest height that surely does it, and none where it is in as wanted', () => {
  const l = ladder([], 38.4, 46, { sure_mm: [-20.6, 38.4] });
  expect(nearest(l, 65)).toBe(38);
  expect(nearest(l, -58)).toBe(-20);
  expect(nearest(l, 30)).toBeUndefined();
  expect(nearest(ladder(['shims'], undefined, undefined), 10)).toBeUndefined();
});
