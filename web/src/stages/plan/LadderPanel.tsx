// How high can it go with what is on it, and with what comes next: pressed, a ladder sets its height and its parts.
import { getLadders } from '../../api/calls';
import type { AxleName, AxlePlan, PlanResult } from '../../api/client';
import { useLive } from '../../api/live';
import { HeightLadder } from '../../figures/HeightLadder';
import { FieldError } from '../../shell/Fault';
import { changeOf, partOf, type Bench } from '../../shell/ticket';
import { Segment } from '../../ui/Segment';
import { useSettings } from '../../ui/settings';
import { useState } from 'react';

/** Sets worth a ladder: what is on the plan, and the parts that come nearest, a few of them. */
export function setsOf(fitted: string[], result: PlanResult, most = 3): string[][] {
  const worth = ['reaches', 'short', 'fouls'];
  const parts = result.candidates.filter((c) => worth.includes(c.status) && !fitted.includes(c.part.id));
  const out = fitted.length ? [fitted] : [];
  for (const c of parts.slice(0, most)) out.push([c.part.id]);
  return out;
}

export function LadderPanel({ bench, axle, result }: { bench: Bench; axle: AxleName; result: PlanResult }) {
  const { unit } = useSettings();
  const { draft, input, change } = bench;
  const part = draft ? partOf(draft, axle) : undefined;
  const [other, setOther] = useState<'as_planned' | 'keeps_rake'>('as_planned');
  const live = useLive(
    'ladders',
    input && part
      ? { car: input, axle, other, sets: setsOf(part.fitted, result), span_mm: [-60, 120] }
      : undefined,
    getLadders,
  );
  if (!draft || !part) return null;
  const fault = live.fault?.problems[0];
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
        </>
      ) : (
        !fault && <p className="small">Working the heights…</p>
      )}
    </div>
  );
}
