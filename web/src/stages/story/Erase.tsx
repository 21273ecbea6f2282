// What is personal of a ticket, exported and taken out: words, plate, photos. What was read and set stays.
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { erasePersonal } from '../../api/calls';
import { did } from '../../shell/deeds';
import { ticketKey, useBench } from '../../shell/ticket';
import { ChipButton } from '../../ui/Press';
import { OfPlate } from './OfPlate';
import { Sure } from './Sure';

export function Erase() {
  const { ticket } = useBench();
  const queries = useQueryClient();
  const [asks, setAsks] = useState(false);
  const erase = useMutation({
    mutationFn: () => erasePersonal(ticket.job.id),
    onSuccess: async () => {
      did('Ticket: what is personal was taken out');
      setAsks(false);
      await queries.invalidateQueries({ queryKey: ticketKey(ticket.job.id) });
      await queries.invalidateQueries({ queryKey: ['story'] });
    },
  });
  return (
    <div style={{ display: 'flex', gap: 8, margin: '10px 0', flexWrap: 'wrap' }} className="no-print">
      <ChipButton href={`/api/v1/jobs/${ticket.job.id}/bundle.json`} download>
        All of it as a file
      </ChipButton>
      <ChipButton onClick={() => setAsks(true)} data-testid="erase">
        Take out what is personal
      </ChipButton>
      {ticket.job.plate && <OfPlate plate={ticket.job.plate} />}
      {asks && (
        <Sure
          id="erase"
          title="Take out what is personal?"
          fault={erase.error}
          yes="Take it out"
          busy={erase.isPending}
          act={() => erase.mutate()}
          close={() => setAsks(false)}
        >
          The customer’s words, the plate, notes and photos go from this ticket, from its record and from what
          happened on it. Readings, plans and the sheet stay. There is no way back.
        </Sure>
      )}
    </div>
  );
}
