// The car as the server's model takes it, and the live answers about it.
import { useSettings } from '../../shell/settings';
import { useEffect, useRef, useState } from 'react';
import { api, ApiProblem, take, type Geometry, type GeometryLook, type Schemas } from '../../api/client';
import { readTyre } from '../../units/notation';

export type Car = Schemas['Car'];
export type CarDrawing = Schemas['CarDrawing'];
export type Gains = Schemas['Gains'];

export const level = (front: number, rear: number): Gains => ({
  left_front: front,
  right_front: front,
  left_rear: rear,
  right_rear: rear,
});

/** Section width of a nominal size, mm. */
export const sectionOf = (size: string): number | undefined => readTyre(size)?.section_mm;

/** A vehicle's facts as the model's car. */
export function carOf(f: Schemas['VehicleFacts']): Car {
  const car = f.car!;
  return {
    front: f.axles.front.geometry!,
    rear: f.axles.rear.geometry ?? null,
    wheelbase_mm: f.wheelbase_mm,
    facts: {
      ...car,
      tyre_width_mm: sectionOf(f.tyre_size) ?? car.tyre_width_mm,
    },
  };
}

/** Asks while a document changes: one request under way, the newest one next. The last good answer stays. */
export function useLive<B, R>(body: B | undefined, ask: (b: B) => Promise<R>) {
  const [state, setState] = useState<{ data?: R; fault?: ApiProblem; of?: string }>({});
  const busy = useRef(false);
  const next = useRef<string | undefined>(undefined);
  const asked = useRef(ask);
  asked.current = ask;
  const key = body === undefined ? '' : JSON.stringify(body);
  const { unit, form } = useSettings();
  useEffect(() => {
    if (!key) return;
    next.current = key;
    if (busy.current) return;
    busy.current = true;
    void (async () => {
      while (next.current !== undefined) {
        const of = next.current;
        next.current = undefined;
        try {
          const data = await asked.current(JSON.parse(of) as B);
          setState({ data, of });
        } catch (e) {
          if (e instanceof ApiProblem) setState((s) => ({ ...s, fault: e, of }));
        }
      }
      busy.current = false;
    })();
    // Asked anew in other units: the sentences are the server's.
  }, [key, unit, form]);
  return {
    data: state.data,
    fault: key && state.of === key ? state.fault : undefined,
    stale: state.of !== key,
  };
}

/** What is wrong with a geometry, as it is typed. */
export function useLook(g: Geometry | null): GeometryLook | undefined {
  return useLive(g ?? undefined, (body: Geometry) => take(api.POST('/api/v1/geometry', { body }))).data;
}

/** Both axles drawn at body heights over design and a turn of the steering. */
export function useDrawing(car: Car | undefined, gains: Gains, turn: number) {
  return useLive(car && { car, gains, turn_deg: turn }, (body) =>
    take(api.POST('/api/v1/car-drawing', { body })),
  );
}
