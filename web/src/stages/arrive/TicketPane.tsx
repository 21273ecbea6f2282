// What the ticket says: what it is for, the customer's words, plate, odometer and bay; the same car again, and putting it away.
import { Button, TextField } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { Link, useNavigate } from 'react-router';
import { putAway, sameCarAgain, saveTicket } from '../../api/calls';
import { ApiProblem, type Schemas, type Ticket } from '../../api/client';
import { did } from '../../shell/deeds';
import { Refusal } from '../../shell/Fault';
import { Fold } from '../../ui/Fold';
import { Unkept, useTyped } from '../../shell/Unkept';
import { useSettings } from '../../ui/settings';
import { readField, wrongOf } from '../../input/kinds';
import { fieldText } from '../../units/measure';
import { TicketFor } from './TicketFor';

type Typed = Omit<Schemas['NewJob'], 'bay' | 'odometer_km'> & { bay: string; odometer: string };

export function TicketPane({ ticket, setTicket }: { ticket: Ticket; setTicket: (t: Ticket) => void }) {
  const { job } = ticket;
  const { units } = useSettings();
  const navigate = useNavigate();
  const kept: Typed = {
    complaint: job.complaint,
    kind: job.kind,
    plate: job.plate,
    bay: job.bay ? String(job.bay) : '',
    odometer: fieldText('distance', job.odometer_km, units),
  };
  const typed = useTyped<Typed>(`ticket.${job.id}`, () => kept);
  const t = typed.value;
  const set = (c: Partial<Typed>) => typed.setValue({ ...t, ...c });
  const odometer = t.odometer.trim() ? wrongOf('distance', t.odometer, units) : undefined;
  const badBay = t.bay.trim() !== '' && !/^[1-9]\d?$/.test(t.bay.trim());
  const asSaved = (j: Ticket['job']): Schemas['NewJob'] => ({
    complaint: j.complaint,
    kind: j.kind,
    plate: j.plate,
    bay: j.bay ?? null,
    odometer_km: j.odometer_km ?? null,
  });
  const save = useMutation({
    mutationFn: () =>
      saveTicket(job.id, {
        version: job.version,
        job: {
          complaint: t.complaint,
          kind: t.kind ?? 'height',
          plate: t.plate ?? '',
          bay: t.bay.trim() ? Number(t.bay) : null,
          odometer_km: t.odometer.trim() ? (readField('distance', t.odometer, units) ?? null) : null,
        },
      }),
    onSuccess: (now) => {
      typed.forget();
      setTicket(now);
      did('Ticket: kept', async () =>
        setTicket(await saveTicket(job.id, { version: now.job.version, job: asSaved(job) })),
      );
    },
  });
  const away = useMutation({
    mutationFn: (to: boolean) => putAway(job.id, { version: job.version, away: to }),
    onSuccess: (now) => {
      setTicket(now);
      const to = !!now.job.archived_at;
      did(to ? 'Ticket: put away' : 'Ticket: taken out again', async () =>
        setTicket(await putAway(job.id, { version: now.job.version, away: !to })),
      );
    },
  });
  const again = useMutation({
    mutationFn: () => sameCarAgain(job.id),
    onSuccess: (now) => void navigate(`/job/${now.job.id}/arrive`),
  });
  const fault = save.error instanceof ApiProblem ? save.error : undefined;
  const at = (f: string) => fault?.problems.find((p) => p.field === `job.${f}`);
  const changed = JSON.stringify(t) !== JSON.stringify(kept);
  const text = (
    field: 'complaint' | 'plate' | 'bay' | 'odometer',
    label: string,
    more: { most: number; number?: boolean; wrong?: string | undefined; lines?: boolean },
  ) => {
    const p = at(field === 'odometer' ? 'odometer_km' : field);
    const words = p ? `${p.wrong}. Right would be: ${p.right}` : more.wrong;
    return (
      <TextField
        label={label}
        size="small"
        value={t[field] ?? ''}
        onChange={(e) => set({ [field]: e.target.value })}
        error={!!words}
        helperText={words}
        multiline={!!more.lines}
        slotProps={{
          htmlInput: {
            maxLength: more.most,
            inputMode: more.number ? 'decimal' : undefined,
            'data-testid': `ticket-${field}`,
          },
        }}
      />
    );
  };
  const keep = (
    <Button
      variant={changed ? 'contained' : 'outlined'}
      disabled={!changed || badBay || !!odometer || save.isPending}
      onClick={() => save.mutate()}
      data-testid="keep-ticket"
    >
      Keep the ticket
    </Button>
  );
  const summary = [job.plate, job.bay ? `bay ${job.bay}` : 'no bay', job.archived_at && 'put away']
    .filter(Boolean)
    .join(', ');
  return (
    <section aria-label="Ticket" className="ticket-pane" data-testid="ticket-pane">
      <Unkept typed={typed} />
      <TicketFor kind={t.kind ?? 'height'} pick={(kind) => set({ kind })} />
      {t.kind !== kept.kind && keep}
      <Fold className="fold" testid="ticket-more" words={<>Ticket: {summary}</>} open={typed.restored}>
        <div className="ticket-fields">
          {text('complaint', 'Complaint or wish', { most: 500, lines: true })}
          {text('plate', 'Plate or fleet number', { most: 20 })}
          <div className="ticket-row">
            {text('odometer', `Odometer, ${units.distance === 'km' ? 'km' : 'mi'}`, {
              most: 12,
              number: true,
              wrong: odometer ? `${odometer.wrong}. Right would be: ${odometer.right}` : undefined,
            })}
            {text('bay', 'Bay', { most: 2, number: true, wrong: badBay ? '1 to 99' : undefined })}
          </div>
          {t.kind === kept.kind && keep}
          {fault && !fault.problems.length && <Refusal error={fault} />}
          <div className="ticket-acts">
            <Button component={Link} to="../story" variant="outlined" data-testid="to-story">
              Its story
            </Button>
            <Button
              variant="outlined"
              disabled={again.isPending}
              onClick={() => again.mutate()}
              data-testid="same-car-again"
            >
              Same car again
            </Button>
            <Button
              variant="outlined"
              disabled={away.isPending}
              onClick={() => away.mutate(!job.archived_at)}
              data-testid="put-away"
            >
              {job.archived_at ? 'Take it out again' : 'Put it away'}
            </Button>
          </div>
          {[away.error, again.error].map(
            (e) =>
              e && (
                <p key={e.message} className="plate">
                  {e.message}
                </p>
              ),
          )}
        </div>
      </Fold>
    </section>
  );
}
