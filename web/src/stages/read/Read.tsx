// Read: visits, what is missing, the car's current numbers, what looks odd; and the pad for the next reading.
import { HowTo } from '../../ui/HowTo';
import { Plain } from '../../ui/Press';
import { openVisit, putRight } from '../../api/calls';
import { Button } from '@mui/material';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { Link, useSearchParams } from 'react-router';

import { Glyph } from '../../ui/glyphs';
import { ticketKey, useBench, stagesOf, useShop } from '../../shell/ticket';
import { AxlesView } from './AxlesView';
import {
  keyOf,
  placeWords,
  short,
  targetOf,
  useMethods,
  visitOf,
  type Target,
  type Visit,
} from '../../pad/readings';
import { Exchange } from './Exchange';
import { FiguresTable } from './FiguresTable';
import { Order } from './Order';
import { Pad } from './Pad';
import { PrepareList } from './PrepareList';
import { Suspicions } from './Suspicions';

const offered: [Visit, string][] = [
  ['found', 'Before'],
  ['settled', 'After height'],
  ['proved', 'After setting'],
  ['returned', 'Return'],
];

export default function Read() {
  const { ticket, setTicket } = useBench();
  const queries = useQueryClient();
  const [params, setParams] = useSearchParams();
  const methods = useMethods();
  const visit = (params.get('visit') ?? 'found') as Visit;
  const at = params.get('at');
  const target = targetOf(at);
  const go = (change: Record<string, string | undefined>) =>
    setParams((p) => {
      for (const [k, v] of Object.entries(change))
        if (v) p.set(k, v);
        else p.delete(k);
      return p;
    });
  const open = (t: Target) => go({ at: keyOf(t) });
  const start = useMutation({
    mutationFn: (kind: Visit) => openVisit(ticket.job.id, kind),
    onSuccess: (t, kind) => {
      setTicket(t);
      go({ visit: kind, at: undefined });
    },
  });
  // Another tablet may be reading the same car.
  useEffect(() => {
    const t = setInterval(() => {
      if (document.visibilityState === 'visible')
        void queries.invalidateQueries({ queryKey: ticketKey(ticket.job.id) });
    }, 5000);
    return () => clearInterval(t);
  }, [queries, ticket.job.id]);
  const shop = useShop();
  const right = useMutation({
    mutationFn: (kind: Visit) => putRight(ticket.job.id, kind),
    onSuccess: setTicket,
  });
  const shown = useRef(target);
  useEffect(() => {
    shown.current = target;
  }, [target]);
  // An address that names a visit which was not opened yet opens it.
  const unopened = offered.some(([k]) => k === visit) && !visitOf(ticket, visit);
  const { mutate, isIdle } = start;
  useEffect(() => {
    if (unopened && isIdle) mutate(visit);
  }, [unopened, isIdle, mutate, visit]);
  const view = visitOf(ticket, visit) ?? ticket.visits[0];
  if (!view || !methods.data) return <p style={{ padding: 24 }}>Fetching the methods…</p>;
  if (target)
    return (
      <Pad
        ticket={ticket}
        visit={view.kind}
        target={target}
        methods={methods.data.methods}
        open={open}
        back={() => {
          // Before the page has drawn it: an answer that comes between is of a pad that was left.
          shown.current = undefined;
          go({ at: undefined });
        }}
        kept={(t) => {
          setTicket(t);
          // Who went back or on meanwhile stays where they went.
          if (!shown.current || keyOf(shown.current) !== keyOf(target)) return;
          const p = visitOf(t, view.kind)?.picture;
          const next = p?.next == null ? undefined : p.order[p.next];
          go({ at: next && keyOf(next) !== keyOf(target) ? keyOf(next) : undefined });
        }}
      />
    );
  // A ticket that changes nothing has nothing to plan.
  const stages = stagesOf(shop.data, ticket.job.kind);
  const plans = !stages.length || stages.includes('plan');
  const done = view.picture.missing.length === 0;
  const ready = done || !!ticket.base.axles.front || !!ticket.base.axles.rear;
  const next = view.picture.next == null ? undefined : view.picture.order[view.picture.next];
  return (
    <main className="main read-main">
      <section className="pane order" data-pane="Order" aria-label="Order of the visit">
        <div className="visits" role="group" aria-label="Visit">
          {offered.map(([kind, name]) => {
            const isOpen = ticket.visits.some((v) => v.kind === kind);
            return (
              <Plain
                key={kind}
                aria-pressed={view.kind === kind}
                disabled={start.isPending}
                onClick={() => (isOpen ? go({ visit: kind, at: undefined }) : start.mutate(kind))}
                data-testid={`visit-${kind}`}
              >
                {name}
                <span className="small">
                  {isOpen ? (visitOf(ticket, kind)?.picture.missing.length ? 'open' : 'complete') : 'not yet'}
                </span>
              </Plain>
            );
          })}
        </div>
        <Order
          view={view}
          methods={methods.data}
          open={open}
          prepare={() => go({ at: 'prepare' })}
          on={at ?? ''}
        />
        <div className="order-foot">
          {next && (
            <Button
              variant={done ? 'outlined' : 'contained'}
              fullWidth
              onClick={() => open(next)}
              data-testid="read-next"
            >
              Read {short[next.quantity].toLowerCase()}, {placeWords(next.place)}
            </Button>
          )}
          {view.kind === 'found' && (
            <Button
              component={Link}
              to={`../${plans ? 'plan' : 'wear'}${params.get('plan') ? `?plan=${params.get('plan')}` : ''}`}
              variant={done ? 'contained' : 'outlined'}
              fullWidth
              // A plan needs only what it uses: one reading of an axle opens it.
              disabled={!ready}
              data-testid="to-plan"
            >
              {!plans && ready
                ? 'What it does to the tyres'
                : done
                  ? 'Plan it'
                  : ready
                    ? 'Plan with what was read'
                    : `${view.picture.missing.length} to go`}
            </Button>
          )}
        </div>
      </section>
      {at === 'prepare' ? (
        <PrepareList
          key={view.kind}
          view={view}
          items={methods.data.prepare}
          back={() => go({ at: undefined })}
        />
      ) : (
        <section className="pane read-picture" data-pane="Picture" aria-label="Picture of the car">
          <div className="slate">
            <div className="drawn">
              <HowTo of="axles" />
              <AxlesView view={view} open={open} />
            </div>
          </div>
          {view.kind !== 'found' && !view.picture.order.some((i) => i.figure) && (
            <p className="note">
              <Glyph name="unread" size={18} /> Nothing read at this visit yet. The figures are the newest
              before it.
            </p>
          )}
          <div className="read-under">
            <FiguresTable view={view} open={open} methods={methods.data.methods} />
            <div className="read-odd">
              <Suspicions view={view} open={open} putRight={() => right.mutate(view.kind)} />
              <Exchange view={view} />
            </div>
          </div>
        </section>
      )}
    </main>
  );
}
