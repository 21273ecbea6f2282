// What must not foul, with the number and the limit; and what was measured on the car for it.
import { readNumber } from '../../units/number';
import { Button, Dialog, TextField } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, ApiProblem, take, type PlanResult, type Schemas, type SideName } from '../../api/client';
import { FieldError } from '../../shell/Fault';
import { Glyph } from '../../shell/glyphs';
import { Unkept, useTyped } from '../../shell/Unkept';
import { notMeasured } from '../arrive/carFacts';
import type { AxleName } from '../../api/client';
import type { Bench } from '../../shell/ticket';

type Limits = Schemas['Limits'];
type Key =
  | 'upper_joint_deg'
  | 'lower_joint_deg'
  | 'shaft_deg'
  | 'droop_mm'
  | 'bump_mm'
  | 'arch_front_mm'
  | 'arch_rear_mm'
  | 'strut_gap_mm';
const fields: [Key, string, string][] = [
  ['droop_mm', 'Droop left at the wheel', 'mm'],
  ['bump_mm', 'Bump left at the wheel', 'mm'],
  ['upper_joint_deg', 'Upper joint, most from its middle', '°'],
  ['lower_joint_deg', 'Lower joint, most from its middle', '°'],
  ['shaft_deg', 'Drive-shaft joint, most running straight', '°'],
  ['arch_front_mm', 'Tyre to arch, ahead', 'mm'],
  ['arch_rear_mm', 'Tyre to arch, behind', 'mm'],
  ['strut_gap_mm', 'Tyre to strut', 'mm'],
];
const points: ['shaft_inner' | 'bucket', string][] = [
  ['shaft_inner', 'Drive shaft, inner joint: x, y, z'],
  ['bucket', 'Spring bucket nearest the upper arm: x, y, z'],
];
const number = (t: string) => (t.trim() === '' ? null : readNumber(t));

export function ChecksPanel({
  result,
  side,
  bench,
  axle,
}: {
  result: PlanResult;
  side: SideName;
  bench: Bench;
  axle: AxleName;
}) {
  const [edit, setEdit] = useState(false);
  const checks = result[side].checks;
  return (
    <div className="panel-scroll" data-testid="checks-panel">
      {result.misfits.map((m) => (
        <p key={m} className="plate" style={{ marginBottom: 8 }}>
          <Glyph name="clash" size={15} /> {m}
        </p>
      ))}
      {checks.map((c, i) => (
        <div key={i} className={`check-row ${c.ok ? '' : 'bad'}`}>
          <Glyph name={!c.ok ? 'clash' : c.measured ? 'done' : 'unread'} size={18} />
          <span>
            {c.words}
            <small>
              {c.ok ? (c.measured ? 'clear' : 'clear, with a usual limit: not measured here') : 'fouls'}
            </small>
          </span>
        </div>
      ))}
      {checks.length === 0 && <p className="mut">Nothing of this axle was measured to check against.</p>}
      {result[side].why.map((w) => (
        <p key={w} className="check-row">
          <Glyph name="watch" size={18} /> <span>{w}</span>
        </p>
      ))}
      <button
        type="button"
        className="chip on-slate"
        onClick={() => setEdit(true)}
        data-testid="measure-limits"
      >
        Measured clearances…
      </button>
      {edit && <LimitsDialog bench={bench} axle={axle} close={() => setEdit(false)} />}
    </div>
  );
}

function LimitsDialog({ bench, axle, close }: { bench: Bench; axle: AxleName; close: () => void }) {
  const { ticket, setTicket } = bench;
  const facts = ticket.vehicle.facts;
  const name = axle === 'front' ? 'limits' : 'rear_limits';
  const now: Limits = facts.car?.[name] ?? notMeasured;
  const typed = useTyped<Record<string, string>>(`${name}.${ticket.job.id}`, () =>
    Object.fromEntries([
      ...fields.map(([k]) => [k, now[k] == null ? '' : String(now[k])]),
      ...points.map(([k]) => [k, now[k] ? now[k]!.join(', ') : '']),
    ]),
  );
  const { value: text, setValue: setText } = typed;
  const wrong = (k: string) => {
    if (points.some(([p]) => p === k)) {
      const t = text[k]?.trim() ?? '';
      const v = t.split(',').map(number);
      return t !== '' && (v.length !== 3 || v.some((x) => x == null))
        ? 'three numbers parted by commas, mm'
        : undefined;
    }
    return number(text[k] ?? '') === undefined ? 'a number, or empty when not measured' : undefined;
  };
  const save = useMutation({
    mutationFn: () => {
      const limits = Object.fromEntries([
        ...fields.map(([k]) => [k, number(text[k] ?? '') ?? null]),
        ...points.map(([k]) => [k, text[k]?.trim() ? text[k]!.split(',').map((x) => number(x) ?? 0) : null]),
      ]) as unknown as Limits;
      return take(
        api.PUT('/api/v1/jobs/{id}/vehicle', {
          params: { path: { id: ticket.job.id } },
          body: {
            version: ticket.vehicle.version,
            facts: { ...facts, car: { ...facts.car!, [name]: limits } },
          },
        }),
      );
    },
    onSuccess: (t) => {
      typed.forget();
      setTicket(t);
      close();
    },
  });
  const fault = save.error instanceof ApiProblem ? save.error : undefined;
  const bad = [...fields.map((f) => f[0] as string), ...points.map((p) => p[0] as string)].some(wrong);
  return (
    <Dialog open onClose={close} maxWidth="sm" fullWidth aria-labelledby="limits-title">
      <div style={{ padding: 22 }}>
        <h2 id="limits-title">Measured on this car, {axle}, as found</h2>
        <p className="small mut" style={{ margin: '6px 0 14px' }}>
          Leave empty what was not measured: the check then says so.
        </p>
        <Unkept typed={typed} />
        <div className="limit-grid">
          {[
            ...fields.map(([k, l, u]) => [k, l, u] as const),
            ...points.map(([k, l]) => [k, l, 'mm'] as const),
          ].map(([k, l, u]) => (
            <TextField
              key={k}
              label={`${l}, ${u}`}
              value={text[k] ?? ''}
              onChange={(e) => setText({ ...text, [k]: e.target.value })}
              error={!!wrong(k) || !!fault?.at(`${name}.${k}`)}
              helperText={
                wrong(k) ??
                (fault?.at(`${name}.${k}`)
                  ? `${fault.at(`${name}.${k}`)!.wrong}; ${fault.at(`${name}.${k}`)!.right}`
                  : undefined)
              }
              slotProps={{ htmlInput: { 'data-testid': `limit-${k}` } }}
            />
          ))}
        </div>
        {fault && !fault.problems.length && <FieldError wrong={fault.message} right="try again" />}
        <div style={{ display: 'flex', gap: 10, justifyContent: 'flex-end', marginTop: 16 }}>
          <Button
            variant="outlined"
            onClick={() => {
              typed.drop();
              close();
            }}
          >
            Leave
          </Button>
          <Button
            variant="contained"
            disabled={bad || save.isPending}
            onClick={() => save.mutate()}
            data-testid="limits-keep"
          >
            Keep
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
