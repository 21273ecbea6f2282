// For arms made here: where the upper pivot, the inner tie-rod joint and the steering arm would have to be, and each place as a
// part of the shop that goes on the plan.
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { keepPart, listParts, madeParts } from '../../api/calls';
import { ApiProblem, type Schemas, type Ticket } from '../../api/client';
import { useLive } from '../../api/live';
import { FieldError } from '../../shell/Fault';
import { ChipButton } from '../../ui/Press';
import { useSettings } from '../../ui/settings';
import { angle, length } from '../../units/print';

type Made = Schemas['Made'];

/** What each is called: over its places, as a part, what it moves, and what is cut to length. */
const words: Record<Made['aid'], [string, string, string, string]> = {
  upper_pivot: [
    'Upper pivot, no bump scrub',
    'Upper arm place',
    'both upper pivots moved, arm to fit',
    'arm, pivot axis to joint',
  ],
  tie_rod: [
    'Inner tie rod, no bump steer',
    'Inner tie-rod place',
    'inner tie-rod joint moved, rod to fit',
    'rod, joint to joint',
  ],
  ackermann: [
    'Steering arm, Ackermann',
    'Steering arm for Ackermann',
    'outer tie-rod joint moved on the arm, rod to fit',
    'rod, joint to joint',
  ],
};

/** The part with its words. */
export function named(m: Made, ticket: number): Made['part'] {
  const [, name, summary] = words[m.aid];
  return {
    ...m.part,
    name: `${name}, made here for ticket ${String(ticket).padStart(4, '0')}`,
    summary,
    side_effect: 'Made here from the drawing: measure it again on the car.',
    cautions: ['Welded and cut suspension parts are for licensed inspection.'],
  };
}

interface Props {
  ticket: Ticket;
  fit: (id: string) => void;
}

export function MadeHere({ ticket, fit }: Props) {
  const queries = useQueryClient();
  const { form, unit } = useSettings();
  const geometry = ticket.vehicle.facts.axles.front.geometry;
  const { wheelbase_mm, lock_deg } = ticket.base;
  const no = ticket.job.ticket;
  // Asked for only where somebody looks.
  const [open, setOpen] = useState(false);
  const asked = useMemo(
    () => (geometry ? { geometry, wheelbase_mm, lock_deg, ticket: no } : undefined),
    [geometry, wheelbase_mm, lock_deg, no],
  );
  const made = useLive('made-parts', open ? asked : undefined, madeParts);
  const use = useMutation({
    mutationFn: async (m: Made) => {
      const own = (await listParts()).find((p) => p.part.id === m.part.id);
      await keepPart(m.part.id, { version: own?.version ?? 0, part: named(m, no), retired: false });
      return m.part.id;
    },
    onSuccess: async (id) => {
      await queries.invalidateQueries({ queryKey: ['parts'] });
      fit(id);
    },
  });
  if (!geometry) return null;
  const list = open ? made.data : undefined;
  const one = list?.[0];
  const left = (m: Made, v: number) =>
    m.aid === 'upper_pivot' ? length(v, unit) : angle(v, form, m.aid === 'tie_rod' ? 2 : 1);
  const fault = use.error instanceof ApiProblem ? use.error : made.fault;
  return (
    <div className={`made-here${open ? ' open' : ''}`}>
      <ChipButton
        size="small"
        className="on-slate"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
        data-testid="made-here"
      >
        For arms made here
      </ChipButton>
      {list?.length === 0 && <p className="small">This axle has no point that an aid could place.</p>}
      {list?.map((m, i) => {
        const [over, , , what] = words[m.aid];
        const first = list.findIndex((x) => x.aid === m.aid) === i;
        return (
          <div key={m.part.id} className={first ? 'made-row' : ''}>
            {first && (
              <>
                <b>{over}</b>
                <span className="small">left over as it is {left(m, m.left_over_now)}</span>
              </>
            )}
            <div className="made-place">
              <span className="small">
                {m.by === 'exact' ? 'exact' : 'by construction'}: left over {left(m, m.left_over)}; {what}{' '}
                {length(m.length_mm, unit)}, was {length(m.was_mm, unit)}
              </span>
              <ChipButton
                size="small"
                className="on-slate"
                disabled={use.isPending}
                onClick={() => use.mutate(m)}
                aria-label={`Use this place: ${over}, ${m.by}`}
                data-testid={`made-${m.aid}-${m.by}`}
              >
                Use
              </ChipButton>
            </div>
          </div>
        );
      })}
      {open && fault && (
        <FieldError
          wrong={fault.problems[0]?.wrong ?? fault.message}
          right={fault.problems[0]?.right ?? 'try again'}
        />
      )}
      {one && (
        <p className="small">
          Left front, over ±{length(one.travel_mm, unit)} from design. Used, it is a part of the shop and on
          this plan. Welded and cut suspension parts are for licensed inspection.
        </p>
      )}
    </div>
  );
}
