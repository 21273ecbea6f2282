// The whole car in one search: heights from to, both axles, money and hours together; a few ways, each named by what it is
// best at.
import { Button } from '@mui/material';
import { useEffect, useMemo, useState } from 'react';
import type { AxleName, CarInput, CarPlan, Schemas } from '../../api/client';
import { MeasureField } from '../../input/Field';
import { readField } from '../../input/kinds';
import { FieldError } from '../../shell/Fault';
import { changeOf, partOf, useShop } from '../../shell/ticket';
import { Bare, ChipButton } from '../../ui/Press';
import { Glyph } from '../../ui/glyphs';
import { useSpend } from './spend';
import { useSettings } from '../../ui/settings';
import { farUnit } from '../../units/measure';
import { angle, length, MM_PER_INCH, num, signed } from '../../units/print';
import { inParts, money } from './money';
import { useCarSearch, type Tyres } from './useSearch';

type CarSet = Schemas['CarSet'];
type TradeOff = Schemas['TradeOff'];
const axles: AxleName[] = ['front', 'rear'];
const bestWords: Record<TradeOff, string> = {
  least_money: 'least money',
  least_work: 'least work',
  farthest: 'farthest within the aim',
  longest_life: 'longest tyre life',
  least_bump_steer: 'least bump steer',
  factory_arms: 'factory arms kept',
};

/** The change of a plan that takes a set: heights and parts of each axle that was looked at. */
export function taken(draft: CarPlan, s: CarSet): Partial<CarPlan> {
  let out: CarPlan = draft;
  for (const axle of axles) {
    const set = s.axles[axle];
    const own = {
      height_change_mm: s.gain_mm[axle],
      ...(set && { fitted: set.parts.map((p) => p.id), only: {}, picked: { left: null, right: null } }),
    };
    out = { ...out, ...changeOf(out, axle, own) };
  }
  return { axles: out.axles! };
}

interface Props {
  input: CarInput;
  draft: CarPlan;
  tyres: Tyres;
  change: (c: Partial<CarPlan>) => void;
}

