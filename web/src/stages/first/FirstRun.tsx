// The first run: a name, an owner with a PIN, the units and the light, and the slip. Four things, then drive a car in.
import { Button, TextField } from '@mui/material';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { Link, Navigate, useNavigate } from 'react-router';
import { addMember, claimShop } from '../../api/calls';
import { ApiProblem, type Schemas } from '../../api/client';
import { PinPad, PinSlots } from '../../door/PinPad';
import { Slip } from '../../door/Slip';
import { seatTaken, useSession } from '../../door/useSession';
import { useTitle } from '../../shell/title';
import { useShop } from '../../shell/ticket';
import { UnitRows } from '../../shell/UnitsMenu';
import { Ground } from '../../ui/Car';
import { Glyph, Logo, type GlyphName } from '../../ui/glyphs';
import { PersonMark } from '../../ui/PersonMark';
import { Plain } from '../../ui/Press';
import { roles, roleOf, type Role } from '../../ui/roles';
import { Segment } from '../../ui/Segment';
import { useSettings } from '../../ui/settings';
import { readNumber } from '../../units/notation';

type Step = 'name' | 'pin' | 'units' | 'slip';
const order: Step[] = ['name', 'pin', 'units', 'slip'];
interface More {
  name: string;
  role: Role;
  mark: number;
}

