// How high can it go with what is on it, and with what comes next: pressed, a ladder sets its height and its parts.
import { HowTo } from '../../ui/HowTo';
import { getLadders } from '../../api/calls';
import type { AxleName, AxlePlan, PlanResult, Schemas } from '../../api/client';
import { useLive } from '../../api/live';
import { HeightLadder } from '../../figures/HeightLadder';
import { FieldError } from '../../shell/Fault';
import { changeOf, partOf, useShop, type Bench } from '../../shell/ticket';
import { ChipButton } from '../../ui/Press';
import { Segment } from '../../ui/Segment';
import { useSettings } from '../../ui/settings';
import { length, lengthChange } from '../../units/print';
import { useState } from 'react';
import { bareOf, useSearch } from './useSearch';

/** Sets worth a ladder: what is on the plan, and the parts that come nearest, a few of them. */
type Ladder = Schemas['Ladder'];
const NONE: string[][] = [];
export function setsOf(fitted: string[], result: PlanResult, most = 3): string[][] {
  const worth = ['reaches', 'short', 'fouls'];
  const parts = result.candidates.filter((c) => worth.includes(c.status) && !fitted.includes(c.part.id));
  const out = fitted.length ? [fitted] : [];
  for (const c of parts.slice(0, most)) out.push([c.part.id]);
  return out;
}

const alike = (a: string[], b: string[]) => a.length === b.length && a.every((x) => b.includes(x));

/** Those, and of the sets that were looked for the best of more than one part. */
export function ladderSets(fitted: string[], result: PlanResult, found: string[][]): string[][] {
  const out = setsOf(fitted, result);
  const more = found.filter((s) => s.length > 0 && !out.some((o) => alike(o, s)));
  return [...out, ...more.slice(0, MOST_FOUND)];
}

/** Most sets of several parts that get a ladder. */
const MOST_FOUND = 3;

/** The height nearest to the wanted one at which a ladder is surely in, to the whole mm; none where it is in as wanted. */
export function nearest(l: Ladder, wanted: number): number | undefined {
  const [low, high] = l.sure_mm ?? [];
  if (low === undefined || high === undefined || (wanted >= low && wanted <= high)) return undefined;
  return wanted < low ? Math.ceil(low) : Math.floor(high);
}

export function LadderPanel({ bench, axle, result }: { bench: Bench; axle: AxleName; result: PlanResult }) {
  const { unit } = useSettings();
  const search = useSearch();
  const shop = useShop();
  const { draft, input, change } = bench;
  const part = draft ? partOf(draft, axle) : undefined;
  const [other, setOther] = useState<'as_planned' | 'keeps_rake'>('as_planned');
  const found = search.result?.plans.map((p) => p.parts.map((x) => x.id)) ?? NONE;
  const live = useLive(
    'ladders',
    input && part
      ? { car: input, axle, other, sets: ladderSets(part.fitted, result, found), span_mm: [-60, 120] }
      : undefined,
    getLadders,
  );
  if (!draft || !part) return null;
  const fault = live.fault?.problems[0];
  const now = live.data?.ladders.find((l) => alike(l.parts, part.fitted));
  const way = now && !live.stale && !result.verdict.reached ? nearest(now, part.height_change_mm) : undefined;
  const filters = {
    forbid: [],
    pinned: [],
    excluded: [],
    budget: null,
    labour_minutes: null,
    labour_rate: shop.data?.settings.labour_rate ?? null,
    most_parts: 4,
  };
  const far: AxleName = axle === 'front' ? 'rear' : 'front';
  const states = result.states;
  const at = (kind: string) => states.find((s) => s.kind === kind)?.own_mm;
  const stand = (gain: number, more: Partial<AxlePlan> = {}) => {
    const own = changeOf(draft, axle, { height_change_mm: gain, ...more });
    // With the rake kept the other axle goes up and down by as much.
    const by = gain - part.height_change_mm;
    const along =
      other === 'keeps_rake'
        ? changeOf({ ...draft, ...own }, far, { height_change_mm: partOf(draft, far).height_change_mm + by })
        : {};
    change({ ...own, ...along });
  };
  return (
    <div className={`panel-scroll ${live.stale ? 'stale-block' : ''}`} data-testid="ladder-panel">
      {fault && <FieldError wrong={fault.wrong} right={fault.right} />}
      {live.data?.axle === axle ? (
        <>
          <Segment
            label={`The ${far} meanwhile`}
            value={other}
            choose={setOther}
            choices={[
              { value: 'as_planned', label: `${far} stays`, testid: 'ladder-stays' },
              { value: 'keeps_rake', label: 'rake kept', testid: 'ladder-rake' },
            ]}
          />
          <p className="small" data-testid="ladder-says">
            <b>How high can it go?</b> {live.data.says}.
          </p>
          {way !== undefined && (
            <p className="small" data-testid="ladder-way">
              <b>Height does it:</b> at {lengthChange(way, unit)} (
              {length(Math.abs(way - part.height_change_mm), unit)}{' '}
              {way < part.height_change_mm ? 'lower' : 'higher'}) every angle is in with what is on.{' '}
              <ChipButton size="small" onClick={() => stand(way)} data-testid="ladder-way-take">
                Stand there
              </ChipButton>
            </p>
          )}
          <div className="drawn">
            <HowTo of="ladder" />
            <HeightLadder
              ladders={live.data}
              unit={unit}
              wanted={part.height_change_mm}
              settled={at('settled')}
              loaded={at('loaded')}
              fitted={part.fitted}
              pick={(gain, l) => stand(gain, { fitted: l.parts, picked: { left: null, right: null } })}
              onHeight={(gain) => stand(gain)}
            />
          </div>
          <div className="ladder-find">
            <ChipButton
              size="small"
              disabled={search.running || !input}
              onClick={() => input && search.run(bareOf(input, axle), axle, filters, undefined)}
              data-testid="ladder-find"
            >
              {search.running ? 'Looking for sets…' : 'Ladders of the best sets too'}
            </ChipButton>
            {search.fault && <span className="plate">{search.fault.message}</span>}
            {search.result && !found.some((s) => s.length > 1) && (
              <span className="small">No set of several parts does more here.</span>
            )}
          </div>
        </>
      ) : (
        !fault && <p className="small">Working the heights…</p>
      )}
    </div>
  );
}
