// The pad: one quantity, one side, as typed; converted by the server while typing.
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import {
  api,
  ApiProblem,
  take,
  type Converted,
  type Schemas,
  type Ticket,
  type TypedReading,
} from '../../api/client';
import { FieldError } from '../../shell/Fault';
import { Glyph, Half, Inches } from '../../shell/glyphs';
import { useSettings } from '../../shell/settings';
import { angle, minutes, num } from '../../units/print';

export type Quantity = Schemas['Quantity'];
export type Visit = Schemas['Visit'];
type Side = Schemas['Side'];

export const quantityTitle: Record<Quantity, string> = {
  height: 'Height, hub to arch',
  camber: 'Camber',
  caster: 'Caster',
  toe: 'Toe, this wheel',
};
const positive: Record<Quantity, string> = {
  height: 'hub centre up to the arch lip',
  camber: '+ top leans out, − top leans in',
  caster: '+ top leans back',
  toe: '+ nose of the wheel points in',
};

interface Props {
  ticket: Ticket;
  visit: Visit;
  quantity: Quantity;
  side: Side;
  kept: (t: Ticket) => void;
}

export function ReadingPad({ ticket, visit, quantity, side, kept }: Props) {
  const { unit, form } = useSettings();
  const [sweep, setSweep] = useState(false);
  const method = quantity === 'caster' && sweep ? 'sweep' : 'direct';
  const names = method === 'sweep' ? ['camber_out', 'camber_in', 'steer'] : ['value'];
  const [texts, setTexts] = useState<Record<string, string>>({ steer: '20' });
  const [field, setField] = useState('value');
  const [preview, setPreview] = useState<{ c?: Converted; fault?: ApiProblem }>({});
  const input = useRef<HTMLInputElement>(null);
  const id = useRef(crypto.randomUUID());
  const active = names.includes(field) ? field : names[0]!;
  const typed: TypedReading = {
    id: id.current,
    visit,
    quantity,
    side,
    method,
    entries: names.map((n) => ({ name: n, text: texts[n] ?? '' })),
    unit,
    diameter_mm: ticket.tyre_diameter_mm,
  };
  const key = JSON.stringify(typed.entries) + unit + method;
  const complete = names.every((n) => (texts[n] ?? '').trim() !== '');
  useEffect(() => {
    if (!complete) {
      setPreview({});
      return;
    }
    let live = true;
    take(api.POST('/api/v1/readings/preview', { body: typed }))
      .then((c) => live && setPreview({ c }))
      .catch((fault: unknown) => live && fault instanceof ApiProblem && setPreview({ fault }));
    return () => {
      live = false;
    };
    // The key stands for everything in `typed` but its id.
    // eslint-disable-next-line
  }, [key, complete]);
  const keep = useMutation({
    mutationFn: () =>
      take(
        api.POST('/api/v1/jobs/{id}/readings', {
          params: { path: { id: ticket.job.id } },
          body: { ...typed, id: id.current },
        }),
      ),
    onSuccess: (t) => {
      id.current = crypto.randomUUID();
      setTexts({ steer: texts.steer ?? '20' });
      setField(names[0]!);
      kept(t);
    },
  });
  const set = (f: (t: string) => string) => setTexts((t) => ({ ...t, [active]: f(t[active] ?? '') }));
  const press = (k: string) => {
    if (k === '⌫') set((t) => t.slice(0, -1));
    else if (k === '±') set((t) => (/^[-−]/.test(t) ? t.slice(1) : `-${t}`));
    else set((t) => t + k);
    input.current?.focus();
  };
  const special = quantity === 'height' ? ['/', ' '] : ['°', "'"];
  const keys = [
    '7',
    '8',
    '9',
    '⌫',
    '4',
    '5',
    '6',
    '±',
    '1',
    '2',
    '3',
    special[0]!,
    '.',
    '0',
    special[1]!,
    quantity === 'camber' || quantity === 'caster' ? '-' : unit,
  ];
  const problem = preview.fault?.problems[0];
  const saveFault = keep.error instanceof ApiProblem ? keep.error : undefined;
  const c = preview.c;
  const label: Record<string, string> = {
    value: quantityTitle[quantity],
    camber_out: 'Camber, nose swung out',
    camber_in: 'Camber, nose swung in',
    steer: 'Swing each way, °',
  };
  const ready = complete && !!c;
  return (
    <section className="pane pad" aria-label="Reading pad">
      <div style={{ display: 'flex', justifyContent: 'space-between', alignItems: 'flex-start', gap: 8 }}>
        <div>
          <h2 style={{ display: 'flex', gap: 9, alignItems: 'center' }}>
            <Half side={side} size={24} /> {side === 'left' ? 'Left' : 'Right'}{' '}
            {label[active]?.replace(/^./, (x) => x.toLowerCase())}
          </h2>
          <p className="small mut" style={{ marginTop: 4 }}>
            {positive[quantity]}
          </p>
        </div>
        {quantity === 'caster' && (
          <div className="seg" role="group" aria-label="Method">
            <button type="button" aria-pressed={!sweep} onClick={() => setSweep(false)}>
              Direct
            </button>
            <button type="button" aria-pressed={sweep} onClick={() => setSweep(true)} data-testid="sweep">
              Sweep
            </button>
          </div>
        )}
      </div>
      {names.length > 1 && (
        <div className="seg" style={{ width: '100%', marginTop: 8 }}>
          {names.map((n) => (
            <button
              key={n}
              type="button"
              aria-pressed={n === active}
              onClick={() => {
                setField(n);
                input.current?.focus();
              }}
              style={{ flex: 1, fontSize: 14 }}
              data-testid={`entry-${n}`}
            >
              {n === 'camber_out' ? 'Out' : n === 'camber_in' ? 'In' : 'Swing'} {texts[n] ?? '—'}
            </button>
          ))}
        </div>
      )}
      <div
        style={{
          display: 'flex',
          alignItems: 'baseline',
          gap: 10,
          borderBottom: '3px solid var(--ink)',
          marginTop: 6,
        }}
      >
        <input
          ref={input}
          className="fig entry"
          data-testid="entry"
          aria-label={label[active]}
          value={texts[active] ?? ''}
          placeholder="—"
          autoComplete="off"
          onChange={(e) => set(() => e.target.value)}
          onKeyDown={(e) => {
            if (e.key === 'Enter') {
              const next = names[names.indexOf(active) + 1];
              if (next && !texts[next]) setField(next);
              else if (ready) keep.mutate();
            }
          }}
        />
        <span className="fig" style={{ fontSize: 30, fontWeight: 650 }}>
          {quantity === 'height' ? unit : '°'}
        </span>
      </div>
      <div className="keys" aria-hidden="true">
        {keys.map((k) => (
          <button
            key={k}
            type="button"
            tabIndex={-1}
            className="fig"
            onClick={() => press(k === 'mm' || k === 'in' ? ` ${k}` : k)}
          >
            {k === ' ' ? '␣' : k === "'" ? '′' : k === '-' ? '−' : k}
          </button>
        ))}
      </div>
      <div style={{ minHeight: 96, marginTop: 10 }} aria-live="polite" data-testid="preview">
        {c && (
          <>
            <div style={{ display: 'flex', alignItems: 'baseline', gap: 12 }}>
              <span className="fig" style={{ fontSize: 52, fontWeight: 800 }}>
                {quantity === 'height' ? (
                  unit === 'mm' ? (
                    num(c.value, 1)
                  ) : (
                    <Inches mm={c.value} />
                  )
                ) : (
                  angle(c.value, form, 2)
                )}
              </span>
              <span className="fig mut" style={{ fontSize: 26, fontWeight: 600 }}>
                ±{quantity === 'height' ? `${num(c.sigma, 1)} mm` : num(c.sigma, 2)}
              </span>
              <span className="fig mut" style={{ fontSize: 22, fontWeight: 600 }}>
                {quantity === 'height' ? (
                  unit === 'mm' ? (
                    <>
                      <Inches mm={c.value} /> in
                    </>
                  ) : (
                    `${num(c.value, 1)} mm`
                  )
                ) : form === 'minutes' ? (
                  `${num(c.value, 2)}°`
                ) : (
                  minutes(c.value)
                )}
              </span>
            </div>
            <p style={{ marginTop: 4 }}>{c.words}</p>
            {c.suspicion && (
              <p className="small" style={{ display: 'flex', gap: 8, marginTop: 4 }}>
                <Glyph name="watch" size={16} /> {c.suspicion}
              </p>
            )}
          </>
        )}
        {problem && <FieldError wrong={problem.wrong} right={problem.right} />}
        {saveFault && (
          <FieldError wrong={saveFault.title} right={saveFault.problems[0]?.right ?? saveFault.message} />
        )}
      </div>
      <Button
        variant="contained"
        fullWidth
        sx={{ minHeight: 64, fontSize: 19, mt: 'auto' }}
        disabled={!ready || keep.isPending}
        onClick={() => keep.mutate()}
        data-testid="keep"
      >
        {ready && c
          ? `Keep ${quantity === 'height' ? `${num(c.value, 1)} mm` : angle(c.value, form, 2)}`
          : 'Type the reading'}
      </Button>
    </section>
  );
}
