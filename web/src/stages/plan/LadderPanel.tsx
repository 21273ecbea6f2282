// How high can it go with what is on it, and with what comes next: pressed, a ladder sets its height and its parts.
import { getLadders } from '../../api/calls';
import type { AxleName, PlanResult } from '../../api/client';
import { useLive } from '../../api/live';
import { HeightLadder } from '../../figures/HeightLadder';
import { FieldError } from '../../shell/Fault';
import { changeOf, partOf, type Bench } from '../../shell/ticket';
import { useSettings } from '../../ui/settings';

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
  const live = useLive(
    'ladders',
    input && part ? { car: input, axle, sets: setsOf(part.fitted, result), span_mm: [-60, 120] } : undefined,
    getLadders,
  );
  if (!draft || !part) return null;
  const fault = live.fault?.problems[0];
  const states = result.states;
  const at = (kind: string) => states.find((s) => s.kind === kind)?.own_mm;
  return (
    <div className={`panel-scroll ${live.stale ? 'stale-block' : ''}`} data-testid="ladder-panel">
      {fault && <FieldError wrong={fault.wrong} right={fault.right} />}
      {live.data?.axle === axle ? (
        <>
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
            pick={(gain, l) =>
              change(
                changeOf(draft, axle, {
                  height_change_mm: gain,
                  fitted: l.parts,
                  picked: { left: null, right: null },
                }),
              )
            }
          />
        </>
      ) : (
        !fault && <p className="small">Working the heights…</p>
      )}
    </div>
  );
}
