// The plan's drawings, drawn from answers of the real model (web/fixtures, held to it by core/trade/tests/all/figure_fixtures.rs).
import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import type { Aim, PlanResult, Schemas, SideName } from '../api/client';
import { angle, num } from '../units/print';
import { CamFigure, TieRodFigure } from './CamFigure';
import { HeightCurves, valueAt } from './HeightCurves';
import { JointView } from './JointView';
import { LockMap } from './LockMap';
import { Overlay } from './Overlay';
import { place } from './place';
import { PartThumb } from './PartThumb';
import { second, sideWords, windowOf } from './reach';
import { ReachMap } from './ReachMap';
import driftJson from '../../fixtures/drift.json';
import fittedJson from '../../fixtures/fitted.json';
import rearJson from '../../fixtures/rear.json';
import shortJson from '../../fixtures/short.json';
import stoppedJson from '../../fixtures/stopped.json';

interface Case {
  aim: Aim;
  planned: number;
  result: PlanResult;
}
const [drift, fitted, rear, short, stopped] = [
  driftJson,
  fittedJson,
  rearJson,
  shortJson,
  stoppedJson,
] as unknown as [Case, Case, Case, Case, Case];
const all: [string, Case][] = [
  ['short', short],
  ['fitted', fitted],
  ['stopped', stopped],
  ['drift', drift],
  ['rear', rear],
];
const sides: SideName[] = ['left', 'right'];

/** Words of a drawing, without its marks. */
const words = (html: string) => html.replace(/<[^>]+>/g, ' ').replace(/\s+/g, ' ');
const whole = (html: string) => expect(html).not.toMatch(/NaN|Infinity|undefined/);

const map = (c: Case, focus: SideName | 'both', over: object = {}) =>
  renderToStaticMarkup(
    <ReachMap
      result={c.result}
      aim={c.aim}
      focus={focus}
      planned={c.planned}
      form="decimal"
      stale={false}
      {...over}
    />,
  );

describe('the reach map', () => {
  it.each(all)('%s: draws every focus whole', (_, c) => {
    for (const f of ['left', 'right', 'both'] as const) whole(map(c, f));
    for (const candidate of c.result.candidates) whole(map(c, 'both', { candidate, stale: true }));
  });
  it('says the same before its weave has come', () => {
    const bare = (side: PlanResult['left']): PlanResult['left'] => ({
      ...side,
      ...(side.reach && { reach: { ...side.reach, outline: [], dots: [], threads: [] } }),
    });
    for (const [, c] of all) {
      const result: PlanResult = {
        ...c.result,
        left: bare(c.result.left),
        right: bare(c.result.right),
        candidates: c.result.candidates.map((x) => ({ ...x, left_outline: [], right_outline: [] })),
      };
      const html = map({ ...c, result }, 'both', { candidate: result.candidates[0] });
      whole(html);
      expect(html).not.toContain('<circle cx="NaN"');
      expect(words(html)).toContain('Aim window');
      const short = /short \S+/.exec(words(map(c, 'both')))?.[0];
      if (short) expect(words(html)).toContain(short);
    }
  });
  it('says how far short each side is, and only of the sides looked at', () => {
    const gap = short.result.left.shortfall.caster_deg;
    expect(gap).toBeGreaterThan(0.1);
    const left = words(map(short, 'left'));
    expect(left).toContain('left caster');
    expect(left).toContain(`short ${angle(gap, 'decimal')}`);
    expect(left).not.toContain('right caster');
    const both = words(map(short, 'both'));
    expect(both).toContain('left caster');
    expect(both).toContain('right caster');
  });
  it('says so when both sides land, with the figures they land on', () => {
    const html = words(map(fitted, 'both'));
    for (const s of sides) {
      const set = fitted.result[s].set;
      expect(html).toContain(`${angle(set.camber_deg, 'decimal')} · ${angle(set.caster_deg, 'decimal')}`);
    }
    expect(html).not.toContain('short');
  });
  it('weaves one dot for every whole notch of the side in front', () => {
    const dots = short.result.left.reach!.dots.length;
    expect(dots).toBeGreaterThan(20);
    const count = (map(short, 'left').match(/<circle/g) ?? []).length;
    expect(count).toBeGreaterThanOrEqual(dots);
  });
  it('names camber and caster in front, camber and toe behind', () => {
    expect(second(short.result)).toMatchObject({ key: 'caster_deg', word: 'caster' });
    expect(second(rear.result)).toMatchObject({ key: 'toe_deg', word: 'toe' });
    expect(words(map(rear, 'left'))).toMatch(/toe/);
    expect(words(map(short, 'left'))).toContain('top leans in');
    const [c, t] = windowOf(rear.result, rear.aim);
    expect(c).toEqual(rear.aim.rear_camber_deg);
    expect(t[1]).toBeCloseTo(rear.aim.rear_toe_total_deg![1]! / 2);
    expect(windowOf(short.result, short.aim)[1]).toEqual(short.aim.caster_deg);
  });
  it('speaks for those who do not see it', () => {
    const l = short.result.left;
    expect(sideWords('left', l, 'decimal')).toBe(
      `Left, camber ${num(l.set.camber_deg, 1)}°, caster ${num(l.set.caster_deg, 1)}°, short ${num(l.shortfall.caster_deg, 1)}° caster`,
    );
    expect(sideWords('right', fitted.result.right, 'minutes')).toMatch(/^Right on aim, camber /);
    expect(sideWords('left', rear.result.left, 'decimal', true)).toContain('toe');
  });
  it('prints minutes when minutes are asked for', () => {
    expect(words(map(short, 'left', { form: 'minutes' }))).toMatch(/short \d°\d\d′/);
  });
  it('draws a part at a glance, its outline dashed until it is fitted', () => {
    const thumb = (on: boolean) =>
      renderToStaticMarkup(
        <PartThumb
          window={windowOf(short.result, short.aim)}
          base={short.result.left.reach!.outline as [number, number][]}
          part={short.result.candidates[0]!.left_outline as [number, number][]}
          fitted={on}
        />,
      );
    expect(thumb(false)).toContain('stroke-dasharray="5 3"');
    expect(thumb(true)).not.toContain('stroke-dasharray');
    whole(thumb(true));
  });
});

