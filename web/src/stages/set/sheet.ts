// The sheet of the plan in hand: its steps, what was done of them, and its gates with what was read there.
import { useQuery } from '@tanstack/react-query';
import { api, take, type Schemas, type SideName, type Ticket } from '../../api/client';
import { standing } from '../../shell/StanceStrip';
import type { Bench } from '../../shell/ticket';
import { length, type LengthUnit } from '../../units/print';
import type { Quantity, Visit } from '../read/data';

export type Step = Schemas['SheetStep'];
export type Sheet = Schemas['Sheet'];
type Done = Schemas['Done'];

export const sides = ['left', 'right'] as const;
const visitOf: Record<string, Visit> = { settled: 'settled', reswept: 'reswept', proved: 'proved' };
export const visitOfGate = (id: string): Visit => visitOf[id] ?? 'proved';

/** Items of the prepare list that answer a tick of a gate. */
const tickItem: Record<string, string> = {
  'Roll 3 m': 'settled',
  'Bounce three times': 'settled',
  'Steering wheel straight': 'steering',
};

/** What a step orders; heights in the unit the specialist works in. */
export function orderOf(s: Step, sheet: Sheet, unit: LengthUnit): string {
  if (s.id !== 'height') return s.detail;
  const at = (side: SideName) => `${side} ${length(sheet.result[side].planned_height_mm, unit)}`;
  return `${at('left')}, ${at('right')}, hub to arch`;
}

export interface Gates {
  reading: (gate: string, q: Quantity, s: SideName) => Schemas['Reading'] | undefined;
  ticked: (gate: string, tick: string) => boolean;
  marked: (step: string) => Done | undefined;
}

export function gatesOf(ticket: Ticket, planId: string): Gates {
  const done = ticket.done.filter((d) => d.plan_id === planId);
  const marked = (step: string) => done.find((d) => d.step === step);
  const reading: Gates['reading'] = (gate, q, s) => standing(ticket, visitOfGate(gate), q, s);
  const ticked = (gate: string, tick: string) => {
    const held = ticket.visits.find((v) => v.kind === visitOfGate(gate))?.holding;
    return !!marked(`${gate}/${tick}`) || held?.[tickItem[tick] ?? ''] === 'yes';
  };
  return { reading, ticked, marked };
}

/** What was read at each gate, as the server judges it; a reading older than the work before it is stale. */
export function readAt(ticket: Ticket, planId: string): Schemas['SheetRequest']['read'] {
  const work = ticket.done
    .filter((d) => d.plan_id === planId && !d.step.includes('/') && !(d.step in visitOf))
    .map((d) => d.done_at);
  const before: Record<string, (step: string) => boolean> = {
    settled: (s) => s === 'height' || s === 'support',
    reswept: (s) => s !== 'tie-rods' && s !== 'tighten',
    proved: () => true,
  };
  const out: NonNullable<Schemas['SheetRequest']['read']> = {};
  for (const gate of Object.keys(visitOf)) {
    const last = ticket.done
      .filter((d) => d.plan_id === planId && work.includes(d.done_at) && before[gate]!(d.step))
      .map((d) => d.done_at)
      .toSorted()
      .at(-1);
    const side = (s: SideName) => {
      const of = (q: Quantity) => {
        const r = standing(ticket, visitOfGate(gate), q, s);
        return r ? { value: r.value, sigma: r.sigma, stale: !!last && r.taken_at < last } : null;
      };
      return { height: of('height'), camber: of('camber'), caster: of('caster'), toe: of('toe') };
    };
    out[gate] = [side('left'), side('right')];
  }
  return out;
}

export function useSheet(bench: Bench) {
  const { input, plan, ticket } = bench;
  const read = plan ? readAt(ticket, plan.id) : undefined;
  return useQuery({
    queryKey: ['sheet', input, read],
    queryFn: () => take(api.POST('/api/v1/sheet', { body: { input: input!, read } })),
    enabled: !!input,
    placeholderData: (p) => p,
  });
}
