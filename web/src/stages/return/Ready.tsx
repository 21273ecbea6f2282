// What a return's tapes hang on, ticked before they are read: each is an answer of the visit's own prepare list.
import { useMutation } from '@tanstack/react-query';
import { saveVisit } from '../../api/calls';
import type { Ticket } from '../../api/client';
import { FieldError } from '../../shell/Fault';
import { Tick } from '../../ui/Tick';

const asks = [
  ['settled', 'Rolled and bounced'],
  ['pressures', 'Pressures set'],
  ['steering', 'Wheel straight'],
] as const;

export function Ready({ ticket, kept }: { ticket: Ticket; kept: (t: Ticket) => void }) {
  const visit = ticket.visits.find((v) => v.kind === 'returned');
  const save = useMutation({
    mutationFn: (answers: Record<string, string>) =>
      saveVisit(ticket.job.id, 'returned', { version: visit?.version ?? 0, answers }),
    onSuccess: kept,
  });
  return (
    <div className="return-ready">
      {asks.map(([id, words]) => (
        <Tick
          key={id}
          on={visit?.holding[id] === 'yes'}
          disabled={save.isPending}
          set={(on) => save.mutate({ ...visit?.answers, [id]: on ? 'yes' : 'no' })}
          testid={`ready-${id}`}
        >
          {words}
        </Tick>
      ))}
      {save.error && <FieldError wrong={save.error.message} right="tick it again" />}
    </div>
  );
}
