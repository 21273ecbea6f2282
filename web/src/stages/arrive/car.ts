// The car as the server's model takes it, and the live answers about it.
import { drawCar, lookAtGeometry } from '../../api/calls';
import type { Geometry, GeometryLook, Schemas } from '../../api/client';
import { useLive } from '../../api/live';
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
  return {
    front: f.axles.front.geometry!,
    rear: f.axles.rear.geometry ?? null,
    wheelbase_mm: f.wheelbase_mm,
    facts: f.car!,
  };
}

/** What is wrong with a geometry, as it is typed. */
export function useLook(g: Geometry | null): GeometryLook | undefined {
  return useLive('geometry', g ?? undefined, lookAtGeometry).data;
}

/** Both axles drawn at body heights over design and a turn of the steering. */
export function useDrawing(car: Car | undefined, gains: Gains, turn: number) {
  return useLive('car-drawing', car && { car, gains, turn_deg: turn }, drawCar);
}
