// The road test: what was felt, how far the steering wheel stands off, and the equal turns of both rods that put it straight.
import { Button } from '@mui/material';
import { useState } from 'react';
import type { SideName, Ticket } from '../../api/client';
import { FieldError } from '../../shell/Fault';
import { useAfter } from '../../sheet/after';
import { AfterFault } from '../../sheet/AfterFault';
import { sideWord, type Sheet } from '../../sheet/sheet';
import { Glyph, Half } from '../../ui/glyphs';
import { Segment } from '../../ui/Segment';

interface Props {
  ticket: Ticket;
  sheet: Sheet;
  kept: (t: Ticket) => void;
  stale: boolean;
}

export function RoadPane({ ticket, sheet, kept, stale }: Props) {
  const [off, setOff] = useState('');
  const [side, setSide] = useState<SideName>();
  const [felt, setFelt] = useState('');
  const { acts, problems } = useAfter(ticket, (t) => {
    setOff('');
    setFelt('');
    setSide(undefined);
    kept(t);
  });
  const at = (f: string) => problems.find((p) => p.field === f);
  const road = sheet.road ?? undefined;
  const busy = stale || acts.isPending;
  // A live axle has one drag link for both wheels.
  const rods = !road?.orders.some((o) => !o.side);
  return (
    <section className="pane road-test" data-testid="road-test" aria-label="Road test">
      <h2>Road test</h2>
      {road ? (
        <>
          <p style={{ fontWeight: 650 }} data-testid="road-headline">
            {road.headline}
          </p>
          {road.felt && <p className="small mut">Felt: {road.felt}</p>}
          {!road.turned && road.orders.length > 0 && (
            <>
              {road.orders.map((o) => (
                <p key={o.side ?? o.name} className="left-line fig" data-testid={`rod-${o.side ?? 'axle'}`}>
                  {o.side && <Half side={o.side} size={18} />}{' '}
                  <span className="mut">
                    {o.side && sideWord(o.side)} {o.name.toLowerCase()}
                  </span>{' '}
                  {o.words}
                </p>
              ))}
              <p className="road-caution">
                <Glyph name="watch" size={18} />{' '}
                {rods
                  ? 'Steering wheel locked straight while both are turned.'
                  : 'Steering wheel locked straight while the link is turned: the road wheels follow it.'}{' '}
                Keep thread engagement; torque the lock nuts to the maker’s figures.
              </p>
              <Button
                variant="contained"
                sx={{ minHeight: 52 }}
                disabled={busy}
                onClick={() => acts.mutate({ act: 'wheel_turned' })}
                data-testid="road-turned"
              >
                {rods ? 'Both turned as ordered' : 'Turned as ordered'}
              </Button>
            </>
          )}
        </>
      ) : (
        <p className="small mut">
          Drive it on a straight, level road: does it pull, does the wheel come back, does anything shake,
          does the steering wheel stand straight?
        </p>
      )}
      <form
        className="road-form"
        onSubmit={(e) => {
          e.preventDefault();
          acts.mutate({ act: 'road_tested', wheel_off: off.trim(), side: side ?? null, felt: felt.trim() });
        }}
      >
        <label>
          <span className="small">Steering wheel off, degrees; empty is straight</span>
          <input
            value={off}
            inputMode="decimal"
            onChange={(e) => setOff(e.target.value)}
            aria-invalid={!!at('wheel_off')}
            data-testid="road-off"
          />
        </label>
        <Segment
          label="Which way its top went"
          value={side}
          choose={setSide}
          clear={() => setSide(undefined)}
          choices={[
            { value: 'left', label: 'to the left', testid: 'road-left' },
            { value: 'right', label: 'to the right', testid: 'road-right' },
          ]}
        />
        <label style={{ flex: '1 1 220px' }}>
          <span className="small">Pull, return, vibration: what was felt</span>
          <input
            value={felt}
            onChange={(e) => setFelt(e.target.value)}
            maxLength={400}
            data-testid="road-felt"
          />
        </label>
        <Button type="submit" variant="outlined" disabled={busy} data-testid="road-keep">
          {road ? 'Driven again' : 'Driven'}
        </Button>
        {['wheel_off', 'side', 'felt'].map((f) => {
          const p = at(f);
          return p && <FieldError key={f} wrong={p.wrong} right={p.right} />;
        })}
        <AfterFault
          error={acts.error}
          problems={problems}
          at={(f) => ['wheel_off', 'side', 'felt'].includes(f)}
        />
      </form>
    </section>
  );
}
