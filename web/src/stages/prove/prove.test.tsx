// @vitest-environment happy-dom
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { AxleLies } from '../../figures/AxleLies';
import { Quoits } from '../../figures/Quoits';
import userEvent from '../../test/user';
import { SettingsProvider } from '../../ui/settings';
import { Explains, inHundred } from './Explains';
import { explained, liesOf, quoitsOf, secondOf, tag, worstOf } from './quoits';
import { Wheels } from './Wheels';

afterEach(cleanup);

type Angle = Schemas['AngleProved'];
type Wheel = Schemas['WheelProved'];
const came = (value_deg: number, stale = false) => ({
  value_deg,
  band_deg: 0.1,
  stale,
  at: '2026-01-02T10:00:00Z',
});
const of = (angle: Angle['angle'], more: Partial<Angle> = {}): Angle => ({
  angle,
  found_deg: 0.4,
  before_deg: -0.2,
  said_deg: -0.9,
  said_band_deg: 0.2,
  came: came(-0.7),
  aim_deg: [-1.3, -0.6],
  as_said: true,
  off_aim_deg: 0,
  past: false,
  ...more,
});
const wheel = (side: 'left' | 'right', angles: Angle[], more: Partial<Wheel> = {}): Wheel => ({
  axle: 'front',
  side,
  angles,
  stands: 'on_aim',
  ...more,
});
const caster = (more: Partial<Angle> = {}) =>
  of('caster', { said_deg: 4.7, before_deg: 3.7, came: came(5.1), aim_deg: [4.2, 4.9], ...more });
const proved = (wheels: Wheel[], more: Partial<Schemas['Proved']> = {}): Schemas['Proved'] => ({
  wheels,
  off: [],
  thrust_deg: null,
  waits: [],
  on_aim: false,
  headline: 'h',
  sentence: 's',
  ...more,
});
const over = caster({ off_aim_deg: 0.2, past: true, as_said: false });
const both = proved([
  wheel('left', [of('camber'), over, of('toe', { aim_deg: null })], { stands: 'off' }),
  wheel('right', [of('camber'), caster({ came: came(4.6) }), of('toe')]),
]);
const order = (sets_toe: boolean, direction = 'inboard') =>
  ({ name: 'it', sets_toe, direction }) as unknown as Schemas['SettingLine'];
const side = (more: object = {}) =>
  ({
    orders: [order(false)],
    expect: [-0.8, 4.8, 0.05],
    odd: [],
    ...more,
  }) as unknown as NonNullable<Schemas['AxleLeft']['sides']['left']>;

describe('what is drawn of an axle', () => {
  it('stands caster over camber, or toe where caster is not asked', () => {
    expect(secondOf(both, 'front')).toBe('caster');
    expect(secondOf(proved([wheel('left', [of('camber'), of('toe')], { axle: 'rear' })]), 'rear')).toBe(
      'toe',
    );
  });
  it('hops only where something is left to turn, and toe waits for its step', () => {
    const left = {
      axle: 'front',
      worked: true,
      sides: { left: side(), right: side({ orders: [order(true)] }) },
    } as const;
    const [l, r] = quoitsOf(both, left, 'front', false);
    expect(l!.hop).toEqual([-0.8, 4.8]);
    expect(r!.hop).toBeUndefined();
    expect(quoitsOf(both, left, 'front', true)[1]!.hop).toEqual([-0.8, 4.8]);
    expect(l!.off).toEqual({ word: 'caster', by: 0.2, way: 'past' });
    expect(quoitsOf(both, undefined, 'rear', true)).toEqual([]);
  });
  it('has no peg before it was read, and a hollow one when it is stale', () => {
    const p = proved([
      wheel('left', [of('camber', { came: null }), caster()]),
      wheel('right', [of('camber'), caster({ came: came(4.6, true) })]),
    ]);
    const [l, r] = quoitsOf(p, undefined, 'front', true);
    expect(l!.came).toBeUndefined();
    expect(r!.came?.stale).toBe(true);
    expect(worstOf(p.wheels[0]!)).toBeUndefined();
  });
  it('puts the explanations of both wheels in one order', () => {
    const odd = (what: string, odds: number) => ({ what, odds, given: [-1, 5, 0] });
    const list = explained({
      axle: 'front',
      worked: true,
      sides: {
        left: side({ odd: [odd('a', 0.6), odd('b', 0.1)] }),
        right: side({ odd: [odd('c', 0.3), odd('d', 0.05)] }),
      },
    });
    expect(list.map((e) => e.side + e.what)).toEqual(['lefta', 'rightc', 'leftb']);
    expect([tag(0), tag(2)]).toEqual(['A', 'C']);
  });
});

