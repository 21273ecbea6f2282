// One plan of a job is the one to set: chosen here, with what stays behind when something was done already.
import { Button, Dialog } from '@mui/material';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { choosePlan } from '../api/calls';
import { ApiProblem, type Ticket } from '../api/client';
import { Refusal } from './Fault';
import { ticketKey, type Bench } from './ticket';

/** Steps done of the plan that is the one to set, ticks at gates aside. */
export const doneOf = (t: Ticket, planId: string | null | undefined) =>
  t.done.filter((d) => d.plan_id === planId && !d.step.includes('/'));

/** Makes a plan the one to set; asks first where work was done by the other. */
export function useChoose(bench: Bench) {
  const { ticket, plan, setTicket } = bench;
  const queries = useQueryClient();
  const [asking, setAsking] = useState(false);
  const choose = useMutation({
    mutationFn: () => choosePlan(ticket.job.id, { version: ticket.job.version, plan_id: plan?.id ?? '' }),
    onSuccess: (t) => {
      setAsking(false);
      setTicket(t);
    },
    onError: (e) => {
      // Somebody changed the ticket meanwhile: what stands now is fetched, and asked again.
      if (e instanceof ApiProblem && e.status === 409)
        void queries.invalidateQueries({ queryKey: ticketKey(ticket.job.id) });
    },
  });
  const other = ticket.plans.find((p) => p.id === ticket.job.plan_id);
  const done = doneOf(ticket, other?.id);
  const ask = () => (done.length ? setAsking(true) : choose.mutate());
  const dialog = (
    <Dialog open={asking} onClose={() => setAsking(false)} aria-labelledby="choose-title">
      <div style={{ padding: 22, width: 480, maxWidth: '90vw' }}>
        <h2 id="choose-title">Set by “{plan?.name}” from now on?</h2>
        <p style={{ margin: '12px 0 8px' }} data-testid="choose-stale">
          {done.length} step{done.length > 1 ? 's' : ''} of “{other?.name}” {done.length > 1 ? 'are' : 'is'}{' '}
          done and stay{done.length > 1 ? '' : 's'} written down with it. The sheet of “{plan?.name}” begins
          at its first step: what was turned by the other is not counted in it. Read heights and angles again
          as they stand now before it is followed.
        </p>
        {choose.error && <Refusal error={choose.error} />}
        <div style={{ display: 'flex', gap: 10, justifyContent: 'flex-end', marginTop: 14 }}>
          <Button variant="outlined" onClick={() => setAsking(false)}>
            Leave it
          </Button>
          <Button
            variant="contained"
            disabled={choose.isPending}
            onClick={() => choose.mutate()}
            data-testid="choose-sure"
          >
            Set by this one
          </Button>
        </div>
      </div>
    </Dialog>
  );
  return { ask, dialog, pending: choose.isPending, fault: asking ? undefined : choose.error };
}

/** Over a stage that speaks of a plan which is not the one to set. */
export function NotTheOne({ bench }: { bench: Bench }) {
  const { ask, dialog, pending, fault } = useChoose(bench);
  const { ticket, plan, chosen, pick } = bench;
  const other = ticket.plans.find((p) => p.id === ticket.job.plan_id);
  if (chosen || !plan || !other) return null;
  return (
    <div className="not-the-one" role="note" data-testid="not-the-one">
      <span>
        This is “{plan.name}”. The one to set is “{other.name}”.
      </span>
      <Button variant="outlined" size="small" onClick={() => pick(other.id)}>
        Show that one
      </Button>
      <Button variant="outlined" size="small" disabled={pending} onClick={ask} data-testid="choose-plan">
        Set by this one
      </Button>
      {fault && <Refusal error={fault} />}
      {dialog}
    </div>
  );
}
