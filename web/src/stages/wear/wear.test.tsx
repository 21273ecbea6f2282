// What the tread bench sends and draws: the tyres of a ticket, bands in words, and figures that never lie or break.
import { usualCar } from '../../fixtures';
import { unitsOf } from '../../units/measure';
import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import type { ReactElement } from 'react';
import { SettingsProvider } from '../../ui/settings';
import type { CarWear, SceneWear, Ticket } from '../../api/client';
import { DepthPlot } from '../../figures/DepthPlot';
import { ComesFirst } from './ComesFirst';
import { TreadSection } from '../../figures/TreadSection';
import { WornTread } from '../../figures/WornTread';
import diagnosis from '../../../../data/diagnosis.json';
import { carTyres, firstDone, meanOf, range, sideOf, wearFacts, type TyreForecast } from '../../shell/tread';
import { Levers } from './Levers';
import { Causes } from './Causes';
import { Scrubber } from './Scrubber';

/** Markup of what asks for the shop's units. */
const drawn = (el: ReactElement) => renderToStaticMarkup(<SettingsProvider>{el}</SettingsProvider>);

const ticket = (facts: object): Ticket =>
  ({
    vehicle: {
      facts: {
        tyre_size: '235/45R18',
        tyre_class: 'all_season',
        tread_depth_mm: 7,
        front_load_n: 5200,
        pressure_kpa: 250,
        placard_kpa: 260,
        drive: 'front',
        use: 'mixed',
        silhouette: 'saloon',
        geometry: { layout: 'strut' },
        rear_geometry: { layout: 'five_link' },
        car: { ...usualCar, rear_load_n: 4100, brake_front_share: 0.7 },
        ...facts,
      },
    },
  }) as unknown as Ticket;

const scene = (over: Partial<SceneWear> = {}): SceneWear =>
  ({
    id: 'set',
    title: 'set',
    setups: [{ camber_deg: -1, toe_deg: 0.1, share: 1 }],
    rate_mm_per_1000km: Array.from({ length: 21 }, (_, i) => 0.2 - 0.004 * i),
    band_km: { low: 15000, median: 24000, high: 41000 },
    groove_km: 25000,
    worst: 'inner_edge',
    worst_words: 'inner edge',
    shares: { use: 0.7, toe: 0.1, camber: 0.22, pressure: -0.02 },
    mean_shares: { use: 0.8, toe: 0.1, camber: 0.1, pressure: 0 },
    feather: 0.2,
    feather_words: '',
    irregular: 'low',
    irregular_parts: [],
    ratio_to_lead: { ratio: 1, low: 0.9, high: 1.1 },
    outside: false,
    ...over,
  }) as SceneWear;

describe('tyres of a ticket', () => {
  it('are the job’s, done at the plan’s limit', () => {
    const t = {
      ...ticket({}),
      tyres: { sizes: ['235/45R18', '255/40R18'], limit_mm: 3 },
    } as unknown as Ticket;
    expect(carTyres(t, 1.6)).toEqual({ sizes: ['235/45R18', '255/40R18'], limit_mm: 1.6 });
    expect(wearFacts(ticket({})).yearly_km).toBe(15000);
  });
});

describe('bands and means in words', () => {
  it('writes a band in thousands, below ten with a tenth, never below nothing', () => {
    expect(range({ low: 21_700, median: 31_000, high: 43_200 }, unitsOf('mm', 'decimal'))).toBe('(22–43)');
    expect(range({ low: 5_640, median: 8_000, high: 9_940 }, unitsOf('mm', 'decimal'))).toBe('(5.6–9.9)');
    expect(range({ low: -400, median: 1_000, high: 2_000 }, unitsOf('mm', 'decimal'))).toBe('(0.0–2.0)');
  });
  it('weighs angles by the shares of the heights', () => {
    const s = scene({
      setups: [
        { camber_deg: -2, toe_deg: 0, share: 30 },
        { camber_deg: -1, toe_deg: 0.2, share: 10 },
      ],
    });
    expect(meanOf(s, 'camber_deg')).toBeCloseTo(-1.75);
    expect(meanOf(s, 'toe_deg')).toBeCloseTo(0.05);
  });
  it('finds the tyre that is done first', () => {
    const tyre = (place: string, median: number) =>
      ({
        place,
        lead: 0,
        scenes: [scene({ band_km: { low: 1, median, high: 9e4 } })],
      }) as unknown as TyreForecast;
    const w = { tyres: [tyre('left_front', 24e3), tyre('right_rear', 9e3)] } as unknown as CarWear;
    expect(firstDone(w)?.place).toBe('right_rear');
    expect(sideOf('right_rear')).toBe('right');
  });
});

const section = (over: object) =>
  renderToStaticMarkup(
    <TreadSection
      side="left"
      axle="front"
      rate={scene().rate_mm_per_1000km}
      depth={Array.from({ length: 21 }, () => 8)}
      limit={1.6}
      km={10_000}
      spread={[0.6, 1.7]}
      label="set"
      units={unitsOf('mm', 'decimal')}
      {...over}
    />,
  );

