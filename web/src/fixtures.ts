// What a new vehicle starts from, as the core has it (web/fixtures/starter.json, held to it by Cargo's tests).
import starter from '../fixtures/starter.json';
import type { CarFacts, Schemas, VehicleFacts } from './api/client';

export const starting = starter as unknown as VehicleFacts;
export const usualCar: CarFacts = starting.car;
export const usualWear: Schemas['WearFacts'] = usualCar.wear;
export const notMeasured: Schemas['Limits'] = usualCar.axles.front.limits!;
