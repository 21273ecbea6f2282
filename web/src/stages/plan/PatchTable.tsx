// How each tyre of an axle stands on the road in one bend, one row for each setting that is compared: outside, inside, straight.
import { HowTo } from '../../ui/HowTo';
import type { AxleName, Schemas } from '../../api/client';
import { Patch } from '../../figures/Patch';
import { useSettings } from '../../ui/settings';
import { angle, num } from '../../units/print';

interface Props {
  axle: AxleName;
  /** What each row is called on screen, and how a reader begins. */
  rows: { name: React.ReactNode; label: string; patches: Schemas['AxlePatches'] }[];
  stale: boolean;
  testid: string;
}

export function PatchTable({ axle, rows, stale, testid }: Props) {
  const { form } = useSettings();
  const every = rows.flatMap(({ patches: p }) => [p.straight, p.outside, p.inside]).flatMap((f) => f.strips);
  const longest = Math.max(1, ...every.map((s) => s.length_mm));
  const hardest = Math.max(1, ...every.map((s) => s.pressure_kpa));
  return (
    <div className={`drawn ${stale ? 'stale-block' : ''}`} data-testid={testid}>
      <HowTo of="patch" />
      <div className="patch-row patch-head" aria-hidden="true">
        <span />
        <span>outside</span>
        <span>inside</span>
        <span>straight</span>
      </div>
      {rows.map(({ name, label, patches: p }, i) => (
        <div key={i} className="patch-row">
          <b>{name}</b>
          {(['outside', 'inside', 'straight'] as const).map((k) => (
            <figure key={k}>
              <Patch
                patch={p[k]}
                innerOn={k === 'inside' ? 'left' : 'right'}
                longest={longest}
                hardest={hardest}
                label={`${label}, ${k === 'straight' ? 'straight ahead' : `${k} the bend`}`}
              />
              <figcaption>
                {angle(p[k].camber_deg, form)} · {Math.round(100 * p[k].thirds[0]!)}/
                {Math.round(100 * p[k].thirds[1]!)}/{Math.round(100 * p[k].thirds[2]!)} %
                {p[k].touching < 1 && <span>, {num(100 * p[k].touching)} % on the road</span>}
              </figcaption>
            </figure>
          ))}
        </div>
      ))}
      <p className="small">
        {axle === 'front' ? 'Front' : 'Rear'} tyres from above in a left bend, nose up. Camber against the
        road, and the load on inner, middle and outer third: brighter is pressed harder. The tyre model has
        met no measured tyre.
      </p>
    </div>
  );
}
