// A gate: what it waits for, what is off by how much, and the reason it is opened on all the same.
import { Plain } from '../ui/Press';
import { useState } from 'react';
import type { AxleName, SideName } from '../api/client';
import { FieldError } from '../shell/Fault';
import { Glyph, Half } from '../ui/glyphs';
import { useSettings } from '../ui/settings';
import type { Quantity, Visit } from '../pad/readings';
import { keepSigned, lastSigned } from '../door/signed';
import { cellName, cellRead, cellsOf, findingWords } from './gateWords';
import { readAt, type Gate, type Marks, type Step } from './sheet';

interface Props {
  gate: Step;
  view: Gate | undefined;
  marks: Marks;
  open: boolean;
  /** Whether its readings are taken before it is its turn: partial looks are welcome. */
  early?: boolean;
  stale: boolean;
  fault: { wrong: string; right: string } | undefined;
  tick: (t: string, on: boolean) => void;
  pass: (reason: string | undefined, signed: string | undefined) => void;
  pad: (visit: Visit, q: Quantity, axle: AxleName, s: SideName) => void;
}

export function GateBar({ gate: g, view, marks, open, early, stale, fault, tick, pass, pad }: Props) {
  const { unit, form } = useSettings();
  const [reason, setReason] = useState('');
  const [name, setName] = useState(lastSigned);
  const off = view?.off ?? [];
  const complete = view?.missing.length === 0;
  // Answers of the prepare list that hold here too.
  const holds = view?.holds ?? [];
  const both = new Set(g.needs.map((n) => n.axle)).size > 1;
  const asks = complete && off.length > 0;
  // The last gate is somebody's word for the whole car, and so is every one that is passed against a reading.
  const signs = asks || (complete && g.id === 'proved');
  const signed = name.trim();
  const go = () => {
    if (signs) keepSigned(signed);
    pass(asks ? reason : undefined, signs ? signed : undefined);
  };
  return (
    <div className="gate-bar" data-testid={`gate-${g.id}`}>
      <div style={{ display: 'flex', alignItems: 'center', gap: 12, flexWrap: 'wrap' }}>
        <Glyph name={complete && !asks ? 'now' : 'gate'} size={26} />
        <h2 style={{ fontSize: 27 }}>
          {g.title}, {!complete ? 'shut' : asks ? 'off' : 'opening'}
        </h2>
        {!asks && <span style={{ marginLeft: 'auto', fontWeight: 600 }}>{g.detail}</span>}
      </div>
      {off.length > 0 && (
        <ul className="gate-off" data-testid="gate-off" aria-live="polite">
          {off.map((f) => (
            <li key={`${f.about}${f.axle ?? ''}${f.side ?? ''}${f.what ?? ''}`}>
              <Glyph name={f.about === 'foul' ? 'clash' : f.stale ? 'stale' : 'short'} size={18} />
              {findingWords(f, unit, form)}
            </li>
          ))}
        </ul>
      )}
      {holds.length > 0 && (
        <p className="small" data-testid="gate-holds" style={{ marginTop: 6 }}>
          Holds from today: {holds.map((h) => `${h.ask.toLowerCase()}: ${h.answer}`).join(' · ')}
        </p>
      )}
      <div style={{ display: 'flex', gap: 10, marginTop: 11, flexWrap: 'wrap', alignItems: 'flex-start' }}>
        {g.ticks.map((t) => {
          const on = !!view?.ticked.includes(t.id);
          return (
            <Plain
              key={t.id}
              className={`chk ${on ? 'on' : ''}`}
              role="checkbox"
              aria-checked={on}
              // Answered in the prepare list it is taken back there.
              disabled={!open || (on && !marks.of(`${g.id}/${t.id}`))}
              onClick={() => tick(t.id, !on)}
            >
              <i>{on && <Glyph name="done" size={16} />}</i>
              {t.words}
            </Plain>
          );
        })}
        {cellsOf(g.needs).map((c) => {
          const { axle, quantity: q } = c;
          const s = c.side ?? 'left';
          const r = readAt(view, axle, s, q);
          const id = c.side ? `${q}-${s}` : q;
          return (
            <Plain
              key={axle + id}
              className={`chk ${r ? 'on' : 'dash'}`}
              disabled={!open && !early}
              onClick={() => view?.visit && pad(view.visit, q === 'centre' ? 'axle_offset' : q, axle, s)}
              data-testid={axle === 'rear' ? `gate-rear-${id}` : `gate-${id}`}
            >
              {c.side && <Half side={s} size={18} color="currentColor" />} {cellName(c, both)}{' '}
              {r ? cellRead(q, r.value, unit, form) : 'not read'}
            </Plain>
          );
        })}
        {signs && open ? (
          <form
            className="gate-why"
            onSubmit={(e) => {
              e.preventDefault();
              go();
            }}
          >
            {asks && (
              <label style={{ flex: '2 1 220px' }}>
                <span className="small">Why it goes on, kept and printed</span>
                <input
                  value={reason}
                  onChange={(e) => setReason(e.target.value)}
                  maxLength={300}
                  data-testid="gate-reason"
                />
              </label>
            )}
            <label>
              <span className="small">Who stands for it</span>
              <input
                value={name}
                onChange={(e) => setName(e.target.value)}
                maxLength={60}
                autoComplete="off"
                data-testid="gate-signed"
              />
            </label>
            <Plain
              type="submit"
              className="chk do"
              disabled={stale || signed.length < 2 || (asks && reason.trim().length < 3)}
              data-testid="gate-pass"
            >
              {asks ? 'Go on, off plan' : 'Accept it'}
            </Plain>
          </form>
        ) : (
          <Plain
            className="chk do"
            disabled={!complete || !open || stale}
            onClick={go}
            data-testid="gate-pass"
          >
            Open the gate
          </Plain>
        )}
      </div>
      {fault && <FieldError wrong={fault.wrong} right={fault.right} />}
    </div>
  );
}
