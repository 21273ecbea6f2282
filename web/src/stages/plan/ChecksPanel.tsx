// What must not foul, with the number and the limit; and what was measured on the car for it.
import { ChipButton } from '../../ui/Press';
import { saveVehicle } from '../../api/calls';
import { Button, Dialog, TextField } from '@mui/material';
import { MeasureField } from '../../input/Field';
import { readField, rightOf } from '../../input/kinds';
import { useSettings } from '../../ui/settings';
import { MM_PER_INCH } from '../../units/print';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem, type PlanResult, type Schemas, type SideName } from '../../api/client';
import { Refusal } from '../../shell/Fault';
import { Glyph } from '../../ui/glyphs';
import { patch } from '../../input/paths';
import { Unkept, useTyped } from '../../shell/Unkept';
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
  | 'strut_gap_mm'
  | 'hose_mm';
const fields: [Key, string, 'length' | 'angle'][] = [
  ['droop_mm', 'Droop left at the wheel', 'length'],
  ['bump_mm', 'Bump left at the wheel', 'length'],
  ['upper_joint_deg', 'Upper joint, most from its middle', 'angle'],
  ['lower_joint_deg', 'Lower joint, most from its middle', 'angle'],
  ['shaft_deg', 'Drive-shaft joint, most running straight', 'angle'],
  ['arch_front_mm', 'Tyre to arch, ahead', 'length'],
  ['arch_rear_mm', 'Tyre to arch, behind', 'length'],
  ['strut_gap_mm', 'Tyre to strut', 'length'],
  ['hose_mm', 'Brake hose and sensor wire, slack at full droop', 'length'],
];
const points: ['shaft_inner' | 'bucket', string][] = [
  ['shaft_inner', 'Drive shaft, inner joint: x, y, z'],
  ['bucket', 'Spring bucket nearest the upper arm: x, y, z'],
];

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
      <ChipButton className="on-slate" onClick={() => setEdit(true)} data-testid="measure-limits">
        Measured clearances…
      </ChipButton>
      {edit && <LimitsDialog bench={bench} axle={axle} close={() => setEdit(false)} />}
    </div>
  );
}

function LimitsDialog({ bench, axle, close }: { bench: Bench; axle: AxleName; close: () => void }) {
  const { ticket, setTicket } = bench;
  const facts = ticket.vehicle.facts;
  const path = `car.axles.${axle}.limits`;
  const now: Limits = facts.car!.axles[axle].limits!;
  const { unit, units } = useSettings();
  const len = (mm: number) => String(Math.round((unit === 'mm' ? mm : mm / MM_PER_INCH) * 1000) / 1000);
  const typed = useTyped<Record<string, string>>(
    `${axle === 'front' ? 'limits' : 'rear_limits'}.${ticket.job.id}.${unit}`,
    () =>
      Object.fromEntries([
        ...fields.map(([k, , kind]) => [
          k,
          now[k] == null ? '' : kind === 'length' ? len(now[k]!) : String(now[k]),
        ]),
        ...points.map(([k]) => [k, now[k] ? now[k]!.map(len).join(', ') : '']),
      ]),
  );
  /** What stands as it was shown keeps its last digit. */
  const read = (k: Key, kind: 'length' | 'angle') => {
    const t = (text[k] ?? '').trim();
    if (t === '') return null;
    if (now[k] != null && t === (kind === 'length' ? len(now[k]!) : String(now[k]))) return now[k]!;
    return readField(kind, t, units);
  };
  const three = (t: string) => t.split(',').map((x) => readField('length', x, units));
  const { value: text, setValue: setText } = typed;
  const wrong = (k: string) => {
    if (points.some(([p]) => p === k)) {
      const t = text[k]?.trim() ?? '';
      const v = three(t);
      return t !== '' && (v.length !== 3 || v.some((x) => x === undefined))
        ? `three lengths parted by commas, ${unit}`
        : undefined;
    }
    const [, , kind] = fields.find(([f]) => f === k)!;
    return read(k as Key, kind) === undefined
      ? `${rightOf(kind, units)}, or empty when not measured`
      : undefined;
  };
  const save = useMutation({
    mutationFn: () => {
      const limits = Object.fromEntries([
        ...fields.map(([k, , kind]) => [k, read(k, kind) ?? null]),
        ...points.map(([k]) => [
          k,
          text[k]?.trim()
            ? text[k]!.trim() === (now[k] ? now[k]!.map(len).join(', ') : '')
              ? now[k]
              : three(text[k]!).map((x) => x ?? 0)
            : null,
        ]),
      ]) as unknown as Limits;
      return saveVehicle(ticket.job.id, ticket.vehicle.version, patch(facts, path, limits));
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
          {fields.map(([k, l, kind]) => (
            <MeasureField
              key={k}
              kind={kind}
              label={l}
              text={text[k] ?? ''}
              onText={(t) => setText({ ...text, [k]: t })}
              fault={fault?.at(`${path}.${k}`)}
              testid={`limit-${k}`}
            />
          ))}
          {points.map(([k, l]) => (
            <TextField
              key={k}
              size="small"
              label={`${l}, ${unit}`}
              value={text[k] ?? ''}
              onChange={(e) => setText({ ...text, [k]: e.target.value })}
              error={!!wrong(k) || !!fault?.at(`${path}.${k}`)}
              helperText={wrong(k) ?? fault?.at(`${path}.${k}`)?.right}
              slotProps={{ htmlInput: { 'data-testid': `limit-${k}` } }}
            />
          ))}
        </div>
        {fault && !fault.problems.length && <Refusal error={fault} />}
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
