// The ticket of the open job, and the plan that is being worked on.
import { getShop, getTicket, newPlan, savePlan, predict, type Pictures } from '../api/calls';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useLocation, useOutletContext, useSearchParams } from 'react-router';
import {
  ApiProblem,
  type AxleName,
  type AxlePlan,
  type CarAnswer,
  type CarInput,
  type CarPlan,
  type Plan,
  type PlanResult,
  type Schemas,
  type Ticket,
} from '../api/client';

import { useLive } from '../api/live';
import { did } from './deeds';
import { readDraft, writeDraft } from './drafts';

export const ticketKey = (id: string) => ['ticket', id];

export function useTicketQuery(id: string) {
  return useQuery({
    queryKey: ticketKey(id),
    queryFn: () => getTicket(id),
    retry: (n, e) => n < 1 && !(e instanceof ApiProblem && e.status === 404),
  });
}

export function useShop() {
  return useQuery({ queryKey: ['shop'], queryFn: getShop, staleTime: Infinity });
}

/** The stages a ticket of a kind goes through, in its order. */
export const stagesOf = (shop: Schemas['ShopInfo'] | undefined, kind: Schemas['TicketKind']) =>
  shop?.tickets.find((t) => t.kind === kind)?.stages ?? [];

export interface Bench {
  ticket: Ticket;
  setTicket: (t: Ticket) => void;
  plan: Plan | undefined;
  /** Whether it is the plan that is the one to set. */
  chosen: boolean;
  draft: CarPlan | undefined;
  change: (c: Partial<CarPlan>) => void;
  undo: (() => void) | undefined;
  input: CarInput | undefined;
  /** The answer for the car: both axles, one verdict. */
  answer: CarAnswer | undefined;
  stale: boolean;
  fault: ApiProblem | undefined;
  saving: 'saved' | 'saving' | 'unsaved';
  saveFault: ApiProblem | undefined;
  pick: (planId: string) => void;
  reload: () => void;
  keepMine: () => Promise<void>;
  /** The plan as it stands now, whoever saved it last. */
  theirs: () => Promise<Plan | undefined>;
  /** A document made of both, saved over theirs. */
  keepBoth: (doc: CarPlan, over: Plan) => Promise<void>;
  /** What both of a conflict began from. */
  began: () => CarPlan | undefined;
}

interface PlanDraft {
  version: number;
  doc: CarPlan;
}

/** A plan as it is changed on this screen, over the version it was begun from or saved as last. */
interface Edit {
  id: string;
  doc: CarPlan;
  undo: CarPlan[];
  base: PlanDraft;
}

export const useBench = () => useOutletContext<Bench>();

/** Where work for other plans left the adjusters a plan starts from; none where it starts as found. */
export const startOf = (ticket: Ticket, of: Pick<Plan, 'id'>) =>
  ticket.turned.find((t) => t.plan_id === of.id)?.turned;

/**
 * The car and what a plan decides about it, from where work for other plans left the adjusters; nothing until an axle was
 * read.
 */
export function inputOf(ticket: Ticket, of: Pick<Plan, 'id'>, plan: CarPlan): CarInput | undefined {
  const { front, rear } = ticket.base.axles;
  if (!front && !rear) return undefined;
  const turned = startOf(ticket, of);
  return { base: turned ? { ...ticket.base, turned } : ticket.base, plan };
}

/** What a plan decides about an axle, every field of it. */
export function partOf(d: CarPlan, axle: AxleName): Required<AxlePlan> {
  const usual: Required<AxlePlan> = {
    height_change_mm: 0,
    settle_mm: 0,
    load_mm: 0,
    ways: [],
    trim_mm: { left: 0, right: 0 },
    fitted: [],
    only: {},
    picked: { left: null, right: null },
  };
  return { ...usual, ...d.axles?.[axle] };
}

/** The change of a plan that changes one axle's part of it. */
export function changeOf(d: CarPlan, axle: AxleName, c: Partial<AxlePlan>): Partial<CarPlan> {
  const axles = { front: partOf(d, 'front'), rear: partOf(d, 'rear') };
  return { axles: { ...axles, [axle]: { ...axles[axle], ...c } } };
}

/** An axle's part of the answer. */
export const axleOf = (answer: CarAnswer | undefined, axle: AxleName): PlanResult | undefined =>
  answer?.axles[axle] ?? undefined;

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

const baseOf = (p: Plan): PlanDraft => ({ version: p.version, doc: p.document });

