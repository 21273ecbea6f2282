// What was really turned of orders: as ordered unless something else is told, counted as the order counts.
import { ToggleButton, ToggleButtonGroup } from '@mui/material';
import type { Schemas, SideName } from '../api/client';
import { FieldError } from '../shell/Fault';
import { Half } from '../ui/glyphs';
import { useSettings } from '../ui/settings';
import type { LengthUnit } from '../units/print';
import { couldNot, couldNotWord } from './couldNot';
import { sideWord } from './sheet';

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

interface Props {
  list: Turn[];
  tolds: Tolds;
  set: (t: Tolds) => void;
  problems: { field: string; wrong: string; right: string }[];
}

export function AsDoneRows({ list, tolds, set, problems }: Props) {
  const { unit } = useSettings();
  const shown = turning(list);
  const sent = asDone(list, tolds, unit);
  if (!shown.length) return null;
  return (
    <div className="as-done" data-testid="as-done">
      <h3>What was turned</h3>
      <p className="small mut">
        As ordered, unless something else is typed: counted as the order counts, with a minus the other way.
      </p>
      {shown.map((t) => {
        const key = turnKey(t);
        const told = tolds[key] ?? noTold;
        const at = sent.findIndex((s) => (s.side ?? undefined) === t.side && s.name === t.line.name);
        const wrong = problems.find((p) => p.field === `as_done.${at}.amount`);
        const id = turnId(t);
        return (
          <div key={key} className="as-done-row">
            <span className="as-done-name">
              {t.side && <Half side={t.side} size={18} />}
              <span>
                <b>{t.side ? `${sideWord(t.side)} ${t.line.name.toLowerCase()}` : t.line.name}</b>
                <span className="small mut"> ordered {t.line.words}</span>
              </span>
            </span>
            <label>
              <span className="small">really</span>
              <input
                value={told.amount}
                placeholder={t.line.amount}
                inputMode="text"
                aria-invalid={!!wrong}
                onChange={(e) => set({ ...tolds, [key]: { ...told, amount: e.target.value } })}
                data-testid={`really-${id}`}
              />
            </label>
            <ToggleButtonGroup
              exclusive
              size="small"
              value={told.could_not ?? null}
              onChange={(_, v: CouldNot | null) =>
                set({ ...tolds, [key]: { ...told, could_not: v ?? undefined } })
              }
              aria-label={`Could not: ${t.line.name}`}
            >
              {couldNot.map(([w, label]) => (
                <ToggleButton key={w} value={w} sx={{ minHeight: 44 }} data-testid={`could-not-${w}-${id}`}>
                  {label}
                </ToggleButton>
              ))}
            </ToggleButtonGroup>
            {wrong && <FieldError wrong={wrong.wrong} right={wrong.right} />}
          </div>
        );
      })}
    </div>
  );
}
