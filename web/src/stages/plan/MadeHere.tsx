// For arms made here: where the upper pivot, the inner tie-rod joint and the steering arm would have to be, and each place as a
// part of the shop that goes on the plan.
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { keepPart, listParts, cornerFile } from '../../api/calls';
import { ApiProblem, type Schemas, type Ticket } from '../../api/client';
import { useLive } from '../../api/live';
import { FieldError } from '../../shell/Fault';
import { ChipButton } from '../../ui/Press';
import { useSettings } from '../../ui/settings';
import { angle, length } from '../../units/print';
import { madeOf, type Aid, type Made, type Place } from './madeHere';

interface Props {
  ticket: Ticket;
  fit: (id: string) => void;
}

const words: Record<Aid, string> = {
  upper_pivot: 'Upper pivot, no bump scrub',
  tie_rod: 'Inner tie rod, no bump steer',
  ackermann: 'Steering arm, Ackermann',
};

export function MadeHere({ ticket, fit }: Props) {
  const queries = useQueryClient();
  const { form, unit } = useSettings();
  const geometry = ticket.vehicle.facts.axles.front.geometry;
  // Asked for only where somebody looks.
  const [open, setOpen] = useState(false);
  const asked = useMemo(() => ({ file: ticket.corner_file, car: null }), [ticket.corner_file]);
  const file = useLive('corner-file', open && geometry ? asked : undefined, cornerFile);
  const use = useMutation({
    mutationFn: async (m: Made) => {
      const own = (await listParts()).find((p) => p.part.id === m.part.id);
      await keepPart(m.part.id, { version: own?.version ?? 0, part: m.part, retired: false });
      return m.part.id;
    },
    onSuccess: async (id) => {
      await queries.invalidateQueries({ queryKey: ['parts'] });
      fit(id);
    },
  });
  if (!geometry) return null;
  const toggle = (
    <ChipButton
      size="small"
      className="on-slate"
      aria-expanded={open}
      onClick={() => setOpen(!open)}
      data-testid="made-here"
    >
      For arms made here
    </ChipButton>
  );
  const aids = open ? file.data?.aids : undefined;
  if (!aids) return <div className="made-here">{toggle}</div>;
  const left = (aid: Aid, place: Place | 'now'): string => {
    if (aid === 'tie_rod' && aids.tie_rod)
      return angle(
        {
          now: aids.tie_rod.steer_now_deg,
          bisector: aids.tie_rod.steer_bisector_deg,
          exact: aids.tie_rod.steer_exact_deg,
        }[place],
        form,
        2,
      );
    if (aid === 'ackermann' && aids.ackermann)
      return angle(
        {
          now: aids.ackermann.error_now_deg,
          bisector: aids.ackermann.error_construction_deg,
          exact: aids.ackermann.error_exact_deg,
        }[place],
        form,
      );
    const p = aids.upper_pivot!;
    return length(
      { now: p.scrub_now_mm, bisector: p.scrub_bisector_mm, exact: p.scrub_exact_mm }[place],
      unit,
    );
  };
  const rows = (['upper_pivot', 'tie_rod', 'ackermann'] as const).filter((a) => aids[a]);
  const fault = use.error instanceof ApiProblem ? use.error : undefined;
  return (
    <div className="made-here">
      {toggle}
      {!rows.length && <p className="small">This axle has no point that an aid could place.</p>}
      {rows.map((aid) => (
        <div key={aid} className="made-row">
          <b>{words[aid]}</b>
          <span className="small">left over as it is {left(aid, 'now')}</span>
          {(['bisector', 'exact'] as const).map((place) => {
            const m = madeOf(aids as Schemas['Aids'], aid, place, geometry, ticket.job.ticket);
            return (
              m && (
                <div key={place} className="made-place">
                  <span className="small">
                    {place === 'exact' ? 'exact' : aid === 'ackermann' ? 'construction' : 'bisector'}: left
                    over {left(aid, place)}; {m.what} {length(m.now_mm, unit)}, was {length(m.was_mm, unit)}
                  </span>
                  <ChipButton
                    size="small"
                    className="on-slate"
                    disabled={use.isPending}
                    onClick={() => use.mutate(m)}
                    aria-label={`Use this place: ${words[aid]}, ${place}`}
                    data-testid={`made-${aid}-${place}`}
                  >
                    Use
                  </ChipButton>
                </div>
              )
            );
          })}
        </div>
      ))}
      {fault && (
        <FieldError
          wrong={fault.problems[0]?.wrong ?? fault.message}
          right={fault.problems[0]?.right ?? 'try again'}
        />
      )}
      <p className="small">
        Left front, over ±{length(aids.travel_mm, unit)} from design. Used, it is a part of the shop and on
        this plan. Welded and cut suspension parts are for licensed inspection.
      </p>
    </div>
  );
}
