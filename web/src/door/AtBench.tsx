// Who is at the bench, on the rail: their mark, and the way to leave or to somebody else.
import { Button, Dialog } from '@mui/material';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { keepOwnUnits, pickMember } from '../api/calls';
import { PersonMark } from '../ui/PersonMark';
import { Plain } from '../ui/Press';
import { roleOf } from '../ui/roles';
import { useSettings } from '../ui/settings';
import { leave, seatTaken, useSession } from './useSession';

/** The mark on the rail, or as a row of a list. */
export function AtBench({ row }: { row?: boolean }) {
  const session = useSession();
  const [open, setOpen] = useState(false);
  const who = session.data?.who;
  if (!who) return null;
  const word = session.data?.open ? `${who.name} signs` : who.name;
  return (
    <>
      <Plain
        className={row ? 'at-bench-row' : 'at-bench'}
        onClick={() => setOpen(true)}
        aria-label={`At the bench: ${who.name}. Change.`}
        data-testid="at-bench"
      >
        <PersonMark mark={who.mark} size={row ? 34 : 28} />
        <span>{row ? word : who.name}</span>
      </Plain>
      {open && <BenchDialog close={() => setOpen(false)} />}
    </>
  );
}

function BenchDialog({ close }: { close: () => void }) {
  const queries = useQueryClient();
  const session = useSession();
  const settings = useSettings();
  const s = session.data;
  const pick = useMutation({
    mutationFn: pickMember,
    onSuccess: (now) => {
      seatTaken(queries, now);
      close();
    },
  });
  const out = useMutation({ mutationFn: () => leave(queries), onSuccess: close });
  const units = useMutation({
    mutationFn: () => keepOwnUnits({ unit: settings.unit, form: settings.form, own: settings.own }),
  });
  if (!s?.who) return null;
  const { who } = s;
  return (
    <Dialog open onClose={close} aria-labelledby="bench-title" data-testid="bench-dialog">
      <div className="bench-dialog">
        <header>
          <PersonMark mark={who.mark} size={54} />
          <div>
            <h2 id="bench-title">{who.name}</h2>
            <p className="mut">
              {s.open
                ? 'No sign-in: the shop has no owner yet. The mark signs what is done.'
                : roleOf(who.role).does}
            </p>
          </div>
        </header>
        {s.open && s.names.length > 1 && (
          <div className="bench-names" role="group" aria-label="Who signs">
            {s.names.map((n) => (
              <Button
                key={n.member}
                variant={n.member === who.member ? 'contained' : 'outlined'}
                onClick={() => pick.mutate(n.member)}
                startIcon={<PersonMark mark={n.mark} size={26} />}
                data-testid={`pick-${n.name}`}
              >
                {n.name}
              </Button>
            ))}
          </div>
        )}
        {who.member && (
          <p className="bench-units">
            <span className="mut">
              Reads in {settings.unit},{' '}
              {settings.form === 'decimal' ? 'decimal degrees' : 'degrees and minutes'}
            </span>
            <Button
              variant="outlined"
              onClick={() => units.mutate()}
              disabled={units.isPending}
              data-testid="keep-units"
            >
              {units.isSuccess ? 'Kept with the name' : 'Keep with my name'}
            </Button>
          </p>
        )}
        <div className="bench-acts">
          {who.acts.includes('people') && (
            <Button
              component={Link}
              to={s.open ? '/first-run' : '/people'}
              variant="outlined"
              data-testid="to-people"
            >
              {s.open ? 'Make an owner' : 'People and devices'}
            </Button>
          )}
          {!s.open && (
            <Button
              variant="contained"
              onClick={() => out.mutate()}
              disabled={out.isPending}
              data-testid="leave-bench"
            >
              Leave the bench
            </Button>
          )}
          <Button variant="outlined" onClick={close}>
            Back
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
