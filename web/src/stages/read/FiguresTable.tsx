// The same figures as a table: value, doubt, age, method, and why one no longer holds.
import { Bare } from '../../ui/Press';
import { Glyph, Half } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { angle, length } from '../../units/print';
import {
  ago,
  doubt,
  short,
  show,
  type Figure,
  type Method,
  type Quantity,
  type Target,
  type VisitView,
} from '../../pad/readings';

const rows: Quantity[] = ['height', 'camber', 'caster', 'toe'];
const titles: Record<string, string> = {
  found: 'before',
  settled: 'after height',
  reswept: 'after cams',
  proved: 'after setting',
  returned: 'return',
};

export function FiguresTable({
  view,
  open,
  methods,
}: {
  view: VisitView;
  open: (t: Target) => void;
  methods: Method[];
}) {
  const { unit, form, units } = useSettings();
  const cell = (q: Quantity, axle: 'front' | 'rear', side: 'left' | 'right') => {
    if (q === 'caster' && axle === 'rear') return <td key={axle + side} className="none" />;
    const f: Figure | undefined = view.picture.current.find(
      (x) => x.quantity === q && x.place.axle === axle && x.place.side === side,
    );
    const name = `${q}-${axle}-${side}`;
    return (
      <td key={name}>
        <Bare
          className="figure"
          onClick={() => open({ quantity: q, place: { axle, side } })}
          title={f ? methods.find((m) => m.id === f.method)?.title : undefined}
        >
          {f ? (
            <>
              <span className="fig" data-testid={`value-${name}`}>
                {show(q, f.value, units)}
              </span>
              <span className="small mut">
                {doubt(q, f.sigma, units)} · {ago(f.at)}
                {f.visit !== view.kind ? `, ${titles[f.visit]}` : ''}
                {f.shared ? ', half of both' : ''}
              </span>
              {f.stale && (
                <span className="small stale" data-testid={`stale-${name}`}>
                  <Glyph name="stale" size={13} /> {f.stale}
                </span>
              )}
            </>
          ) : (
            <span className="small mut">
              <Glyph name="unread" size={13} /> not read
            </span>
          )}
        </Bare>
      </td>
    );
  };
  const wheels = [
    ['front', 'left'],
    ['front', 'right'],
    ['rear', 'left'],
    ['rear', 'right'],
  ] as const;
  return (
    <div className="figures-wrap">
      <table className="state">
        <thead>
          <tr>
            <th />
            {wheels.map(([a, s]) => (
              <th key={a + s}>
                <span className="word small">
                  <Half side={s} size={16} /> {s} {a}
                </span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((q) => (
            <tr key={q}>
              <th scope="row">{short[q]}</th>
              {wheels.map(([a, s]) => cell(q, a, s))}
            </tr>
          ))}
        </tbody>
      </table>
      <div className="derived">
        {view.picture.derived.map((d) => (
          <span key={d.id} data-testid={`derived-${d.id}`}>
            <span className="small mut">{d.label}</span>
            <b className="fig">
              {d.stale && <Glyph name="stale" size={14} />}{' '}
              {d.is_angle
                ? angle(d.value, form, d.id.includes('toe') || d.id === 'thrust' ? 2 : 1)
                : length(d.value, unit)}
            </b>
            <span className="small">
              {doubt(d.is_angle ? 'camber' : 'height', d.sigma, units)}{' '}
              {Math.abs(d.value) < 0.005 ? '' : d.words}
            </span>
          </span>
        ))}
      </div>
    </div>
  );
}
