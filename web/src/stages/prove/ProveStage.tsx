// Prove: what was said, what came and where it should be, of every wheel; what explains a difference, what is left to turn, and
// who stands for it.
import { HowTo } from '../../ui/HowTo';
import { Button, useMediaQuery } from '@mui/material';
import { useState } from 'react';
import { Link, useLocation } from 'react-router';
import { ApiProblem, type AxleName, type Schemas } from '../../api/client';
import { AxleLies } from '../../figures/AxleLies';
import { Quoits } from '../../figures/Quoits';
import { NotTheOne } from '../../shell/ChoosePlan';
import { ReadingsFirst, Waiting } from '../../shell/ReadingsFirst';
import { useBench, type Bench } from '../../shell/ticket';
import { problemsOf, useSheetActs } from '../../sheet/acts';
import { GateBar } from '../../sheet/GateBar';
import { GatePad, type AtGate } from '../../sheet/GatePad';
import { LeftToTurn } from '../../sheet/LeftToTurn';
import { axleWord, drawingsOf, marks, useSheet, type Sheet } from '../../sheet/sheet';
import { Glyph } from '../../ui/glyphs';
import { Segment } from '../../ui/Segment';
import { useSettings } from '../../ui/settings';
import { Explains } from './Explains';
import { RoadPane } from './RoadPane';
import { explained, liesOf, quoitsOf, secondOf, tag } from './quoits';
import { Wheels } from './Wheels';
import { when } from '../../units/when';

export default function ProveStage() {
  const bench = useBench();
  const sheet = useSheet(bench);
  if (!bench.input || !bench.plan)
    return <ReadingsFirst title="Nothing to prove yet" missing={bench.ticket.missing} />;
  if (!sheet.data)
    return <Waiting words="Holding what came against what was said…" fault={sheet.error?.message} />;
  return (
    <ProveView
      bench={bench}
      sheet={sheet.data}
      planId={bench.plan.id}
      stale={sheet.isPlaceholderData || sheet.isError || bench.saving !== 'saved'}
    />
  );
}

/** The axle that is looked at first: the one that is off, else the first that has a wheel. */
function firstAxle(p: Schemas['Proved']): AxleName {
  const off = p.off.find((f) => f.off_aim !== 0)?.axle ?? p.off[0]?.axle;
  const front = p.wheels.some((w) => w.axle === 'front');
  return off ?? (front ? 'front' : 'rear');
}

/** What has to be done on the sheet before the car is proved. */
function Before({ sheet }: { sheet: Sheet }) {
  const { search } = useLocation();
  const waits = sheet.steps.filter((s) => sheet.proved.waits.includes(s.id));
  const next = waits[0];
  if (!next) return null;
  return (
    <div className="prove-before" data-testid="prove-waits">
      <p>
        <Glyph name="gate" size={20} /> {waits.length === 1 ? 'One step' : `${waits.length} steps`} of the
        sheet before it. Next: <b>{next.title}</b>
      </p>
      <Button component={Link} to={`../set${search}`} variant="outlined" data-testid="to-set">
        To the sheet
      </Button>
    </div>
  );
}

