// In from a browser that belongs to no shop: by passphrase, by a code that makes it the shop's, or by the owner's slip.
import { Button, TextField } from '@mui/material';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState, type FormEvent, type ReactNode } from 'react';
import { enrolByCode, signInPassphrase, signInSlip } from '../api/calls';
import { ApiProblem, type Schemas } from '../api/client';
import { Glyph } from '../ui/glyphs';
import { Segment } from '../ui/Segment';
import { Slip } from './Slip';
import { seatTaken } from './useSession';

type Way = 'passphrase' | 'code' | 'slip';

interface FieldProps {
  label: string;
  value: string;
  set: (v: string) => void;
  fault?: Schemas['Problem'];
  testid: string;
  hint?: string;
  type?: string;
  complete?: string;
}

function Line(p: FieldProps) {
  return (
    <TextField
      label={p.label}
      value={p.value}
      type={p.type ?? 'text'}
      onChange={(e) => p.set(e.target.value)}
      error={!!p.fault}
      helperText={p.fault ? `${p.fault.wrong}; ${p.fault.right}` : p.hint}
      slotProps={{
        htmlInput: { 'data-testid': p.testid, autoComplete: p.complete ?? 'off', autoCapitalize: 'none' },
      }}
    />
  );
}

function Form(p: {
  send: () => void;
  busy: boolean;
  act: string;
  testid: string;
  children: ReactNode;
  said?: string;
}) {
  return (
    <form
      className="door-form"
      onSubmit={(e: FormEvent) => {
        e.preventDefault();
        p.send();
      }}
    >
      {p.children}
      {p.said && (
        <p role="alert">
          <span className="plate">
            <Glyph name="clash" /> {p.said}
          </span>
        </p>
      )}
      <Button
        type="submit"
        variant="contained"
        disabled={p.busy}
        sx={{ minHeight: 60 }}
        data-testid={p.testid}
      >
        {p.busy ? 'Looking…' : p.act}
      </Button>
    </form>
  );
}

const faultOf = (e: unknown) => (e instanceof ApiProblem ? e : undefined);
/** What no field of the form bears. */
const rest = (e: ApiProblem | undefined, ...fields: string[]) =>
  e && !e.problems.some((x) => fields.includes(x.field)) ? (e.problems[0]?.wrong ?? e.message) : undefined;

function ByPassphrase() {
  const queries = useQueryClient();
  const [login, setLogin] = useState('');
  const [passphrase, setPassphrase] = useState('');
  const [code, setCode] = useState('');
  const [shop, setShop] = useState<string>();
  const enter = useMutation({
    mutationFn: (chosen: string | undefined) =>
      signInPassphrase({ login, passphrase, code: code || null, shop: chosen ?? null }),
    onSuccess: (a) => a.session && seatTaken(queries, a.session),
  });
  const f = faultOf(enter.error);
  const asks = enter.data;
  return (
    <Form
      send={() => enter.mutate(shop)}
      busy={enter.isPending}
      act="Sign in"
      testid="passphrase-open"
      said={rest(f, 'passphrase', 'code')}
    >
      <Line label="Name" value={login} set={setLogin} testid="login" complete="username" />
      <Line
        label="Passphrase"
        type="password"
        value={passphrase}
        set={setPassphrase}
        fault={f?.at('passphrase')}
        testid="passphrase"
        complete="current-password"
      />
      {(asks?.code_wanted || code) && (
        <Line
          label="Code of your other device"
          value={code}
          set={setCode}
          fault={f?.at('code')}
          testid="second-factor"
          hint="six digits"
          complete="one-time-code"
        />
      )}
      {!!asks?.shops.length && (
        <fieldset className="door-shops">
          <legend>Which shop</legend>
          {asks.shops.map((s) => (
            <Button
              key={s.id}
              variant={shop === s.id ? 'contained' : 'outlined'}
              onClick={() => {
                setShop(s.id);
                enter.mutate(s.id);
              }}
            >
              {s.name}
            </Button>
          ))}
        </fieldset>
      )}
    </Form>
  );
}

function ByCode() {
  const queries = useQueryClient();
  const [code, setCode] = useState('');
  const [name, setName] = useState('');
  const enter = useMutation({
    mutationFn: () => enrolByCode({ code, name }),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['session'] }),
  });
  const f = faultOf(enter.error);
  return (
    <Form
      send={() => enter.mutate()}
      busy={enter.isPending}
      act="Make it the shop’s"
      testid="code-use"
      said={rest(f, 'code', 'name')}
    >
      <p className="mut">
        On a device of the shop: the mark at the foot of the rail, People and devices, Add a device. It shows
        eight letters.
      </p>
      <Line label="Eight letters" value={code} set={setCode} fault={f?.at('code')} testid="device-code" />
      <Line
        label="This device is called"
        value={name}
        set={setName}
        fault={f?.at('name')}
        testid="device-name"
        hint="such as Bay 2 tablet"
      />
    </Form>
  );
}

function BySlip() {
  const queries = useQueryClient();
  const [slip, setSlip] = useState('');
  const [pin, setPin] = useState('');
  const [device, setDevice] = useState('');
  const enter = useMutation({ mutationFn: () => signInSlip({ slip, pin, device }) });
  const f = faultOf(enter.error);
  if (enter.data)
    return (
      <Slip
        slip={enter.data.slip}
        why="The slip you used is spent. This is the next one."
        done={() => seatTaken(queries, enter.data.session)}
      />
    );
  return (
    <Form
      send={() => enter.mutate()}
      busy={enter.isPending}
      act="Set the new PIN"
      testid="slip-use"
      said={rest(f, 'slip', 'pin', 'device')}
    >
      <p className="mut">The owner lost the PIN: the slip sets a new one, once.</p>
      <Line label="24 letters of the slip" value={slip} set={setSlip} fault={f?.at('slip')} testid="slip" />
      <Line
        label="Owner’s new PIN"
        type="password"
        value={pin}
        set={setPin}
        fault={f?.at('pin')}
        testid="slip-pin"
        hint="four to eight digits"
        complete="new-password"
      />
      <Line
        label="This device is called"
        value={device}
        set={setDevice}
        fault={f?.at('device')}
        testid="slip-device"
        hint="such as Office"
      />
    </Form>
  );
}

export function Elsewhere({ first = 'passphrase' }: { first?: Way }) {
  const [way, setWay] = useState<Way>(first);
  return (
    <section className="elsewhere">
      <h2>From here</h2>
      <Segment<Way>
        label="How you come in"
        value={way}
        choose={setWay}
        choices={[
          { value: 'passphrase', label: 'Passphrase', testid: 'way-passphrase' },
          { value: 'code', label: 'Add this device', testid: 'way-code' },
          { value: 'slip', label: 'Slip', testid: 'way-slip' },
        ]}
      />
      {way === 'passphrase' ? <ByPassphrase /> : way === 'code' ? <ByCode /> : <BySlip />}
    </section>
  );
}
