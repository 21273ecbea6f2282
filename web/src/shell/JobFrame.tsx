// The L frame of a job: stance strip above, stage rail at the side, the stage in the middle.
import { AtBench } from '../door/AtBench';
import { Plain } from '../ui/Press';
import { Button } from '@mui/material';
import { Suspense, useState } from 'react';
import { Link, NavLink, Outlet, useLocation, useNavigate, useParams } from 'react-router';
import { ApiProblem, type Plan, type Ticket } from '../api/client';
import { Glyph, type GlyphName } from '../ui/glyphs';
import { usePhone } from '../ui/phone';
import { useKeys, stageAction } from './bindings';
import { Conflict } from './Conflict';
import { Keys } from './Keys';
import { useTitle } from './title';
import { Waiting } from './Waiting';
import { PaneBar } from './PaneBar';
import { StanceStrip } from './StanceStrip';
import { stages, stageTitle, type StageName } from './stages';
import { stagesOf, useJobBench, useShop, useTicketQuery, type Bench } from './ticket';

export default function JobFrame() {
  const { id = '' } = useParams();
  const ticket = useTicketQuery(id);
  if (ticket.isPending) return <p style={{ padding: 24 }}>Fetching the ticket…</p>;
  if (!ticket.data) {
    const gone =
      ticket.error instanceof ApiProblem && (ticket.error.status === 404 || ticket.error.status === 400);
    return (
      <main style={{ padding: 40 }}>
        <h1>{gone ? 'No such ticket' : 'The server does not answer'}</h1>
        <p style={{ margin: '12px 0 20px' }}>{ticket.error.message}</p>
        <Button component={Link} to="/" variant="contained">
          Back to the jobs
        </Button>
      </main>
    );
  }
  return <Frame key={ticket.data.job.id} ticket={ticket.data} />;
}

/** How much of what the ticket waits for was read. */
function readOf(ticket: Ticket): string {
  const wanted = ticket.visits[0]?.picture.order.filter((i) => i.needed).length ?? 0;
  return `${wanted - ticket.missing.length} of ${wanted} read`;
}

function state(stage: StageName, bench: Bench): { glyph: GlyphName; word: string } {
  const { ticket, answer } = bench;
  switch (stage) {
    case 'arrive':
      return { glyph: 'done', word: 'done' };
    case 'read':
      return ticket.missing.length
        ? { glyph: 'unread', word: readOf(ticket) }
        : { glyph: 'done', word: 'done' };
    case 'plan':
      if (!answer) return { glyph: 'unread', word: 'waits for readings' };
      // What lands of a part of it is not the car on aim.
      if (!answer.verdict.worst && answer.verdict.not_read.length)
        return { glyph: 'unread', word: answer.verdict.reached ? 'partly read' : 'not judged' };
      return answer.verdict.reached ? { glyph: 'aim', word: 'on aim' } : { glyph: 'short', word: 'short' };
    case 'wear':
      return answer
        ? { glyph: 'watch', word: 'forecast ready' }
        : { glyph: 'unread', word: 'waits for the plan' };
    case 'set': {
      const n = ticket.done.filter((d) => d.plan_id === bench.plan?.id && !d.step.includes('/')).length;
      return n ? { glyph: 'watch', word: `${n} done` } : { glyph: 'unread', word: 'not begun' };
    }
    case 'prove': {
      const proved = ticket.done.find((d) => d.plan_id === bench.plan?.id && d.step === 'proved');
      if (proved)
        return proved.record.reason
          ? { glyph: 'short', word: 'accepted off plan' }
          : { glyph: 'done', word: 'accepted' };
      return { glyph: 'unread', word: 'not yet' };
    }
    case 'return': {
      const care = ticket.job.aftercare;
      if (care.closed) return { glyph: 'done', word: 'closed' };
      const n = care.returns?.length ?? 0;
      if (n) return { glyph: 'watch', word: n > 1 ? `back ${n} times` : 'back once' };
      return care.next_look ? { glyph: 'unread', word: 'due' } : { glyph: 'unread', word: 'not yet' };
    }
    default:
      return { glyph: 'unread', word: 'not yet' };
  }
}

