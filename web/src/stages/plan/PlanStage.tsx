// Plan: height and correction on one bench.
import { HowTo } from '../../ui/HowTo';
import { Segment } from '../../ui/Segment';
import { ChipButton } from '../../ui/Press';
import { Button, Drawer } from '@mui/material';
import { useEffect, useState } from 'react';
import { Link, useLocation, useNavigate, useSearchParams } from 'react-router';
import type { ApiProblem, AxleName, AxlePlan, CarAnswer, PlanResult, SideName } from '../../api/client';
import { HeightCurves } from '../../figures/HeightCurves';
import { JointView } from '../../figures/JointView';
import { LockMap } from '../../figures/LockMap';
import { MapPlates } from '../../figures/MapPlates';
import { sideWords, type Focus } from '../../figures/reach';
import { ReachMap } from '../../figures/ReachMap';
import { FieldError } from '../../shell/Fault';
import { Glyph, Half, Inches } from '../../ui/glyphs';
import { useKeys } from '../../shell/bindings';
import { usePhone, useTablet } from '../../ui/phone';
import { useSettings } from '../../ui/settings';
import { axleOf, changeOf, partOf, useBench, type Bench } from '../../shell/ticket';
import { angle, inches, length, lengthChange, num, signed } from '../../units/print';
import { AngleLine } from './AngleLine';
import { AnglesTable } from './AnglesTable';
import { ChecksPanel } from './ChecksPanel';
import { CornerPanel } from './CornerPanel';
import { HeightBench } from './HeightBench';
import { HeightsPanel } from './HeightsPanel';
import { LadderPanel } from './LadderPanel';
import { MadeHere } from './MadeHere';
import { OrdersPanel } from './OrdersPanel';
import { BestParts } from './BestParts';
import type { InHand } from './MainAct';
import { PartInHand } from './PartInHand';
import { PartsPane } from './PartsPane';
import { PlanMenu } from './PlanMenu';

export default function PlanStage() {
  const bench = useBench();
  const { draft, input, answer, fault } = bench;
  if (draft && !input) return <Waits bench={bench} />;
  if (!draft && !bench.ticket.base.axles.front && !bench.ticket.base.axles.rear)
    return <Waits bench={bench} />;
  if (fault && !answer)
    return (
      <Refused problems={fault.problems} title={fault.title} message={fault.message} undo={bench.undo} />
    );
  if (!draft || !answer)
    return (
      <main className="main">
        <div className="pane" style={{ padding: 24 }}>
          Working the geometry…
        </div>
      </main>
    );
  return <Hero bench={bench} />;
}

function Waits({ bench, back }: { bench: Bench; back?: () => void }) {
  const { search } = useLocation();
  return (
    <main className="main">
      <section className="pane" style={{ padding: 28 }}>
        <h1>Readings first</h1>
        <p style={{ margin: '12px 0 6px', maxWidth: 560 }}>
          The plan hangs on what the gauge said. Still missing:
        </p>
        <ul style={{ margin: '0 0 20px', paddingLeft: 20, fontSize: 17 }}>
          {bench.ticket.missing.map((m) => (
            <li key={m}>{m}</li>
          ))}
        </ul>
        <Button component={Link} to={`../read${search}`} variant="contained">
          Take the readings
        </Button>
        {back && (
          <Button variant="outlined" sx={{ ml: 1 }} onClick={back}>
            To the rear
          </Button>
        )}
      </section>
    </main>
  );
}

interface RefusedProps {
  problems: ApiProblem['problems'];
  title: string;
  message: string;
  undo: (() => void) | undefined;
  back?: () => void;
}

function Refused({ problems, title, message, undo, back }: RefusedProps) {
  return (
    <main className="main">
      <section className="pane" style={{ padding: 28, maxWidth: 760 }}>
        <h1>{title}</h1>
        {problems.map((p) => (
          <div key={p.field} style={{ marginTop: 12 }}>
            <b>{p.field}</b>
            <FieldError wrong={p.wrong} right={p.right} />
          </div>
        ))}
        {!problems.length && <p style={{ marginTop: 12 }}>{message}</p>}
        <div style={{ display: 'flex', gap: 10, marginTop: 20 }}>
          <Button component={Link} to="../arrive" variant="contained">
            Check the points
          </Button>
          {undo && (
            <Button variant="outlined" onClick={undo}>
              Undo
            </Button>
          )}
          {back && (
            <Button variant="outlined" onClick={back}>
              The other axle
            </Button>
          )}
        </div>
      </section>
    </main>
  );
}

