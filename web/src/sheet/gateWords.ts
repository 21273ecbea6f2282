// What a gate found, in words with the units in use: side first, what was read, by how much it is off, what was expected.
import type { AxleName, Schemas, SideName } from '../api/client';
import { angle, length, type AngleForm, type LengthUnit } from '../units/print';

type Finding = Schemas['GateFinding'];
type Need = Schemas['GateNeed'];

/** Where a reading that a gate waits for is taken; no side for what is one of the axle. */
export interface Cell {
  axle: AxleName;
  side: SideName | undefined;
  quantity: Need['quantity'];
}

/** Every reading of a gate: one of each wheel or side, one of an axle that stands central. */
export const cellsOf = (needs: Need[]): Cell[] =>
  needs.flatMap(({ axle, quantity }): Cell[] =>
    quantity === 'centre'
      ? [{ axle, side: undefined, quantity }]
      : [
          { axle, side: 'left', quantity },
          { axle, side: 'right', quantity },
        ],
  );

/** How far an axle stands off the middle, with its side: what is read is how far it has to go to the left. */
const offMiddle = (mm: number, unit: LengthUnit) =>
  Math.abs(mm) < 0.05
    ? `${length(0, unit)} off`
    : `${length(Math.abs(mm), unit)} too far ${mm > 0 ? 'right' : 'left'}`;

/** A gate's reading with its unit. */
export function cellRead(q: Need['quantity'], value: number, unit: LengthUnit, form: AngleForm): string {
  if (q === 'centre') return offMiddle(value, unit);
  if (q === 'height' || q === 'wheelbase') return length(value, unit);
  return angle(value, form, q === 'toe' ? 2 : 1);
}

/** What a cell is called beside its side: the axle where it could be either, never at what belongs to a side of the car. */
export function cellName(c: Cell, axles: boolean): string {
  const axle = (axles && c.quantity !== 'wheelbase') || !c.side ? `${c.axle} ` : '';
  return `${axle}${c.side ? c.quantity : 'axle centre'}`;
}

const names: Record<Finding['about'], string> = {
  height: 'height',
  height_apart: 'Heights, left to right',
  camber: 'camber',
  caster: 'caster',
  toe: 'toe',
  total_toe: 'Total toe',
  cross_camber: 'Camber, left to right',
  cross_caster: 'Caster, left to right',
  askew: 'Wheelbases, left to right',
  off_centre: 'axle',
  foul: 'fouls',
};

const isLength = (f: Finding) => ['height', 'height_apart', 'askew'].includes(f.about);

export function findingWords(f: Finding, unit: LengthUnit, form: AngleForm): string {
  const axle = f.axle ? `${f.axle} ` : '';
  const side = f.side
    ? `${f.side === 'left' ? 'Left' : 'Right'} ${axle}`
    : axle
      ? `${f.axle === 'front' ? 'Front: ' : 'Rear: '}`
      : '';
  if (f.about === 'foul') return `${side.trim().replace(/:$/, '')}: ${f.what ?? 'something meets something'}`;
  const digits = f.about === 'toe' || f.about === 'total_toe' ? 2 : 1;
  // A miss smaller than the last digit shown gets one more.
  const show = (v: number) =>
    isLength(f)
      ? length(v, unit)
      : angle(v, form, Math.abs(v) < 0.1 && v !== 0 ? Math.max(2, digits) : digits);
  const what = f.stale
    ? `${side}${names[f.about]} was read before the last work: read it again`
    : f.about === 'off_centre'
      ? `${side}${names[f.about]} ${offMiddle(f.read, unit)}`
      : `${side}${names[f.about]} ${show(f.read)}`;
  if (f.about === 'off_centre') return what;
  const said: string[] = [];
  if (f.off_aim !== 0 && f.aim)
    said.push(
      `${show(Math.abs(f.off_aim))} ${f.off_aim < 0 ? 'under' : 'over'} the aim ${show(f.aim[0]!)} to ${show(f.aim[1]!)}`,
    );
  if (f.expected !== null && f.expected !== undefined && (f.off_expected !== 0 || f.off_aim !== 0))
    said.push(`expected ${show(f.expected)}${f.band > 0 ? ` ±${show(f.band).replace(/^[+−]/, '')}` : ''}`);
  return said.length ? `${what}: ${said.join(', ')}` : what;
}