describe('labels', () => {
  it('are put where nothing is, inside the area, off the boxes there already', () => {
    const area = { x: 0, y: 0, w: 400, h: 300 };
    const taken = [{ x: 0, y: 0, w: 200, h: 300 }];
    const b = place(area, 100, 40, [50, 50], [[350, 250]], taken);
    expect(b.x).toBeGreaterThanOrEqual(200);
    expect(b.x + b.w).toBeLessThanOrEqual(400);
    expect(b.y + b.h).toBeLessThanOrEqual(300);
    expect(350 > b.x && 350 < b.x + b.w && 250 > b.y && 250 < b.y + b.h).toBe(false);
  });
});

describe('height curves', () => {
  const curves = (c: Case, lead: SideName = 'left') =>
    renderToStaticMarkup(
      <HeightCurves
        result={c.result}
        lead={lead}
        planned={c.planned}
        settle={9}
        load={20}
        form="decimal"
        unit="mm"
        onHeight={() => undefined}
      />,
    );
  it('names its ticks in the units that are worked in', () => {
    const html = renderToStaticMarkup(
      <HeightCurves
        result={fitted.result}
        lead="left"
        planned={fitted.planned}
        settle={0}
        load={0}
        form="minutes"
        unit="in"
        onHeight={() => undefined}
      />,
    );
    const said = [...html.matchAll(/<text[^>]*>([^<]+)<\/text>/g)].map((m) => m[1]!);
    expect(said).toContain('+1″');
    expect(said.some((t) => /^−?\d+′$/.test(t))).toBe(true);
    expect(said.filter((t) => /\d\.\d/.test(t) || /^[+−]?\d\d+$/.test(t))).toEqual([]);
  });
  it.each(all)('%s: pass through what is told at the planned height', (_, c) => {
    // At the end of the travel the arms swing fast between two computed heights.
    for (const s of c.result.stop ? [] : sides) {
      const { curve, after } = c.result[s];
      expect(valueAt(curve, 'camber', c.planned)).toBeCloseTo(after.camber_deg, 1);
      expect(valueAt(curve, 'toe', c.planned)).toBeCloseTo(after.toe_deg, 1);
    }
    whole(curves(c));
    whole(curves(c, 'right'));
  });
  it('are between their points straight, and nothing outside', () => {
    const curve = short.result.left.curve;
    const [a, b] = [curve[3]!, curve[4]!];
    const mid = (a.height_mm + b.height_mm) / 2;
    expect(valueAt(curve, 'caster', mid)).toBeCloseTo((a.caster_deg + b.caster_deg) / 2);
    expect(valueAt(curve, 'caster', 5000)).toBeUndefined();
    expect(valueAt([], 'caster', 0)).toBeUndefined();
  });
  it('are three in front and two behind, each a slider that says its value', () => {
    expect(curves(short).match(/role="slider"/g)).toHaveLength(3);
    expect(curves(rear).match(/role="slider"/g)).toHaveLength(2);
    const l = short.result.left;
    expect(curves(short)).toContain(
      `aria-valuetext="front +65 millimetres, caster ${num(l.after.caster_deg, 2)} degrees"`,
    );
    expect(words(curves(short))).toContain(`Camber ${angle(l.before.camber_deg, 'decimal')} →`);
  });
  it('end at a wall where the travel ends', () => {
    expect(stopped.result.stop).toBeTruthy();
    expect(stopped.result.stop!.used_mm).toBeLessThan(220);
    expect(curves(stopped)).toContain('stroke-width="3"');
  });
});

