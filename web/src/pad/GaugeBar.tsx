// The live angle of a connected gauge, its buttons, and taking it into the entry.
import { ChipButton } from '../ui/Press';
import { getGauge, tellGauge, listenToGauge } from '../api/calls';
import { readNumber } from '../units/notation';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { ApiProblem, type Schemas } from '../api/client';
import { Glyph } from '../ui/glyphs';
import { num } from '../units/print';
import type { PadState } from './usePad';
import { useInHand } from './useInHand';

type Angle = Schemas['GaugeAngle'];

const degrees = (text: string) => {
  return readNumber(text) ?? 0;
};

export function GaugeBar({ pad }: { pad: PadState }) {
  const info = useQuery({
    queryKey: ['gauge'],
    queryFn: getGauge,
    refetchInterval: 10_000,
  });
  const present = info.data?.present ?? false;
  const [angle, setAngle] = useState<Angle>();
  const [said, setSaid] = useState('');
  const recent = useRef<number[]>([]);
  const hand = useInHand(pad, info.data?.simulated ?? false);
  const heard = useRef(hand.heard);
  useEffect(() => {
    heard.current = hand.heard;
  });
  useEffect(() => {
    if (!present) return;
    return listenToGauge<Angle>(
      (a) => {
        recent.current = [...recent.current.slice(-4), a.deg];
        heard.current(a.deg);
        setAngle(a);
      },
      () => setAngle(undefined),
    );
  }, [present]);
  // A simulated gauge is told which wheel it is held on, and how far that is swung.
  const { place, active } = pad;
  const steer =
    active === 'camber-1' || active === 'axis-1'
      ? 'steer-1'
      : active === 'camber-2' || active === 'axis-2'
        ? 'steer-2'
        : '';
  const swing = steer ? degrees(pad.now(steer)) : 0;
  const simulated = info.data?.simulated ?? false;
  const { mutate: move } = useMutation({ mutationFn: tellGauge });
  const button = useMutation({
    mutationFn: (b: Schemas['GaugeButton']) => tellGauge({ button: b }),
    onSuccess: () => setSaid(''),
    onError: (e) => setSaid(e instanceof ApiProblem ? e.message : 'no answer'),
  });
  useEffect(() => {
    if (!simulated) return;
    recent.current = [];
    move({
      place: {
        front: place.axle === 'front',
        left: place.side === 'left',
        fore_aft: active.startsWith('axis'),
        steer_deg: swing,
        gain_mm: 0,
      },
    });
  }, [move, simulated, place.axle, place.side, active, swing]);
  if (!present) return null;
  const mean = recent.current.length ? recent.current.reduce((a, b) => a + b, 0) / recent.current.length : 0;
  return (
    <div className="gauge-bar" data-testid="gauge">
      <div style={{ minWidth: 0 }}>
        <span
          className="fig"
          style={{ fontSize: 38, fontVariantNumeric: 'tabular-nums' }}
          data-testid="gauge-angle"
        >
          {angle ? `${num(angle.deg, 2)}°` : '—'}
        </span>
        <span className="small" style={{ display: 'block' }}>
          {said ||
            `${info.data?.name ?? ''}${angle?.held ? ', held' : ''}${angle?.zeroed ? ', zeroed here' : ''}`}
        </span>
      </div>
      <ChipButton
        aria-pressed={angle?.zeroed ?? false}
        onClick={() => button.mutate(angle?.zeroed ? 'unzero' : 'zero')}
        data-testid="gauge-zero"
      >
        {angle?.zeroed ? 'Unzero' : 'Zero'}
      </ChipButton>
      <ChipButton
        aria-pressed={angle?.held ?? false}
        onClick={() => button.mutate(angle?.held ? 'release' : 'hold')}
        data-testid="gauge-hold"
      >
        {angle?.held ? 'Let go' : 'Hold'}
      </ChipButton>
      <ChipButton
        disabled={!angle}
        data-testid="gauge-take"
        onClick={() => {
          // Half a second of angles together; a zero of the gauge's own is the floor it was zeroed on.
          const v = angle?.held ? angle.deg : mean;
          pad.set(() => num(v, 2).replace('−', '-'));
          if (angle?.zeroed && pad.info('zeroed-on-floor')) pad.setChoice('zeroed-on-floor', 'true');
        }}
      >
        <Glyph name="now" size={14} /> Take it
      </ChipButton>
      <ChipButton
        aria-pressed={hand.on}
        onClick={() => hand.turn(!hand.on)}
        data-testid="gauge-in-hand"
        title="Takes, says and keeps every angle that comes to rest, then goes on to the next place"
      >
        {hand.on ? 'In hand: on' : 'Gauge in hand'}
      </ChipButton>
    </div>
  );
}
