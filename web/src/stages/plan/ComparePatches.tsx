// Plans compared in one bend: what each of them leaves of the tyre on the road, and as the car came.
import { useState } from 'react';
import { contactPatches } from '../../api/calls';
import { useLive } from '../../api/live';
import type { AxleName, CarAnswer, Schemas } from '../../api/client';
import { FieldError } from '../../shell/Fault';
import { axleOf } from '../../shell/ticket';
import { Segment } from '../../ui/Segment';
import { num } from '../../units/print';
import { settingsOf } from './CornerPanel';
import { PatchTable } from './PatchTable';
import { Sideways } from './Sideways';

/** Turn of the front wheels in the bend that is shown, degrees: a bend of a mountain road. */
const TURN_DEG = 6;

interface Props {
  plans: { name: string; answer: CarAnswer | undefined }[];
  tyres: Schemas['CarTyres'];
}

export function ComparePatches({ plans, tyres }: Props) {
  const [axle, setAxle] = useState<AxleName>('front');
  const [g, setG] = useState(0.5);
  const axles = (['front', 'rear'] as const).filter((a) => plans.some((p) => axleOf(p.answer, a)));
  const on = axles.includes(axle) ? axle : axles[0];
  const there = plans.flatMap((p, i) => {
    const of = on && axleOf(p.answer, on);
    return of ? [{ number: i + 1, name: p.name, settings: settingsOf(of, on) }] : [];
  });
  const found = there[0]?.settings[0];
  const live = useLive(
    'compare-patches',
    on && found
      ? {
          tyres,
          axle: on,
          settings: [found, ...there.map((t) => t.settings[1]!)],
          bend: { ay_g: g, steer_deg: on === 'front' ? TURN_DEG : 0 },
        }
      : undefined,
    contactPatches,
  );
  if (!on || !found) return null;
  const fault = live.fault?.problems[0];
  const names = [
    { name: 'as found' as React.ReactNode, label: 'As found' },
    ...there.map((t) => ({
      name: (
        <>
          <span className="overlay-key">{t.number}</span> {t.name}
        </>
      ),
      label: `Plan ${t.number}, ${t.name}`,
    })),
  ];
  const patches = live.data;
  return (
    <section className="compare-patches" aria-label="On the road in a bend">
      <h3>On the road in a bend</h3>
      {axles.length > 1 && (
        <Segment
          label="Axle"
          value={on}
          choose={setAxle}
          choices={axles.map((a) => ({ value: a, label: a, testid: `patches-${a}` }))}
        />
      )}
      <Sideways g={g} set={setG} testid="compare-g" />
      {on === 'front' && <p className="small">Front wheels turned {num(TURN_DEG)}° into it.</p>}
      {fault && <FieldError wrong={fault.wrong} right={fault.right} />}
      {/* What came may be of one plan more or fewer than is asked for now. */}
      {patches && patches.length === names.length && (
        <PatchTable
          axle={on}
          stale={live.stale}
          testid="compare-patches"
          rows={names.map((n, i) => ({ ...n, patches: patches[i]! }))}
        />
      )}
    </section>
  );
}
