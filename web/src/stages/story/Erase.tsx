// What is personal of a ticket, exported and taken out: words, plate, photos. What was read and set stays.
import { Button, Dialog } from '@mui/material';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { erasePersonal } from '../../api/calls';
import { did } from '../../shell/deeds';
import { ticketKey, useBench } from '../../shell/ticket';
import { ChipButton } from '../../ui/Press';
import { OfPlate } from './OfPlate';

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
        <Dialog open onClose={() => setAsks(false)} aria-labelledby="erase-title">
          <div className="secret-dialog">
            <h2 id="erase-title">Take out what is personal?</h2>
            <p>
              The customer’s words, the plate, notes and photos go from this ticket, from its record and from
              what happened on it. Readings, plans and the sheet stay. There is no way back.
            </p>
            {erase.error && (
              <p className="plate" role="alert">
                {erase.error.message}
              </p>
            )}
            <div className="member-acts">
              <Button
                variant="contained"
                disabled={erase.isPending}
                onClick={() => erase.mutate()}
                data-testid="erase-now"
              >
                Take it out
              </Button>
              <Button variant="outlined" onClick={() => setAsks(false)}>
                Keep it
              </Button>
            </div>
          </div>
        </Dialog>
      )}
    </div>
  );
}
