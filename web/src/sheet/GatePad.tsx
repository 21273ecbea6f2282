// The pad a gate's reading is typed on.
import { Dialog } from '@mui/material';
import type { AxleName, SideName, Ticket } from '../api/client';
import { PadDialog } from '../pad/PadDialog';
import type { Quantity, Visit } from '../pad/readings';

export interface AtGate {
  visit: Visit;
  quantity: Quantity;
  axle: AxleName;
  side: SideName;
}

interface Props {
  at: AtGate | undefined;
  ticket: Ticket;
  close: () => void;
  kept: (t: Ticket) => void;
}

export function GatePad({ at, ticket, close, kept }: Props) {
  return (
    <Dialog open={!!at} onClose={close} maxWidth={false}>
      {at && (
        <div style={{ width: 'min(440px, 92vw)', maxWidth: '100%' }}>
          <PadDialog
            key={at.visit + at.quantity + at.axle + at.side}
            ticket={ticket}
            visit={at.visit}
            target={{
              quantity: at.quantity,
              // A wheelbase belongs to a side of the car and not to a wheel, the centre to the whole axle.
              place: {
                axle: at.quantity === 'wheelbase' ? 'both' : at.axle,
                side: at.quantity === 'axle_offset' ? 'both' : at.side,
              },
            }}
            kept={(t) => {
              kept(t);
              close();
            }}
          />
        </div>
      )}
    </Dialog>
  );
}