export function CarSearch({ input, draft, tyres, change }: Props) {
  const { form, unit, units } = useSettings();
  const shop = useShop().data?.settings;
  const planned = (a: AxleName) => partOf(draft, a).height_change_mm;
  const typed = (v: number) => String(Math.round((unit === 'mm' ? v : v / MM_PER_INCH) * 100) / 100);
  const [texts, setTexts] = useState<Record<AxleName, [string, string]>>(() => ({
    front: [typed(planned('front')), typed(planned('front'))],
    rear: [typed(planned('rear')), typed(planned('rear'))],
  }));
  // Another unit: what was typed is shown again in it.
  const [shown, setShown] = useState(unit);
  if (shown !== unit) {
    const again = (t: string) => {
      const v = readField('length', t, { ...units, length: shown });
      return v === undefined ? t : typed(v);
    };
    setShown(unit);
    setTexts({
      front: [again(texts.front[0]), again(texts.front[1])],
      rear: [again(texts.rear[0]), again(texts.rear[1])],
    });
  }
  const bandOf = (a: AxleName) => texts[a].map((t) => readField('length', t, units));
  const unread = axles.some((a) => input.base.axles[a] && bandOf(a).some((v) => v === undefined));
  const spend = useSpend({ budget: 'car-budget', hours: 'car-hours' });
  const { budget, minutes } = spend;
  const [on, setOn] = useState(0);
  const search = useCarSearch();
  const there = axles.filter((a) => input.base.axles[a]);
  const bandFor = (a: AxleName) => {
    const [low, high] = bandOf(a);
    return { low_mm: low ?? planned(a), high_mm: high ?? planned(a) };
  };
  const bands = JSON.stringify({ front: bandFor('front'), rear: bandFor('rear') });
  const wish = useMemo(
    () => ({
      band_mm: JSON.parse(bands) as Record<AxleName, { low_mm: number; high_mm: number }>,
      filters: {
        budget,
        labour_minutes: minutes,
        labour_rate: shop?.labour_rate ?? null,
        forbid: [],
        pinned: [],
        excluded: [],
        most_parts: null,
      },
    }),
    [bands, budget, minutes, shop?.labour_rate],
  );
  const { run, stop } = search;
  useEffect(() => stop, [stop]);
  const go = () => {
    setOn(0);
    run({ car: input, wish, tyres });
  };
  const r = search.result;
  const set = r?.sets[on];
  const mm = (v: number) => (unit === 'mm' ? `${signed(v)} mm` : length(v, 'in'));
  const faults = search.fault?.problems ?? [];
  return (
    <>
      <div className="sets-head" data-testid="car-search">
        {there.map((a) => (
          <div key={a} className="band-row" role="group" aria-label={`${a} height, from and to`}>
            <b>{a === 'front' ? 'Front' : 'Rear'}</b>
            {([0, 1] as const).map((k) => (
              <MeasureField
                key={k}
                kind="length"
                label={k === 0 ? 'from' : 'to'}
                text={texts[a][k]}
                onText={(v) => setTexts((t) => ({ ...t, [a]: k === 0 ? [v, t[a][1]] : [t[a][0], v] }))}
                fault={faults.find((f) => f.field === `band_mm.${a}.${k === 0 ? 'low_mm' : 'high_mm'}`)}
                testid={`band-${a}-${k}`}
              />
            ))}
          </div>
        ))}
        <div className="sets-line">{spend.inputs}</div>
        {spend.faults}
        {faults
          .filter((f) => !f.field.startsWith('band_mm.'))
          .map((f) => (
            <FieldError key={f.field} wrong={f.wrong} right={f.right} />
          ))}
        <p className="small" aria-live="polite" data-testid="car-search-says">
          {search.running ? (
            <>
              Height {Math.min((search.progress?.done ?? 0) + 1, search.progress?.of ?? 1)} of{' '}
              {search.progress?.of ?? 1}{' '}
              <ChipButton size="small" onClick={stop} data-testid="car-search-stop">
                Stop
              </ChipButton>
            </>
          ) : r ? (
            <b>{r.headline}.</b>
          ) : (
            'Both axles together: how high, for how much, in how many hours.'
          )}
        </p>
      </div>
      <div
        className="part-list"
        role="listbox"
        aria-label="Ways to set the whole car"
        style={{ opacity: search.running ? 0.5 : 1 }}
      >
        {r?.sets.map((s, i) => (
          <Bare
            key={s.best_at.join()}
            role="option"
            aria-selected={i === on}
            className={`part set ${i === on ? 'on' : ''}`}
            onClick={() => setOn(i)}
            data-testid={`car-set-${i}`}
          >
            <span style={{ flex: 1, minWidth: 0 }}>
              <span className="set-top">
                <b>{s.best_at.map((b) => bestWords[b]).join(' · ') || 'nearest'}</b>
                <span className="word">
                  <Glyph name={s.reached ? 'aim' : 'short'} size={16} />
                  {s.reached ? 'Lands' : `${angle(s.short_deg, form)} short`}
                </span>
              </span>
              {there.map((a) => (
                <span key={a} className="small" style={{ display: 'block' }}>
                  {a === 'front' ? 'Front' : 'Rear'} {mm(s.gain_mm[a])}:{' '}
                  {s.axles[a] ? s.axles[a].parts.map((p) => p.name).join(' + ') || 'as built' : 'not read'}
                </span>
              ))}
              <span className="set-figures fig">
                <span>{inParts(s.cost, shop)}</span>
                <span>{num(s.labour_minutes / 60, 1)} h</span>
                <span>{money(s.money, shop)} together</span>
                {s.life_km != null && <span>{farUnit(s.life_km, units)}</span>}
              </span>
            </span>
          </Bare>
        ))}
      </div>
      <div className="pane-foot">
        <Button
          variant={r && !search.running ? 'outlined' : 'contained'}
          disabled={search.running || spend.bad || unread}
          onClick={go}
          data-testid="car-search-go"
        >
          {r ? 'Search again' : 'Search the car'}
        </Button>
        {set && !search.running && (
          <Button
            variant="contained"
            sx={{ flex: 1 }}
            onClick={() => change(taken(draft, set))}
            data-testid="take-car-set"
          >
            Take it, both axles
          </Button>
        )}
      </div>
    </>
  );
}
