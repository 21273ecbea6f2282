// The sheet of the plan in hand: its steps, what was done of them, and its gates with what was read there.
import { getSheet } from '../api/calls';
import { useQuery } from '@tanstack/react-query';
import type { AxleName, Drawing, Schemas, SideName, Ticket } from '../api/client';
import type { Bench } from '../shell/ticket';

export type Step = Schemas['SheetStep'];
export type Sheet = Schemas['Sheet'];
export type Gate = Schemas['GateView'];
type Done = Schemas['Done'];

export const sides = ['left', 'right'] as const;
export const sideWord = (s: SideName) => (s === 'left' ? 'Left' : 'Right');
export const axleWord = (a: AxleName) => (a === 'front' ? 'Front' : 'Rear');

/** What was done of a plan's sheet, by step. */
export const marks = (ticket: Ticket, planId: string) => {
  const done = ticket.done.filter((d) => d.plan_id === planId);
  return { done, of: (step: string): Done | undefined => done.find((d) => d.step === step) };
};

export type Marks = ReturnType<typeof marks>;

/** Both corners of an axle as they are to be set. */
export function drawingsOf(sheet: Sheet, axle: AxleName): Record<SideName, Drawing> | undefined {
  const r = sheet.answer.axles[axle];
  return r ? { left: r.left.drawing_set, right: r.right.drawing_set } : undefined;
}

/** What was read at a gate of a quantity and wheel. */
export const readAt = (g: Gate | undefined, axle: AxleName, side: SideName, q: Schemas['GateReading']) =>
  g?.read[axle][side][q] ?? undefined;

export function useSheet(bench: Bench) {
  const { input, plan, ticket } = bench;
  const id = plan?.id ?? '';
  // Everything the server judges it by: the plan's and the car's version, what was read, done and answered.
  const stamp = [
    plan?.version,
    ticket.vehicle.version,
    // What was done after the setting.
    ticket.job.version,
    ticket.readings.length,
    ...ticket.done.map((d) => `${d.plan_id}${d.step}${d.record.rounds?.length ?? 0}`),
    ...ticket.visits.map((v) => v.version),
  ];
  return useQuery({
    queryKey: ['sheet', id, stamp],
    queryFn: () => getSheet(id),
    enabled: !!input && !!plan,
    placeholderData: (p) => (p && plan ? p : undefined),
  });
}
