// In a bend: what the steering wheel does to camber, to the corners of the body and to the arch, and how each tyre stands on the
// road, as found and as set.
import { HowTo } from '../../ui/HowTo';
import { Slider } from '@mui/material';
import { useState } from 'react';
import { contactPatches } from '../../api/calls';
import type { AxleName, PlanResult, Schemas } from '../../api/client';
import { useLive } from '../../api/live';
import { pointAt, SteerCurves } from '../../figures/SteerCurves';
import { FieldError } from '../../shell/Fault';
import { useSettings } from '../../ui/settings';
import { angle, length, num } from '../../units/print';
import { PatchTable } from './PatchTable';
import { Sideways } from './Sideways';

interface Props {
  result: PlanResult;
  axle: AxleName;
  tyres: Schemas['CarTyres'];
  ratio: number;
  lock: number;
}

const mean = (a: number, b: number) => (a + b) / 2;

/** How an axle stands, both wheels together, before and as set. */
export function settingsOf(result: PlanResult, axle: AxleName): Schemas['AxleSetting'][] {
  return (['before', 'set'] as const).map((k) => ({
    camber_deg: mean(result.left[k].camber_deg, result.right[k].camber_deg),
    toe_deg: mean(result.left[k].toe_deg, result.right[k].toe_deg),
    caster_deg: axle === 'front' ? mean(result.left[k].caster_deg, result.right[k].caster_deg) : 0,
  }));
}

export function CornerPanel({ result, axle, tyres, ratio, lock }: Props) {
  const { form, unit } = useSettings();
  // A turn of the wheel as in a bend: straight ahead says nothing.
  const [turn, setTurn] = useState(90);
  const [ay, setAy] = useState(0.5);
  const { steer } = result;
  const most = Math.floor(
    Math.min(lock, Math.max(0, ...(steer?.set.map((p) => p.mean_deg) ?? [lock]))) * ratio,
  );
  const live = useLive(
    'contact-patches',
    {
      tyres,
      axle,
      settings: settingsOf(result, axle),
      bend: { ay_g: ay, steer_deg: axle === 'front' ? Math.min(45, Math.abs(turn) / ratio) : 0 },
    },
    contactPatches,
  );
  const fault = live.fault?.problems[0];
  const patches = live.data;
  const [was, now] = steer ? [pointAt(steer.found, turn / ratio), pointAt(steer.set, turn / ratio)] : [];
  const row = (word: string, of: (p: Schemas['TurnSide']) => string) =>
    now &&
    was && (
      <tr key={word}>
        <th scope="row">{word}</th>
        <td>
          {of(now.left)} <span className="was">was {of(was.left)}</span>
        </td>
        <td>
          {of(now.right)} <span className="was">was {of(was.right)}</span>
        </td>
      </tr>
    );
  const way = turn > 0 ? 'left' : turn < 0 ? 'right' : '';
  return (
    <div className="panel-scroll corner-panel" data-testid="corner-panel">
      {steer && (
        <>
          <div className="drawn">
            <HowTo of="steer" />
            <SteerCurves steer={steer} at={turn / ratio} ratio={ratio} form={form} />
          </div>
          <label className="corner-slide">
            <span>
              Steering wheel <b>{num(Math.abs(turn))}°</b> {way || 'straight'}
            </span>
            <Slider
              // Turned to the left stands on the left, as over the drawing.
              track={false}
              min={-most}
              max={most}
              step={5}
              value={-turn}
              onChange={(_, v) => setTurn(-v)}
              aria-label="Steering wheel"
              getAriaValueText={(v) =>
                v === 0 ? 'straight' : `${Math.abs(v)} degrees to the ${v < 0 ? 'left' : 'right'}`
              }
              data-testid="corner-steer"
            />
          </label>
          <table className="corner-table">
            <thead>
              <tr>
                <th />
                <th scope="col">Left wheel</th>
                <th scope="col">Right wheel</th>
              </tr>
            </thead>
            <tbody>
              {row('Camber', (p) => angle(p.camber_deg, form))}
              {row('Corner rises', (p) => length(p.rise_mm, unit))}
              {row('Wheel forward', (p) => length(p.forward_mm, unit))}
            </tbody>
          </table>
          <p className="small" data-testid="corner-effort">
            Effort in a bend {num(steer.effort_ratio, 2)} times as found, by the trail of tyre and axis.
          </p>
        </>
      )}
      <Sideways g={ay} set={setAy} testid="corner-g" />
      {fault && <FieldError wrong={fault.wrong} right={fault.right} />}
      {patches?.length === 2 && (
        <PatchTable
          axle={axle}
          stale={live.stale}
          testid="corner-patches"
          rows={patches.map((p, i) => ({
            name: i === 0 ? 'as found' : 'as set',
            label: i === 0 ? 'As found' : 'As set',
            patches: p,
          }))}
        />
      )}
    </div>
  );
}
