// The prepare list: what is not answered widens the doubt, nothing blocks.
import { Segment } from '../../ui/Segment';
import { Bare, ChipButton } from '../../ui/Press';
import { saveVisit } from '../../api/calls';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { ApiProblem, type Schemas } from '../../api/client';
import { FieldError } from '../../shell/Fault';
import { Glyph } from '../../ui/glyphs';
import { ticketKey, useBench } from '../../shell/ticket';
import { useSettings } from '../../ui/settings';
import { halfWidth, type Units } from '../../units/measure';
import { angle, num } from '../../units/print';
import { within, type VisitView } from '../../pad/readings';

type Item = Schemas['PrepareItem'];

/** What an answer widens by, of a standard deviation: the band of nine in ten, like every ±. */
function by(k: string, sigma: number, u: Units): string {
  const half = halfWidth(sigma);
  if (k !== 'height' && k !== 'floor')
    return u.angle === 'minutes' ? `±${angle(half, u.angle)}` : `±${num(half, half < 0.1 ? 2 : 1)}°`;
  return u.length === 'in' ? within('height', half, u) : `±${num(half, half < 1 ? 1 : 0)} mm`;
}
const effect = (w: Schemas['Widens'] | undefined, u: Units) =>
  Object.entries(w ?? {})
    .filter(([, v]) => (v as number) > 0)
    .map(([k, v]) => `${k === 'floor' ? 'floor heights' : k} ${by(k, v as number, u)}`)
    .join(', ');

/** The same answers in whatever order they were given. */
const plain = (a: Record<string, string>) => JSON.stringify(Object.entries(a).toSorted());