/** An edit that goes on where something of it waits to be saved; else one begun from the plan as it stands. */
function going(e: Edit | undefined, plan: Plan): Edit {
  if (e && e.id === plan.id && !same(e.doc, e.base.doc)) return e;
  return { id: plan.id, doc: plan.document, undo: e?.id === plan.id ? e.undo : [], base: baseOf(plan) };
}

/**
 * Whose maps an answer brings: those that Plan shows, and once it showed them. Other stages draw none; what they say hangs on
 * none.
 */
function usePictures(ticket: Ticket, named: string | null): Pictures {
  const plan = useLocation().pathname.split('/')[3] === 'plan';
  const [seen, setSeen] = useState<Pictures>('none');
  const first: AxleName = ticket.base.axles.front ? 'front' : 'rear';
  const shown: Pictures = !plan ? 'none' : named === 'front' || named === 'rear' ? named : first;
  const both = seen === 'none' ? shown : shown === 'none' || shown === seen ? seen : 'both';
  // Said while drawing, not after it: an answer without them would come first.
  if (both !== seen) setSeen(both);
  return both;
}

/** Everything the stages of a job share. */
export function useJobBench(ticket: Ticket): Bench {
  const queries = useQueryClient();
  const [params, setParams] = useSearchParams();
  const plans = ticket.plans;
  // The one that is looked at; the one to set until another is.
  const own = plans.find((p) => p.id === ticket.job.plan_id) ?? plans[0];
  const plan = plans.find((p) => p.id === params.get('plan')) ?? own;
  const [edit, setEdit] = useState<Edit | undefined>(() => {
    // Not saved when this page was left: it is still here.
    const kept = plan && readDraft<PlanDraft>(`plan.${plan.id}`);
    return kept && kept.version === plan.version
      ? { id: plan.id, doc: kept.doc, undo: [plan.document], base: baseOf(plan) }
      : undefined;
  });
  const [saveFault, setSaveFault] = useState<ApiProblem>();
  // A save whose answer was lost is sent again as it was, until it is known how it ended; only then the next.
  const lost = useRef<{ id: string; version: number; name: string; doc: CarPlan }>(undefined);
  // What is not changed here follows whoever saves it elsewhere; what is stays, over the version it was begun from.
  const dirty = !!edit && edit.id === plan?.id && !same(edit.doc, edit.base.doc);
  const draft = dirty ? edit.doc : plan?.document;

  const setTicket = useCallback(
    (t: Ticket) => {
      // An answer that was asked for before this one came is older than it.
      void queries.cancelQueries({ queryKey: ticketKey(t.job.id) });
      queries.setQueryData(ticketKey(t.job.id), t);
    },
    [queries],
  );
  const reload = useCallback(() => {
    if (plan) writeDraft(`plan.${plan.id}`, undefined);
    lost.current = undefined;
    setEdit(undefined);
    setSaveFault(undefined);
    void queries.invalidateQueries({ queryKey: ticketKey(ticket.job.id) });
  }, [queries, ticket.job.id, plan]);

  // A job with all its readings gets its first plan by itself.
  const first = useMutation({
    mutationFn: () => newPlan(ticket.job.id, { name: 'Plan 1' }),
    onSuccess: () => queries.invalidateQueries({ queryKey: ticketKey(ticket.job.id) }),
  });
  const { base } = ticket;
  const read = !!(base.axles.front ?? base.axles.rear);
  const asked = useRef('');
  useEffect(() => {
    if (!read || plans.length || asked.current === ticket.job.id) return;
    asked.current = ticket.job.id;
    first.mutate();
  }, [ticket.job.id, read, plans.length, first]);

  // The plan that is on this page; none once the page is gone.
  const shown = useRef<string>(undefined);
  useEffect(() => {
    shown.current = plan?.id;
    return () => {
      shown.current = undefined;
    };
  }, [plan?.id]);
  const change = useCallback(
    (c: Partial<CarPlan>) => {
      if (!plan) return;
      const before = draft ?? plan.document;
      did(`${plan.name}: changed`, () => {
        // Nothing is said to be taken back that nobody looks at, and nothing of another plan is lost for it.
        if (shown.current !== plan.id) throw new Error(`Open ${plan.name} first: it is taken back there.`);
        setEdit((e) => ({ ...going(e, plan), doc: before }));
      });
      setEdit((e) => {
        const from = going(e, plan);
        return { ...from, doc: { ...from.doc, ...c }, undo: [...from.undo.slice(-40), from.doc] };
      });
    },
    [plan, draft],
  );
  const undo =
    edit && edit.id === plan?.id && edit.undo.length
      ? () =>
          setEdit((e) => {
            const back = e?.undo.at(-1);
            return e && plan && back ? { ...going(e, plan), doc: back, undo: e.undo.slice(0, -1) } : e;
          })
      : undefined;

  // Saved by itself shortly after the last change; a refused save keeps the draft.
  const save = useMutation({
    mutationFn: (p: { plan: Plan; doc: CarPlan; version: number }) => {
      const now = { id: p.plan.id, version: p.version, name: p.plan.name, doc: p.doc };
      const send = lost.current?.id === p.plan.id ? lost.current : now;
      lost.current = send;
      return savePlan(send.id, { version: send.version, name: send.name, document: send.doc });
    },
    onSuccess: (saved) => {
      lost.current = undefined;
      setSaveFault(undefined);
      setEdit((e) => (e?.id === saved.id ? { ...e, base: baseOf(saved) } : e));
      void queries.cancelQueries({ queryKey: ticketKey(ticket.job.id) });
      queries.setQueryData<Ticket>(
        ticketKey(ticket.job.id),
        (t) => t && { ...t, plans: t.plans.map((p) => (p.id === saved.id ? saved : p)) },
      );
    },
    onError: (e) => {
      // Refused is an answer; a lost one is not.
      if (e instanceof ApiProblem && e.status > 0 && e.status < 500) lost.current = undefined;
      setSaveFault(e instanceof ApiProblem ? e : undefined);
    },
  });
  const keepMine = useCallback(async () => {
    // Saved over theirs, on purpose: from the version that stands now.
    const now = await getTicket(ticket.job.id);
    const theirs = now.plans.find((p) => p.id === plan?.id);
    if (theirs) setEdit((e) => (e?.id === theirs.id ? { ...e, base: baseOf(theirs) } : e));
    setTicket(now);
    setSaveFault(undefined);
  }, [ticket.job.id, plan?.id, setTicket]);
  const theirs = useCallback(async () => {
    const now = await getTicket(ticket.job.id);
    return now.plans.find((p) => p.id === plan?.id);
  }, [ticket.job.id, plan?.id]);
  const keepBoth = useCallback(
    async (doc: CarPlan, over: Plan) => {
      setEdit((e) => ({ id: over.id, doc, undo: e?.id === over.id ? e.undo : [], base: baseOf(over) }));
      setTicket(await getTicket(ticket.job.id));
      setSaveFault(undefined);
    },
    [ticket.job.id, setTicket],
  );
  useEffect(() => {
    if (!dirty || !plan || !draft || save.isPending || saveFault?.status === 409) return;
    const known = edit.base.version;
    const t = setTimeout(() => save.mutate({ plan, doc: draft, version: known }), saveFault ? 3000 : 500);
    return () => clearTimeout(t);
  }, [dirty, plan, draft, save, edit, saveFault]);

  // What the two of a conflict began from.
  const began = useCallback(
    () => (edit && edit.id === plan?.id ? edit.base.doc : undefined),
    [edit, plan?.id],
  );

  // Kept in the browser while it is not saved.
  useEffect(() => {
    if (!plan) return;
    writeDraft<PlanDraft>(
      `plan.${plan.id}`,
      dirty && draft ? { version: edit.base.version, doc: draft } : undefined,
    );
  }, [plan, dirty, draft, edit]);

  const input = useMemo(
    () => (draft && plan ? inputOf(ticket, plan, draft) : undefined),
    [ticket, plan, draft],
  );
  const pictures = usePictures(ticket, params.get('axle'));
  const looked = useMemo(() => input && { input, pictures }, [input, pictures]);
  const live = useLive('predict', looked, (a) => predict(a.input, a.pictures));
  const answer = input ? live.data : undefined;
  const { stale, fault } = live;
  const pick = useCallback(
    (id: string) => setParams((p) => (p.set('plan', id), p), { replace: true }),
    [setParams],
  );
  const saving = save.isPending ? 'saving' : dirty ? 'unsaved' : 'saved';
  return {
    ticket,
    setTicket,
    plan,
    chosen: !!plan && plan.id === own?.id,
    draft,
    change,
    undo,
    input,
    answer,
    stale,
    fault,
    saving,
    saveFault,
    pick,
    reload,
    keepMine,
    theirs,
    keepBoth,
    began,
  };
}
