// What exactly to measure and where, for every method; the entry to type is yellow.
import { AboveDrawing } from './above';
import { FrontDrawing } from './front';
import { H, W, type Shown } from './kit';
import { SideDrawing } from './sideways';

export type { Shown } from './kit';

const above = [
  'sweep',
  'toe_tape',
  'toe_scribed',
  'toe_rim',
  'toe_bars',
  'toe_plates',
  'toe_string',
  'toe_gauge',
  'diagonal',
  'setback',
  'thrust',
];
const front = ['gauge_hub', 'gauge_bar', 'plumb', 'laser', 'gap', 'calliper', 'form', 'runout', 'dial'];

export function MeasureDrawing({ shown, label }: { shown: Shown; label: string }) {
  const body = above.includes(shown.drawing) ? (
    <AboveDrawing s={shown} />
  ) : front.includes(shown.drawing) ? (
    <FrontDrawing s={shown} />
  ) : (
    <SideDrawing s={shown} />
  );
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      width="100%"
      height="100%"
      role="img"
      aria-label={label}
      data-testid="measure-drawing"
      data-drawing={shown.drawing}
    >
      {body}
    </svg>
  );
}
