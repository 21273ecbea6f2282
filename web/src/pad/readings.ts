// Methods, prepare list and places, as the read stage uses them.
import { getMethods } from '../api/calls';
import { useQuery } from '@tanstack/react-query';
import type { Schemas, SideName, Ticket } from '../api/client';
import { bare, halfWidth, measure, type Units } from '../units/measure';
import { angle, inches, length, num } from '../units/print';

export type Quantity = Schemas['Quantity'];
export type Visit = Schemas['Visit'];
export type Place = Schemas['Place'];
export type Method = Schemas['MethodInfo'];
export type EntryInfo = Schemas['EntryInfo'];
export type Figure = Schemas['Figure'];
export type OrderItem = Schemas['OrderItem'];
export type VisitView = Schemas['VisitView'];
export type Suspicion = Schemas['Suspicion'];

export interface Target {
  quantity: Quantity;
  place: Place;
}

export function useMethods() {
  return useQuery({
    queryKey: ['methods'],
    queryFn: getMethods,
    staleTime: Infinity,
  });
}

export const short: Record<Quantity, string> = {
  height: 'Height',
  floor_to_arch: 'Floor to arch',
  floor_to_frame: 'Floor to frame',
  camber: 'Camber',
  caster: 'Caster',
  toe: 'Toe',
  total_toe: 'Toe, both',
  thrust: 'Thrust angle',
  set_back: 'Set-back',
  wheelbase: 'Wheelbase',
  diagonal: 'Diagonal',
  axle_offset: 'Axle off centre',
  rim_runout: 'Rim run-out',
  rim_circle: 'Rim circle',
  tread_depth: 'Tread depth',
  pressure: 'Pressure',
  floor_slope: 'Floor slope',
};

export const positive: Partial<Record<Quantity, string>> = {
  camber: '+ top leans out, − top leans in',
  caster: '+ top leans back',
  toe: '+ nose of the wheel points in',
  total_toe: '+ noses point in',
  set_back: '+ right wheel behind the left',
  thrust: '+ points to the right',
};

const angles: Quantity[] = ['camber', 'caster', 'toe', 'total_toe', 'thrust', 'floor_slope'];
export const isAngle = (q: Quantity) => angles.includes(q);

/** Digits that mean something, in degrees. */
export const digits = (q: Quantity) => (q === 'toe' || q === 'total_toe' || q === 'thrust' ? 2 : 1);

/** A value in the user's units. */
export function show(q: Quantity, v: number, u: Units, fine = false): string {
  if (isAngle(q)) return angle(v, u.angle, fine ? 2 : digits(q));
  if (q === 'pressure') return measure('pressure', v, u);
  if (q === 'tread_depth') return measure('tread', v, u);
  // A sixteenth is coarser than what a run-out is judged by.
  if (q === 'rim_runout') return u.length === 'in' ? `${num(v / 25.4, 3)} in` : `${num(v, 1)} mm`;
  return length(v, u.length, fine ? 1 : 0);
}

/** The band of nine in ten of a reading with this standard deviation, without a unit where the value has one. */
export const doubt = (q: Quantity, sigma: number, u: Units): string => within(q, halfWidth(sigma), u);

/** Plus or minus, as it was told. */
export function within(q: Quantity, half: number, u: Units): string {
  if (isAngle(q)) return `±${u.angle === 'minutes' ? angle(half, u.angle) : num(half, 2)}`;
  if (q === 'pressure') return `±${bare('pressure', half, u)}`;
  if (q === 'tread_depth') return `±${measure('tread', half, u)}`;
  if (u.length === 'mm') return `±${num(half, 1)} mm`;
  return q === 'rim_runout' ? `±${num(half / 25.4, 3)} in` : `±${inches(Math.max(half, 1.6))} in`;
}

export function placeWords(p: Place): string {
  const axle = p.axle === 'both' ? '' : p.axle;
  if (p.side === 'both') return axle ? `${axle} axle` : 'whole car';
  return axle ? `${p.side} ${axle}` : `${p.side} side`;
}

/** `camber.left.front`, as the address bar has it. */
export const keyOf = (t: Target) => `${t.quantity}.${t.place.side}.${t.place.axle}`;

export function targetOf(text: string | null): Target | undefined {
  const [quantity, side, axle] = (text ?? '').split('.');
  if (!quantity || !(quantity in short) || !side || !axle) return undefined;
  return { quantity: quantity as Quantity, place: { side, axle } as Place };
}

/** Toe of one wheel can also be had from a reading of both. */
const reads: Partial<Record<Quantity, Quantity[]>> = { toe: ['toe', 'total_toe'] };

/** Methods that answer a target, pad ones only; a string or gauge first where one wheel is asked. */
export function methodsFor(all: Method[], q: Quantity): Method[] {
  const wanted = reads[q] ?? [q];
  return all.filter((m) => wanted.includes(m.quantity) && !m.bench_only);
}

/** Where a method's reading belongs when this target is asked. */
export function placeFor(m: Method, t: Target): Place {
  return m.quantity === 'total_toe' ? { axle: t.place.axle, side: 'both' } : t.place;
}

export const sideOf = (p: Place): SideName => (p.side === 'right' ? 'right' : 'left');

export const visitOf = (t: Ticket, kind: Visit): VisitView | undefined =>
  t.visits.find((v) => v.kind === kind);

export function ago(at: number, now = Date.now() / 1000): string {
  const m = Math.max(0, Math.round((now - at) / 60));
  if (m < 1) return 'just now';
  if (m < 60) return `${m} min`;
  if (m < 48 * 60) return `${Math.round(m / 60)} h`;
  return `${Math.round(m / 1440)} days`;
}
