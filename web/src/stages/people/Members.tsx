// Who works here: names, what they may, how they come in.
import { Button, TextField } from '@mui/material';
import { useState } from 'react';
import { addMember, endSessions, saveMember } from '../../api/calls';
import { ApiProblem, type Schemas } from '../../api/client';
import { Pick } from '../../ui/Pick';
import { PersonMark, MARKS } from '../../ui/PersonMark';
import { ChipButton, Plain } from '../../ui/Press';
import { roles, roleOf, type Role } from '../../ui/roles';
import { when } from '../../units/when';
import { PassphraseDialog, PinDialog } from './Secrets';
import { usePeopleAct, type PeopleData } from './list';

type View = Schemas['MemberView'];

export function Members({ people }: { people: PeopleData }) {
  const here = people.members.filter((m) => !m.member.left_at);
  const gone = people.members.filter((m) => m.member.left_at);
  return (
    <section className="pane people-members" aria-label="Who works here">
      <h2>Who works here</h2>
      {here.map((m) => (
        <Member key={m.member.id} of={m} people={people} />
      ))}
      <NewMember taken={people.members.length} />
      {gone.length > 0 && (
        <p className="small mut" style={{ marginTop: 12 }}>
          Left: {gone.map((m) => `${m.member.name} (${when(m.member.left_at!)})`).join(', ')}. What they did
          stays theirs.
        </p>
      )}
    </section>
  );
}

function Member({ of, people }: { of: View; people: PeopleData }) {
  const m = of.member;
  const [open, setOpen] = useState(false);
  const [dialog, setDialog] = useState<'pin' | 'passphrase'>();
  const [name, setName] = useState(m.name);
  const save = usePeopleAct((c: Partial<Schemas['SaveMember']>) =>
    saveMember(m.id, { version: m.version, name, role: m.role, mark: m.mark, left: false, ...c }),
  );
  const out = usePeopleAct(() => endSessions(m.id));
  const fault = save.error instanceof ApiProblem ? save.error : undefined;
  const sits = people.sitting.filter((s) => s.member_id === m.id).length;
  return (
    <article className="member" data-testid={`member-${m.name}`}>
      <Plain className="member-row" onClick={() => setOpen(!open)} aria-expanded={open}>
        <PersonMark mark={m.mark} />
        <span className="member-name">
          <b>{m.name}</b>
          <span className="small mut">
            {roleOf(m.role).title}: {roleOf(m.role).does}
          </span>
        </span>
        <span className="small member-ways">
          {m.has_pin ? 'PIN' : <b>no PIN</b>}
          {of.login ? ` · ${of.login}${of.second_factor ? ', with code' : ''}` : ''}
          <br />
          {sits ? `signed in on ${sits}` : 'not here'}
        </span>
      </Plain>
      {open && (
        <div className="member-edit">
          <TextField
            size="small"
            label="Name"
            value={name}
            onChange={(e) => setName(e.target.value)}
            onBlur={() => name.trim() && name !== m.name && save.mutate({ name })}
            error={!!fault?.at('name')}
            helperText={fault?.at('name') && `${fault.at('name')!.wrong}; ${fault.at('name')!.right}`}
            slotProps={{ htmlInput: { 'data-testid': 'member-name' } }}
          />
          <Pick<Role>
            label="May"
            value={m.role}
            list={roles.map((r) => ({ value: r.value, words: r.title }))}
            pick={(role) => save.mutate({ role })}
            testid="member-role"
          />
          <div className="member-marks" role="group" aria-label={`Mark of ${m.name}`}>
            {Array.from({ length: MARKS }, (_, i) => (
              <Plain
                key={i}
                aria-pressed={i === m.mark}
                aria-label={`Mark ${i + 1}`}
                onClick={() => save.mutate({ mark: i })}
              >
                <PersonMark mark={i} size={30} />
              </Plain>
            ))}
          </div>
          {fault?.at('role') && (
            <p className="plate" role="alert">
              {fault.at('role')!.wrong}; {fault.at('role')!.right}
            </p>
          )}
          {fault && !fault.problems.length && <p className="plate">{fault.message}</p>}
          <div className="member-acts">
            <Button variant="contained" onClick={() => setDialog('pin')} data-testid="set-pin">
              {m.has_pin ? 'New PIN' : 'Set a PIN'}
            </Button>
            <Button variant="outlined" onClick={() => setDialog('passphrase')} data-testid="set-passphrase">
              {of.login ? 'New passphrase' : 'Let in from elsewhere'}
            </Button>
            <ChipButton onClick={() => out.mutate(undefined)} disabled={!sits} data-testid="end-sessions">
              Sign out everywhere
            </ChipButton>
            <ChipButton onClick={() => save.mutate({ left: true })} data-testid="member-left">
              Works here no more
            </ChipButton>
          </div>
        </div>
      )}
      {dialog === 'pin' && <PinDialog of={of} close={() => setDialog(undefined)} />}
      {dialog === 'passphrase' && <PassphraseDialog of={of} close={() => setDialog(undefined)} />}
    </article>
  );
}

function NewMember({ taken }: { taken: number }) {
  const [name, setName] = useState('');
  const [role, setRole] = useState<Role>('specialist');
  const add = usePeopleAct(
    () => addMember({ name, role, mark: (taken * 3 + 1) % MARKS }),
    () => setName(''),
  );
  const fault = add.error instanceof ApiProblem ? add.error : undefined;
  return (
    <form
      className="member-new"
      onSubmit={(e) => {
        e.preventDefault();
        add.mutate(undefined);
      }}
    >
      <TextField
        size="small"
        label="One more name"
        value={name}
        onChange={(e) => setName(e.target.value)}
        error={!!fault}
        helperText={
          fault &&
          (fault.at('name') ? `${fault.at('name')!.wrong}; ${fault.at('name')!.right}` : fault.message)
        }
        slotProps={{ htmlInput: { 'data-testid': 'new-member' } }}
      />
      <Pick<Role>
        label="May"
        value={role}
        list={roles.map((r) => ({ value: r.value, words: r.title }))}
        pick={setRole}
        testid="new-role"
      />
      <Button
        type="submit"
        variant="outlined"
        disabled={!name.trim() || add.isPending}
        data-testid="add-member"
      >
        Add
      </Button>
    </form>
  );
}