it('says the field in words: said, came, and what is past', () => {
  render(
    <Quoits
      axle="front"
      second="caster"
      quoits={quoitsOf(both, undefined, 'front', true)}
      would={[{ tag: 'A', at: [-0.75, 5.2] }]}
      form="decimal"
    />,
  );
  const name = screen.getByTestId('quoits-front').getAttribute('aria-label')!;
  expect(name).toContain(
    'left front: said camber −0.9°, caster 4.7°, came camber −0.7°, caster 5.1°, caster 0.2° past',
  );
  expect(screen.getByText('left caster 0.2° past')).toBeTruthy();
  expect(screen.getByText('A')).toBeTruthy();
  // One window where both are aimed alike.
  expect(screen.getAllByText('should be')).toHaveLength(1);
});

it('draws each window where left and right are aimed apart', () => {
  const p = proved([
    wheel('left', [of('camber'), caster()]),
    wheel('right', [of('camber', { aim_deg: [-1, -0.4] }), caster()]),
  ]);
  render(
    <Quoits
      axle="front"
      second="caster"
      quoits={quoitsOf(p, undefined, 'front', true)}
      would={[]}
      form="minutes"
    />,
  );
  expect(screen.getByText('left should be')).toBeTruthy();
  expect(screen.getByText('right should be')).toBeTruthy();
});

it('says odds that are never certain, and the one look', () => {
  expect([inHundred(1), inHundred(0), inHundred(0.857)]).toEqual([99, 1, 86]);
  render(
    <Explains
      list={[{ side: 'left', what: 'Front cam moves more.', odds: 0.86, given: [] }]}
      looks={[
        null,
        { what: 'Measure it.', minutes: 5, bits: 0.4 },
        { what: 'Roll it.', minutes: 4, bits: 0.1 },
      ]}
    />,
  );
  expect(screen.getByTestId('explains').textContent).toContain('86 in 100');
  expect(screen.getByTestId('prove-look').textContent).toContain('Measure it. 5 min.');
});

it('tells of every wheel how it stands, and picks its axle', async () => {
  const pick = vi.fn();
  const rear = wheel('left', [of('camber', { came: null }), of('toe', { came: came(0.1, true) })], {
    axle: 'rear',
    stands: 'not_read',
  });
  render(
    <SettingsProvider>
      <Wheels
        proved={{ ...both, wheels: [rear, ...both.wheels], thrust_deg: -0.06 }}
        focus="front"
        pick={pick}
      />
    </SettingsProvider>,
  );
  expect(screen.getByTestId('wheel-front-left').textContent).toContain('caster 0.2° past');
  expect(screen.getByTestId('wheel-front-left').textContent).toContain('caster, otherwise');
  expect(screen.getByTestId('wheel-front-right').textContent).toContain('On aim');
  expect(screen.getByTestId('wheel-rear-left').textContent).toContain('Not read');
  expect(screen.getByTestId('prove-thrust').textContent).toContain('to the left');
  await userEvent.click(screen.getByTestId('wheel-rear-left'));
  expect(pick).toHaveBeenCalledWith('rear');
});

it('draws how an axle lies, as found and as it came, in words for who cannot see it', () => {
  const placed = [
    {
      axle: 'rear' as const,
      what: 'wheelbase' as const,
      found_mm: 6.4,
      came_mm: -1,
      stale: false,
      most_mm: 4,
    },
    { axle: 'rear' as const, what: 'centre' as const, found_mm: -8, came_mm: 2, stale: false, most_mm: 3.2 },
  ];
  expect(liesOf(placed, 'front')).toBeUndefined();
  const lies = liesOf(placed, 'rear')!;
  render(<AxleLies {...lies} axle="rear" unit="mm" />);
  const said = screen.getByTestId('lies-rear').getAttribute('aria-label')!;
  expect(said).toContain('As found: wheelbase 6 mm longer left, 8 mm too far left');
  expect(said).toContain('Now: wheelbase 1 mm longer right, 2 mm too far right');
  expect(said).toContain('wheelbases within 4 mm, within 3 mm of the middle');
  cleanup();
  render(<AxleLies {...lies} came={{}} axle="rear" unit="mm" />);
  expect(screen.getByTestId('lies-rear').textContent).toContain('not measured since the work');
});