describe('the joint view', () => {
  const view = (c: Case, side: SideName) => {
    const p = c.result[side];
    return renderToStaticMarkup(
      <JointView
        side={side}
        before={p.drawing_before}
        now={p.drawing_after}
        beforeAngles={p.before}
        angles={p.after}
        text={(d) => angle(d, 'decimal')}
        size={(mm) => `${num(mm)} mm`}
        lift="+65 mm"
      />,
    );
  };
  it.each(all)('%s: both corners, front and side', (_, c) => sides.forEach((s) => whole(view(c, s))));
  it('says where it is seen from and which way is out', () => {
    const [l, r] = sides.map((s) => words(view(short, s)));
    for (const w of ['from the front', 'outboard ▸', '◂ nose', 'from the left · true scale'])
      expect(l).toContain(w);
    for (const w of ['from the front', '◂ outboard', 'nose ▸', 'from the right · true scale'])
      expect(r).toContain(w);
  });
  it('tells the angles with what they were', () => {
    const p = short.result.left;
    const l = words(view(short, 'left'));
    for (const v of [p.after.camber_deg, p.after.caster_deg, p.after.sai_deg, p.before.caster_deg])
      expect(l).toContain(angle(v, 'decimal'));
    expect(l).toContain('+65 mm');
  });
  it('leans the wheel by its camber, mirrored on the other side', () => {
    const lean = (s: SideName) =>
      Number(/rotate\((-?[\d.]+) /.exec(view(short, s).split('stroke-width="1.5"')[1]!)?.[1]);
    expect(lean('left')).toBeCloseTo(short.result.left.after.camber_deg, 3);
    expect(lean('right')).toBeCloseTo(-short.result.right.after.camber_deg, 3);
  });
  it('speaks of toe and track where nothing steers', () => {
    const l = words(view(rear, 'left'));
    expect(l).toContain('half track');
    expect(l).toContain('toe, in +');
    expect(l).not.toContain('scrub');
  });
});

describe('full lock', () => {
  it('shows both wheels’ roles and the aim at lock', () => {
    const html = renderToStaticMarkup(
      <LockMap result={drift.result} aim={drift.aim} focus="both" form="decimal" />,
    );
    whole(html);
    const set = drift.result.left.lock!.set;
    expect(words(html)).toContain(
      `outside ${angle(set.outer_deg, 'decimal')}, inside ${angle(set.inner_deg, 'decimal')}`,
    );
    expect(words(html)).toMatch(/outside wheel at \d+° of turn/);
    expect(html.includes('Aim at lock')).toBe(!!drift.aim.lock);
  });
  it('says that there is no steering axis behind', () => {
    const html = renderToStaticMarkup(
      <LockMap result={rear.result} aim={rear.aim} focus="left" form="decimal" />,
    );
    expect(html).toContain('No steering axis');
    whole(html);
  });
});

describe('what to turn', () => {
  const line = (over: Partial<Schemas['SettingLine']>): Schemas['SettingLine'] => ({
    amount: '2 notches',
    at_end: false,
    direction: 'outboard',
    is_cam: true,
    movement: 45,
    movement_mm: 3,
    name: 'Front cam',
    notch_deg: 22.5,
    position: 45,
    sets_toe: false,
    steps: 2,
    way: 'outboard',
    words: '2 notches outboard',
    ...over,
  });
  const cam = (l: Schemas['SettingLine'], side: SideName) =>
    renderToStaticMarkup(<CamFigure line={l} side={side} />);
  it('numbers the target notch and puts out on the outboard side of the card', () => {
    const [l, r] = sides.map((s) => cam(line({}), s));
    expect(l).toContain('aria-label="left Front cam: 2 notches outboard"');
    expect(words(l!)).toContain('2');
    expect(words(l!)).toContain('◂ out');
    expect(words(r!)).toContain('out ▸');
    // The disc goes to the outboard wall: left on the left card, right on the right one.
    const disc = (h: string) => Number(/cx="([\d.]+)"[^>]*fill="var\(--well\)"/.exec(h)![1]);
    expect(disc(l!)).toBeLessThan(75);
    expect(disc(r!)).toBeGreaterThan(75);
  });
  it.each([8, 12, 16, 24])('counts the notches of this very cam: %i in half a turn', (n) => {
    const notch_deg = 180 / n;
    const l = line({
      notch_deg,
      position: 3 * notch_deg,
      movement: 3 * notch_deg,
      steps: 3,
      words: '3 notches outboard',
    });
    const html = cam(l, 'left');
    // The number drawn is the number said, and the comb has every notch of the half turn.
    expect(words(html)).toContain('3');
    expect((html.match(/stroke-width="(1.4|2.4|4)"/g) ?? []).length).toBeGreaterThanOrEqual(n + 1);
    // The hand points at the target: its angle is the position.
    const hand = /M75 80L([\d.]+) ([\d.]+)"[^>]*stroke-width="2.6"/.exec(html)!;
    const turned = (Math.atan2(Number(hand[1]) - 75, 80 - Number(hand[2])) * 180) / Math.PI;
    expect(turned).toBeCloseTo(-3 * notch_deg, 6);
  });
  it('draws a cam between notches where it stands, and counts none', () => {
    const html = cam(
      line({ position: 0, movement: 10, steps: 0.444, words: '10° outboard, to the centre mark' }),
      'left',
    );
    expect(html).toContain('stroke-dasharray');
    expect(words(html).replace('◂ out', '').trim()).toBe('');
  });
  it('leaves a cam alone that stays where it is', () => {
    const html = cam(
      line({ steps: 0, movement: 0, position: 0, direction: 'leave', words: 'leave' }),
      'left',
    );
    expect(html).not.toContain('stroke-dasharray');
    whole(html);
  });
  it('every order of the plan has a figure', () => {
    for (const s of sides)
      for (const l of fitted.result[s].setting) {
        const html = l.is_cam ? cam(l, s) : renderToStaticMarkup(<TieRodFigure line={l} />);
        whole(html);
        expect(html).toContain(l.words);
      }
  });
  it('fills the part of a turn the way it goes', () => {
    const rod = (steps: number) =>
      renderToStaticMarkup(<TieRodFigure line={line({ is_cam: false, steps, words: 'turn' })} />);
    expect(rod(1.5)).toMatch(/>1<\/text>/);
    expect(rod(0.25)).toContain('A36 36 0 0 1');
    expect(rod(-0.75)).toContain('A36 36 0 1 0');
    expect(rod(2)).not.toContain('A36 36');
  });
});

describe('plans over each other', () => {
  it('has one line style each, and both views named', () => {
    const html = renderToStaticMarkup(
      <Overlay
        items={[short, fitted].map((c, i) => ({
          key: i + 1,
          name: `P${i}`,
          drawing: c.result.left.drawing_set,
        }))}
      />,
    );
    whole(html);
    for (const w of ['From the front', 'From the left', 'P0', 'P1']) expect(words(html)).toContain(w);
    expect(html).toContain('stroke-dasharray="9 8"');
  });
});
