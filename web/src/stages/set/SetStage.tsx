// Set: the car's setting in workshop words, rear before front, with gates that stay shut until their readings are in.
import { markStep } from '../../api/calls';
import { Button, Dialog } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem, type AxleName, type SideName } from '../../api/client';
import { FieldError } from '../../shell/Fault';
import { Glyph } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { ReadingsFirst, Waiting } from '../../shell/ReadingsFirst';
import { NotTheOne } from '../../shell/ChoosePlan';
import { useBench, useShop, type Bench } from '../../shell/ticket';
import { angle } from '../../units/print';
import { useMethods, type Quantity, type Visit } from '../../pad/readings';
import { PadDialog } from '../../pad/PadDialog';
import { expectedOf, Expect } from './Expect';
import { GateBar, holdsAt } from './GateBar';
import { Ladder } from './Ladder';
import { Orders, ToeOrders } from './Orders';
import { PrintSheet } from './PrintSheet';
import { axleWord, marks, useSheet, type Sheet } from './sheet';

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
  const { form } = useSettings();
  const shop = useShop();
  const methods = useMethods();
  const [pad, setPad] = useState<{ visit: Visit; quantity: Quantity; axle: AxleName; side: SideName }>();
  const [big, setBig] = useState(false);
  const mark = useMutation({
    mutationFn: (m: Mark) => markStep(planId, { step: m.step, done: m.done, reason: m.reason ?? null }),
    onSuccess: setTicket,
  });
  const marked = marks(ticket, planId);
  const isDone = (id: string) => !!marked.of(id);
  const at = sheet.steps.findIndex((s) => !isDone(s.id));
  const now = at < 0 ? undefined : sheet.steps[at];
  const { verdict } = sheet.answer;
  const veiled = (id: string) => {
    const i = sheet.steps.findIndex((s) => s.id === id);
    return sheet.steps.slice(0, Math.max(i, 0)).some((s) => s.kind === 'gate' && !isDone(s.id));
  };
  const fs = big ? 1.5 : 1;
  const gate = sheet.steps.find((s) => s.kind === 'gate' && !isDone(s.id));
  const refused = mark.error instanceof ApiProblem ? mark.error : undefined;
  const atGate = refused && mark.variables?.step === gate?.id ? refused.problems[0] : undefined;
  // The axle in hand: the one of this step, else of the next that has one; the front once everything is done.
  const inHand = sheet.steps.slice(Math.max(at, 0)).find((s) => s.axle)?.axle;
  const axle: AxleName = inHand ?? (sheet.answer.axles.front ? 'front' : 'rear');
  const result = sheet.answer.axles[axle];
  // What stays is shown as well: a step exists only where something of it is turned.
  const of = (toe: boolean) => sheet.answer.orders.filter((o) => o.axle === axle && o.line.sets_toe === toe);
  const [arms, toe] =
    axle === 'front' ? (['cams', 'tie-rods'] as const) : (['rear-arms', 'rear-toe'] as const);
  const fouls = sheet.gates.find((g) => g.id === 'fouls');
  const bar = gate && (
    <GateBar
      key={gate.id}
      holds={holdsAt(ticket, sheet.gates.find((g) => g.id === gate.id)?.visit, methods.data?.prepare ?? [])}
      gate={gate}
      view={sheet.gates.find((g) => g.id === gate.id)}
      marks={marked}
      open={gate.id === now?.id}
      stale={stale || mark.isPending}
      fault={atGate}
      tick={(t, on) => mark.mutate({ step: `${gate.id}/${t}`, done: on })}
      pass={(reason) => mark.mutate({ step: gate.id, done: true, reason })}
      pad={(visit, quantity, a, side) => setPad({ visit, quantity, axle: a, side })}
    />
  );
  const toeRow = result && (
    <ToeOrders
      orders={of(true)}
      veiled={veiled(toe)}
      fs={fs}
      toe={(s) => angle(expectedOf(result, s).toe_deg, form, 2)}
    />
  );
  return (
    <>
      <main className="main set-main" style={{ opacity: stale ? 0.6 : 1 }} aria-busy={stale}>
        <Ladder
          sheet={sheet}
          marks={marked}
          now={now}
          veiled={veiled}
          undo={(s) => mark.mutate({ step: s, done: false })}
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
          <NotTheOne bench={bench} />
          <div className="set-now">
            <div style={{ minWidth: 0 }}>
              <h1 style={{ fontSize: 35 * fs }} data-testid="set-now">
                {now ? now.title : 'All done. Prove comes next.'}
              </h1>
              {now && (
                <p className="mut" style={{ marginTop: 5 }}>
                  {now.detail}
                </p>
              )}
              {!verdict.reached && (
                <p style={{ marginTop: 8 }} data-testid="set-short">
                  <span className="plate">
                    <Glyph name={fouls?.off.length ? 'clash' : 'short'} size={18} /> {verdict.headline}.{' '}
                    {fouls?.off.length
                      ? verdict.sentence
                      : verdict.worst
                        ? 'This is the nearest setting.'
                        : ''}
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
          <h2 className="set-axle" data-testid="set-axle">
            {axleWord(axle)} axle
          </h2>
          <Orders orders={of(false)} veiled={veiled(arms)} fs={fs} />
          {axle === 'rear' && toeRow}
          {bar}
          {axle === 'front' && toeRow}
          {result && <Expect result={result} axle={axle} toeBand={sheet.toe_band_deg} fs={fs} />}
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
                key={pad.visit + pad.quantity + pad.axle + pad.side}
                ticket={ticket}
                visit={pad.visit}
                target={{
                  quantity: pad.quantity,
                  // A wheelbase belongs to a side of the car, not to a wheel.
                  place: { axle: pad.quantity === 'wheelbase' ? 'both' : pad.axle, side: pad.side },
                }}
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
        planId={planId}
        sheet={sheet}
        marks={marked}
      />
    </>
  );
}
