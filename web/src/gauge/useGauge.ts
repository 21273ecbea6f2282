// The gauge that is there: on a cable of this device, else the one the server listens to.
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { getGauge, listenToGauge, tellGauge } from '../api/calls';
import type { Schemas } from '../api/client';
import { connect, press, serial, useCable } from './cable';
import type { Angle } from './lines';

export interface LiveGauge {
  present: boolean;
  name: string;
  /** Stands on a simulated car, and takes where it is held. */
  simulated: boolean;
  angle: Angle | undefined;
  press: (b: Schemas['GaugeButton']) => Promise<unknown>;
  /** Connects one by cable, where this browser can and none is. */
  connect: (() => void) | undefined;
  /** Why the one on the cable is gone. */
  fault: string | undefined;
}

/** `heard` is called with every angle as it comes. */
export function useGauge(heard?: (deg: number) => void): LiveGauge {
  const cable = useCable();
  const info = useQuery({ queryKey: ['gauge'], queryFn: getGauge, refetchInterval: 10_000 });
  const wired = cable.state === 'on' || cable.state === 'opening';
  const served = !wired && (info.data?.present ?? false);
  const [angle, setAngle] = useState<Angle>();
  const ear = useRef(heard);
  useEffect(() => {
    ear.current = heard;
  });
  useEffect(() => {
    if (!served) return;
    return listenToGauge<Angle>(
      (a) => {
        ear.current?.(a.deg);
        setAngle(a);
      },
      () => setAngle(undefined),
    );
  }, [served]);
  const { angle: byCable } = cable;
  useEffect(() => {
    // Every line of the cable is an angle of its own, the same figure again too.
    if (wired && byCable) ear.current?.(byCable.deg);
  }, [wired, byCable]);
  return {
    present: wired || served,
    name: wired ? cable.name : (info.data?.name ?? ''),
    simulated: wired ? cable.simulated : (info.data?.simulated ?? false),
    angle: wired ? byCable : served ? angle : undefined,
    press: wired ? press : (b) => tellGauge({ button: b }),
    connect: !wired && serial() ? () => void connect() : undefined,
    fault: cable.fault,
  };
}
