// What is told of the tyres: pressures, price, distance a year, heights it is driven at.
import { ChipButton } from '../../ui/Press';
import { saveVehicle } from '../../api/calls';
import { Button, Dialog, MenuItem, TextField } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem, type VehicleFacts } from '../../api/client';
import { MeasureField, TyreField } from '../../input/Field';
import { readField, rightOf, type FieldKind } from '../../input/kinds';
import { at as valueAt, patch } from '../../input/paths';
import { Refusal } from '../../shell/Fault';
import { useSettings } from '../../ui/settings';
import { fieldText, type Kind } from '../../units/measure';
import { Unkept, useTyped } from '../../shell/Unkept';
import { useBench, useShop } from '../../shell/ticket';
import { capital, wearFacts, type WearFacts } from '../../shell/tread';

type Texts = Record<string, string>;
/** Each by its path in the vehicle's facts, with whether it may stay empty. */
const numbers: [string, string, FieldKind, boolean][] = [
  ['car.wear.price', 'Price of one tyre', 'number', false],
  ['car.wear.yearly_km', 'Distance a year', 'distance', false],
  ['car.wear.rotate_every_km', 'Rotate every', 'distance', false],
  ['car.wear.own_life_km', 'A set really reached', 'distance', true],
  ['car.wear.grade', 'Treadwear grade', 'number', true],
  ['axles.rear.pressure_kpa', 'Rear pressure', 'pressure', true],
  ['axles.rear.placard_kpa', 'Rear placard', 'pressure', true],
  ['car.wear.set_at_km', 'Set as planned at', 'distance', true],
];
const uses: [NonNullable<WearFacts['uses']>[number]['use'], string][] = [
  ['highway', 'Motorway'],
  ['mixed', 'Mixed roads'],
  ['corner_heavy', 'Winding roads'],
  ['trail', 'Trail and gravel'],
];
const flags: [keyof WearFacts, string][] = [
  ['directional', 'Directional tread'],
  ['worn_dampers', 'Worn dampers'],
  ['high_torque', 'High torque from standstill'],
  ['regen', 'Lifting off brakes the wheels'],
];

