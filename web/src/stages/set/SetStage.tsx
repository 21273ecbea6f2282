// Set: the car's setting in workshop words, rear before front, with gates that stay shut until their readings are in.
import { Button } from '@mui/material';
import { useState } from 'react';
import { ApiProblem, type AxleName, type Schemas } from '../../api/client';
import { FieldError } from '../../shell/Fault';
import { Glyph } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { ReadingsFirst, Waiting } from '../../shell/ReadingsFirst';
import { NotTheOne } from '../../shell/ChoosePlan';
import { useBench, useShop, type Bench } from '../../shell/ticket';
import { angle } from '../../units/print';
import { problemsOf, useSheetActs } from '../../sheet/acts';
import { GatePad, type AtGate } from '../../sheet/GatePad';
import { asDone, current, turning, type Turn } from '../../sheet/asDone';
import { OnJack } from '../../sheet/OnJack';
import { OnPhone } from '../../sheet/OnPhone';
import { OrderInHand } from '../../sheet/OrderInHand';
import { useTolds } from '../../sheet/tolds';
import { expectedOf, Expect } from './Expect';
import { GateBar } from '../../sheet/GateBar';
import { GateTrims } from '../../sheet/GateTrims';
import { Ladder } from './Ladder';
import { LeftToTurn } from '../../sheet/LeftToTurn';
import { ReadFirst } from '../../sheet/ReadFirst';
import { Orders, ToeOrders } from './Orders';
import { PrintSheet } from './PrintSheet';
import { axleWord, drawingsOf, marks, sides, useSheet, type Sheet, type Step } from '../../sheet/sheet';

type Order = Schemas['Order'];

/** Orders of everything but toe as they are left: what is one for the axle, then each wheel's; the plan's where a wheel was
 *  not read since. */
function armsLeft(left: Schemas['AxleLeft'], planned: Order[]): Order[] {
  const whole = (left.whole?.orders ?? []).filter((o) => !o.line.sets_toe);
  const told = (o: Order) => whole.some((w) => w.side === o.side && w.line.name === o.line.name);
  const own = sides.flatMap((side): Order[] => {
    const lines = left.sides[side]?.orders;
    return lines
      ? lines.filter((l) => !l.sets_toe).map((line) => ({ axle: left.axle, side, line }))
      : planned.filter((o) => o.side === side && !told(o));
  });
  return [...whole, ...own];
}

