// What the tread bench asks for, and small readings of its answer.
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import {
  api,
  take,
  type CarWear,
  type PlanDocument,
  type SceneWear,
  type Schemas,
  type SideName,
  type Ticket,
} from '../../api/client';
import { inputOf } from '../../shell/ticket';

export type Tyres = Schemas['CarTyres'];
export type Place = Schemas['TyrePlace'];
export type TyreForecast = Schemas['TyreForecast'];
export type TreadView = Schemas['TreadView'];
export type WearFacts = Schemas['WearFacts'];

export const places: Place[] = ['left_front', 'right_front', 'left_rear', 'right_rear'];
export const placeName = (p: Place) => p.replace('_', ' ');
export const sideOf = (p: Place): SideName => (p.startsWith('left') ? 'left' : 'right');
export const capital = (s: string) => s.replace(/^./, (c) => c.toUpperCase());

export const usualWear: WearFacts = {
  directional: false,
  worn_dampers: false,
  heights: [],
  high_torque: false,
  own_life_km: null,
  grade: null,
  rear_placard_kpa: null,
  rear_pressure_kpa: null,
  rear_tyre_size: null,
  set_at_km: null,
  price: 0,
  regen: false,
  rotate_every_km: 8000,
  rotated: 'never',
  uses: [],
  yearly_km: 15000,
};

export const wearFacts = (t: Ticket): WearFacts => ({ ...usualWear, ...t.vehicle.facts.car?.wear });

/** The tyres of a ticket's vehicle as the forecast takes them. */
export function carTyres(t: Ticket, limit_mm: number): Tyres {
  const f = t.vehicle.facts;
  const w = wearFacts(t);
  const solid = (layout: string | undefined) => (layout === 'solid_axle' ? 0 : 2.5);
  return {
    sizes: [f.tyre_size, w.rear_tyre_size ?? f.tyre_size],
    class: f.tyre_class,
    depth_mm: f.tread_depth_mm,
    limit_mm,
    load_n: [f.front_load_n, f.car?.rear_load_n ?? f.front_load_n],
    pressure_kpa: [f.pressure_kpa, w.rear_pressure_kpa ?? f.pressure_kpa],
    placard_kpa: [f.placard_kpa, w.rear_placard_kpa ?? f.placard_kpa],
    drive_front: f.drive === 'front' ? 1 : f.drive === 'both' ? 0.5 : 0,
    brake_front: f.car?.brake_front_share ?? 0.65,
    torque_factor: w.high_torque ? 1.5 : 1,
    regen: w.regen,
    use: w.uses?.length ? w.uses.map((u): [typeof u.use, number] => [u.use, u.share]) : f.use,
    load_transfer_per_g:
      f.silhouette === 'pickup' || f.silhouette === 'box' ? 0.85 : f.silhouette === 'coupe' ? 0.6 : 0.7,
    roll_camber: [solid(f.geometry.layout), solid(f.rear_geometry?.layout)],
    own_life_km: w.own_life_km ?? null,
    grade: w.grade ?? null,
    heights: w.heights ?? [],
    rotated: w.rotated,
    rotate_every_km: w.rotate_every_km,
    directional: w.directional,
    worn_dampers: w.worn_dampers,
    price: w.price,
    yearly_km: w.yearly_km,
  };
}

export const treadKey = (job: string) => ['tread', job];

export function useTread(job: string) {
  return useQuery({
    queryKey: treadKey(job),
    queryFn: () => take(api.GET('/api/v1/jobs/{id}/tread', { params: { path: { id: job } } })),
  });
}

export function useWearData() {
  return useQuery({
    queryKey: ['wear-data'],
    queryFn: () => take(api.GET('/api/v1/wear-data')),
    staleTime: Infinity,
  });
}

/** The forecast of the plan worked on, with another plan beside it when one is named. */
export function useWear(
  ticket: Ticket,
  draft: PlanDocument | undefined,
  log: TreadView['log'] | undefined,
  other?: { name: string; document: PlanDocument },
) {
  const body = useMemo(() => {
    const front = draft && inputOf(ticket, draft);
    if (!draft || !front || !log) return undefined;
    const second = other && inputOf(ticket, other.document);
    return {
      front,
      rear: inputOf(ticket, draft, 'rear') ?? null,
      other: second
        ? { name: other.name, front: second, rear: inputOf(ticket, other.document, 'rear') ?? null }
        : null,
      tyres: carTyres(ticket, draft.limit_mm),
      log,
    };
  }, [ticket, draft, log, other]);
  return useQuery({
    queryKey: ['wear', body],
    queryFn: () => take(api.POST('/api/v1/wear', { body: body! })),
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
export function range(b: Schemas['Band']): string {
  const k = (v: number) => (v < 9950 ? (v / 1000).toFixed(1) : String(Math.round(v / 1000)));
  return `(${k(Math.max(0, b.low))}–${k(b.high)})`;
}

/** The tyre that is at its limit first. */
export const firstDone = (w: CarWear): TyreForecast | undefined =>
  [...w.tyres].sort((a, b) => leadOf(a).band_km.median - leadOf(b).band_km.median)[0];
