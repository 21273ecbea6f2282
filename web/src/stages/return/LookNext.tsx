// When it is looked at next, and that the job is closed.
import { Button, TextField } from '@mui/material';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { MeasureField } from '../../input/Field';
import { readField, wrongOf } from '../../input/kinds';
import { keepSigned, lastSigned } from '../../door/signed';
import { Glyph } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { dayFrom } from '../../units/days';
import { farUnit, fieldText } from '../../units/measure';
import type { Act } from '../../sheet/after';

interface Props {
  care: Schemas['Aftercare'];
  usual: Schemas['UsualLook'];
  busy: boolean;
  problems: { field: string; wrong: string; right: string }[];
  act: (a: Act) => void;
}

export function LookNext({ care, usual, busy, problems, act }: Props) {
  const { units } = useSettings();
  const [on, setOn] = useState(care.next_look?.on ?? dayFrom(usual.days));
  const [far, setFar] = useState(fieldText('distance', care.next_look?.after_km ?? usual.after_km, units));
  const [name, setName] = useState(lastSigned);
  const at = (f: string) => problems.find((p) => p.field === f);
  const wrong = wrongOf('distance', far, units);
  const due = care.next_look;
  if (care.closed)
    return (
      <section className="pane return-next" aria-label="Closed">
        <h2>Closed</h2>
        <p
          style={{ display: 'flex', gap: 8, alignItems: 'center', fontWeight: 600 }}
          data-testid="job-closed"
        >
          <Glyph name="done" size={20} /> {new Date(care.closed.at).toLocaleDateString()},{' '}
          {care.closed.signed}
        </p>
        <Button
          variant="outlined"
          disabled={busy}
          onClick={() => act({ act: 'reopen' })}
          data-testid="reopen"
        >
          Open it again
        </Button>
      </section>
    );
  return (
    <section className="pane return-next" aria-label="Next look">
      <h2>Next look</h2>
      {due && (
        <p style={{ fontWeight: 600 }} data-testid="due">
          {due.on && new Date(`${due.on}T12:00`).toLocaleDateString()}
          {due.on && due.after_km != null && ' or '}
          {due.after_km != null && farUnit(due.after_km, units)}, the sooner
        </p>
      )}
      <form
        className="return-due"
        onSubmit={(e) => {
          e.preventDefault();
          act({
            act: 'look_next',
            on: on || null,
            after_km: far.trim() ? (readField('distance', far, units) ?? null) : null,
          });
        }}
      >
        <TextField
          size="small"
          type="date"
          label="On"
          value={on}
          onChange={(e) => setOn(e.target.value)}
          error={!!at('on')}
          helperText={at('on') && `${at('on')!.wrong}; ${at('on')!.right}`}
          slotProps={{ inputLabel: { shrink: true }, htmlInput: { 'data-testid': 'look-on' } }}
        />
        <MeasureField
          kind="distance"
          label="or after"
          text={far}
          onText={setFar}
          testid="look-far"
          fault={at('after_km')}
        />
        <Button type="submit" variant="outlined" disabled={busy || !!wrong} data-testid="look-next">
          {due ? 'Change it' : 'Keep it'}
        </Button>
      </form>
      <form
        className="return-due"
        onSubmit={(e) => {
          e.preventDefault();
          keepSigned(name);
          act({ act: 'close', signed: name });
        }}
      >
        <TextField
          size="small"
          label="Who closes it"
          value={name}
          onChange={(e) => setName(e.target.value)}
          error={!!at('signed')}
          helperText={at('signed') && `${at('signed')!.wrong}; ${at('signed')!.right}`}
          slotProps={{
            inputLabel: { shrink: true },
            htmlInput: { 'data-testid': 'close-name', maxLength: 60 },
          }}
        />
        <Button
          type="submit"
          variant="outlined"
          disabled={busy || name.trim().length < 2}
          data-testid="close-job"
        >
          Close the job
        </Button>
      </form>
    </section>
  );
}