function ProveView({
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
  const { form, unit } = useSettings();
  // A phone shows the field at its own size, so that its words stay as large as they are.
  const narrow = useMediaQuery('(max-width: 767px)');
  const { search } = useLocation();
  const [chosen, setChosen] = useState<AxleName>();
  const [pad, setPad] = useState<AtGate>();
  const { mark, again } = useSheetActs(planId, setTicket);
  const marked = marks(ticket, planId);
  const p = sheet.proved;
  const there = (['front', 'rear'] as const).filter(
    (a) => p.wheels.some((w) => w.axle === a) || !!liesOf(p.placed, a),
  );
  const axle =
    chosen && there.includes(chosen) ? chosen : p.wheels.length ? firstAxle(p) : (there[0] ?? 'front');
  const gate = sheet.steps.find((s) => s.id === 'proved');
  const view = sheet.gates.find((g) => g.id === 'proved');
  const signed = marked.of('proved');
  const refused = mark.error instanceof ApiProblem ? mark.error.problems[0] : undefined;
  const left = sheet.left.find((l) => l.axle === axle);
  const toeDone = !!marked.of(axle === 'front' ? 'tie-rods' : 'rear-toe');
  const said = explained(left);
  const odd = [left?.sides.left, left?.sides.right].filter((w) => !!w);
  const quoits = quoitsOf(p, left, axle, toeDone);
  const lies = liesOf(p.placed, axle);
  return (
    <main className="main prove-main" style={{ opacity: stale ? 0.6 : 1 }} aria-busy={stale}>
      <section className="pane prove-field" data-pane="Came" aria-label="Said and came">
        <NotTheOne bench={bench} />
        <h1 data-testid="prove-headline">{p.headline}</h1>
        <p className="mut prove-says" data-testid="prove-sentence">
          {p.sentence}
        </p>
        <div className="prove-legend">
          <span>
            <svg width="26" height="26" viewBox="0 0 26 26" aria-hidden="true">
              <circle
                cx="13"
                cy="13"
                r="9.5"
                fill="none"
                stroke="currentColor"
                strokeWidth="6"
                strokeDasharray="3 1.6"
              />
            </svg>
            what we said
          </span>
          <span>
            <svg width="26" height="26" viewBox="0 0 26 26" aria-hidden="true">
              <path d="M17 3A10 10 0 0 0 17 23Z" fill="currentColor" />
              <path d="M1 13H25" stroke="currentColor" strokeWidth="1.6" />
            </svg>
            what came
          </span>
          <span>
            <svg width="30" height="22" viewBox="0 0 30 22" aria-hidden="true">
              <rect x="2" y="2" width="26" height="18" fill="none" stroke="var(--aim)" strokeWidth="2.4" />
              <path d="M8 20L20 2M15 20L27 2M2 16L11 2" stroke="var(--aim)" strokeWidth="1.2" />
            </svg>
            where it should be
          </span>
          {there.length > 1 && (
            <Segment
              label="Axle"
              value={axle}
              choices={there.map((a) => ({ value: a, label: axleWord(a), testid: `prove-${a}` }))}
              choose={setChosen}
            />
          )}
        </div>
        {quoits.length > 0 ? (
          <div className="drawn">
            <HowTo of="quoits" />
            <Quoits
              axle={axle}
              second={secondOf(p, axle)}
              quoits={quoits}
              would={said.map((e, i) => ({
                tag: tag(i),
                at: [e.given[0]!, e.given[secondOf(p, axle) === 'toe' ? 2 : 1]!],
              }))}
              form={form}
              {...(narrow && { width: 400, height: 380 })}
            />
          </div>
        ) : (
          !lies && (
            <p style={{ padding: '24px 18px' }}>
              Nothing of two angles is asked here: the wheels below say it.
            </p>
          )
        )}
        {lies && (
          <div className="drawn">
            <HowTo of="lies" />
            <AxleLies {...lies} axle={axle} unit={unit} />
          </div>
        )}
      </section>
      <section className="pane prove-next" data-pane="What to do" aria-label="What to make of it">
        <Explains
          list={said}
          looks={[left?.sides.left?.look, left?.sides.right?.look]}
          next={odd.flatMap((w) => w.next_looks ?? [])}
          also={odd.flatMap((w) => w.also ?? [])}
        />
        {left && (
          <LeftToTurn
            key={`${left.axle}${left.sides.left?.rounds}${left.sides.right?.rounds}`}
            left={left}
            drawings={drawingsOf(sheet, left.axle)}
            toe={toeDone}
            odds={false}
            stale={stale || again.isPending}
            problems={problemsOf(again.error)}
            turned={(as_done) => again.mutate({ axle: left.axle, as_done })}
          />
        )}
        <Before sheet={sheet} />
        {signed ? (
          <div className="prove-signed" data-testid="prove-signed">
            <p>
              <Glyph name="done" size={22} /> Accepted
              {signed.record.signed ? ` by ${signed.record.signed}` : ''}, {when(signed.done_at)}.
              {signed.record.reason && ` Off plan: ${signed.record.reason}.`}
            </p>
            <div style={{ display: 'flex', gap: 10, flexWrap: 'wrap' }}>
              <Button
                component={Link}
                to={`../handover${search}`}
                variant="contained"
                data-testid="to-handover"
              >
                Handover page
              </Button>
              <Button variant="outlined" onClick={() => mark.mutate({ step: 'proved', done: false })}>
                Take it back
              </Button>
            </div>
          </div>
        ) : (
          gate && (
            <GateBar
              gate={gate}
              view={view}
              marks={marked}
              open={p.waits.length === 0}
              early
              stale={stale || mark.isPending}
              fault={refused}
              tick={(t, on) => mark.mutate({ step: `proved/${t}`, done: on })}
              pass={(reason, name) =>
                mark.mutate({ step: 'proved', done: true, reason, signed: name, words: gate.title })
              }
              pad={(visit, quantity, a, side) => setPad({ visit, quantity, axle: a, side })}
            />
          )
        )}
        {(p.waits.length === 0 || sheet.road) && (
          <RoadPane ticket={ticket} sheet={sheet} kept={setTicket} stale={stale} />
        )}
      </section>
      <Wheels proved={p} focus={axle} pick={setChosen} />
      <GatePad at={pad} ticket={ticket} close={() => setPad(undefined)} kept={setTicket} />
    </main>
  );
}