export function TyreFactsDialog({ heights, close }: { heights: string[]; close: () => void }) {
  const { ticket, setTicket } = useBench();
  const { units } = useSettings();
  const usual = useShop().data?.starter;
  const start = wearFacts(ticket);
  const vehicle = ticket.vehicle.facts as VehicleFacts;
  const shown = (k: string, kind: FieldKind) => {
    const v = valueAt(vehicle, k) as number | null | undefined;
    return kind === 'number' ? String(v ?? '') : fieldText(kind as Kind, v, units);
  };
  const typed = useTyped<{ facts: WearFacts; text: Texts }>(
    `tyres2.${ticket.job.id}.${units.distance}.${units.pressure}`,
    () => ({
      facts: start,
      text: {
        ...Object.fromEntries(numbers.map(([k, , kind]) => [k, shown(k, kind)])),
        size: vehicle.axles.rear.tyre_size ?? '',
        ...Object.fromEntries(
          heights.map((h) => [
            `h.${h}`,
            String(start.heights?.find((x) => x.state.toLowerCase() === h.toLowerCase())?.share ?? ''),
          ]),
        ),
        ...Object.fromEntries(
          uses.map(([u]) => [`u.${u}`, String(start.uses?.find((x) => x.use === u)?.share ?? '')]),
        ),
      },
    }),
  );
  const { facts, text } = typed.value;
  const setFacts = (f: WearFacts) => typed.setValue((v) => ({ ...v, facts: f }));
  const setText = (t: Texts) => typed.setValue((v) => ({ ...v, text: t }));
  const [faults, setFaults] = useState<Record<string, string>>({});
  const save = useMutation({
    mutationFn: (facts: VehicleFacts) => saveVehicle(ticket.job.id, ticket.vehicle.version, facts),
    onSuccess: (t) => {
      typed.forget();
      setTicket(t);
      close();
    },
  });
  const read = (k: string, kind: FieldKind = 'number'): number | undefined | 'bad' => {
    const t = (text[k] ?? '').trim();
    if (!t) return undefined;
    // What stands as it was shown keeps its last digit.
    if (kind !== 'number' && t === shown(k, kind)) return valueAt(vehicle, k) as number;
    const v = readField(kind, t, units);
    return v !== undefined && v >= 0 ? v : 'bad';
  };
  const submit = () => {
    const wrong: Record<string, string> = {};
    let out = patch(vehicle, 'car.wear', facts);
    for (const [k, , kind, optional] of numbers) {
      const v = read(k, kind);
      if (v === 'bad') wrong[k] = rightOf(kind, units);
      else if (v === undefined && !optional) wrong[k] = 'A number; 0 when it is not known';
      else out = patch(out, k, v ?? null);
    }
    out = patch(out, 'axles.rear.tyre_size', (text.size ?? '').trim() || null);
    const shares = heights.flatMap((h) => {
      const v = read(`h.${h}`);
      if (v === 'bad' || (v ?? 0) > 100) wrong[`h.${h}`] = 'A share from 0 to 100';
      return typeof v === 'number' && v > 0 ? [{ state: h, share: v }] : [];
    });
    const mix = uses.flatMap(([u]) => {
      const v = read(`u.${u}`);
      if (v === 'bad' || (v ?? 0) > 100) wrong[`u.${u}`] = 'A share from 0 to 100';
      return typeof v === 'number' && v > 0 ? [{ use: u, share: v }] : [];
    });
    setFaults(wrong);
    if (!Object.keys(wrong).length)
      save.mutate(patch(patch(out, 'car.wear.heights', shares), 'car.wear.uses', mix));
  };
  const fault = save.error instanceof ApiProblem ? save.error : undefined;
  const at = (f: string) => faults[f] ?? (fault?.at(f) ?? fault?.at(`wear.${f}`))?.right;
  return (
    <Dialog open onClose={close} maxWidth="md" fullWidth aria-labelledby="tyre-facts-title">
      <div style={{ padding: 22, display: 'grid', gap: 14 }}>
        <h2 id="tyre-facts-title">Tyres and use</h2>
        <Unkept typed={typed} />
        <div className="limit-grid four">
          {numbers.map(([k, label, kind, optional]) => (
            <MeasureField
              key={k}
              kind={kind}
              label={label}
              text={text[k] ?? ''}
              onText={(t) => setText({ ...text, [k]: t })}
              fault={at(k) ? { wrong: at(k)!, right: '' } : undefined}
              hint={
                k.endsWith('set_at_km')
                  ? 'odometer; empty: not yet set'
                  : kind !== 'number' &&
                      usual &&
                      text[k] === fieldText(kind as Kind, valueAt(usual, k) as number, units)
                    ? 'usual'
                    : optional
                      ? 'empty when not known'
                      : undefined
              }
              testid={`wf-${k.split('.').slice(1).join('.').replace('wear.', '')}`}
            />
          ))}
          <TyreField
            label="Rear size"
            text={text.size ?? ''}
            onText={(t) => setText({ ...text, size: t })}
            fault={at('axles.rear.tyre_size') ? { wrong: at('axles.rear.tyre_size')!, right: '' } : undefined}
            hint={text.size?.trim() ? undefined : `empty: as in front, ${ticket.vehicle.facts.tyre_size}`}
            testid="wf-size"
          />
          <TextField
            select
            size="small"
            label="Rotated so far"
            value={facts.rotated}
            onChange={(e) => setFacts({ ...facts, rotated: e.target.value as WearFacts['rotated'] })}
          >
            <MenuItem value="never">never, or not known</MenuItem>
            <MenuItem value="some">now and then</MenuItem>
            <MenuItem value="regular">regularly</MenuItem>
          </TextField>
        </div>
        <div>
          <h3>Driven at which height, % of the distance</h3>
          <p className="small">Empty everywhere: all of it at the height the aim is judged at.</p>
          <div className="limit-grid four" style={{ marginTop: 8 }}>
            {heights.map((h) => (
              <TextField
                key={h}
                size="small"
                label={`${capital(h)}, %`}
                value={text[`h.${h}`]}
                onChange={(e) => setText({ ...text, [`h.${h}`]: e.target.value })}
                error={!!at(`h.${h}`)}
                helperText={at(`h.${h}`)}
                slotProps={{ htmlInput: { 'data-testid': `wf-h-${h}`, inputMode: 'decimal' } }}
              />
            ))}
          </div>
        </div>
        <div>
          <h3>How it is driven, % of the distance</h3>
          <p className="small">
            Empty everywhere: {uses.find(([u]) => u === ticket.vehicle.facts.use)?.[1].toLowerCase()} all of
            it.
          </p>
          <div className="limit-grid four" style={{ marginTop: 8 }}>
            {uses.map(([u, label]) => (
              <TextField
                key={u}
                size="small"
                label={`${label}, %`}
                value={text[`u.${u}`]}
                onChange={(e) => setText({ ...text, [`u.${u}`]: e.target.value })}
                error={!!at(`u.${u}`)}
                helperText={at(`u.${u}`)}
                slotProps={{ htmlInput: { 'data-testid': `wf-u-${u}`, inputMode: 'decimal' } }}
              />
            ))}
          </div>
        </div>
        <div style={{ display: 'flex', gap: 8, flexWrap: 'wrap' }}>
          {flags.map(([k, label]) => (
            <ChipButton
              key={k}

              aria-pressed={!!facts[k]}
              onClick={() => setFacts({ ...facts, [k]: !facts[k] })}
            >
              {label}
            </ChipButton>
          ))}
        </div>
        {fault && !fault.problems.length && <Refusal error={fault} />}
        <div style={{ display: 'flex', gap: 10, justifyContent: 'flex-end' }}>
          <Button
            variant="outlined"
            onClick={() => {
              typed.drop();
              close();
            }}
          >
            Leave as it is
          </Button>
          <Button variant="contained" onClick={submit} disabled={save.isPending} data-testid="wf-save">
            Keep
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