function Frame({ ticket }: { ticket: Ticket }) {
  const bench = useJobBench(ticket);
  const [keys, setKeys] = useState(false);
  // The plan as somebody else saved it, while both are laid side by side.
  const [theirs, setTheirs] = useState<Plan>();
  const navigate = useNavigate();
  const { search, pathname } = useLocation();
  const now = pathname.split('/')[3] ?? 'plan';
  useTitle(`${stageTitle(now.replaceAll('-', ' '))}, ${ticket.vehicle.facts.name}`);
  const shop = useShop();
  const own = stagesOf(shop.data, ticket.job.kind);
  // The others are not in the way, and one press from here; the one that is open is always shown.
  const [all, setAll] = useState(false);
  const shownNow: readonly StageName[] =
    own.length && !all ? own : [...own, ...stages.filter((s) => !own.includes(s))];
  const shown =
    shownNow.includes(now as StageName) || !stages.includes(now as StageName)
      ? shownNow
      : [...shownNow, now as StageName];
  useKeys({
    help: () => setKeys(true),
    jobs: () => navigate('/'),
    ...Object.fromEntries(stages.map((s, i) => [stageAction(i), () => navigate(`${s}${search}`)])),
  });
  const { answer, draft, saveFault } = bench;
  const phone = usePhone();
  const isOpen = (s: StageName) =>
    s === now ||
    (s === 'plan' && now === 'compare') ||
    (s === 'arrive' && now === 'corner-file') ||
    (s === 'read' && now === 'read-form') ||
    (s === 'prove' && now === 'handover');
  return (
    <div className="app app-job">
      <StanceStrip
        bench={bench}
        stage={now}
        keys={() => setKeys(true)}
        // The sheet has room for all of them: the ticket's own first.
        stages={[...shown, ...stages.filter((s) => !shown.includes(s))].map((s) => ({
          stage: s,
          title: stageTitle(s),
          ...state(s, bench),
          open: isOpen(s),
        }))}
      />
      <nav className="rail" aria-label="Stages">
        {shown.map((s) => (
          <NavLink
            key={s}
            to={`${s}${search}`}
            className={isOpen(s) ? 'now' : state(s, bench).glyph === 'unread' ? 'idle' : ''}
            aria-label={`${stageTitle(s)}, ${isOpen(s) ? 'open' : state(s, bench).word}`}
          >
            <Glyph name={isOpen(s) ? 'now' : state(s, bench).glyph} size={24} />
            {stageTitle(s)}
          </NavLink>
        ))}
        {own.length > 0 && own.length < stages.length && (
          <Plain
            className="rail-all"
            onClick={() => setAll(!all)}
            aria-expanded={all}
            data-testid="all-stages"
          >
            {all ? 'Fewer' : 'All stages'}
          </Plain>
        )}
        <div className="foot">
          <AtBench />
          <Plain onClick={() => setKeys(true)} aria-label="Keys">
            <span>Keys</span>
            <span className="key">?</span>
          </Plain>
        </div>
      </nav>
      <Waiting />
      {phone && <PaneBar />}
      <Suspense fallback={<main className="main" />}>
        <Outlet context={bench} />
      </Suspense>
      {saveFault && draft && (
        <div className="toast" role="alert" style={{ padding: '0 0 0 16px' }}>
          <Glyph name={saveFault.status === 409 ? 'clash' : 'stale'} />
          {saveFault.status === 409
            ? 'This plan was saved on another screen first. Yours is still here, not saved.'
            : `Not saved yet: ${saveFault.message}`}
          {saveFault.status === 409 && (
            <>
              <Plain onClick={() => void bench.keepMine().catch(() => {})}>Keep mine</Plain>
              <Plain onClick={bench.reload}>Take theirs</Plain>
              <Plain
                onClick={() => void bench.theirs().then(setTheirs, () => {})}
                data-testid="conflict-open"
              >
                One by one
              </Plain>
            </>
          )}
        </div>
      )}
      <span className="vh" aria-live="polite">
        {answer?.verdict.headline}
      </span>
      {theirs && (
        <Conflict
          bench={bench}
          theirs={theirs}
          base={bench.began()}
          keep={(doc) => {
            setTheirs(undefined);
            void bench.keepBoth(doc, theirs).catch(() => {});
          }}
          close={() => setTheirs(undefined)}
        />
      )}
      <Keys open={keys} close={() => setKeys(false)} />
    </div>
  );
}
