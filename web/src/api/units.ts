// The units sentences are asked for in: every request tells them, the server prints them.
import type { Units } from '../units/measure';

const metric: Units = {
  length: 'mm',
  angle: 'decimal',
  pressure: 'kpa',
  load: 'n',
  distance: 'km',
  tread: 'mm',
};
let told = '';

/** From now on sentences are asked for in these units. */
export function speakIn(units: Units): void {
  const order = ['length', 'pressure', 'load', 'distance', 'tread', 'angle'] as const;
  told = order
    .filter((k) => units[k] !== metric[k])
    .map((k) => `${k}=${units[k]}`)
    .join('; ');
}

/** The header every request carries; none in millimetres and decimal degrees. */
export const unitsHeader = (): Record<string, string> => (told ? { 'x-units': told } : {});

/** A table's address, asked for in the same units: a download carries no header. */
export const inUnits = (path: string): string => (told ? `${path}?units=${encodeURIComponent(told)}` : path);
