// The ladder of steps and gates. What was done says what it said then, whatever the plan says now.
import { Bare } from '../../ui/Press';
import { Button } from '@mui/material';
import { useEffect, useRef } from 'react';
import type { Schemas } from '../../api/client';
import { Glyph } from '../../ui/glyphs';
import { Rounds } from '../../sheet/Rounds';
import { TrimsDone } from '../../sheet/TrimPane';
import { axleWord, type Marks, type Sheet, type Step } from '../../sheet/sheet';

interface Props {
  sheet: Sheet;
  marks: Marks;
  now: Step | undefined;
  veiled: (id: string) => boolean;
  undo: (step: string) => void;
  /** What was trimmed at the gate of heights. */
  trims: Schemas['Trim'][];
  big: boolean;
  setBig: (on: boolean) => void;
}

/** A done step's own line: its title and orders as they were, and the reason a gate was opened on. */
function Kept({ record }: { record: Schemas['DoneRecord'] | undefined }) {
  if (!record) return null;
  return (
    <>
      {record.detail && (
        <span className="small" style={{ display: 'block' }}>
          {record.detail}
        </span>
      )}
      <Rounds rounds={record.rounds ?? []} />
      {!record.reason && record.signed && (
        <span className="small" style={{ display: 'block' }} data-testid="signed-kept">
          Accepted: {record.signed}
        </span>
      )}
      {record.reason && (
        <span className="small" style={{ display: 'block' }} data-testid="gate-reason-kept">
          Opened off plan: {record.reason}
          {record.signed && `, ${record.signed}`}
        </span>
      )}
    </>
  );
}

/** What was trimmed at a gate: at that of heights before it was opened, at an axle's own after it. */
function trimsOf(s: Sheet['steps'][number], trims: Schemas['Trim'][], opened: string | undefined) {
  const before = (t: Schemas['Trim']) => !opened || Date.parse(t.at) <= Date.parse(opened);
  if (s.id === 'settled') return trims.filter(before);
  return s.kind === 'gate' && s.axle ? trims.filter((t) => t.axle === s.axle && !before(t)) : [];
}

export function Ladder({ sheet, marks, now, veiled, undo, trims, big, setBig }: Props) {
  // The step in hand is in view however long the ladder is.
  const inHand = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const [row, list] = [inHand.current, inHand.current?.parentElement];
    if (row && list && list.scrollHeight > list.clientHeight)
      list.scrollTop = row.offsetTop - list.offsetTop - (list.clientHeight - row.offsetHeight) / 2;
  }, [now?.id]);
  const gone = marks.done.filter((d) => !d.step.includes('/') && !sheet.steps.some((s) => s.id === d.step));
  return (
    <section
      className="pane set-steps"
      data-pane="All steps"
      style={{ display: 'flex', flexDirection: 'column', overflowY: 'auto' }}
      aria-label="Setting sheet"
    >
      <div style={{ padding: '14px 14px 8px' }}>
        <h3>Setting sheet</h3>
        <p className="small mut" style={{ marginTop: 5 }}>
          Do them in order. A gate stays shut until its readings are in and near what was expected.
        </p>
      </div>
      {sheet.steps.map((s) => {
        const on = s.id === now?.id;
        const mark = marks.of(s.id);
        return (
          <div
            key={s.id}
            className={`ladder ${s.kind === 'gate' ? 'ladder-gate' : ''} ${on ? 'on' : ''} ${mark ? 'done' : ''}`}
            data-testid={`step-${s.id}`}
            ref={on ? inHand : undefined}
          >
            <Glyph name={mark ? 'done' : s.kind === 'gate' ? 'gate' : on ? 'now' : 'unread'} size={18} />
            <span style={{ flex: 1, minWidth: 0 }}>
              <b>{mark?.record?.title || s.title}</b>
              {s.axle && s.id.includes('fit-') && (
                <span className="small"> · {axleWord(s.axle).toLowerCase()}</span>
              )}
              {mark && <TrimsDone trims={trimsOf(s, trims, marks.of('settled')?.done_at)} />}
              {mark ? (
                <Kept record={s.kind === 'gate' ? { ...mark.record, detail: '' } : mark.record} />
              ) : (
                s.kind === 'step' && (
                  <span className="small" style={{ display: 'block' }}>
                    {veiled(s.id) ? 'opens after the gate' : s.detail}
                  </span>
                )
              )}
            </span>
            {mark && <Undo step={s.id} undo={undo} />}
          </div>
        );
      })}
      {gone.map((d) => (
        <div key={d.step} className="ladder done" data-testid={`step-${d.step}`}>
          <Glyph name="stale" size={18} />
          <span style={{ flex: 1, minWidth: 0 }}>
            <b>{d.record?.title || d.step}</b>
            <Kept record={d.record} />
            <span className="small" style={{ display: 'block' }}>
              done, no longer in the plan
            </span>
          </span>
          <Undo step={d.step} undo={undo} />
        </div>
      ))}
      <div style={{ marginTop: 'auto', display: 'flex', gap: 8, padding: '12px 14px' }}>
        <Button variant="outlined" sx={{ flex: 1 }} onClick={() => window.print()}>
          Print
        </Button>
        <Button variant="outlined" sx={{ flex: 1 }} aria-pressed={big} onClick={() => setBig(!big)}>
          {big ? 'Usual text' : 'Big text'}
        </Button>
      </div>
    </section>
  );
}

function Undo({ step, undo }: { step: string; undo: (step: string) => void }) {
  return (
    <Bare className="small" style={{ textDecoration: 'underline', minHeight: 44 }} onClick={() => undo(step)}>
      Undo
    </Bare>
  );
}
