// What is personal of a ticket, exported and taken out: words, plate, photos. What was read and set stays.
import { Button, Dialog } from '@mui/material';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { customerFile, eraseCustomer, erasePersonal, ticketsOfPlate } from '../../api/calls';
import { did } from '../../shell/deeds';
import { ticketKey, useBench } from '../../shell/ticket';
import { ChipButton } from '../../ui/Press';

/** The other tickets of the same plate: one customer's, exported and taken out together. */
function OfPlate({ plate }: { plate: string }) {
  const queries = useQueryClient();
  const [asks, setAsks] = useState(false);
  const all = useQuery({ queryKey: ['customer', plate], queryFn: () => ticketsOfPlate(plate) });
  const erase = useMutation({
    mutationFn: () => eraseCustomer(plate),
    onSuccess: async (t) => {
      did(`${t.tickets} tickets: what is personal was taken out`);
      setAsks(false);
      await queries.invalidateQueries();
    },
  });
  const n = all.data?.length ?? 0;
  if (n < 2) return null;
  return (
    <>
      <ChipButton href={customerFile(plate)} download data-testid="customer-file">
        All {n} tickets of {plate} as a file
      </ChipButton>
      <ChipButton onClick={() => setAsks(true)} data-testid="customer-erase">
        Take out what is personal of all {n}
      </ChipButton>
      {asks && (
        <Dialog open onClose={() => setAsks(false)} aria-labelledby="customer-title">
          <div className="secret-dialog">
            <h2 id="customer-title">Take it out of all {n} tickets?</h2>
            <p>
              Tickets {all.data?.map((t) => String(t.ticket).padStart(4, '0')).join(', ')}. Words, plate,
              notes and photos go; readings, plans and sheets stay. There is no way back.
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
                data-testid="customer-erase-now"
              >
                Take it out of all {n}
              </Button>
              <Button variant="outlined" onClick={() => setAsks(false)}>
                Keep it
              </Button>
            </div>
          </div>
        </Dialog>
      )}
    </>
  );
}

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