describe('the tread section', () => {
  it('says in its text twin what it draws', () => {
    // 8 mm less 10 000 km at 0.2, 0.16 and 0.12 mm per 1 000 km.
    const html = section({});
    expect(html).toContain('left front tread, set: inner edge 6.0 mm, centre 6.4 mm, outer edge 6.8 mm left');
    for (const d of ['6.0', '6.4', '6.8', 'limit 1.6 mm']) expect(html).toContain(d);
  });
  it('never draws below nothing, and no figure is broken', () => {
    for (const over of [
      { km: 0 },
      { km: 400_000 },
      { depth: Array.from({ length: 21 }, () => 0) },
      { limit: 7.9 },
      { spread: [0.05, 20] },
      { side: 'right', axle: 'rear', label: 'at the planned height, not set' },
    ]) {
      const html = section(over);
      expect(html).not.toMatch(/NaN|Infinity|undefined/);
      expect(html).not.toMatch(/edge -/);
    }
  });
});

describe('depth over distance', () => {
  const learned = (over: object = {}) =>
    ({
      mark: 'S1',
      km: 8500,
      before: { low: 21e3, median: 37e3, high: 66e3 },
      after: { low: 19e3, median: 23e3, high: 29e3 },
      factor: [1.6, 1.6, 1.5],
      points: [
        { entry: 1, km: 4200, read_mm: [6.4, 6.5, 6.6], before_mm: [6.9, 7, 7], after_mm: [6.5, 6.5, 6.6] },
      ],
      carried: false,
      words: '',
      ...over,
    }) as never;
  const plot = (l: never) =>
    renderToStaticMarkup(
      <DepthPlot
        side="right"
        learned={l}
        depthNow={Array.from({ length: 21 }, () => 5.5)}
        rate={scene().rate_mm_per_1000km}
        limit={2}
        fresh={7.5}
        units={unitsOf('mm', 'decimal')}
      />,
    );
  it('names each reading, and says how far a band goes that runs off the edge', () => {
    const html = plot(learned());
    expect(html).toContain('at 4\u00a0200 km 6.4, 6.5, 6.6 mm read');
    expect(html).toContain('to 66\u00a0000');
    expect(plot(learned({ before: { low: 19e3, median: 24e3, high: 30e3 } }))).not.toContain(
      'to 30\u00a0000',
    );
  });
  it('holds with no reading and with a worn-out tyre', () => {
    for (const l of [learned({ points: [] }), learned({ after: { low: 8500, median: 8500, high: 8500 } })])
      expect(plot(l)).not.toMatch(/NaN|Infinity/);
  });
});

describe('what a change is worth', () => {
  const lever = (gain_km: number, ratio: number, low: number, high: number, saves: number | null) =>
    ({
      levers: [
        {
          id: 'toe',
          title: 'Toe to 0.05° in',
          detail: 'each wheel',
          ratio: { ratio, low, high },
          gain_km,
          saves_a_year: saves,
        },
      ],
    }) as unknown as TyreForecast;
  it('says saved or spent, and when it is too close to call', () => {
    expect(drawn(<Levers tyre={lever(11_000, 1.4, 1.2, 1.7, 38)} />)).toMatch(
      /\+11[\s\u00a0]000.*saves 38 a year/,
    );
    const worse = drawn(<Levers tyre={lever(-2000, 0.95, 0.9, 1.05, -4)} />);
    expect(worse).toContain('−2');
    expect(worse).toContain('costs 4 a year');
    expect(worse).toContain('too close to call');
    expect(drawn(<Levers tyre={lever(800, 1.1, 1.02, 1.2, null)} />)).not.toContain('a year');
    expect(drawn(<Levers tyre={{ levers: [] } as unknown as TyreForecast} />)).toBe('');
  });
});

describe('what eats the tread', () => {
  it('names side and way, and a cause that helps', () => {
    const html = drawn(<Causes title="Set" t={scene()} id="x" />);
    expect(html).toContain('Camber, top leans in 1');
    expect(html).toContain('Toe, in 0.1');
    expect(html).toContain('helps −2 %');
    const out = drawn(
      <Causes
        title="Set"
        t={scene({ setups: [{ camber_deg: 0.5, toe_deg: -0.2, share: 1 }] })}
        id="y"
        whole
      />,
    );
    expect(out).toContain('top leans out');
    expect(out).toContain('Toe, out 0.2');
  });
});

describe('distance under the hand', () => {
  it('is a slider with its value in words, its labels inside the picture', () => {
    const road = (high: number) =>
      drawn(
        <Scrubber
          km={12_000}
          max={40_000}
          set={() => undefined}
          marks={[{ t: scene({ band_km: { low: 20e3, median: 30e3, high } }), word: 'set', dash: false }]}
          side="left"
        />,
      );
    expect(road(35e3)).toContain('aria-valuetext="12\u00a0000 km"');
    expect(road(39e3)).toMatch(/text-anchor="end"[^>]*>set</);
    expect(road(25e3)).toMatch(/text-anchor="start"[^>]*>set</);
  });
});

describe('patterns of wear', () => {
  const patterns = diagnosis.questions.find((q) => q.id === 'pattern')!.answers;
  it('each has a drawing of its own', () => {
    const pictures = patterns.map((p) => renderToStaticMarkup(<WornTread kind={p.id} />));
    expect(new Set(pictures).size).toBe(patterns.length);
    for (const d of pictures) expect(d).not.toContain('NaN');
  });
});

describe('what was found on the car', () => {
  it('is said before any distance, and nothing where nothing was found', () => {
    const says = (first: string[] | undefined) => renderToStaticMarkup(<ComesFirst first={first} />);
    const cords =
      'Left front: Cords show: do not drive on it. New tyres first; the forecast is for new ones.';
    expect(says([cords])).toContain(cords);
    expect(says([])).toBe('');
    expect(says(undefined)).toBe('');
  });
});
