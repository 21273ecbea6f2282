// What is done at the gate of heights, after a road test and when a car comes back; and how one corner of it came.
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { doAfter } from '../api/calls';
import { ApiProblem, type Schemas, type Ticket } from '../api/client';
import { ticketKey } from '../shell/ticket';
import type { GlyphName } from '../ui/glyphs';

export type Act = Schemas['AfterAct'];
export type Corner = Schemas['CornerBack'];

/** How a corner rests, with its sign: what it rests against is the page's to say. */
export const rests: Record<Corner['rest'], [GlyphName, string]> = {
  not_read: ['unread', 'tape it'],
  stale: ['stale', 'trimmed: tape it again'],
  as_said: ['aim', 'in the ring'],
  too_far: ['short', 'too low'],
  too_high: ['past', 'too high'],
};

/** Whether another tablet was first. */
export const wasFirst = (e: Error | null) => e instanceof ApiProblem && e.status === 409;

/** Does it, by the version of the ticket that is shown; where another tablet was first its doing is fetched, and what was typed
 *  here stays. */
export function useAfter(ticket: Ticket, kept: (t: Ticket) => void) {
  const queries = useQueryClient();
  const acts = useMutation({
    mutationFn: (what: Act) => doAfter(ticket.job.id, { version: ticket.job.version, what }),
    onSuccess: kept,
    onError: (e) => {
      if (wasFirst(e)) void queries.invalidateQueries({ queryKey: ticketKey(ticket.job.id) });
    },
  });
  return { acts, problems: acts.error instanceof ApiProblem ? acts.error.problems : [] };
}
