// The door: over the whole screen where nobody was let in yet, beside the open work where somebody only left the bench.
import { useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useRef, useState, type ReactNode } from 'react';
import { createPortal } from 'react-dom';
import type { Schemas } from '../api/client';
import { Car, Ground } from '../ui/Car';
import { Logo } from '../ui/glyphs';
import { Plain } from '../ui/Press';
import { PersonMark } from '../ui/PersonMark';
import { roleOf } from '../ui/roles';
import { ByPin } from './ByPin';
import { useIdle } from './useIdle';
import { leave, useSession, useUnseated } from './useSession';

/** From elsewhere than the bench, or a device that is not the shop's yet: rarely. */
const Elsewhere = lazy(() => import('./Elsewhere').then((m) => ({ default: m.Elsewhere })));

type Name = Schemas['Name'];

/** Marks of a bench, as large as a hand. */
function Names({ names, chosen, choose }: { names: Name[]; chosen?: string; choose: (n: Name) => void }) {
  return (
    <div className="door-names" role="group" aria-label="Who is at the bench">
      {names.map((n) => (
        <Plain
          key={n.member}
          className={n.member === chosen ? 'on' : ''}
          aria-pressed={n.member === chosen}
          disabled={!n.has_pin}
          onClick={() => choose(n)}
          data-testid={`name-${n.name}`}
        >
          <PersonMark mark={n.mark} />
          <span>
            <b className="fig">{n.name}</b>
            <span className="small">
              {n.has_pin ? roleOf(n.role).does : 'no PIN yet: the owner sets one'}
            </span>
          </span>
        </Plain>
      ))}
    </div>
  );
}

/** The floor under the names: empty bays, since nobody who is not signed in is told what stands there. */
function Bays() {
  return (
    <svg className="door-bays" viewBox="0 0 760 150" aria-hidden="true">
      {[0, 1, 2].map((i) => (
        <g key={i} transform={`translate(${i * 253} 0)`}>
          <text
            x="236"
            y="62"
            textAnchor="end"
            fontSize="58"
            fontWeight="800"
            fill="none"
            stroke="var(--ghost)"
            strokeWidth="1.4"
          >
            {i + 1}
          </text>
          <path d="M252 0V150" stroke="var(--slateline)" />
          <Car
            kind={(['pickup', 'wagon', 'box'] as const)[i]!}
            x={18}
            ground={128}
            scale={0.037}
            stroke="var(--ghost)"
            width={1}
          />
        </g>
      ))}
      <Ground x0={0} x1={760} y={128} />
    </svg>
  );
}

/** Dialogs and sheets that were open lie beside the page: they cannot be reached either while the door is shut. */
function useStill(shut: boolean) {
  useEffect(() => {
    if (!shut) return;
    const stilled = new Set<HTMLElement>();
    const still = () => {
      for (const el of document.body.children) {
        if (!(el instanceof HTMLElement) || el.id === 'root' || el.matches('[data-door]') || el.inert)
          continue;
        el.inert = true;
        stilled.add(el);
      }
    };
    still();
    const later = new MutationObserver(still);
    later.observe(document.body, { childList: true });
    return () => {
      later.disconnect();
      for (const el of stilled) el.inert = false;
    };
  }, [shut]);
}

export function Door({ children }: { children: ReactNode }) {
  useUnseated();
  const queries = useQueryClient();
  const session = useSession();
  const s = session.data;
  const who = s?.who;
  // Somebody sat here since the page was opened: what they had open stays in sight.
  const before = useRef<{ name: string; member?: string | null }>(undefined);
  if (who) before.current = { name: who.name, member: who.member };
  useIdle(who?.session ? s?.lock_minutes : undefined, () => void leave(queries).catch(() => {}));
  const shut = !!s && !who;
  // A car's work alone stays in sight: the order in hand. What is the shop's own does not.
  const locked = shut && !!before.current && !!s.names.length && window.location.pathname.startsWith('/job/');
  useStill(shut);
  return (
    <>
      <div className={`behind${shut ? ' behind-shut' : ''}`} inert={shut} hidden={shut && !locked}>
        {children}
      </div>
      {shut &&
        createPortal(
          <Shut session={s} last={locked ? before.current?.member : undefined} beside={locked} />,
          document.body,
        )}
    </>
  );
}

interface ShutProps {
  session: Schemas['SessionInfo'];
  /** Who sat here last. */
  last?: string | null;
  /** Beside the work that stays in sight, rather than over the whole screen. */
  beside: boolean;
}

function Shut({ session: s, last, beside }: ShutProps) {
  const own = s.names.find((n) => n.member === last && n.has_pin);
  const [name, setName] = useState<Name | undefined>(own);
  const [far, setFar] = useState(!s.names.length);
  useEffect(() => setFar(!s.names.length), [s.names.length]);
  const head = useRef<HTMLHeadingElement>(null);
  useEffect(() => head.current?.focus(), []);
  const pad = name ? (
    <ByPin
      key={name.member}
      name={s.names.find((n) => n.member === name.member) ?? name}
      lockMinutes={s.lock_minutes}
      notMe={() => setName(undefined)}
    />
  ) : far ? (
    <Suspense fallback={<p className="mut">Opening…</p>}>
      <Elsewhere first="passphrase" />
    </Suspense>
  ) : (
    <section className="pin">
      <h2>Whose hand is it?</h2>
      <p className="mut">Press your name. What you do is signed by its mark.</p>
    </section>
  );
  return (
    <div className={`door${beside ? ' door-beside' : ''}`} data-door="" data-testid="door">
      <section className="door-slate" aria-labelledby="door-title" hidden={beside && !!name}>
        <header>
          <Logo />
          <div>
            <h1 id="door-title" className="fig" tabIndex={-1} ref={head}>
              {s.shop ?? 'Bold Stance'}
            </h1>
            <p>{s.device ?? 'This browser belongs to no shop yet'}</p>
          </div>
        </header>
        {s.names.length > 0 && (
          <>
            <h2>Who is at the bench?</h2>
            <Names names={s.names} chosen={name?.member} choose={(n) => (setName(n), setFar(false))} />
          </>
        )}
        {s.names.length > 0 && (
          <Plain
            className="door-far"
            onClick={() => (setName(undefined), setFar(true))}
            data-testid="by-passphrase"
          >
            Passphrase, or the owner’s slip
          </Plain>
        )}
        {!beside && <Bays />}
      </section>
      <div className="door-sheet">{pad}</div>
    </div>
  );
}
