// The live angle of a connected gauge, its buttons, and taking it into the entry.
import { ChipButton } from '../ui/Press';
import { tellGauge } from '../api/calls';
import { readNumber } from '../units/notation';
import { useMutation } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import type { Schemas } from '../api/client';
import { useGauge } from '../gauge/useGauge';
import { Glyph } from '../ui/glyphs';
import { num } from '../units/print';
import type { PadState } from './usePad';
import { useInHand } from './useInHand';

const degrees = (text: string) => {
  return readNumber(text) ?? 0;
};

export function GaugeBar({ pad }: { pad: PadState }) {
  const [said, setSaid] = useState('');
  const recent = useRef<number[]>([]);
  const heard = useRef<(deg: number) => void>(() => {});
  const gauge = useGauge((deg) => {
    recent.current = [...recent.current.slice(-4), deg];
    heard.current(deg);
  });
  const { simulated, angle, present } = gauge;
  const hand = useInHand(pad, simulated);
  useEffect(() => {
    heard.current = hand.heard;
  });
  // A simulated gauge is told which wheel it is held on, and how far that is swung.
  const { place, active } = pad;
  const steer =
    active === 'camber-1' || active === 'axis-1'
      ? 'steer-1'
      : active === 'camber-2' || active === 'axis-2'
        ? 'steer-2'
        : '';
  const swing = steer ? degrees(pad.now(steer)) : 0;
  const { mutate: move } = useMutation({ mutationFn: tellGauge });
  const button = useMutation({
    mutationFn: (b: Schemas['GaugeButton']) => gauge.press(b),
    onSuccess: () => setSaid(''),
    onError: (e) => setSaid(e instanceof Error ? e.message : 'no answer'),
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
  const cable = gauge.connect && (
    <ChipButton onClick={gauge.connect} data-testid="gauge-cable">
      {present ? 'By cable' : 'Gauge by cable'}
    </ChipButton>
  );
  if (!present)
    return cable ? (
      <div className="gauge-bar none" data-testid="gauge-none">
        <span className="small">{gauge.fault ?? 'No gauge is connected.'}</span>
        {cable}
      </div>
    ) : null;
  const mean = recent.current.length ? recent.current.reduce((a, b) => a + b, 0) / recent.current.length : 0;
  return (
    <div className="gauge-bar" data-testid="gauge">
      <div className="gauge-now">
        <span
          className="fig"
          style={{ fontSize: 34, fontVariantNumeric: 'tabular-nums' }}
          data-testid="gauge-angle"
        >
          {angle ? `${num(angle.deg, 2)}°` : '—'}
        </span>
        <span className="small">
          {said || `${gauge.name}${angle?.held ? ', held' : ''}${angle?.zeroed ? ', zeroed here' : ''}`}
        </span>
        <ChipButton
          aria-pressed={hand.on}
          onClick={() => hand.turn(!hand.on)}
          data-testid="gauge-in-hand"
          title="Takes, says and keeps every angle that comes to rest, then goes on to the next place"
        >
          {hand.on ? 'In hand: on' : 'Gauge in hand'}
        </ChipButton>
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
      {cable}
    </div>
  );
}