export default function FirstRun() {
  useTitle('A new shop');
  const session = useSession();
  const shop = useShop();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const settings = useSettings();
  const [step, setStep] = useState<Step>('name');
  const [name, setName] = useState<string>();
  const [bays, setBays] = useState('3');
  const [owner, setOwner] = useState('Owner');
  const [device, setDevice] = useState('Front office');
  const [pin, setPin] = useState('');
  const [again, setAgain] = useState('');
  const [kept, setKept] = useState(false);
  const [more, setMore] = useState<More[]>([]);
  const called = name ?? (shop.data?.name === 'My shop' ? '' : (shop.data?.name ?? ''));
  const claim = useMutation({
    mutationFn: async (): Promise<Schemas['Claimed']> => {
      const made = await claimShop({ name: called, bays: readNumber(bays) ?? 0, owner, pin, device });
      seatTaken(queries, { ...made.session });
      for (const m of more.filter((x) => x.name.trim())) await addMember(m);
      return made;
    },
    onSuccess: () => setStep('slip'),
    onError: (e) => {
      const at = e instanceof ApiProblem ? e.problems[0]?.field : undefined;
      if (at === 'pin') {
        setPin('');
        setAgain('');
        setKept(false);
        setStep('pin');
      } else if (at) setStep('name');
    },
  });
  const fault = claim.error instanceof ApiProblem ? claim.error : undefined;
  const s = session.data;
  if (s && !s.open && !claim.data) return <Navigate to="/" replace />;
  const other = !!again && !pin.startsWith(again) && again.length >= pin.length;
  const done: Record<Step, boolean> = {
    name: step !== 'name',
    pin: step === 'units' || step === 'slip',
    units: step === 'slip',
    slip: false,
  };
  const said: Record<Step, [string, string]> = {
    name: ['Name and bays', called ? `${called}, ${bays} bays` : 'what stands on the strip'],
    pin: ['Owner’s PIN', 'yours alone, opens the whole shop'],
    units: [
      'Units and light',
      `${settings.unit}, ${settings.form === 'decimal' ? 'degrees' : 'minutes'}, ${settings.theme}`,
    ],
    slip: ['Recovery slip', 'printed once, keep it off the bench'],
  };
  const glyphOf = (x: Step): GlyphName => (x === step ? 'now' : done[x] ? 'done' : 'unread');
  const problem = (f: string) => fault?.problems.find((p) => p.field === f);
  const field = (
    label: string,
    f: string,
    value: string,
    set: (v: string) => void,
    testid: string,
  ): ReactNode => (
    <TextField
      label={label}
      value={value}
      onChange={(e) => set(e.target.value)}
      error={!!problem(f)}
      helperText={problem(f) && `${problem(f)!.wrong}; ${problem(f)!.right}`}
      slotProps={{ htmlInput: { 'data-testid': testid, autoComplete: 'off' } }}
    />
  );
  const typing = kept ? again : pin;
  const typed = (v: string) => (kept ? setAgain(v) : setPin(v));
  const left = Math.max(0, 4 - typing.length);
  return (
    <div className="first-run">
      <section className="first-slate" aria-label="Four things">
        <Logo />
        <h1>A new shop</h1>
        <p>You are the first here, so you are its owner. Four things, then drive a car in.</p>
        <ol>
          {order.map((x) => (
            <li
              key={x}
              aria-current={x === step ? 'step' : undefined}
              className={done[x] || x === step ? '' : 'later'}
            >
              <Glyph name={glyphOf(x)} size={20} />
              <span>
                <b className="fig">{said[x][0]}</b>
                <span className="small">{said[x][1]}</span>
              </span>
            </li>
          ))}
        </ol>
        <svg viewBox="0 0 520 130" aria-hidden="true" className="first-bays">
          <Ground x0={0} x1={520} y={92} />
          {[0, 1, 2].map((i) => (
            <g key={i} transform={`translate(${8 + i * 174} 0)`}>
              <path d="M0 0V92M158 0V92" stroke="var(--ghost)" strokeDasharray="5 4" strokeWidth="1.4" />
              <text
                x="79"
                y="70"
                textAnchor="middle"
                fontSize="66"
                fontWeight="800"
                fill="none"
                stroke="var(--ghost)"
                strokeWidth="1.4"
              >
                {i + 1}
              </text>
            </g>
          ))}
        </svg>
      </section>
      <main className="first-sheet">
        {step === 'name' && (
          <section className="door-form">
            <h2>Name and bays</h2>
            {field('Name of the shop', 'name', called, setName, 'first-name')}
            {field('Bays', 'bays', bays, setBays, 'first-bays')}
            {field('Your name, as it stands on the bench', 'owner', owner, setOwner, 'first-owner')}
            {field('This device is called', 'device', device, setDevice, 'first-device')}
            <Button
              variant="contained"
              disabled={!called.trim() || !owner.trim() || !device.trim() || !readNumber(bays)}
              onClick={() => setStep('pin')}
              sx={{ minHeight: 60 }}
              data-testid="first-next"
            >
              Owner’s PIN next
            </Button>
          </section>
        )}
        {step === 'pin' && (
          <div className="first-pin">
            <section>
              <h2>Owner’s PIN</h2>
              <p className="mut">
                Four to eight digits. Not 0000, not 1234, not the phone number on the door.
              </p>
              <div className="lab">Once</div>
              <div className="pin-row">
                <PinSlots n={pin.length} label="Once" kept={kept} />
                {kept && (
                  <b>
                    <Glyph name="done" size={18} /> Kept
                  </b>
                )}
              </div>
              <div className="lab">And again</div>
              <div className="pin-row">
                <PinSlots n={again.length} label="And again" kept={again.length === pin.length} />
                {other && (
                  <span className="plate" role="alert">
                    <Glyph name="clash" /> Not the same
                  </span>
                )}
              </div>
              {problem('pin') && (
                <p role="alert">
                  <span className="plate">
                    <Glyph name="clash" /> {problem('pin')!.wrong}; {problem('pin')!.right}
                  </span>
                </p>
              )}
              <h3 style={{ marginTop: 18 }}>Who else works here</h3>
              <Others names={s?.names ?? []} owner={owner} more={more} set={setMore} />
            </section>
            <section>
              <PinPad
                pin={typing}
                set={typed}
                side={{
                  word: 'Clear',
                  press: () => {
                    setPin('');
                    setAgain('');
                    setKept(false);
                  },
                  testid: 'pin-clear',
                }}
                enter={() => (kept ? again === pin && setStep('units') : pin.length >= 4 && setKept(true))}
              />
              <p className="first-note">
                <b>No mail, no net needed.</b> Lose the PIN and the slip, and only a backup brings the shop
                back.
              </p>
              {!kept ? (
                <Button
                  variant="contained"
                  fullWidth
                  disabled={pin.length < 4}
                  onClick={() => setKept(true)}
                  sx={{ minHeight: 60 }}
                  data-testid="pin-once"
                >
                  {left ? `And again: ${left} to go` : 'And again'}
                </Button>
              ) : (
                <Button
                  variant="contained"
                  fullWidth
                  disabled={again !== pin}
                  onClick={() => setStep('units')}
                  sx={{ minHeight: 60 }}
                  data-testid="pin-again"
                >
                  {again === pin
                    ? 'Units next'
                    : `Units next: ${Math.max(1, pin.length - again.length)} to go`}
                </Button>
              )}
            </section>
          </div>
        )}
        {step === 'units' && (
          <section className="door-form">
            <h2>Units and light</h2>
            <UnitRows />
            <Segment
              label="Light"
              value={settings.theme}
              choose={(theme) => settings.set({ theme })}
              choices={[
                { value: 'day', label: 'Day', testid: 'first-day' },
                { value: 'night', label: 'Night', testid: 'first-night' },
              ]}
            />
            {fault && !fault.problems.length && (
              <p role="alert">
                <span className="plate">
                  <Glyph name="stale" /> {fault.message}
                </span>
              </p>
            )}
            <p className="first-note">
              From the next press on nobody works here without a name and its PIN. Readings and plans that are
              here stay.
            </p>
            <Button
              variant="contained"
              disabled={claim.isPending}
              onClick={() => claim.mutate()}
              sx={{ minHeight: 60 }}
              data-testid="first-claim"
            >
              {claim.isPending ? 'Locking…' : 'Lock the shop'}
            </Button>
          </section>
        )}
        {step === 'slip' && claim.data && (
          <Slip
            slip={claim.data.slip}
            why={`${called} is yours. Whoever lost the owner’s PIN sets a new one with these letters, once.`}
            done={() => void navigate('/people')}
          />
        )}
        {step !== 'slip' && (
          <footer className="first-foot">
            {step !== 'name' && (
              <Button variant="outlined" onClick={() => setStep(order[order.indexOf(step) - 1] ?? 'name')}>
                Back
              </Button>
            )}
            <Button component={Link} to="/" variant="outlined" data-testid="first-look">
              {s?.names.length ? 'Look round first' : 'Work without sign-in'}
            </Button>
          </footer>
        )}
      </main>
    </div>
  );
}

