// A PIN or a passphrase somebody is given.
import { Button, Dialog, TextField } from '@mui/material';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { setPassphrase, setPin } from '../../api/calls';
import { ApiProblem, type Schemas } from '../../api/client';
import { PinPad, PinSlots } from '../../door/PinPad';
import { Glyph } from '../../ui/glyphs';
import { PersonMark } from '../../ui/PersonMark';
import { Tick } from '../../ui/Tick';
import { peopleKey, usePeopleAct } from './list';

type View = Schemas['MemberView'];
interface Props {
  of: View;
  close: () => void;
}

export function PinDialog({ of, close }: Props) {
  const [pin, set] = useState('');
  const keep = usePeopleAct(() => setPin(of.member.id, pin), close);
  const fault = keep.error instanceof ApiProblem ? keep.error : undefined;
  const at = fault?.at('pin');
  return (
    <Dialog open onClose={close} aria-labelledby="pin-title">
      <div className="secret-dialog">
        <header>
          <PersonMark mark={of.member.mark} size={40} />
          <h2 id="pin-title">PIN of {of.member.name}</h2>
        </header>
        <PinSlots n={pin.length} label="PIN" />
        <PinPad
          pin={pin}
          set={set}
          side={{ word: 'Close', press: close, testid: 'pin-close' }}
          enter={() => pin.length >= 4 && keep.mutate(undefined)}
        />
        {fault && (
          <p role="alert">
            <span className="plate">
              <Glyph name="clash" /> {at ? `${at.wrong}; ${at.right}` : fault.message}
            </span>
          </p>
        )}
        <p className="small mut">Four to eight digits. They are signed out wherever they are signed in.</p>
        <Button
          variant="contained"
          disabled={pin.length < 4 || keep.isPending}
          onClick={() => keep.mutate(undefined)}
          sx={{ minHeight: 56 }}
          data-testid="pin-keep"
        >
          Keep it
        </Button>
      </div>
    </Dialog>
  );
}

export function PassphraseDialog({ of, close }: Props) {
  const queries = useQueryClient();
  const [login, setLogin] = useState(of.login ?? '');
  const [passphrase, setText] = useState('');
  const [second, setSecond] = useState(of.second_factor);
  const keep = useMutation({
    mutationFn: () => setPassphrase(of.member.id, { login, passphrase, second_factor: second }),
    onSuccess: (a) => {
      queries.setQueryData(peopleKey, a.people);
      if (!a.second_factor) close();
    },
  });
  const fault = keep.error instanceof ApiProblem ? keep.error : undefined;
  const at = (f: string) => fault?.problems.find((p) => p.field === f);
  const made = keep.data?.second_factor;
  return (
    <Dialog open onClose={close} aria-labelledby="phrase-title">
      <form
        className="secret-dialog"
        onSubmit={(e) => {
          e.preventDefault();
          keep.mutate();
        }}
      >
        <h2 id="phrase-title">{of.member.name}, from elsewhere</h2>
        {made ? (
          <>
            <p>Hold the app for codes to this, or type the letters. It is shown once.</p>
            <img
              alt="Code for an app"
              width={220}
              height={220}
              src={`data:image/svg+xml;utf8,${encodeURIComponent(made.picture)}`}
            />
            <p className="fig" data-testid="factor-secret">
              {made.secret}
            </p>
            <Button variant="contained" onClick={close}>
              Done
            </Button>
          </>
        ) : (
          <>
            <TextField
              label="Name to sign in with"
              value={login}
              onChange={(e) => setLogin(e.target.value)}
              error={!!at('login')}
              helperText={at('login') && `${at('login')!.wrong}; ${at('login')!.right}`}
              slotProps={{
                htmlInput: { 'data-testid': 'phrase-login', autoComplete: 'off', autoCapitalize: 'none' },
              }}
            />
            <TextField
              label="Passphrase"
              type="password"
              value={passphrase}
              onChange={(e) => setText(e.target.value)}
              error={!!at('passphrase')}
              helperText={
                at('passphrase')
                  ? `${at('passphrase')!.wrong}; ${at('passphrase')!.right}`
                  : '12 characters or more: four words that do not belong together'
              }
              slotProps={{ htmlInput: { 'data-testid': 'phrase-text', autoComplete: 'new-password' } }}
            />
            {of.member.role === 'owner' && (
              <Tick on={second} set={setSecond} testid="phrase-second">
                Ask a code of six digits too
              </Tick>
            )}
            {fault && !fault.problems.length && (
              <p role="alert" className="plate">
                {fault.message}
              </p>
            )}
            <div className="member-acts">
              <Button type="submit" variant="contained" disabled={keep.isPending} data-testid="phrase-keep">
                Keep it
              </Button>
              <Button variant="outlined" onClick={close}>
                Close
              </Button>
            </div>
          </>
        )}
      </form>
    </Dialog>
  );
}
