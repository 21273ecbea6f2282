// A name and its PIN, on a device of the shop.
import { Button } from '@mui/material';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { signInPin } from '../api/calls';
import { ApiProblem, type Schemas } from '../api/client';
import { Glyph } from '../ui/glyphs';
import { PersonMark } from '../ui/PersonMark';
import { roleOf } from '../ui/roles';
import { PinPad, PinSlots } from './PinPad';
import { seatTaken } from './useSession';

type Name = Schemas['Name'];

// How long the PIN of a name was that opened here last: then it opens by itself.
const lengthKey = (member: string) => `bold-stance.pin-length.${member}`;
const knownLength = (member: string) => Number(localStorage.getItem(lengthKey(member))) || undefined;

interface Props {
  name: Name;
  lockMinutes: number;
  notMe: () => void;
}

export function ByPin({ name, lockMinutes, notMe }: Props) {
  const queries = useQueryClient();
  const [pin, setPin] = useState('');
  const [wait, setWait] = useState(Math.ceil(name.wait_s));
  const enter = useMutation({
    mutationFn: (p: string) => signInPin({ member: name.member, pin: p }),
    onSuccess: (s, p) => {
      localStorage.setItem(lengthKey(name.member), String(p.length));
      seatTaken(queries, s);
    },
    onError: (e) => {
      setPin('');
      if (e instanceof ApiProblem && e.status === 429) setWait(120);
    },
  });
  useEffect(() => {
    if (wait <= 0) return;
    const t = setTimeout(() => setWait(wait - 1), 1000);
    return () => clearTimeout(t);
  }, [wait]);
  const typed = (p: string) => {
    setPin(p);
    if (p.length === knownLength(name.member)) enter.mutate(p);
  };
  const fault = enter.error instanceof ApiProblem ? enter.error : undefined;
  const opens = knownLength(name.member);
  return (
    <section className="pin" aria-labelledby="pin-name">
      <header>
        <PersonMark mark={name.mark} size={54} />
        <div>
          <h2 id="pin-name">{name.name}</h2>
          <p className="mut">{roleOf(name.role).does}. This mark signs what you do.</p>
        </div>
      </header>
      <div className="pin-row">
        <PinSlots n={pin.length} label="PIN" />
        <span className="mut">
          {opens ? `${opens} digits. Opens by itself.` : '4 to 8 digits, then Open.'}
        </span>
      </div>
      <PinPad
        pin={pin}
        set={typed}
        disabled={wait > 0 || enter.isPending}
        enter={() => pin.length >= 4 && enter.mutate(pin)}
        side={{ word: 'Not me', press: notMe, testid: 'not-me' }}
      />
      <Button
        variant="contained"
        fullWidth
        disabled={pin.length < 4 || wait > 0 || enter.isPending}
        onClick={() => enter.mutate(pin)}
        sx={{ minHeight: 60, mt: 1.5 }}
        data-testid="pin-open"
      >
        {enter.isPending ? 'Looking…' : 'Open'}
      </Button>
      <p className="pin-said" role="alert" data-testid="pin-said">
        {wait > 0 ? (
          <span className="plate">
            <Glyph name="stale" /> Wait {Math.floor(wait / 60)}:{String(wait % 60).padStart(2, '0')}. The
            owner can set a new PIN.
          </span>
        ) : (
          fault && (
            <span className="plate">
              <Glyph name="clash" />{' '}
              {fault.problems[0] ? `${fault.problems[0].wrong}; ${fault.problems[0].right}` : fault.message}
            </span>
          )
        )}
      </p>
      <ul className="door-notes">
        <li>
          <b>Locks after {lockMinutes} min.</b> The open order stays on screen behind it.
        </li>
        <li>
          <b>Five wrong tries:</b> two minutes’ wait. Forgotten: the owner sets a new one.
        </li>
      </ul>
    </section>
  );
}
