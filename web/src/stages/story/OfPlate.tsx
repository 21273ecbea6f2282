// One customer's: every ticket of a plate or fleet number, as a file, and taken out of all of them.
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { customerFile, eraseCustomer, ticketsOfPlate } from '../../api/calls';
import { did } from '../../shell/deeds';
import { ChipButton } from '../../ui/Press';
import { Sure } from './Sure';

/** The other tickets of the same plate: one customer's, exported and taken out together. */
export function OfPlate({ plate }: { plate: string }) {
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
  const every = n === 2 ? 'both' : `all ${n}`;
  return (
    <>
      <ChipButton href={customerFile(plate)} download data-testid="customer-file">
        {n === 2 ? 'Both' : `All ${n}`} tickets of {plate} as a file
      </ChipButton>
      <ChipButton onClick={() => setAsks(true)} data-testid="customer-erase">
        Take out what is personal of {every}
      </ChipButton>
      {asks && (
        <Sure
          id="customer-erase"
          title={`Take it out of ${every} tickets?`}
          fault={erase.error}
          yes={`Take it out of ${every}`}
          busy={erase.isPending}
          act={() => erase.mutate()}
          close={() => setAsks(false)}
        >
          Tickets {all.data?.map((t) => String(t.ticket).padStart(4, '0')).join(', ')}. Words, plate, notes
          and photos go; readings, plans and sheets stay. There is no way back.
        </Sure>
      )}
    </>
  );
}
