// Set: the setting in workshop words, in order, with gates that stay shut until their readings are in.
import { Button, Dialog } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, ApiProblem, take, type SideName } from '../../api/client';
import { FieldError } from '../../shell/Fault';
import { Glyph, Half } from '../../shell/glyphs';
import { useSettings } from '../../shell/settings';
import { ReadingsFirst, Waiting } from '../../shell/ReadingsFirst';
import { useBench, useShop, type Bench } from '../../shell/ticket';
import { angle, length } from '../../units/print';
import type { Quantity, Visit } from '../read/data';
import { PadDialog } from '../read/PadDialog';
import { GateBar } from './GateBar';
import { Ladder } from './Ladder';
import { Orders, ToeOrders } from './Orders';
import { PrintSheet } from './PrintSheet';
import { orderOf, gatesOf, sides, useSheet, visitOfGate, type Sheet } from './sheet';

export default function SetStage() {
  const bench = useBench();
  const sheet = useSheet(bench);
  if (!bench.input || !bench.plan)
    return <ReadingsFirst title="Nothing to set yet" missing={bench.ticket.missing} />;
  if (!sheet.data) return <Waiting words="Writing the sheet…" fault={sheet.error?.message} />;
  return (
    <SheetView
      bench={bench}
      sheet={sheet.data}
      planId={bench.plan.id}
      stale={sheet.isPlaceholderData || sheet.isError || bench.saving !== 'saved'}
    />
  );
}

interface Mark {
  step: string;
  done: boolean;
  reason?: string | undefined;
}

function SheetView({
  bench,
  sheet,
  planId,
  stale,
}: {
  bench: Bench;
  sheet: Sheet;
  planId: string;
  stale: boolean;
}) {
  const { ticket, setTicket } = bench;
  const { unit, form } = useSettings();
  const shop = useShop();
  const [pad, setPad] = useState<{ visit: Visit; quantity: Quantity; side: SideName }>();
  const [big, setBig] = useState(false);
  const mark = useMutation({
    mutationFn: (m: Mark) =>
      take(
        api.PUT('/api/v1/plans/{id}/done', {
          params: { path: { id: planId } },
          body: { step: m.step, done: m.done, reason: m.reason ?? null },
        }),
      ),
    onSuccess: setTicket,
  });
  const gates = gatesOf(ticket, planId);
  const isDone = (id: string) => !!gates.marked(id);
  const now = sheet.steps.find((s) => !isDone(s.id));
  const r = sheet.result;
  const veiled = (id: string) => {
    const at = sheet.steps.findIndex((s) => s.id === id);
    return sheet.steps.slice(0, Math.max(at, 0)).some((s) => s.kind === 'gate' && !isDone(s.id));
  };
  // What is expected is read in the bay: at the planned height, even where the aim counts under load.
  const planned = r.states.find((x) => x.kind === 'planned');
  const expected = (s: SideName) => planned?.[s]?.angles ?? r[s].set;
  const fs = big ? 1.5 : 1;
  const gate = sheet.steps.find((s) => s.kind === 'gate' && !isDone(s.id));
  const refused = mark.error instanceof ApiProblem ? mark.error : undefined;
  const atGate = refused && mark.variables?.step === gate?.id ? refused.problems[0] : undefined;
  return (
    <>
      <main className="main set-main" style={{ opacity: stale ? 0.6 : 1 }} aria-busy={stale}>
        <Ladder
          sheet={sheet}
          gates={gates}
          now={now}
          done={ticket.done.filter((d) => d.plan_id === planId)}
          veiled={veiled}
          undo={(step) => mark.mutate({ step, done: false })}
          big={big}
          setBig={setBig}
        />
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
          <div className="set-now">
            <div style={{ minWidth: 0 }}>
              <h1 style={{ fontSize: 35 * fs }} data-testid="set-now">
                {now ? now.title : 'All done. Prove comes next.'}
              </h1>
              {now && (
                <p className="mut" style={{ marginTop: 5 }}>
                  {orderOf(now, sheet, unit)}
                </p>
              )}
              {!r.verdict.reached && (
                <p style={{ marginTop: 8 }} data-testid="set-short">
                  <span className="plate">
                    <Glyph name={(r.verdict.fouls ?? []).length ? 'clash' : 'short'} size={18} />{' '}
                    {r.verdict.headline}.{' '}
                    {(r.verdict.fouls ?? []).join('; ') || 'This is the nearest setting.'}
                  </span>
                </p>
              )}
            </div>
            {now?.kind === 'step' && (
              <Button
                variant="contained"
                sx={{ minHeight: 60, fontSize: 19, flex: 'none' }}
                disabled={mark.isPending || stale}
                onClick={() => mark.mutate({ step: now.id, done: true })}
                data-testid="step-done"
              >
                Done
              </Button>
            )}
          </div>
          {refused && !atGate && (
            <div style={{ padding: '0 18px' }}>
              <FieldError
                wrong={refused.problems[0]?.wrong ?? refused.title}
                right={refused.problems[0]?.right ?? refused.message}
              />
            </div>
          )}
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
          <Orders result={r} veiled={veiled('cams')} fs={fs} />
          {gate && (
            <GateBar
              key={gate.id}
              gate={gate}
              gates={gates}
              off={sheet.gates.find((g) => g.id === gate.id)?.off ?? []}
              open={gate.id === now?.id}
              stale={stale || mark.isPending}
              fault={atGate}
              tick={(t, on) => mark.mutate({ step: `${gate.id}/${t}`, done: on })}
              pass={(reason) => mark.mutate({ step: gate.id, done: true, reason })}
              pad={(q, s) => setPad({ visit: visitOfGate(gate.id), quantity: q, side: s })}
            />
          )}
          <ToeOrders
            result={r}
            veiled={veiled('tie-rods')}
            fs={fs}
            toe={(s) => angle(expected(s).toe_deg, form, 2)}
          />
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
                      ['toe in', expected(s).toe_deg, sheet.toe_band_deg, 2],
                    ] as const
                  ).map(([w, v, d, dec]) => (
                    <div key={w}>
                      <div className="fig" style={{ fontSize: 31 * fs }}>
                        {angle(v, form, dec)}
                        <span className="mut" style={{ fontSize: 18, fontWeight: 600 }}>
                          {' '}
                          ±{angle(d, form, dec)}
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
      <PrintSheet
        ticket={ticket}
        shop={shop.data?.name ?? ''}
        planName={bench.plan?.name ?? ''}
        sheet={sheet}
        gates={gates}
        expected={expected}
      />
    </>
  );
}