type Panel = 'joints' | 'orders' | 'heights' | 'corner' | 'checks' | 'curves';
const panelWord: Record<Panel, string> = {
  joints: 'Joints',
  orders: 'Orders',
  heights: 'Heights',
  corner: 'Corner',
  checks: 'Checks',
  curves: 'Curves',
};

/** The bench of one axle of the car. */
function Hero({ bench }: { bench: Bench }) {
  const [params, setParams] = useSearchParams();
  const { ticket, draft, answer } = bench;
  const named = params.get('axle');
  // A car of which only the rear was read opens there.
  const first: AxleName = ticket.base.axles.front ? 'front' : 'rear';
  const axle: AxleName = named === 'rear' || named === 'front' ? named : first;
  const setAxle = (a: AxleName) =>
    setParams((p) => (a === first ? p.delete('axle') : p.set('axle', a), p), { replace: true });
  if (!draft || !answer) return null;
  const across = axle === 'front' ? 'rear' : 'front';
  const result = axleOf(answer, axle);
  if (!ticket.base.axles[axle]) {
    if (axle === 'rear') return <RearWaits bench={bench} back={() => setAxle('front')} />;
    return <Waits bench={bench} back={() => setAxle('rear')} />;
  }
  if (!result)
    return (
      <Refused
        problems={answer.refused[axle]}
        title={answer.verdict.headline}
        message="The new answer is on its way."
        undo={bench.undo}
        {...(answer.axles[across] ? { back: () => setAxle(across) } : {})}
      />
    );
  return (
    <AxleBench
      key={axle}
      bench={bench}
      axle={axle}
      setAxle={setAxle}
      answer={answer}
      result={result}
      fault={bench.fault}
      stale={bench.stale}
    />
  );
}

function RearWaits({ bench, back }: { bench: Bench; back: () => void }) {
  const shape = bench.ticket.vehicle.facts.axles.rear.geometry;
  return (
    <main className="main">
      <section className="pane" style={{ padding: 28, maxWidth: 620 }}>
        <h1>{shape ? 'Rear readings first' : 'No rear axle yet'}</h1>
        <p style={{ margin: '12px 0 18px' }}>
          {shape
            ? 'A rear plan needs height, camber and toe of both rear wheels.'
            : 'Choose the rear axle in Arrive: its shape and a few tape measurements are enough.'}
        </p>
        <div style={{ display: 'flex', gap: 10 }}>
          <Button component={Link} to={shape ? '../read' : '../arrive'} variant="contained">
            {shape ? 'Read the rear' : 'To Arrive'}
          </Button>
          <Button variant="outlined" onClick={back}>
            Back to the front
          </Button>
        </div>
      </section>
    </main>
  );
}

interface AxleProps {
  bench: Bench;
  axle: AxleName;
  setAxle: (a: AxleName) => void;
  answer: CarAnswer;
  result: PlanResult;
  fault: ApiProblem | undefined;
  stale: boolean;
}