interface OthersProps {
  names: Schemas['Name'][];
  owner: string;
  more: More[];
  set: (m: More[]) => void;
}

/** Who else works here: names that are there, and more. PINs are given under People. */
function Others({ names, owner, more, set }: OthersProps) {
  const put = (i: number, c: Partial<More>) => set(more.map((m, n) => (n === i ? { ...m, ...c } : m)));
  const there = names.filter(
    (n) => n.name.toLowerCase() !== owner.trim().toLowerCase() && n.role !== 'owner',
  );
  return (
    <ul className="first-others">
      {there.map((n) => (
        <li key={n.member}>
          <PersonMark mark={n.mark} size={34} />
          <span>
            <b>{n.name}</b>
            <span className="small mut">{roleOf(n.role).does}</span>
          </span>
        </li>
      ))}
      {more.map((m, i) => (
        <li key={i}>
          <PersonMark mark={m.mark} size={34} />
          <TextField
            size="small"
            label="Name"
            value={m.name}
            onChange={(e) => put(i, { name: e.target.value })}
            slotProps={{ htmlInput: { 'data-testid': `more-${i}` } }}
          />
          <Segment<Role>
            label={`What ${m.name || 'they'} may`}
            value={m.role}
            choose={(role) => put(i, { role })}
            size={13}
            choices={roles
              .filter((r) => r.value !== 'owner')
              .map((r) => ({ value: r.value, label: r.title }))}
          />
        </li>
      ))}
      <li>
        <Plain
          className="first-more"
          onClick={() =>
            set([...more, { name: '', role: 'specialist', mark: (names.length + more.length + 1) % 16 }])
          }
          data-testid="one-more"
        >
          + One more name
        </Plain>
      </li>
    </ul>
  );
}
