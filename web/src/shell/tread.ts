// What the tread bench asks for, and small readings of its answer.
import { getWearData, getTread, forecastWear } from '../api/calls';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { CarInput, CarWear, Plan, SceneWear, Schemas, SideName, Ticket } from '../api/client';
import { startOf } from './ticket';
import { farRange, type Units } from '../units/measure';

export type Tyres = Schemas['CarTyres'];
export type Place = Schemas['TyrePlace'];
export type TyreForecast = Schemas['TyreForecast'];
export type TreadView = Schemas['TreadView'];
export type WearFacts = Schemas['WearFacts'];

export const places: Place[] = ['left_front', 'right_front', 'left_rear', 'right_rear'];
export const placeName = (p: Place) => p.replace('_', ' ');
export const sideOf = (p: Place): SideName => (p.startsWith('left') ? 'left' : 'right');
export const capital = (s: string) => s.replace(/^./, (c) => c.toUpperCase());

export const wearFacts = (t: Ticket): WearFacts => t.vehicle.facts.car!.wear;

/** The tyres of a ticket's vehicle, done at a plan's limit. */
export const carTyres = (t: Ticket, limit_mm: number): Tyres => ({ ...t.tyres, limit_mm });

export const treadKey = (job: string) => ['tread', job];

export function useTread(job: string) {
  return useQuery({
    queryKey: treadKey(job),
    queryFn: () => getTread(job),
  });
}

export function useWearData() {
  return useQuery({
    queryKey: ['wear-data'],
    queryFn: getWearData,
    staleTime: Infinity,
  });
}

/** The forecast of the plan worked on, with another plan beside it when one is named. */
export function useWear(
  ticket: Ticket,
  car: CarInput | undefined,
  log: TreadView['log'] | undefined,
  other?: Plan,
) {
  const body = useMemo(() => {
    if (!car || !log) return undefined;
    return {
      car,
      other: other ? { name: other.name, plan: other.document, turned: startOf(ticket, other) } : null,
      tyres: carTyres(ticket, car.plan.limit_mm),
      log,
    };
  }, [ticket, car, log, other]);
  return useQuery({
    queryKey: ['wear', body],
    queryFn: () => forecastWear(body!),
    enabled: !!body,
    placeholderData: (p) => p,
    retry: false,
  });
}

/** Mean of an angle over a state's mix of heights. */
export function meanOf(s: SceneWear, what: 'camber_deg' | 'toe_deg'): number {
  const total = s.setups.reduce((a, x) => a + (x.share ?? 1), 0);
  return s.setups.reduce((a, x) => a + (x.share ?? 1) * x[what], 0) / total;
}

export const leadOf = (t: TyreForecast): SceneWear => t.scenes[t.lead]!;

/** Range of a band in thousands, `(22–43)`. */
export const range = (b: Schemas['Band'], u: Units): string => farRange(b.low, b.high, u);

/** The tyre that is at its limit first. */
export const firstDone = (w: CarWear): TyreForecast | undefined =>
  [...w.tyres].sort((a, b) => leadOf(a).band_km.median - leadOf(b).band_km.median)[0];

/** Whether two settings are too close to call: the band of their ratio has both in it. */
export const tooClose = (r: { low: number; high: number }): boolean => r.low < 1 && r.high > 1;