function AxleBench({ bench, axle, setAxle, answer, result, fault, stale }: AxleProps) {
  const { draft: doc, change, ticket } = bench;
  const { form, unit } = useSettings();
  const phone = usePhone();
  const tablet = useTablet();
  const [sheet, setSheet] = useState(false);
  const navigate = useNavigate();
  const [plane, setPlane] = useState<'set' | 'lock'>('set');
  const [focus, setFocus] = useState<Focus>('left');
  const [table, setTable] = useState(false);
  const [panel, setPanel] = useState<Panel>('joints');
  const [picked, setPicked] = useState<string>();
  const lead: SideName = focus === 'right' ? 'right' : 'left';
  const draft = doc ? partOf(doc, axle) : undefined;
  const put = (c: Partial<AxlePlan>) => doc && change(changeOf(doc, axle, c));
  const candidates = result.candidates;
  const best = candidates.find((c) => c.status === 'reaches') ?? candidates.find((c) => c.status === 'short');
  const current =
    candidates.find((c) => c.part.id === picked) ?? (result.verdict.reached ? candidates[0] : best);
  useEffect(() => setPicked(undefined), [draft?.fitted.length]);
  const height = (mm: number) => put({ height_change_mm: Math.max(-300, Math.min(300, Math.round(mm))) });
  // Another size of a fitted part takes its place.
  const fit = (id = current?.part.id) =>
    id &&
    draft &&
    current &&
    !['clash', 'stops', 'needs'].includes(current.status) &&
    !draft.fitted.includes(id) &&
    put({
      fitted: [
        ...draft.fitted.filter((f) => f.split('@')[0] !== id.split('@')[0]),
        id,
        // What it does not stand without goes on with it.
        ...current.kit.map((k) => k.id),
      ],
    });
  useKeys({
    left: () => setFocus('left'),
    right: () => setFocus('right'),
    both: () => setFocus('both'),
    table: () => setTable((v) => !v),
    lower: () => draft && height(draft.height_change_mm - 5),
    higher: () => draft && height(draft.height_change_mm + 5),
    lower_little: () => draft && height(draft.height_change_mm - 1),
    higher_little: () => draft && height(draft.height_change_mm + 1),
    undo: () => bench.undo?.(),
    next_part: () => {
      const i = candidates.findIndex((c) => c.part.id === current?.part.id);
      setPicked(candidates[(i + 1) % candidates.length]?.part.id);
    },
    fit: () => fit(),
    take_off: () => current && draft && put({ fitted: draft.fitted.filter((f) => f !== current.part.id) }),
    compare: () => navigate(`../compare${window.location.search}`),
    lock: () => setPlane((v) => (v === 'set' ? 'lock' : 'set')),
  });
  if (!doc || !draft) return null;
  const picks = !!(draft.picked.left ?? draft.picked.right);
  const side = result[lead];
  const text = (d: number) => angle(d, form);
  const lift =
    unit === 'mm'
      ? `${signed(draft.height_change_mm)} mm`
      : `${draft.height_change_mm > 0 ? '+' : ''}${inches(draft.height_change_mm)} in`;
  const verdict = result.verdict;
  const car = answer.verdict;
  const inHand: InHand = {
    current,
    fitted: !!current && draft.fitted.includes(current.part.id),
    ready: verdict.reached,
    fit: () => fit(),
    takeOff: () => current && put({ fitted: draft.fitted.filter((f) => f !== current.part.id) }),
  };
  const parts = (
    <PartsPane
      bench={bench}
      {...(tablet && { menuElsewhere: true })}
      axle={axle}
      result={result}
      fitted={draft.fitted}
      setFitted={(fitted, onBoth) => {
        // A set that was found is on both sides, as it was looked for.
        if (onBoth) return put({ fitted, only: {} });
        const left = Object.entries(draft.only).filter(([id]) => fitted.includes(id));
        put({ fitted, only: Object.fromEntries(left) });
      }}
      current={current}
      pick={setPicked}
      fit={fit}
      only={draft.only}
      setOnly={(id, side) => {
        const { [id]: _, ...rest } = draft.only;
        const now = Object.entries(side ? { ...rest, [id]: side } : rest);
        // In the order in which it is kept: what is shown as saved is compared with what was saved.
        put({ only: Object.fromEntries(now.toSorted(([a], [b]) => (a < b ? -1 : 1))) });
      }}
    />
  );
  return (
    <main className={`main plan-main ${stale ? 'stale-answer' : ''}`} aria-busy={stale}>
      <section className="pane plan-map" data-pane="Map">
        <div className="plan-head">
          <div style={{ minWidth: 0 }}>
            <h1 data-testid="headline">{car.headline}</h1>
            <div className="small mut" style={{ marginTop: 5 }}>
              {stale
                ? `Old answer${fault ? `: ${fault.problems[0]?.wrong ?? fault.message}` : ', the new one is on its way'}`
                : car.sentence}
            </div>
            {!stale && car.worst && car.worst.axle !== axle && (
              <div className="small" style={{ marginTop: 4, fontWeight: 600 }} data-testid="axle-headline">
                {axle === 'front' ? 'Front' : 'Rear'}: {verdict.headline}.
              </div>
            )}
          </div>
          <Segment
            label="Side"
            value={focus}
            choose={setFocus}
            style={{ flex: 'none' }}
            choices={(['left', 'both', 'right'] as const).map((f) => ({
              value: f,
              name: f,
              label:
                f === 'both' ? (
                  'Both'
                ) : (
                  <>
                    {f === 'left' && (
                      <Half side="left" size={17} color={focus === f ? 'currentColor' : undefined} />
                    )}
                    {f === 'left' ? 'L' : 'R'}
                    {f === 'right' && (
                      <Half side="right" size={17} color={focus === f ? 'currentColor' : undefined} />
                    )}
                  </>
                ),
            }))}
          />
        </div>
        {table ? (
          <AnglesTable result={result} steered={axle === 'front'} />
        ) : (
          <div className="plan-plane">
            {plane === 'lock' && result.left.lock ? (
              <LockMap result={result} aim={doc.aim} focus={focus} form={form} />
            ) : (
              <ReachMap
                result={result}
                aim={doc.aim}
                focus={focus}
                planned={draft.height_change_mm}
                form={form}
                candidate={current}
                stale={stale && !!fault}
                {...(phone && { width: 374, height: 350, bare: true })}
                {...(tablet && { width: 578, height: 316 })}
                onPick={(s, at) =>
                  put({
                    picked: { ...draft.picked, [s]: { camber_deg: at[0]!, second_deg: at[1]! } },
                  })
                }
              />
            )}
          </div>
        )}
        {phone && !table && plane === 'set' && (
          <MapPlates result={result} aim={doc.aim} focus={focus} form={form} />
        )}
        <div className="map-foot">
          <HowTo of={plane === 'lock' && result.left.lock ? 'lock' : 'map'} />
          {result.left.lock && (
            <ChipButton
              size="small"
              aria-pressed={plane === 'lock'}
              onClick={() => setPlane(plane === 'lock' ? 'set' : 'lock')}
              data-testid="plane"
            >
              {plane === 'lock' ? 'Back to straight ahead' : 'At full lock'}
            </ChipButton>
          )}
          {picks ? (
            <ChipButton
              size="small"
              onClick={() => put({ picked: { left: null, right: null } })}
              data-testid="unpick"
            >
              Set by hand: back to the aim
            </ChipButton>
          ) : (
            plane === 'set' &&
            result[lead].reach?.shape === 'area' && (
              <span className="small mut tablet-up">Press a point of the weave to set it there.</span>
            )
          )}
        </div>
        <span className="vh">
          {sideWords('left', result.left, form, axle === 'rear')}.{' '}
          {sideWords('right', result.right, form, axle === 'rear')}.
        </span>
        {result.expected.length > 0 && (
          <p
            className="small"
            style={{ padding: '0 16px 8px', display: 'flex', gap: 8, alignItems: 'center' }}
            data-testid="plan-expected"
          >
            <Glyph name="unread" size={18} /> <span>{result.expected.map((e) => e.words).join(' ')}</span>
          </p>
        )}
        {verdict.watch.length > 0 && (
          <p
            className="small"
            style={{ padding: '0 16px 8px', display: 'flex', gap: 8, alignItems: 'center' }}
          >
            <Glyph name="watch" size={18} /> <span>{verdict.watch.join(' ')}</span>
          </p>
        )}
        {phone && <PartInHand of={inHand} />}
      </section>
      <section className="pane slate plan-joints" data-pane="Joints">
        <div style={{ padding: '12px 12px 4px' }}>
          <Segment
            label="Panel"
            className="panel-seg"
            value={panel}
            choose={setPanel}
            choices={(['joints', 'orders', 'heights', 'corner', 'checks', 'curves'] as const).map((p) => ({
              value: p,
              testid: `panel-${p}`,
              ...(p === 'curves' && { className: 'narrow-only tablet-up' }),
              label: (
                <>
                  {panelWord[p]}
                  {p === 'checks' && result[lead].checks.some((c) => !c.ok) && (
                    <Glyph name="clash" size={14} />
                  )}
                </>
              ),
            }))}
          />
        </div>
        {panel === 'orders' && <OrdersPanel orders={answer.orders} first={axle} />}
        {panel === 'heights' && (
          <div className="heights-both">
            <LadderPanel key={axle} bench={bench} axle={axle} result={result} />
            <HeightsPanel result={result} />
          </div>
        )}
        {panel === 'corner' && (
          <CornerPanel
            result={result}
            axle={axle}
            tyres={ticket.tyres}
            ratio={ticket.vehicle.facts.car!.steering_ratio}
            lock={ticket.base.lock_deg}
          />
        )}
        {panel === 'checks' && <ChecksPanel result={result} side={lead} bench={bench} axle={axle} />}
        {panel === 'joints' && (
          <div className="plan-joint-body">
            <header className="plan-joint-head">
              <h3>
                {lead === 'left' ? 'Left' : 'Right'} corner, {result[lead].reach ? 'untouched' : 'as built'}
              </h3>
              <HowTo of="joints" />
              {axle === 'front' && (
                <MadeHere
                  ticket={ticket}
                  fit={(id) => !draft.fitted.includes(id) && put({ fitted: [...draft.fitted, id] })}
                />
              )}
            </header>
            <JointView
              side={lead}
              before={side.drawing_before}
              now={side.drawing_after}
              beforeAngles={side.before}
              angles={side.after}
              text={text}
              size={(mm) => length(mm, unit)}
              lift={draft.height_change_mm ? lift : undefined}
            />
          </div>
        )}
        {panel === 'curves' && (
          <div className="narrow-only tablet-up pane" style={{ padding: 10, display: 'grid', gap: 6 }}>
            {(['camber', 'caster', 'toe'] as const).map((q) => (
              <HeightCurves
                key={q}
                only={q}
                result={result}
                lead={lead}
                planned={draft.height_change_mm}
                settle={draft.settle_mm}
                load={draft.load_mm}
                form={form}
                unit={unit}
                onHeight={height}
              />
            ))}
          </div>
        )}
      </section>
      {tablet ? (
        <>
          <BestParts
            menu={<PlanMenu bench={bench} />}
            candidates={candidates}
            of={inHand}
            pick={setPicked}
            all={() => setSheet(true)}
          />
          <Drawer
            anchor="right"
            open={sheet}
            onClose={() => setSheet(false)}
            slotProps={{ paper: { className: 'parts-sheet' } }}
          >
            <Button
              variant="outlined"
              sx={{ m: 1.5, mb: 0 }}
              onClick={() => setSheet(false)}
              data-testid="parts-close"
            >
              Back to the map
            </Button>
            {parts}
          </Drawer>
        </>
      ) : (
        parts
      )}
      <section className="pane plan-height" data-pane="Height">
        <HeightBench
          bench={bench}
          axle={axle}
          setAxle={setAxle}
          result={result}
          mm={draft.height_change_mm}
          onHeight={height}
        >
          {tablet && <AngleLine result={result} lead={lead} steered={axle === 'front'} />}
          <div className="plan-curves">
            <Legend settle={draft.settle_mm} load={draft.load_mm} lead={lead} />
            <HeightCurves
              result={result}
              lead={lead}
              planned={draft.height_change_mm}
              settle={draft.settle_mm}
              load={draft.load_mm}
              form={form}
              unit={unit}
              onHeight={height}
            />
          </div>
        </HeightBench>
      </section>
      <span hidden data-testid="plan-figures">
        {JSON.stringify({
          height: draft.height_change_mm,
          left: side.after,
          set: side.set,
          pitch: num(result.pitch_deg, 3),
        })}
      </span>
      <span className="vh">
        <Inches mm={draft.height_change_mm} />
      </span>
    </main>
  );
}

