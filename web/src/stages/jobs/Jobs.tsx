// Jobs home: the bays, what waits, and what is done.
import { AtBench } from '../../door/AtBench';
import { useSession } from '../../door/useSession';
import { Plain } from '../../ui/Press';
import { LineInput } from '../../ui/LineInput';
import { listJobs } from '../../api/calls';
import { Button } from '@mui/material';
import { useInfiniteQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { PastJobs } from './PastJobs';
import { everything, SieveBar, sorts, type Sieve } from './SieveBar';
import { ComingBack, isDue } from './ComingBack';
import { JobRow, ticketNo } from './JobRow';
import { useDebounced } from '../../ui/useDebounced';
import { Link, useNavigate } from 'react-router';
import type { JobLine } from '../../api/client';
import { Car, Ground } from '../../ui/Car';
import { Glyph, Logo } from '../../ui/glyphs';
import { ShopRail } from '../../shell/ShopRail';
import { stages, stageTitle } from '../../shell/stages';
import { onSlate } from '../../theme/onSlate';
import { useKeys } from '../../shell/bindings';
import { useTitle } from '../../shell/title';
import { Keys } from '../../shell/Keys';
import { ShopDialog } from '../../shell/ShopDialog';
import { outlines } from '../../ui/outlines';
import { useSettings } from '../../ui/settings';
import { usePhone } from '../../ui/phone';
import { stagesOf, useShop } from '../../shell/ticket';
import { length, signed } from '../../units/print';

/** What the job waits for, and the word on its button. */
function next(j: JobLine): {
  glyph: 'gate' | 'unread' | 'watch' | 'now';
  word: string;
  line: string;
  act: string;
  to: string;
} {
  if (j.job.stage === 'arrive' || (j.job.stage === 'read' && j.readings === 0))
    return {
      glyph: 'unread',
      word: 'Not read',
      line: j.job.complaint,
      act: 'Begin readings',
      to: j.job.stage === 'arrive' ? 'arrive' : 'read',
    };
  if (j.readings < j.wanted)
    return {
      glyph: 'unread',
      word: `${j.readings} of ${j.wanted} read`,
      line: j.job.complaint,
      act: 'Keep reading',
      to: 'read',
    };
  if (j.job.stage === 'set')
    return { glyph: 'gate', word: 'Setting', line: j.job.complaint, act: 'Open setting sheet', to: 'set' };
  if (j.job.stage === 'prove')
    return { glyph: 'watch', word: 'Proved', line: j.job.complaint, act: 'Hand it over', to: 'handover' };
  if (j.job.stage === 'return')
    return { glyph: 'watch', word: 'Back', line: j.job.complaint, act: 'See how it came back', to: 'return' };
  if (j.job.kind === 'check')
    return { glyph: 'watch', word: 'Read', line: j.job.complaint, act: 'See what was found', to: 'read' };
  const parts = j.fitted ? `${j.fitted} part${j.fitted > 1 ? 's' : ''} on` : 'No parts on';
  return {
    glyph: 'watch',
    word: 'Planning',
    line: `${j.plan ?? 'No plan'}: ${parts.replace(/^./, (c) => c.toLowerCase())}. ${j.job.complaint}`,
    act: 'Carry on planning',
    to: 'plan',
  };
}

const PAGE = 100;

export default function Jobs() {
  useTitle('Jobs');
  const shop = useShop();
  const session = useSession();
  const [find, setFind] = useState('');
  const asked = useDebounced(find.trim(), 250);
  const [sieve, setSieve] = useState<Sieve>(everything);
  const jobs = useInfiniteQuery({
    queryKey: ['jobs', asked, sieve],
    queryFn: ({ pageParam }) =>
      listJobs({
        find: asked || null,
        after: pageParam ?? null,
        limit: PAGE,
        kind: sieve.kind || null,
        stage: sieve.stage || null,
        sort: sieve.sort,
      }),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (last) => (last.length < PAGE ? undefined : last.at(-1)?.job.id),
    placeholderData: (p) => p,
  });
  const [keys, setKeys] = useState(false);
  const [shopOpen, setShopOpen] = useState(false);
  const navigate = useNavigate();
  const s = useSettings();
  useKeys({
    arrival: () => navigate('/new'),
    help: () => setKeys(true),
    find: () => document.getElementById('find')?.focus(),
  });
  const all = jobs.data?.pages.flat() ?? [];
  const bays = all.filter((j) => j.job.bay);
  const waiting = all.filter((j) => !j.job.bay && !isDue(j));
  const phone = usePhone();
  const finder = (
    <LineInput
      id="find"
      aria-label="Find a ticket"
      value={find}
      onChange={(e) => setFind(e.target.value)}
      placeholder={phone ? 'Find a ticket, a plate, a tyre' : 'Find a ticket  /'}
      sx={{
        height: 56,
        font: '700 17px var(--read)',
        ...(phone
          ? { width: '100%', color: 'var(--ink)' }
          : {
              width: 190,
              color: 'var(--chalk)',
              '& .MuiOutlinedInput-notchedOutline': { borderColor: 'var(--ghost)' },
              '&.Mui-focused .MuiOutlinedInput-notchedOutline': { borderColor: 'var(--chalk)' },
            }),
      }}
    />
  );
  return (
    <div className="app">
      <header className="strip" style={{ alignItems: 'center' }}>
        <div style={{ width: 84, flex: 'none', display: 'flex', justifyContent: 'center' }}>
          <Logo />
        </div>
        <div style={{ flex: '0 1 250px', minWidth: 0 }}>
          <div className="fig" style={{ fontSize: phone ? 24 : 36, fontWeight: 800 }}>
            Bold Stance
          </div>
          <div style={{ color: 'var(--chalk2)', marginTop: phone ? 2 : 6 }}>{shop.data?.name}</div>
        </div>
        <div className="tablet-up" style={{ display: 'flex', gap: 26, flex: 1 }}>
          <Count n={bays.length} word="in bays" />
          <Count n={waiting.length} word="waiting" />
          <Count n={all.filter(isDue).length} word="coming back" />
        </div>
        <div
          style={{
            display: 'flex',
            gap: 12,
            alignItems: 'center',
            padding: '0 18px 0 8px',
            marginLeft: 'auto',
          }}
        >
          <span className="tablet-up">{!phone && finder}</span>
          <Button
            component={Link}
            to="/new"
            variant={bays.length ? 'outlined' : 'contained'}
            sx={{
              minHeight: 56,
              whiteSpace: 'nowrap',
              ...(bays.length && onSlate),
            }}
            data-testid="new-arrival"
          >
            New arrival
          </Button>
        </div>
      </header>
      <ShopRail
        here={{ to: '/', name: 'Jobs' }}
        more={
          <Plain onClick={() => setShopOpen(true)} data-testid="to-shop">
            <Glyph name="gate" size={24} />
            Shop
          </Plain>
        }
        foot={
          <>
            <AtBench />
            <Plain
              onClick={() => s.set({ theme: s.theme === 'day' ? 'night' : 'day' })}
              aria-label={`Bay light: ${s.theme}. Change.`}
            >
              <span>{s.theme === 'day' ? 'Day' : 'Night'}</span>
              <svg width="22" height="22" viewBox="0 0 22 22" aria-hidden="true">
                <circle cx="11" cy="11" r="8" fill="none" stroke="currentColor" strokeWidth="2" />
                <path
                  d="M11 3A8 8 0 0 1 11 19Z"
                  fill="currentColor"
                  transform={s.theme === 'day' ? '' : 'rotate(180 11 11)'}
                />
              </svg>
            </Plain>
            <Plain onClick={() => setKeys(true)} aria-label="Keys">
              <span>Keys</span>
              <span className="key">?</span>
            </Plain>
          </>
        }
      />
      <main
        className="main"
        style={{
          gridTemplateRows: 'none',
          gridAutoRows: 'max-content',
          alignContent: 'start',
          overflowY: 'auto',
        }}
      >
        {jobs.isError && (
          <section className="pane" style={{ padding: 20 }} role="alert">
            <span className="plate">
              <Glyph name="stale" /> {jobs.error.message}
            </span>
          </section>
        )}
        <section
          style={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit,minmax(320px,1fr))', gap: 1 }}
          aria-label="Bays"
        >
          {bays.map((j, i) => (
            <Bay key={j.job.id} j={j} main={i === 0} />
          ))}
          {jobs.data && !bays.length && (
            <div className="pane" style={{ padding: 24 }}>
              <h2>Bays are free</h2>
              <p className="mut" style={{ marginTop: 8 }}>
                {find || sieve.kind || sieve.stage ? 'No ticket matches.' : 'Drive one in with New arrival.'}
              </p>
              {session.data?.open && !session.data.names.length && (
                <p style={{ marginTop: 16 }}>
                  You are the first here.{' '}
                  <Button component={Link} to="/first-run" variant="outlined" data-testid="first-run">
                    Name the shop and its owner
                  </Button>
                </p>
              )}
            </div>
          )}
        </section>
        {phone && (
          <div className="pane" style={{ padding: '10px 14px' }}>
            {finder}
          </div>
        )}
        {/* Nothing stands below the bays before they are there: it would move under the finger. */}
        {jobs.data && <SieveBar sieve={sieve} set={setSieve} />}
        <section className="pane" aria-label="Waiting for a bay" hidden={!jobs.data && !jobs.isError}>
          <div style={{ display: 'flex', justifyContent: 'space-between', padding: '14px 18px 8px' }}>
            <h3>Waiting for a bay</h3>
            <span className="small mut">{sorts.find((x) => x.value === sieve.sort)?.words}</span>
          </div>
          {waiting.map((j) => (
            <JobRow key={j.job.id} j={j} to={next(j).to} glyph={next(j).glyph} word={next(j).word} />
          ))}
          {jobs.hasNextPage && (
            <div style={{ padding: '10px 18px 16px' }}>
              <Button
                variant="outlined"
                disabled={jobs.isFetchingNextPage}
                onClick={() => void jobs.fetchNextPage()}
                data-testid="more-jobs"
              >
                Show older tickets
              </Button>
            </div>
          )}
          {jobs.data && !waiting.length && (
            <p style={{ padding: '10px 18px 20px' }} className="mut">
              Nobody waits.
            </p>
          )}
        </section>
        {(jobs.data || jobs.isError) && (
          <>
            <ComingBack jobs={all} />
            <PastJobs which="closed" />
            <PastJobs which="archived" />
          </>
        )}
      </main>
      {shopOpen && <ShopDialog close={() => setShopOpen(false)} />}
      <Keys open={keys} close={() => setKeys(false)} />
    </div>
  );
}

function Count({ n, word }: { n: number; word: string }) {
  return (
    <span style={{ display: 'flex', alignItems: 'baseline', gap: 9 }}>
      <span className="fig" style={{ fontSize: 46, fontWeight: 800 }}>
        {n}
      </span>
      <span style={{ color: 'var(--chalk2)', fontWeight: 600, whiteSpace: 'nowrap' }}>{word}</span>
    </span>
  );
}

function Bay({ j, main }: { j: JobLine; main: boolean }) {
  const { unit } = useSettings();
  const shop = useShop();
  const n = next(j);
  const c = outlines[j.silhouette];
  const scale = Math.min(0.0585, 310 / (c?.len ?? 5000));
  const x = (398 - (c?.len ?? 5000) * scale) / 2;
  const lift = j.height_change_mm ?? 0;
  const behind = j.rear_height_change_mm ?? 0;
  const moved = lift !== 0 || behind !== 0;
  const by = (mm: number) => (unit === 'mm' ? signed(mm) : length(mm, 'in').replace(' in', ''));
  return (
    <article className="pane" style={{ display: 'flex', flexDirection: 'column' }}>
      <div className="slate" style={{ overflow: 'hidden' }}>
        <svg
          width="100%"
          viewBox="0 0 398 182"
          style={{ maxHeight: 190 }}
          role="img"
          aria-label={`Bay ${j.job.bay}: ${j.vehicle}`}
        >
          <text
            x="384"
            y="74"
            textAnchor="end"
            fontSize="76"
            fontWeight="800"
            fill="none"
            stroke="var(--ghost)"
            strokeWidth="1.6"
          >
            {j.job.bay}
          </text>
          <Ground x0={0} x1={398} y={160} />
          {moved && (
            <Car kind={j.silhouette} x={x} ground={160} scale={scale} stroke="var(--ghost)" width={1} ghost />
          )}
          <Car
            kind={j.silhouette}
            x={x}
            ground={160}
            scale={scale}
            front={lift * 1.6}
            rear={behind * 1.6}
            width={1.7}
          />
          {moved ? (
            <text x="14" y="36" fontSize="34" fontWeight="800" fill="var(--do)">
              {by(lift)}
              <tspan fontSize="20" fontWeight="600">{` ${unit} front`}</tspan>
              {behind !== 0 && (
                <tspan x="14" dy="28" fontSize="24" fontWeight="700">
                  {by(behind)}
                  <tspan fontSize="18" fontWeight="600">{` ${unit} rear`}</tspan>
                </tspan>
              )}
            </text>
          ) : (
            <text x="14" y="36" fontSize="24" fontWeight="700" fill="var(--chalk2)">
              as found
            </text>
          )}
        </svg>
      </div>
      <div style={{ padding: '12px 16px 14px', display: 'flex', flexDirection: 'column', gap: 12, flex: 1 }}>
        <div style={{ display: 'flex', justifyContent: 'space-between', alignItems: 'baseline', gap: 8 }}>
          <h2>{j.vehicle}</h2>
          <span className="small mut">{ticketNo(j)}</span>
        </div>
        <Track now={j.job.stage} own={stagesOf(shop.data, j.job.kind)} />
        <div style={{ display: 'flex', gap: 12, alignItems: 'center', minHeight: 48 }}>
          <span className={n.glyph === 'unread' ? 'word' : 'plate'} style={{ whiteSpace: 'nowrap' }}>
            <Glyph name={n.glyph} size={19} />
            {n.word}
          </span>
          <span className="mut" style={{ fontSize: 14.5, lineHeight: 1.25 }}>
            {n.line}
          </span>
        </div>
        <Button
          component={Link}
          to={`/job/${j.job.id}/${n.to}`}
          variant={main ? 'contained' : 'outlined'}
          sx={{ mt: 'auto' }}
        >
          {n.act}
        </Button>
      </div>
    </article>
  );
}

function Track({ now, own }: { now: string; own: readonly string[] }) {
  const list = own.length ? own : stages;
  const k = Math.max(0, list.indexOf(now));
  const X = (i: number) => 18 + (i * (366 - 36)) / (list.length - 1);
  return (
    <svg width="100%" viewBox="0 0 366 42" role="img" aria-label={`Stage: ${stageTitle(now)}`}>
      <path d={`M${X(0)} 12H${X(k)}`} stroke="var(--ink)" strokeWidth="3" />
      <path d={`M${X(k)} 12H${X(list.length - 1)}`} stroke="var(--line)" strokeWidth="3" />
      {list.map((s, i) => (
        <g key={s} color={i <= k ? 'var(--ink)' : 'var(--edge)'}>
          <circle cx={X(i)} cy="12" r="11" fill="var(--sheet)" />
          <Glyph name={i === k ? 'now' : i < k ? 'done' : 'unread'} x={X(i) - 8} y={4} size={16} />
          <text
            x={X(i)}
            y="40"
            textAnchor="middle"
            fontSize="16"
            fontWeight={i === k ? 800 : 600}
            fill={i === k ? 'var(--ink)' : 'var(--ink2)'}
          >
            {stageTitle(s)}
          </text>
        </g>
      ))}
    </svg>
  );
}
