// Arrive: the facts of the open job's vehicle.
import { ChipLink } from '../../ui/Press';
import { saveVehicle } from '../../api/calls';
import { useMutation } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { ApiProblem, type VehicleFacts } from '../../api/client';
import { did } from '../../shell/deeds';
import { writeDraft } from '../../shell/drafts';
import { stagesOf, useBench, useShop } from '../../shell/ticket';
import { Notes } from './Notes';
import { TicketPane } from './TicketPane';
import { VehicleForm } from './VehicleForm';

export default function Arrive() {
  const { ticket, setTicket } = useBench();
  const navigate = useNavigate();
  const shop = useShop();
  const { job } = ticket;
  const next = stagesOf(shop.data, job.kind)[1] ?? 'read';
  const save = useMutation({
    mutationFn: (facts: VehicleFacts) => saveVehicle(ticket.job.id, ticket.vehicle.version, facts),
    onSuccess: (t) => {
      writeDraft(`vehicle2.${ticket.job.id}`, undefined);
      setTicket(t);
      const before = ticket.vehicle.facts as VehicleFacts;
      did('Facts of the car: kept', async () =>
        setTicket(await saveVehicle(ticket.job.id, t.vehicle.version, before)),
      );
      void navigate(`../${t.missing.length ? next : 'plan'}${window.location.search}`);
    },
  });
  return (
    <VehicleForm
      key={ticket.vehicle.version}
      draftKey={`vehicle2.${ticket.job.id}`}
      start={ticket.vehicle.facts as VehicleFacts}
      fault={save.error instanceof ApiProblem ? save.error : undefined}
      busy={save.isPending}
      action={
        ticket.missing.length
          ? next === 'wear'
            ? 'Keep, then the tread'
            : 'Keep, then read'
          : 'Keep, back to the plan'
      }
      ticket={ticket}
      notes={<Notes ticket={ticket} setTicket={setTicket} />}
      done={(f) => save.mutate(f)}
      head={
        <>
          <div style={{ display: 'flex', justifyContent: 'space-between', alignItems: 'center', gap: 12 }}>
            <h1>Arrive</h1>
            <ChipLink to={`../corner-file${window.location.search}`} testid="to-corner-file">
              Corner file
            </ChipLink>
          </div>
          <p className="small mut" style={{ marginTop: 6 }}>
            {ticket.job.complaint || 'No wish written down.'}
          </p>
          <TicketPane key={`${job.id}${job.version}`} ticket={ticket} setTicket={setTicket} />
        </>
      }
    />
  );
}
