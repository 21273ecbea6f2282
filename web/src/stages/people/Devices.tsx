// Devices of the shop: which there are, who sits at them, and the code that adds one.
import { Button, TextField } from '@mui/material';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { enrolHere, makeCode, removeDevice } from '../../api/calls';
import { ApiProblem } from '../../api/client';
import { useSession } from '../../door/useSession';
import { ChipButton } from '../../ui/Press';
import { when } from '../../units/when';
import { peopleKey, type PeopleData } from './list';

export function Devices({ people }: { people: PeopleData }) {
  const queries = useQueryClient();
  const session = useSession();
  const [name, setName] = useState('');
  const fresh = () =>
    Promise.all([
      queries.invalidateQueries({ queryKey: peopleKey }),
      queries.invalidateQueries({ queryKey: ['session'] }),
    ]);
  const code = useMutation({ mutationFn: makeCode });
  const remove = useMutation({ mutationFn: removeDevice, onSuccess: fresh });
  const here = useMutation({ mutationFn: () => enrolHere(name), onSuccess: fresh });
  const named = (id: string) => people.members.find((m) => m.member.id === id)?.member.name ?? '—';
  const fault = here.error instanceof ApiProblem ? here.error : undefined;
  return (
    <section className="pane people-devices" aria-label="Devices">
      <h2>Devices</h2>
      {people.devices.map((d) => {
        const sits = people.sitting.find((s) => s.device_id === d.id);
        return (
          <div key={d.id} className="device-row" data-testid={`device-${d.name}`}>
            <span>
              <b>{d.name}</b>
              <span className="small mut">
                {sits ? `${named(sits.member_id)} is signed in` : `last seen ${when(d.seen_at)}`}
              </span>
            </span>
            <ChipButton onClick={() => remove.mutate(d.id)}>Take out</ChipButton>
          </div>
        );
      })}
      {!people.devices.length && <p className="mut">None yet: names and PINs open on devices of the shop.</p>}
      {session.data && !session.data.device && !session.data.open && (
        <form
          className="member-new"
          onSubmit={(e) => {
            e.preventDefault();
            here.mutate();
          }}
        >
          <TextField
            size="small"
            label="This device is called"
            value={name}
            onChange={(e) => setName(e.target.value)}
            error={!!fault}
            helperText={
              fault?.problems[0] ? `${fault.problems[0].wrong}; ${fault.problems[0].right}` : fault?.message
            }
            slotProps={{ htmlInput: { 'data-testid': 'here-name' } }}
          />
          <Button type="submit" variant="outlined" disabled={!name.trim()} data-testid="enrol-here">
            Make it the shop’s
          </Button>
        </form>
      )}
      {code.data ? (
        <p className="device-code" data-testid="device-code-shown">
          <b className="fig">{code.data.code}</b>
          <span className="small mut">
            On the new device: Add this device, these letters. Good once, for ten minutes.
          </span>
        </p>
      ) : (
        <Button
          variant="outlined"
          onClick={() => code.mutate()}
          disabled={code.isPending}
          data-testid="make-code"
        >
          Add a device
        </Button>
      )}
      {code.error && <p className="plate">{code.error.message}</p>}
    </section>
  );
}
