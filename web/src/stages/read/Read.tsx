// Read: what is read, what is missing, and the pad for the next one.
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { Button } from '@mui/material';
import { Glyph, Half } from '../../shell/glyphs';
import { useSettings } from '../../shell/settings';
import { standing } from '../../shell/StanceStrip';
import { useBench } from '../../shell/ticket';
import { angle, length } from '../../units/print';
import { MeasureView } from './MeasureView';
import { ReadingPad, quantityTitle, type Quantity } from './ReadingPad';

const order: [Quantity, 'left' | 'right'][] = (['height', 'camber', 'caster', 'toe'] as const).flatMap(
  (q) => [[q, 'left'] as [Quantity, 'left'], [q, 'right'] as [Quantity, 'right']],
);

export default function Read() {
  const { ticket, setTicket } = useBench();
  const { unit, form } = useSettings();
  const firstMissing = () => order.find(([q, s]) => !standing(ticket, 'found', q, s)) ?? order[0]!;
  const [at, setAt] = useState<[Quantity, 'left' | 'right']>(firstMissing);
  useEffect(() => {
    document.querySelector<HTMLInputElement>('.entry')?.focus();
  }, [at]);
  const show = (q: Quantity, v: number) =>
    q === 'height' ? length(v, unit) : angle(v, form, q === 'toe' ? 2 : 1);
  const [quantity, side] = at;
  const history = ticket.readings
    .filter((r) => r.visit === 'found' && r.quantity === quantity && r.side === side)
    .reverse();
  const done = ticket.missing.length === 0;
  return (
    <main className="main read-main">
      <section
        className="pane"
        style={{ display: 'flex', flexDirection: 'column', overflowY: 'auto' }}
        aria-label="Readings as found"
      >
        <div style={{ padding: '14px 14px 10px' }}>
          <h3>Front, as found</h3>
          <p className="small mut" style={{ marginTop: 5 }}>
            {done
              ? 'All eight are in. Any can be read again.'
              : `${8 - ticket.missing.length} of 8 read. Heights first, toe last.`}
          </p>
        </div>
        {order.map(([q, s]) => {
          const r = standing(ticket, 'found', q, s);
          const on = q === quantity && s === side;
          return (
            <button
              key={q + s}
              type="button"
              className={`bare reading ${on ? 'on' : ''}`}
              aria-pressed={on}
              onClick={() => setAt([q, s])}
              data-testid={`read-${q}-${s}`}
            >
              <Half
                side={s}
                size={20}
                color={on ? (s === 'left' ? 'var(--leftS)' : 'var(--rightS)') : undefined}
              />
              <span style={{ flex: 1 }}>
                <b>{q.charAt(0).toUpperCase() + q.slice(1)}</b> {s}
              </span>
              {r ? (
                <span className="fig" style={{ fontSize: 24 }} data-testid={`value-${q}-${s}`}>
                  {show(q, r.value)}
                </span>
              ) : (
                <span className="word" style={{ fontSize: 14 }}>
                  <Glyph name="unread" size={16} /> Not read
                </span>
              )}
            </button>
          );
        })}
        <div style={{ marginTop: 'auto', padding: 14 }}>
          <Button
            component={Link}
            to={`../plan${window.location.search}`}
            variant={done ? 'contained' : 'outlined'}
            fullWidth
            disabled={!done}
            data-testid="to-plan"
          >
            {done ? 'Plan it' : `${ticket.missing.length} to go`}
          </Button>
        </div>
      </section>
      <section className="pane slate read-view" aria-label="What to measure">
        <div style={{ flex: 1, minHeight: 0, padding: '14px 12px 0' }}>
          <MeasureView quantity={quantity} side={side} />
        </div>
        <div
          className="pane"
          style={{
            padding: '10px 14px',
            color: 'var(--ink)',
            minHeight: 150,
            maxHeight: 240,
            overflowY: 'auto',
          }}
        >
          <h3 style={{ marginBottom: 6 }}>
            {quantityTitle[quantity]}, {side}
          </h3>
          {!history.length && (
            <p className="mut">
              Nothing read yet. A correction is a new reading; the old one stays on record.
            </p>
          )}
          {history.map((r, i) => (
            <div
              key={r.id}
              style={{
                display: 'flex',
                gap: 12,
                alignItems: 'baseline',
                padding: '3px 0',
                color: i ? 'var(--ink2)' : 'inherit',
              }}
              data-testid="history-row"
            >
              <span className="fig" style={{ fontSize: 24, textDecoration: i ? 'line-through' : 'none' }}>
                {show(quantity, r.value)}
              </span>
              <span className="small">
                typed {r.raw.map((e) => `“${e.text}”`).join(', ')} · {r.method} · {r.author} ·{' '}
                {new Date(r.taken_at).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })}
              </span>
              <span className="word small" style={{ marginLeft: 'auto', fontSize: 13 }}>
                <Glyph name={i ? 'stale' : 'done'} size={14} /> {i ? 'replaced' : 'stands'}
              </span>
            </div>
          ))}
        </div>
      </section>
      <ReadingPad
        key={quantity + side}
        ticket={ticket}
        visit="found"
        quantity={quantity}
        side={side}
        kept={(t) => {
          setTicket(t);
          const next = order.find(([q, s]) => !standing(t, 'found', q, s));
          if (next) setAt(next);
        }}
      />
    </main>
  );
}