export function PrepareList({ view, items, back }: { view: VisitView; items: Item[]; back: () => void }) {
  const { ticket, setTicket } = useBench();
  const { units } = useSettings();
  const queries = useQueryClient();
  // What this page and the server last agreed on; only what differs from it is this page's own.
  const [agreed, setAgreed] = useState({ version: view.version, answers: view.answers });
  const [answers, setAnswers] = useState<Record<string, string>>(view.answers);
  const dirty = plain(answers) !== plain(agreed.answers);
  const overtaken = view.version > agreed.version;
  const save = useMutation({
    mutationFn: (a: Record<string, string>) =>
      saveVisit(ticket.job.id, view.kind, { version: agreed.version, answers: a }),
    onSuccess: (t, a) => {
      const version = t.visits.find((v) => v.kind === view.kind)?.version ?? agreed.version;
      setAgreed({ version, answers: a });
      setTicket(t);
    },
    onError: () => void queries.invalidateQueries({ queryKey: ticketKey(ticket.job.id) }),
  });
  // Somebody else answered and nothing is typed here: follow.
  useEffect(() => {
    if (!overtaken || dirty || save.isPending) return;
    setAgreed({ version: view.version, answers: view.answers });
    setAnswers(view.answers);
  }, [overtaken, dirty, save.isPending, view]);
  const fault = save.error instanceof ApiProblem ? save.error : undefined;
  const stale = fault?.status === 409;
  // Saved by itself shortly after the last answer; a refused one stays as typed.
  const blocked = stale || (fault !== undefined && plain(save.variables ?? {}) === plain(answers));
  useEffect(() => {
    if (!dirty || save.isPending || blocked) return;
    const t = setTimeout(() => save.mutate(answers), 600);
    return () => clearTimeout(t);
  }, [dirty, answers, save, blocked]);
  // What they changed since we agreed is theirs; the rest stays as typed here.
  const takeTheirs = () => {
    const theirs = Object.fromEntries(
      Object.entries(view.answers).filter(([k, v]) => v !== (agreed.answers[k] ?? '')),
    );
    setAgreed({ version: view.version, answers: view.answers });
    setAnswers({ ...answers, ...theirs });
    save.reset();
  };
  const put = (id: string, text: string) => setAnswers((a) => ({ ...a, [id]: text }));
  const air = (ticket.vehicle.facts.car?.levels ?? []).length > 0;
  const list = items.filter((i) => i.only !== 'air' || air);
  // What was answered at an earlier visit of the day, or ticked at its gate, and was not answered anew here.
  const held = (i: Item) => ((answers[i.id] ?? '').trim() ? undefined : view.holding?.[i.id]);
  const [holds] = useState(() => new Set(list.filter(held).map((i) => i.id)));
  const asked = list.filter((i) => !holds.has(i.id));
  const kept = list.filter((i) => holds.has(i.id));
  const row = (i: Item) => {
    const before = held(i);
    const text = before ?? answers[i.id] ?? '';
    const known = text.trim() !== '';
    const wrong = fault?.problems.find((p) => p.field === i.id);
    return (
      <div key={i.id} className="prepare-item">
        <div className="ask">
          <Glyph name={known ? (text === 'no' ? 'watch' : 'done') : 'unread'} size={18} />
          <div>
            <label htmlFor={`p-${i.id}`}>
              <b>{i.ask}</b>
            </label>
            <p className="small mut">{i.why}</p>
            {i.caution && (
              <p className="small" style={{ fontWeight: 650 }} role="note">
                {i.caution}
              </p>
            )}
          </div>
        </div>
        <div className="answer">
          {i.kind === 'yes_no' ? (
            <Segment
              label={i.ask}
              id={`p-${i.id}`}
              value={text as 'yes' | 'no'}
              choose={(w) => put(i.id, w)}
              clear={() => put(i.id, '')}
              choices={(['yes', 'no'] as const).map((w) => ({
                value: w,
                label: w === 'yes' ? 'Yes' : 'No',
                testid: `prepare-${i.id}-${w}`,
              }))}
              wide
            />
          ) : (
            <input
              id={`p-${i.id}`}
              className={`field-in fig ${wrong ? 'bad' : ''}`}
              value={text}
              placeholder="not known"
              onChange={(e) => put(i.id, e.target.value)}
              data-testid={`prepare-${i.id}`}
            />
          )}
          {wrong ? (
            <FieldError wrong={wrong.wrong} right={wrong.right} />
          ) : (
            <p className="small mut" data-testid={before === undefined ? undefined : `holds-${i.id}`}>
              {before !== undefined && <b>from earlier today. </b>}
              {known
                ? text === 'no'
                  ? `widens ${effect(i.no, units) || 'nothing'}`
                  : i.kind === 'yes_no'
                    ? ''
                    : i.right
                : effect(i.unanswered, units)
                  ? `unknown: ${effect(i.unanswered, units)}`
                  : ''}
            </p>
          )}
        </div>
      </div>
    );
  };
  return (
    <section className="pane prepare" data-pane="Prepare" data-front aria-label="Prepare list">
      <div className="prepare-head">
        <Bare className="back" onClick={back} data-testid="prepare-back">
          ◂ Picture
        </Bare>
        <h2>Before anything is read</h2>
        <span className="small mut" data-testid="prepare-saving">
          {save.isPending ? 'Saving…' : dirty ? (fault ? 'Not saved' : 'Saving…') : 'Saved'}
        </span>
      </div>
      {stale && (
        <div style={{ padding: '0 16px' }}>
          <FieldError wrong="Another tablet answered first" right="take its answers, then put yours in" />
          <ChipButton
            style={{ marginTop: 8 }}
            disabled={!overtaken}
            onClick={takeTheirs}
            data-testid="take-theirs"
          >
            Take what they changed, keep mine
          </ChipButton>
        </div>
      )}
      {kept.length > 0 && (
        <p className="small" style={{ padding: '0 16px 8px' }} data-testid="prepare-asked">
          {asked.length} to look at again: what work on the car can have changed. {kept.length} hold from
          earlier today, below.
        </p>
      )}
      <div className="prepare-grid">{[...asked, ...kept].map(row)}</div>
    </section>
  );
}
