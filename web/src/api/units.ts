// The units sentences are asked for in: every request tells them, the server prints them.
import type { Units } from '../units/measure';

const metric: Units = {
  length: 'mm',
  angle: 'decimal',
  pressure: 'kpa',
  load: 'n',
  distance: 'km',
  tread: 'mm',
  decimal: 'point',
};
let told = '';
/** The same for a table: its numbers are numbers, with a point. */
let tables = '';

/** From now on sentences are asked for in these units. */
export function speakIn(units: Units): void {
  const order = ['length', 'pressure', 'load', 'distance', 'tread', 'angle', 'decimal'] as const;
  const other = order.filter((k) => units[k] !== metric[k]);
  const list = (keys: readonly (typeof order)[number][]) => keys.map((k) => `${k}=${units[k]}`).join('; ');
  told = list(other);
  tables = list(other.filter((k) => k !== 'decimal'));
}

/** The header every request carries; none in millimetres and decimal degrees. */
export const unitsHeader = (): Record<string, string> => (told ? { 'x-units': told } : {});

/** A table's address, asked for in the same units: a download carries no header. */
export const inUnits = (path: string): string =>
  tables ? `${path}?units=${encodeURIComponent(tables)}` : path;
