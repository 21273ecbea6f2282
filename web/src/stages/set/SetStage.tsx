// Set: the setting in workshop words, in order, with gates that stay shut until their readings are in.
import { Button, Dialog } from '@mui/material';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, take, type Schemas, type SideName, type SidePlan } from '../../api/client';
import { CamFigure, TieRodFigure } from '../../figures/CamFigure';
import { Glyph, Half } from '../../shell/glyphs';
import { useSettings } from '../../shell/settings';
import { standing } from '../../shell/StanceStrip';
import { ReadingsFirst, Waiting } from '../../shell/ReadingsFirst';
import { useBench, type Bench } from '../../shell/ticket';
import { angle, length, num } from '../../units/print';
import type { Quantity, Visit } from '../read/data';
import { PadDialog } from '../read/PadDialog';

type Step = Schemas['SheetStep'];
const visitOf: Record<string, Visit> = { settled: 'settled', reswept: 'reswept', proved: 'proved' };
const sides = ['left', 'right'] as const;

export default function SetStage() {
  const bench = useBench();
  const { input, plan, ticket } = bench;
  const sheet = useQuery({
    queryKey: ['sheet', input],
    queryFn: () => take(api.POST('/api/v1/sheet', { body: input! })),
    enabled: !!input,
    placeholderData: (p) => p,
  });
  if (!input || !plan) return <ReadingsFirst title="Nothing to set yet" missing={ticket.missing} />;
  if (!sheet.data) return <Waiting words="Writing the sheet…" fault={sheet.error?.message} />;
  return <SheetView bench={bench} sheet={sheet.data} planId={plan.id} />;
}

