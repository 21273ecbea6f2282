// What a gate found, in words with the units in use: side first, what was read, by how much it is off, what was expected.
import type { Schemas } from '../api/client';
import { angle, length, type AngleForm, type LengthUnit } from '../units/print';

type Finding = Schemas['GateFinding'];

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
    : `${side}${names[f.about]} ${show(f.read)}`;
  const said: string[] = [];
  if (f.off_aim !== 0 && f.aim)
    said.push(
      `${show(Math.abs(f.off_aim))} ${f.off_aim < 0 ? 'under' : 'over'} the aim ${show(f.aim[0]!)} to ${show(f.aim[1]!)}`,
    );
  if (f.expected !== null && f.expected !== undefined && (f.off_expected !== 0 || f.off_aim !== 0))
    said.push(`expected ${show(f.expected)}${f.band > 0 ? ` ±${show(f.band).replace(/^[+−]/, '')}` : ''}`);
  return said.length ? `${what}: ${said.join(', ')}` : what;
}
