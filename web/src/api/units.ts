// The units sentences are asked for in: every request tells them, the server prints them.
import type { AngleForm, LengthUnit } from '../units/print';

const inches = 'length=in; pressure=psi; load=lb; distance=miles; tread=in32';
let told = '';

/** From now on sentences are asked for in these units. */
export function speakIn(unit: LengthUnit, form: AngleForm): void {
  told = [unit === 'in' ? inches : '', form === 'minutes' ? 'angle=minutes' : ''].filter(Boolean).join('; ');
}

/** The header every request carries; none in millimetres and decimal degrees. */
export const unitsHeader = (): Record<string, string> => (told ? { 'x-units': told } : {});
