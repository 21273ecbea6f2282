// The gate of heights: every corner against the plan, the turns that bring it there, and what to do where nothing turns.
import { useState } from 'react';
import type { Ticket } from '../api/client';
import { Plain } from '../ui/Press';
import { Glyph, Half } from '../ui/glyphs';
import { useSettings } from '../ui/settings';
import { length, lengthChange } from '../units/print';
import { AfterFault } from './AfterFault';
import { rests, useAfter, type Corner } from './after';
import { sideWord } from './sheet';
import { TrimPane } from './TrimPane';

/** Against the plan, not a ring. */
const stands: typeof rests = { ...rests, as_said: ['done', 'as planned'] };

interface Props {
  ticket: Ticket;
  /** Corners that are asked for now. */
  corners: Corner[];
  /** Cautions of a height that is turned. */
  cautions: string[];
  kept: (t: Ticket) => void;
  stale: boolean;
  tape: (c: Corner) => void;
}

const id = (c: Corner) => `${c.axle}-${c.side}`;

export function GateTrims({ ticket, corners, cautions, kept, stale, tape }: Props) {
  const { unit } = useSettings();
  const [chosen, setChosen] = useState<string>();
  const { acts, problems } = useAfter(ticket, kept);
  const off = corners.filter((c) => c.rest !== 'as_said');
  // Nothing to say of corners that stand where they were planned and were never turned.
  if (!off.some((c) => c.rest === 'too_far' || c.rest === 'too_high' || c.trims.length > 0)) return null;
  const worst = off.toSorted((a, b) => Math.abs(b.off_mm) - Math.abs(a.off_mm))[0];
  const now = corners.find((c) => id(c) === chosen) ?? worst ?? corners[0];
  return (
    <section className="gate-trims" data-testid="gate-trims" aria-label="Left to turn for height">
      <h2>Left to turn for height</h2>
      <p className="small mut">
        Bring a corner to its plan by its collar or bolt and tape both sides of the axle again. Or open the
        gate on a reason: everything after is then worked out at the heights read.
      </p>
      <div className="gate-corners">
        {corners.map((c) => {
          const [glyph, word] = stands[c.rest];
          const on = now && id(c) === id(now);
          return (
            <Plain
              key={id(c)}
              className={on ? 'on' : ''}
              aria-pressed={!!on}
              onClick={() => setChosen(id(c))}
              data-testid={`corner-${id(c)}`}
            >
              <span className="word" style={{ fontWeight: 650 }}>
                <Half side={c.side} size={17} /> {sideWord(c.side)} {c.axle}
              </span>
              <b className="fig">{c.now_mm == null ? '—' : length(c.now_mm, unit)}</b>
              <span className="word small">
                <Glyph name={glyph} size={15} />
                {c.off_mm === 0 ? word : `${lengthChange(c.off_mm, unit)}, ${word}`}
              </span>
            </Plain>
          );
        })}
      </div>
      <AfterFault
        error={acts.error}
        problems={problems}
        at={(f) => f === 'amount' || f.startsWith('turned')}
      />
      {now && (
        <TrimPane
          key={id(now)}
          corner={now}
          turned={ticket.job.aftercare.turned?.[now.axle] ?? undefined}
          cautions={cautions}
          busy={stale || acts.isPending}
          problems={problems}
          act={(a) => acts.mutate(a)}
          tape={() => tape(now)}
        />
      )}
    </section>
  );
}
