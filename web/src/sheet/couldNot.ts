// Why something was not turned as ordered, in words.
import type { Schemas } from '../api/client';

export const couldNot: [Schemas['CouldNot'], string][] = [
  ['seized', 'Seized'],
  ['no_room', 'No room'],
  ['at_end', 'At its end'],
];

/** As it stands behind what was not turned. */
export const couldNotWord = (c: Schemas['CouldNot']): string =>
  (couldNot.find(([w]) => w === c)?.[1] ?? '').toLowerCase();
