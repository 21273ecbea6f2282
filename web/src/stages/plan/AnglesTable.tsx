// The text twin of the map and the joint view: every figure of both sides.
import type { PlanResult } from '../../api/client';
import { Half } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { angle, length } from '../../units/print';

/** What only a steering axis has: a rear wheel has none of it. */
const axisOnly = ['caster_deg', 'sai_deg', 'scrub_radius_mm', 'mechanical_trail_mm'];

export function AnglesTable({ result, steered }: { result: PlanResult; steered: boolean }) {
  const { form, unit } = useSettings();
  const rows: [
    string,
    (
      | 'camber_deg'
      | 'caster_deg'
      | 'toe_deg'
      | 'sai_deg'
      | 'scrub_radius_mm'
      | 'mechanical_trail_mm'
      | 'half_track_mm'
    ),
  ][] = [
    ['Camber', 'camber_deg'],
    ['Caster', 'caster_deg'],
    ['Toe, one wheel', 'toe_deg'],
    ['Axis lean (SAI)', 'sai_deg'],
    ['Scrub', 'scrub_radius_mm'],
    ['Trail', 'mechanical_trail_mm'],
    ['Half track', 'half_track_mm'],
  ];
  const show = (k: string, v: number) =>
    k.endsWith('_deg') ? angle(v, form, k === 'toe_deg' ? 2 : 1) : length(v, unit);
  return (
    <div style={{ padding: '8px 16px', overflow: 'auto', flex: 1 }}>
      <table className="figures" data-testid="angles">
        <thead>
          <tr>
            <th />
            {(['left', 'right'] as const).map((s) => (
              <th key={s} colSpan={3} scope="colgroup">
                <span className="word">
                  <Half side={s} /> {s}
                </span>
              </th>
            ))}
          </tr>
          <tr>
            <th />
            {['found', 'lifted', 'set', 'found', 'lifted', 'set'].map((h, i) => (
              <th key={i} scope="col">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows
            .filter(([, k]) => steered || !axisOnly.includes(k))
            .map(([label, k]) => (
              <tr key={k}>
                <th scope="row">{label}</th>
                {(['left', 'right'] as const).flatMap((s) =>
                  (['before', 'after', 'set'] as const).map((w) => (
                    <td key={s + w}>{show(k, result[s][w][k])}</td>
                  )),
                )}
              </tr>
            ))}
        </tbody>
      </table>
    </div>
  );
}