/** What a tick of a gate is called. */
const wordsOf = (gate: Step, tick: string) => gate.ticks.find((t) => t.id === tick)?.words ?? gate.title;

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
  const [pad, setPad] = useState<AtGate>();
  const [big, setBig] = useState(false);
  const marked = marks(ticket, planId);
  const isDone = (id: string) => !!marked.of(id);
  const at = sheet.steps.findIndex((s) => !isDone(s.id));
  const now = at < 0 ? undefined : sheet.steps[at];
  // Kept on this device: what was told of a step's orders outlives a reload.
  const [kept, setTolds, forget] = useTolds(planId, now?.id);
  const { mark, again } = useSheetActs(planId, (t, m) => {
    if (m) forget(m.step);
    setTicket(t);
  });
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
  const corners = (sheet.settled ?? []).filter((c) => !now?.axle || c.axle === now.axle);
  const visit = sheet.gates.find((g) => g.id === gate?.id)?.visit;
  const bar = gate && (
    <GateBar
      key={gate.id}
      gate={gate}
      view={sheet.gates.find((g) => g.id === gate.id)}
      marks={marked}
      open={gate.id === now?.id}
      stale={stale || mark.isPending}
      fault={atGate}
      tick={(t, on) => mark.mutate({ step: `${gate.id}/${t}`, done: on, words: wordsOf(gate, t) })}
      pass={(reason, signed) => mark.mutate({ step: gate.id, done: true, reason, signed, words: gate.title })}
      pad={(visit, quantity, a, side) => setPad({ visit, quantity, axle: a, side })}
    />
  );
  const inStep: Turn[] = (now?.orders ?? []).map((o) => ({ side: o.side ?? undefined, line: o.line }));
  // Of a plan that changed since, what was told of other orders says nothing.
  const tolds = current(inStep, kept);
  const told = asDone(inStep, tolds, unit);
  const turns = now?.kind === 'step' ? turning(inStep).length : 0;
  // At its gate, and before rear toe is turned where a look in between says that the arms are not there yet: in front a gate
  // stands between them, and whoever went on from it knows.
  const armsFirst = (l: Sheet['left'][number]) =>
    now?.id === 'rear-toe' && armsLeft(l, []).some((o) => o.line.direction !== 'leave');
  const leftHere = sheet.left.filter(
    (l) => (gate?.id === now?.id && (l.axle === axle || !now?.axle)) || (l.axle === axle && armsFirst(l)),
  );
  // After a reading it is no longer the plan's orders that count, but what is left of them on the car as it stands.
  const ownLeft = leftHere.find((l) => l.axle === axle);
  const armOrders = ownLeft ? armsLeft(ownLeft, of(false)) : of(false);
  const leftTurns = !!ownLeft && armOrders.some((o) => o.line.direction !== 'leave');
  const toeRow = result && (
    <ToeOrders
      orders={of(true)}
      veiled={veiled(toe)}
      fs={fs}
      toe={(s) => angle(expectedOf(result, s).toe_deg, form, 2)}
    />
  );
  const leftToTurn = leftHere.map((l) => (
    <LeftToTurn
      key={`${l.axle}${l.sides.left?.rounds}${l.sides.right?.rounds}`}
      left={l}
      drawings={drawingsOf(sheet, l.axle)}
      toe={isDone(l.axle === 'front' ? 'tie-rods' : 'rear-toe')}
      stale={stale || again.isPending}
      problems={problemsOf(again.error)}
      turned={(as_done) => again.mutate({ axle: l.axle, as_done })}
    />
  ));
  return (
    <>
      <main className="main set-main" style={{ opacity: stale ? 0.6 : 1 }} aria-busy={stale}>
        <Ladder
          sheet={sheet}
          marks={marked}
          now={now}
          veiled={veiled}
          trims={ticket.job.aftercare.at_gate ?? []}
          undo={(s) => mark.mutate({ step: s, done: false })}
          big={big}
          setBig={setBig}
        />
        <section
          className="pane set-work"
          data-pane="Now"
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
              <p className="lab" data-testid="set-axle">
                {axleWord(axle)} axle
              </p>
              <h1 style={{ fontSize: 35 * fs }} data-testid="set-now">
                {now ? now.title : 'All done, and proved.'}
              </h1>
              {now && turns === 0 && (
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
                variant={turns > 0 ? 'outlined' : 'contained'}
                className={turns > 0 ? 'all-ordered' : undefined}
                sx={
                  turns > 0 ? { minHeight: 52, flex: 'none' } : { minHeight: 60, fontSize: 19, flex: 'none' }
                }
                disabled={mark.isPending || stale}
                onClick={() => mark.mutate({ step: now.id, done: true, as_done: told, words: now.title })}
                data-testid="step-done"
              >
                {inStep.length === 0
                  ? 'Done'
                  : told.length
                    ? 'Done as typed'
                    : turns > 1
                      ? 'All as ordered'
                      : 'As ordered'}
              </Button>
            )}
          </div>
          {refused && !atGate && !refused.problems[0]?.field.startsWith('as_done.') && (
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
          {now?.notes && now.notes.length > 0 && (
            <ul className="step-notes" data-testid="step-notes">
              {now.notes.map((n) => (
                <li key={n}>{n}</li>
              ))}
            </ul>
          )}
          {now?.id === toe && leftHere.length > 0 && (
            <p className="height-first" data-testid="arms-first">
              <Glyph name="watch" size={18} /> These first: what is turned before toe is not there yet.
            </p>
          )}
          {now?.id === toe && leftToTurn}
          {now && (
            <ReadFirst
              step={now}
              view={sheet.gates.find((g) => g.id === now.id)}
              pad={(visit, quantity, a, side) => setPad({ visit, quantity, axle: a, side })}
            />
          )}
          {turns > 0 && now ? (
            <OrderInHand
              key={now.id}
              axle={axle}
              list={inStep}
              drawings={drawingsOf(sheet, axle)}
              tolds={tolds}
              set={(t) => {
                if (mark.isError) mark.reset();
                setTolds(t);
              }}
              problems={problemsOf(mark.error)}
              stale={mark.isPending || stale}
              finish={(t) =>
                mark.mutate({ step: now.id, done: true, as_done: asDone(inStep, t, unit), words: now.title })
              }
              fs={fs}
            />
          ) : (
            <>
              {!leftTurns && <Orders orders={armOrders} veiled={veiled(arms)} fs={fs} />}
              {axle === 'rear' && toeRow}
            </>
          )}
          {bar}
          {visit && now && gate?.id === now.id && now.needs.some((n) => n.quantity === 'height') && (
            <GateTrims
              ticket={ticket}
              corners={corners}
              cautions={sheet.trim_cautions ?? []}
              kept={setTicket}
              stale={stale || mark.isPending}
              tape={(c) => setPad({ visit, quantity: 'height', axle: c.axle, side: c.side })}
            />
          )}
          {leftHere.length > 0 && corners.some((c) => c.rest !== 'as_said' && c.rest !== 'not_read') && (
            <p className="height-first" data-testid="height-first">
              <Glyph name="watch" size={18} /> Height first. The turns below are for the heights read: they
              are right only for whoever stays at those.
            </p>
          )}
          {now?.id !== toe && leftToTurn}
          {(turns > 0 || leftTurns) && <OnJack key={axle} planId={planId} axle={axle} />}
          {axle === 'front' && turns === 0 && toeRow}
          {result && !ownLeft && turns === 0 && (
            <Expect result={result} axle={axle} toeBand={sheet.toe_band_deg} fs={fs} />
          )}
          <footer style={{ padding: '10px 18px', borderTop: '1px solid var(--line)' }}>
            <OnPhone />
            {sheet.cautions.map((c) => (
              <p key={c} className="small mut">
                {c}
              </p>
            ))}
          </footer>
        </section>
        <GatePad at={pad} ticket={ticket} close={() => setPad(undefined)} kept={setTicket} />
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