function Legend({ settle, load, lead }: { settle: number; load: number; lead: SideName }) {
  const { unit } = useSettings();
  const item = (d: string, fill: string, word: string) => (
    <span style={{ display: 'inline-flex', gap: 6, alignItems: 'center' }}>
      <svg width="18" height="16" viewBox="-9 -8 18 16" aria-hidden="true">
        <path d={d} fill={fill} stroke="var(--ink)" strokeWidth="2" />
      </svg>
      {word}
    </span>
  );
  return (
    <div
      className="tablet-up"
      style={{
        display: 'flex',
        gap: 14,
        justifyContent: 'flex-end',
        fontSize: 14,
        fontWeight: 600,
        color: 'var(--ink2)',
        flexWrap: 'wrap',
        padding: '0 6px 4px 0',
      }}
    >
      {item('M-5 -5h10v10h-10Z', 'var(--sheet)', 'as found')}
      {item('M0 -8L8 0L0 8L-8 0Z', 'var(--ink)', 'planned')}
      {settle > 0 && item('M-6 -4.5H6L0 6Z', 'var(--sheet)', `settled ${lengthChange(-settle, unit)}`)}
      {load > 0 && item('M-3.5 -5H3.5L6.5 5H-6.5Z', 'var(--sheet)', `loaded ${lengthChange(-load, unit)}`)}
      {item('M0 -5A5 5 0 1 0 0.01 -5Z', 'var(--sheet)', 'set')}
      <span style={{ display: 'inline-flex', gap: 6, alignItems: 'center' }}>
        <Half side={lead} size={14} /> ± doubt
      </span>
      <HowTo of="curves" />
    </div>
  );
}
