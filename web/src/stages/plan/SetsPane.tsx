// Every set of parts that lands on aim, ranked, with reasons; filters, pins, and the way to take one.
import { Fold } from '../../ui/Fold';
import { Pick } from '../../ui/Pick';
import { Bare, ChipButton } from '../../ui/Press';
import { Button } from '@mui/material';
import { useEffect, useMemo, useState } from 'react';
import type { AxleName, CarInput, Schemas } from '../../api/client';
import { Glyph } from '../../ui/glyphs';
import { useSpend } from './spend';
import { useSettings } from '../../ui/settings';
import { useShop } from '../../shell/ticket';
import { ruleWords } from '../../shell/rules';
import { inParts, money as priced } from './money';
import { farRange, farUnit } from '../../units/measure';
import { angle, num } from '../../units/print';
import { bareOf, useSearch, type Filters, type Tyres } from './useSearch';

type SetPlan = Schemas['SetPlan'];
type Rule = Schemas['Rule'];

interface Props {
  input: CarInput;
  axle: AxleName;
  tyres: Tyres;
  fitted: string[];
  pins: { pinned: string[]; excluded: string[] };
  setPins: (p: { pinned: string[]; excluded: string[] }) => void;
  take: (ids: string[]) => void;
}

export function SetsPane({ input, axle, tyres, fitted, pins, setPins, take }: Props) {
  const [forbid, setForbid] = useState<Rule[]>([]);
  const spend = useSpend({ budget: 'budget', hours: 'hours' });
  const [most, setMost] = useState(4);
  const [open, setOpen] = useState(0);
  const { budget, minutes } = spend;
  const filtersOn = forbid.length + spend.on + (most < 4 ? 1 : 0);
  const shop = useShop();
  const rate = shop.data?.settings.labour_rate;
  const search = useSearch();
  const { form, unit, units } = useSettings();
  const filters: Filters = useMemo(
    () => ({
      forbid,
      budget,
      labour_minutes: minutes,
      labour_rate: rate ?? null,
      most_parts: most,
      ...pins,
    }),
    [forbid, budget, minutes, rate, most, pins],
  );
  const key = JSON.stringify(bareOf(input, axle));
  const { run } = search;
  useEffect(() => {
    const t = setTimeout(() => void run(JSON.parse(key) as CarInput, axle, filters, tyres), 250);
    setOpen(0);
    return () => clearTimeout(t);
  }, [key, axle, filters, run, tyres, form, unit]);
  const r = search.result;
  const plan = r?.plans[open];
  const isFitted = (p: SetPlan) =>
    p.parts.length === fitted.length && p.parts.every((x) => fitted.includes(x.id));
  const toggle = (x: Rule) => setForbid((f) => (f.includes(x) ? f.filter((y) => y !== x) : [...f, x]));
  const p = search.progress;
  return (
    <>
      <div className="sets-head">
        <Fold
          className="fold sets-fold"
          testid="sets-filters"
          words={
            <>
              Filters
              {filtersOn ? `: ${filtersOn} on` : ''}
            </>
          }
        >
          <div className="sets-filters" role="group" aria-label="Filters">
            {ruleWords.map(([k, word]) => (
              <ChipButton
                key={k}
                size="small"
                aria-pressed={forbid.includes(k)}
                onClick={() => toggle(k)}
                data-testid={`rule-${k}`}
              >
                <Glyph name={forbid.includes(k) ? 'done' : 'none'} size={13} /> {word}
              </ChipButton>
            ))}
          </div>
          <div className="sets-line">
            {spend.inputs}
            <Pick
              label="Sets of"
              value={String(most)}
              pick={(v) => setMost(Number(v))}
              list={[1, 2, 3, 4].map((n) => ({ value: String(n), words: `${n} at most` }))}
            />
          </div>
        </Fold>
        {spend.faults}
        {(pins.pinned.length > 0 || pins.excluded.length > 0) && (
          <div className="sets-filters">
            {[
              ...pins.pinned.map((x) => [x, 'in'] as const),
              ...pins.excluded.map((x) => [x, 'out'] as const),
            ].map(([x, w]) => (
              <ChipButton
                key={x}
                size="small"
                onClick={() =>
                  setPins({
                    pinned: pins.pinned.filter((y) => y !== x),
                    excluded: pins.excluded.filter((y) => y !== x),
                  })
                }
              >
                {w === 'in' ? 'must have' : 'without'} {x.split('@')[0]!.replaceAll('-', ' ')} ✕
              </ChipButton>
            ))}
          </div>
        )}
        <p className="small" aria-live="polite" data-testid="sets-headline">
          {search.running && search.slow && p ? (
            <>
              {p.doing} {p.done} of {p.of}{' '}
              <ChipButton size="small" onClick={search.stop} data-testid="sets-stop">
                Stop
              </ChipButton>
            </>
          ) : r ? (
            <>
              <b>{r.headline}.</b> {r.sentence}{' '}
              <span className="mut">
                {r.considered.toLocaleString('en').replaceAll(',', ' ')} sets looked at.
              </span>
            </>
          ) : search.fault ? (
            <span className="plate">
              {search.fault.problems[0]
                ? `${search.fault.problems[0].wrong}; ${search.fault.problems[0].right}`
                : search.fault.message}
            </span>
          ) : (
            'Looking…'
          )}
        </p>
      </div>
      <div
        className="part-list"
        role="listbox"
        aria-label="Sets of parts"
        style={{ opacity: search.running && search.slow ? 0.5 : 1 }}
      >
        {r?.plans.map((s, i) => {
          const shown = i === open;
          const state = s.fouls.length ? 'clash' : s.reached ? 'aim' : 'short';
          return (
            <Bare
              key={s.parts.map((x) => x.id).join()}
              role="option"
              aria-selected={shown}
              className={`part set ${shown ? 'on' : ''}`}
              onClick={() => setOpen(i)}
              data-testid={`set-${i}`}
            >
              <span style={{ flex: 1, minWidth: 0 }}>
                <span className="set-top">
                  <b>{s.parts.length ? s.parts.map((x) => x.name).join(' + ') : 'As built'}</b>
                  <span className="word">
                    <Glyph name={isFitted(s) ? 'done' : state} size={16} />
                    {isFitted(s)
                      ? 'Fitted'
                      : s.fouls.length
                        ? 'Fouls'
                        : s.reached
                          ? 'Reaches'
                          : `${angle(s.short_deg, form, s.short_deg < 0.095 ? 2 : 1)} short`}
                  </span>
                </span>
                <span className="set-figures fig">
                  <span>{inParts(s.cost, shop.data?.settings)}</span>
                  <span>{num(s.labour_minutes / 60, 1)} h</span>
                  {rate !== undefined && s.labour_minutes > 0 && (
                    <span>
                      {priced(s.cost + (rate * s.labour_minutes) / 60, shop.data?.settings)} with labour
                    </span>
                  )}
                  <span>toe swing {angle(s.bump_toe_deg, form)}</span>
                  {s.life_km && <span>{farUnit(s.life_km.median, units)}</span>}
                </span>
                {s.best_at.length > 0 && <span className="small best">{s.best_at.join(' · ')}</span>}
                {shown && (
                  <span className="small set-more">
                    {s.fouls.map((f) => (
                      <span key={f} className="plate">
                        <Glyph name="clash" size={13} /> {f}
                      </span>
                    ))}
                    {s.reasons.map((x) => (
                      <span key={x}>{x}</span>
                    ))}
                    {s.left.lock && (
                      <span>
                        Full lock: outside wheel {angle(s.left.lock.outer_deg, form)}, inside{' '}
                        {angle(s.left.lock.inner_deg, form)}.
                      </span>
                    )}
                    {s.life_km && (
                      <span>
                        Tyres {farUnit(s.life_km.median, units)}{' '}
                        {farRange(s.life_km.low, s.life_km.high, units)}.
                      </span>
                    )}
                  </span>
                )}
              </span>
            </Bare>
          );
        })}
        {r?.ways_differ.map((w) => (
          <p key={w} className="small ways-differ">
            <Glyph name="watch" size={15} /> {w}
          </p>
        ))}
      </div>
      <div className="pane-foot">
        <Button
          variant="contained"
          sx={{ flex: 1 }}
          disabled={!plan || isFitted(plan)}
          onClick={() => plan && take(plan.parts.map((x) => x.id))}
          data-testid="take-set"
        >
          {!plan
            ? 'No set to fit'
            : isFitted(plan)
              ? 'This set is fitted'
              : plan.parts.length
                ? `Fit ${plan.parts.length > 1 ? `these ${plan.parts.length}` : 'this one'}`
                : 'Take every part off'}
        </Button>
      </div>
    </>
  );
}