function SheetView({ bench, sheet, planId }: { bench: Bench; sheet: Schemas['Sheet']; planId: string }) {
  const { ticket, setTicket, draft } = bench;
  const { unit, form } = useSettings();
  const [pad, setPad] = useState<{ visit: Visit; quantity: Quantity; side: SideName }>();
  const [big, setBig] = useState(false);
  const mark = useMutation({
    mutationFn: (m: { step: string; done: boolean }) =>
      take(api.PUT('/api/v1/plans/{id}/done', { params: { path: { id: planId } }, body: m })),
    onSuccess: setTicket,
  });
  const marked = new Set(ticket.done.filter((d) => d.plan_id === planId).map((d) => d.step));
  const reading = (g: Step, q: Quantity, s: SideName) => standing(ticket, visitOf[g.id] ?? 'proved', q, s);
  const complete = (g: Step) =>
    g.ticks.every((t) => marked.has(`${g.id}/${t}`)) &&
    g.needs.every((q) => sides.every((s) => reading(g, q, s)));
  const done = (s: Step) => (s.kind === 'gate' ? marked.has(s.id) : marked.has(s.id));
  const nowIndex = sheet.steps.findIndex((s) => !done(s));
  const now = sheet.steps[nowIndex];
  const r = sheet.result;
  const veiled = (id: string) => {
    const at = sheet.steps.findIndex((s) => s.id === id);
    return sheet.steps.slice(0, at).some((s) => s.kind === 'gate' && !done(s));
  };
  const cams = (p: SidePlan) => p.setting.filter((l) => !l.sets_toe);
  const tie = (p: SidePlan) => p.setting.find((l) => l.sets_toe);
  // What is expected is read in the bay: at the planned height, even where the aim counts under load.
  const planned = r.states.find((x) => x.kind === 'planned');
  const expected = (s: SideName) => planned?.[s]?.angles ?? r[s].set;
  const perHalf = (name: string) => {
    const a = ticket.vehicle.facts.adjusters.find((x) => x.name === name);
    return a && a.kind === 'eccentric' ? (a.notches_per_half_turn ?? 8) : 8;
  };
  const fs = big ? 1.5 : 1;
  const offPlan = (g: Step): string | undefined => {
    if (g.id !== 'reswept' && g.id !== 'proved') return undefined;
    const low = draft?.aim.caster_deg[0] ?? 0;
    for (const s of sides) {
      const v = reading(g, 'caster', s)?.value;
      if (v === undefined) continue;
      if (v < low - 1e-9)
        return `${s === 'left' ? 'Left' : 'Right'} caster reads ${angle(v, form)}, under ${angle(low, form)}. Call the plan back, or go on knowing it.`;
      const want = r[s].set.caster_deg;
      if (Math.abs(v - want) > 0.75)
        return `${s === 'left' ? 'Left' : 'Right'} caster reads ${angle(v, form)}, expected ${angle(want, form)}. Read it again or call the plan back.`;
    }
    return undefined;
  };
  const gate = sheet.steps.find((s) => s.kind === 'gate' && !done(s));
  return (
    <main className="main set-main">
      <section
        className="pane"
        style={{ display: 'flex', flexDirection: 'column', overflowY: 'auto' }}
        aria-label="Setting sheet"
      >
        <div style={{ padding: '14px 14px 8px' }}>
          <h3>Setting sheet</h3>
          <p className="small mut" style={{ marginTop: 5 }}>
            Do them in order. A gate stays shut until its readings are in.
          </p>
        </div>
        {sheet.steps.map((s) => {
          const on = s.id === now?.id;
          const d = done(s);
          return (
            <div
              key={s.id}
              className={`ladder ${s.kind} ${on ? 'on' : ''} ${d ? 'done' : ''}`}
              data-testid={`step-${s.id}`}
            >
              <Glyph name={d ? 'done' : s.kind === 'gate' ? 'gate' : on ? 'now' : 'unread'} size={18} />
              <span style={{ flex: 1, minWidth: 0 }}>
                <b>{s.title}</b>
                {!veiled(s.id) && s.kind === 'step' && (
                  <span className="small" style={{ display: 'block' }}>
                    {s.detail}
                  </span>
                )}
                {veiled(s.id) && s.kind === 'step' && (
                  <span className="small" style={{ display: 'block' }}>
                    opens after the gate
                  </span>
                )}
              </span>
              {d && (
                <button
                  type="button"
                  className="bare small no-print"
                  style={{ textDecoration: 'underline', minHeight: 44 }}
                  onClick={() => mark.mutate({ step: s.id, done: false })}
                >
                  Undo
                </button>
              )}
            </div>
          );
        })}
        <div
          style={{ marginTop: 'auto', display: 'flex', gap: 8, padding: '12px 14px' }}
          className="no-print"
        >
          <Button variant="outlined" sx={{ flex: 1 }} onClick={() => window.print()}>
            Print
          </Button>
          <Button variant="outlined" sx={{ flex: 1 }} aria-pressed={big} onClick={() => setBig(!big)}>
            {big ? 'Usual text' : 'Big text'}
          </Button>
        </div>
      </section>
      <section
        className="pane"
        style={{
          display: 'flex',
          flexDirection: 'column',
          overflowY: 'auto',
          fontSize: 15 * (big ? 1.2 : 1),
        }}
        aria-label="What to do now"
      >
        <div
          style={{
            padding: '13px 18px 8px',
            display: 'flex',
            gap: 14,
            alignItems: 'flex-start',
            justifyContent: 'space-between',
          }}
        >
          <div style={{ minWidth: 0 }}>
            <h1 style={{ fontSize: 35 * fs }} data-testid="set-now">
              {now ? now.title : 'All done. Prove comes next.'}
            </h1>
            {now && (
              <p className="mut" style={{ marginTop: 5 }}>
                {now.detail}
              </p>
            )}
            {!r.verdict.reached && (
              <p style={{ marginTop: 8 }}>
                <span className="plate">
                  <Glyph name="short" size={18} /> Plan is short: {r.verdict.headline.toLowerCase()}. This is
                  the nearest setting.
                </span>
              </p>
            )}
          </div>
          {now?.kind === 'step' && (
            <Button
              variant="contained"
              sx={{ minHeight: 60, fontSize: 19, flex: 'none' }}
              disabled={mark.isPending}
              onClick={() => mark.mutate({ step: now.id, done: true })}
              data-testid="step-done"
            >
              Done
            </Button>
          )}
        </div>
        {now && now.cautions.length > 0 && (
          <div className="caution" role="note" data-testid="caution">
            <Glyph name="watch" size={22} />
            <div>
              {now.cautions.map((c) => (
                <p key={c}>{c}</p>
              ))}
            </div>
          </div>
        )}
        <div className={`set-row ${veiled('cams') ? 'veiled' : ''}`}>
          {sides.map((s) => (
            <div key={s} className="set-card">
              <h2 style={{ display: 'flex', gap: 10, alignItems: 'center' }}>
                <Half side={s} size={26} /> {s === 'left' ? 'Left' : 'Right'}
              </h2>
              <div
                style={{
                  display: 'grid',
                  gridTemplateColumns: `repeat(${Math.max(1, cams(r[s]).length)},1fr)`,
                  gap: 4,
                }}
              >
                {cams(r[s]).map((l) => (
                  <div key={l.name}>
                    {l.is_cam && <CamFigure line={l} side={s} perHalf={perHalf(l.name)} />}
                    {['longer', 'shorter'].includes(l.direction) && <TieRodFigure line={l} />}
                    <span className="lab">{l.name}</span>
                    <div
                      className="fig"
                      style={{ fontSize: 31 * fs, fontWeight: 800, marginTop: 3 }}
                      data-testid={`set-${s}-${l.name.toLowerCase().replaceAll(' ', '-')}`}
                    >
                      {l.direction === 'leave' ? 'leave' : l.words.replace(` ${l.direction}`, '')}
                    </div>
                    <div className="fig mut" style={{ fontSize: 21 * fs, fontWeight: 650, marginTop: 3 }}>
                      {l.direction === 'leave' ? 'on its mark' : l.direction}
                      {l.at_end ? ' · last notch' : ''}
                    </div>
                  </div>
                ))}
              </div>
            </div>
          ))}
        </div>
        {gate && (
          <GateBar
            g={gate}
            bench={bench}
            marked={marked}
            reading={reading}
            complete={complete(gate)}
            off={offPlan(gate)}
            open={gate.id === now?.id}
            tick={(t, on) => mark.mutate({ step: `${gate.id}/${t}`, done: on })}
            pass={() => mark.mutate({ step: gate.id, done: true })}
            pad={(q, s) => setPad({ visit: visitOf[gate.id] ?? 'proved', quantity: q, side: s })}
          />
        )}
        <div className={`set-row ${veiled('tie-rods') ? 'veiled' : ''}`}>
          {sides.map((s) => {
            const l = tie(r[s]);
            return (
              <div key={s} className="set-card" style={{ display: 'flex', gap: 14, alignItems: 'center' }}>
                {l && (
                  <>
                    <TieRodFigure line={l} />
                    <div>
                      <span className="lab">
                        {s === 'left' ? 'Left' : 'Right'} tie rod {veiled('tie-rods') ? '· waits' : ''}
                      </span>
                      <div
                        className="fig"
                        style={{ fontSize: 31 * fs, fontWeight: 800, marginTop: 3 }}
                        data-testid={`set-${s}-tie-rod`}
                      >
                        {l.words}
                      </div>
                      <div className="fig mut" style={{ fontSize: 20 * fs, fontWeight: 650 }}>
                        toe to {angle(r[s].set.toe_deg, form, 2)}
                      </div>
                    </div>
                  </>
                )}
              </div>
            );
          })}
        </div>
        <div className="set-row" style={{ background: 'var(--well)', flex: 1, minHeight: 96 }}>
          {sides.map((s) => (
            <div key={s} className="set-card">
              <span className="lab" style={{ display: 'flex', gap: 7, alignItems: 'center' }}>
                <Half side={s} size={17} /> Expect {s} at {length(r[s].planned_height_mm, unit)}
              </span>
              <div style={{ display: 'flex', gap: 24, marginTop: 6 }}>
                {(
                  [
                    ['camber', expected(s).camber_deg, r[s].doubt.camber_deg, 1],
                    ['caster', expected(s).caster_deg, r[s].doubt.caster_deg, 1],
                    ['toe in', expected(s).toe_deg, 0.05 * 1.645, 2],
                  ] as const
                ).map(([w, v, d, dec]) => (
                  <div key={w}>
                    <div className="fig" style={{ fontSize: 31 * fs }}>
                      {angle(v, form, dec)}
                      <span className="mut" style={{ fontSize: 18, fontWeight: 600 }}>
                        {' '}
                        ±{num(d, dec)}
                      </span>
                    </div>
                    <span className="small mut">{w}</span>
                  </div>
                ))}
              </div>
            </div>
          ))}
        </div>
        <footer style={{ padding: '10px 18px', borderTop: '1px solid var(--line)' }}>
          {sheet.cautions.map((c) => (
            <p key={c} className="small mut">
              {c}
            </p>
          ))}
        </footer>
      </section>
      <Dialog open={!!pad} onClose={() => setPad(undefined)} maxWidth={false}>
        {pad && (
          <div style={{ width: 'min(440px, 92vw)', maxWidth: '100%' }}>
            <PadDialog
              key={pad.visit + pad.quantity + pad.side}
              ticket={ticket}
              visit={pad.visit}
              target={{ quantity: pad.quantity, place: { axle: 'front', side: pad.side } }}
              kept={(t) => {
                setTicket(t);
                setPad(undefined);
              }}
            />
          </div>
        )}
      </Dialog>
    </main>
  );
}

