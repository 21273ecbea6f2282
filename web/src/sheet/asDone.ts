// What was really turned of orders: as ordered unless something else is told, counted as the order counts.
import type { Schemas, SideName } from '../api/client';
import type { LengthUnit } from '../units/print';
import { couldNotWord } from './couldNot';

type Line = Schemas['SettingLine'];
export type CouldNot = Schemas['CouldNot'];
export interface Turn {
  side: SideName | undefined;
  line: Line;
}
export interface Told {
  amount: string;
  could_not?: CouldNot | undefined;
  /** Said to be done, as told or as ordered. */
  closed?: boolean;
  /** Where the order it was told of ends: of another order it says nothing. */
  of?: number;
}
/** What was told of an order, by its place and name. */
export type Tolds = Record<string, Told>;

export const turnKey = (t: Turn) => `${t.side ?? ''}/${t.line.name}`;
export const noTold: Told = { amount: '' };
/** An order's place and name for a test or an element. */
export const turnId = (t: Turn) => `${t.side ?? 'axle'}-${t.line.name.toLowerCase().replaceAll(' ', '-')}`;
export const isClosed = (t: Told | undefined) => !!t?.closed;
/** What was told otherwise than ordered; empty where nothing was. */
export const inWords = (t: Told | undefined): string =>
  [t?.amount.trim(), t?.could_not && couldNotWord(t.could_not)].filter(Boolean).join(', ');

/** What was told of the orders as they are: what was told of others is left out. */
export const current = (list: Turn[], tolds: Tolds): Tolds =>
  Object.fromEntries(
    Object.entries(tolds).filter(([key, t]) =>
      list.some((x) => turnKey(x) === key && (t.of === undefined || Math.abs(t.of - x.line.position) < 1e-6)),
    ),
  );

/** Orders that turn something. */
export const turning = (list: Turn[]) => list.filter((t) => t.line.direction !== 'leave');

/** What is sent: what was told otherwise, in the order of the rows. */
export function asDone(list: Turn[], tolds: Tolds, unit: LengthUnit): Schemas['AsDone'][] {
  return turning(list).flatMap((t) => {
    const told = tolds[turnKey(t)];
    if (!told || (!told.amount.trim() && !told.could_not)) return [];
    return [
      {
        side: t.side ?? null,
        name: t.line.name,
        amount: told.amount.trim(),
        unit,
        could_not: told.could_not ?? null,
      },
    ];
  });
}
