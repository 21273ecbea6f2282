// A wheel measured moving, as it is typed: heights and angles in the shop's notation, and the document they make.
import type { Schemas, SideName } from '../../api/client';
import { readAngle, readLength } from '../../units/notation';
import { MM_PER_INCH, type LengthUnit } from '../../units/print';

export type Moving = Schemas['Moving'];
export type Column = 'height' | 'camber' | 'toe' | 'caster';
/** One height as typed; `sigma` of what was read on the pad. */
export interface MovingRow {
  height: string;
  camber: string;
  toe: string;
  caster: string;
  sigma?: Partial<Record<'camber' | 'toe' | 'caster', number>>;
}
export interface MovingTexts {
  side: SideName;
  rows: MovingRow[];
}

export const MOST = 7;
export const FEWEST = 3;

const empty = (): MovingRow => ({ height: '', camber: '', toe: '', caster: '' });
export const noRows = (): MovingTexts => ({ side: 'left', rows: Array.from({ length: FEWEST }, empty) });

const shown = (mm: number, unit: LengthUnit) =>
  String(Math.round((unit === 'mm' ? mm : mm / MM_PER_INCH) * 1000) / 1000);
const degrees = (v: number | null | undefined) => (v == null ? '' : String(Math.round(v * 1000) / 1000));

function sigmaOf(told: Moving['rows'][number]['sigma']): MovingRow['sigma'] {
  const known = Object.entries({
    camber: told?.camber_deg,
    toe: told?.toe_deg,
    caster: told?.caster_deg,
  }).filter(([, v]) => v != null);
  return known.length ? Object.fromEntries(known) : undefined;
}

/** What was kept, as it would be typed. */
export function movingTexts(m: Moving | null | undefined, unit: LengthUnit): MovingTexts {
  if (!m) return noRows();
  const rows = m.rows.map((r): MovingRow => ({
    height: shown(r.height_mm, unit),
    camber: degrees(r.camber_deg),
    toe: degrees(r.toe_deg),
    caster: degrees(r.caster_deg),
    sigma: sigmaOf(r.sigma),
  }));
  while (rows.length < FEWEST) rows.push(empty());
  return { side: m.side, rows };
}

/** The same with a cell typed over; what is typed by hand has the doubt of its kind. */
export function typed(t: MovingTexts, i: number, column: Column, text: string, sigma?: number): MovingTexts {
  const rows = t.rows.map((r, k) => {
    if (k !== i) return r;
    const { [column as 'camber']: _, ...rest } = r.sigma ?? {};
    return { ...r, [column]: text, sigma: sigma === undefined ? rest : { ...rest, [column]: sigma } };
  });
  return { ...t, rows };
}

export const more = (t: MovingTexts): MovingTexts =>
  t.rows.length < MOST ? { ...t, rows: [...t.rows, empty()] } : t;

const isEmpty = (r: MovingRow) => ![r.height, r.camber, r.toe, r.caster].some((x) => x.trim());

/** The document of what was typed, rows with nothing in them left out, and every cell that cannot be read. */
export function movingOf(
  t: MovingTexts,
  unit: LengthUnit,
  steers: boolean,
): { moving: Moving | null; bad: Record<string, string> } {
  const bad: Record<string, string> = {};
  const rows: Moving['rows'] = [];
  t.rows.forEach((r, i) => {
    if (isEmpty(r)) return;
    const of = (c: Column, read: (x: string) => number | undefined) => {
      const text = r[c].trim();
      if (!text) return null;
      const v = read(text);
      if (v === undefined) bad[`${i}.${c}`] = c === 'height' ? 'no length' : 'no angle';
      return v ?? null;
    };
    const height = of('height', (x) => readLength(x, unit));
    if (height === null && !bad[`${i}.height`]) bad[`${i}.height`] = 'at which height?';
    const camber = of('camber', readAngle);
    const toe = of('toe', readAngle);
    const caster = steers ? of('caster', readAngle) : null;
    if (camber === null && toe === null && caster === null && !bad[`${i}.camber`] && !bad[`${i}.toe`])
      bad[`${i}.camber`] = 'nothing read here';
    rows.push({
      height_mm: height ?? 0,
      camber_deg: camber,
      toe_deg: toe,
      caster_deg: caster,
      // Of what was typed by hand none is known: the usual one is the core's.
      sigma: {
        camber_deg: r.sigma?.camber ?? null,
        toe_deg: r.sigma?.toe ?? null,
        caster_deg: r.sigma?.caster ?? null,
      },
    });
  });
  return { moving: rows.length ? { side: t.side, rows } : null, bad };
}

/** Heights typed in one unit, as they are in another; what cannot be read stays. */
export function inUnit(t: MovingTexts, was: LengthUnit, now: LengthUnit): MovingTexts {
  if (was === now) return t;
  return {
    ...t,
    rows: t.rows.map((r) => {
      const mm = readLength(r.height, was);
      return mm === undefined ? r : { ...r, height: shown(mm, now) };
    }),
  };
}