interface GateProps {
  g: Step;
  bench: Bench;
  marked: Set<string>;
  reading: (g: Step, q: Quantity, s: SideName) => Schemas['Reading'] | undefined;
  complete: boolean;
  open: boolean;
  off: string | undefined;
  tick: (t: string, on: boolean) => void;
  pass: () => void;
  pad: (q: Quantity, s: SideName) => void;
}

function GateBar({ g, marked, reading, complete, open, off, tick, pass, pad }: GateProps) {
  const { unit, form } = useSettings();
  return (
    <div className="gate" data-testid={`gate-${g.id}`}>
      <div style={{ display: 'flex', alignItems: 'center', gap: 12, flexWrap: 'wrap' }}>
        <Glyph name={complete ? 'now' : 'gate'} size={26} />
        <h2 style={{ fontSize: 27 }}>
          {g.title}, {complete ? 'opening' : 'shut'}
        </h2>
        <span style={{ marginLeft: 'auto', fontWeight: 600 }}>{off ?? g.detail}</span>
      </div>
      <div style={{ display: 'flex', gap: 10, marginTop: 11, flexWrap: 'wrap' }}>
        {g.ticks.map((t) => {
          const on = marked.has(`${g.id}/${t}`);
          return (
            <button
              key={t}
              type="button"
              className={`chk ${on ? 'on' : ''}`}
              role="checkbox"
              aria-checked={on}
              disabled={!open}
              onClick={() => tick(t, !on)}
            >
              <i>{on && <Glyph name="done" size={16} />}</i>
              {t}
            </button>
          );
        })}
        {g.needs.flatMap((q) =>
          sides.map((s) => {
            const r = reading(g, q, s);
            return (
              <button
                key={q + s}
                type="button"
                className={`chk ${r ? 'on' : 'dash'}`}
                disabled={!open}
                onClick={() => pad(q, s)}
                data-testid={`gate-${q}-${s}`}
              >
                <Half side={s} size={18} color="currentColor" /> {q}{' '}
                {r
                  ? q === 'height'
                    ? length(r.value, unit)
                    : angle(r.value, form, q === 'toe' ? 2 : 1)
                  : 'not read'}
              </button>
            );
          }),
        )}
        <button
          type="button"
          className="chk do"
          disabled={!complete || !open}
          onClick={pass}
          data-testid="gate-pass"
        >
          {off ? 'Go on, off plan' : 'Open the gate'}
        </button>
      </div>
    </div>
  );
}
