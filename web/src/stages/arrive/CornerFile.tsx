// Corner file: every whole-car quantity of the job, as it came and as planned, with what it means.
import { HowTo } from '../../ui/HowTo';
import { ChipButton, Plain } from '../../ui/Press';
import { cornerFile } from '../../api/calls';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { Curve, type Line } from '../../figures/Curve';
import { Glyph, Half } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { partOf, useBench } from '../../shell/ticket';
import { angle, inches, lengthChange, num, tick, type AngleForm, type LengthUnit } from '../../units/print';
import { useLive } from '../../api/live';

type File = Schemas['CornerFile'];
type AxleCurves = NonNullable<File['curves']['front']>;
type Item = Schemas['CornerQuantity'];
type Area = Schemas['Area'];

const areas: [Area, string][] = [
  ['front', 'Front axle over height'],
  ['steering', 'Steering'],
  ['rear', 'Rear axle over height'],
  ['car', 'The whole car'],
];

function print(q: Item, v: number, unit: LengthUnit, form: AngleForm): string {
  if (q.unit === '°') return angle(v, form, q.digits);
  if (q.unit === 'mm' && unit === 'in') return `${num(v / 25.4, 2)} in`;
  return `${num(v, q.digits)} ${q.unit}`;
}

export default function CornerFile() {
  const { ticket, draft, input } = useBench();
  const { unit, form } = useSettings();
  const [open, setOpen] = useState<string>();
  const [only, setOnly] = useState(false);
  const body = ticket.corner_file;
  const asked = useMemo(() => ({ file: body, car: input ?? null }), [body, input]);
  const live = useLive('corner-file', asked, cornerFile);
  const file = live.data;
  if (!file)
    return (
      <main className="main" style={{ padding: 24 }}>
        <section className="pane" style={{ padding: 20 }}>
          <h1>Corner file</h1>
          <p style={{ marginTop: 10 }}>
            {live.fault
              ? `${live.fault.problems[0]?.field ?? 'car'}: ${live.fault.problems[0]?.wrong ?? live.fault.message}`
              : 'Working the car out…'}
          </p>
          {live.fault && (
            <p style={{ marginTop: 12 }}>
              <Link to="../arrive">Back to the points</Link>
            </p>
          )}
        </section>
      </main>
    );
  const outside = file.quantities.filter((q) => q.outside);
  const shown = only ? outside : file.quantities;
  const picked = file.quantities.find((q) => q.id === open) ?? outside[0] ?? file.quantities[0];
  const planned = draft && {
    front_mm: partOf(draft, 'front').height_change_mm,
    rear_mm: partOf(draft, 'rear').height_change_mm,
  };
  const moves = planned && (planned.front_mm !== 0 || planned.rear_mm !== 0);
  return (
    <main className="main corner-main" style={{ opacity: live.stale ? 0.8 : 1 }}>
      <section className="pane corner-head" data-pane="Summary" aria-label="Summary">
        <h1 data-testid="corner-headline">
          {outside.length === 0
            ? 'Nothing is out of the usual'
            : `${outside.length} ${outside.length === 1 ? 'figure' : 'figures'} out of the usual`}
        </h1>
        <span className="small mut" style={{ maxWidth: 420 }}>
          {moves
            ? `As it came against planned: front ${lengthChange(planned.front_mm, unit)}, rear ${lengthChange(planned.rear_mm, unit)}.`
            : 'As it came. Plan another height and both stand here.'}{' '}
          Usual ranges are common practice, not limits.
        </span>
        <ChipButton
          style={{ marginLeft: 'auto' }}
          aria-pressed={only}
          onClick={() => setOnly((v) => !v)}
          data-testid="only-outside"
        >
          {only ? 'Show all' : 'Only the unusual'}
        </ChipButton>
        {file.watch.map((w) => (
          <span
            key={w}
            className="plate"
            style={{ fontSize: 15, flexBasis: '100%' }}
            data-testid="corner-watch"
          >
            <Glyph name="watch" size={16} /> {w}
          </span>
        ))}
      </section>
      <section className="pane corner-list" data-pane="Quantities" aria-label="Quantities">
        {areas.map(([area, title]) => {
          const list = shown.filter((q) => q.area === area);
          if (!list.length) return null;
          return (
            <div key={area}>
              <div className="corner-row" style={{ cursor: 'default', border: 0, paddingTop: 16 }}>
                <h2>{title}</h2>
                <span className="lab" style={{ textAlign: 'right' }}>
                  as it came
                </span>
                <span className="lab" style={{ textAlign: 'right' }}>
                  planned
                </span>
                <span className="lab usual" style={{ textAlign: 'right' }}>
                  usual
                </span>
              </div>
              {list.map((q) => (
                <Plain
                  key={q.id}
                  className={`corner-row ${q.id === picked?.id ? 'on' : ''}`}
                  aria-pressed={q.id === picked?.id}
                  onClick={() => setOpen(q.id)}
                  data-testid={`quantity-${q.id}`}
                >
                  <b>{q.label}</b>
                  <span className="fig" style={{ fontSize: 21, fontWeight: 600 }}>
                    {print(q, q.arrived, unit, form)}
                  </span>
                  <span className="fig" style={{ fontSize: 26 }} data-testid={`planned-${q.id}`}>
                    {q.planned == null || !moves ? '–' : print(q, q.planned, unit, form)}
                  </span>
                  <span className="fig mut usual" style={{ fontSize: 18, fontWeight: 600 }}>
                    {print(q, q.usual[0]!, unit, form).replace(/ (mm|in|%|N m)$/, '')} to{' '}
                    {print(q, q.usual[1]!, unit, form)}
                  </span>
                  <span className="means small">{q.means}</span>
                  {q.caution && (
                    <span className="heed word small" style={{ whiteSpace: 'normal' }}>
                      <Glyph name="watch" size={16} /> Out of the usual. {q.caution}
                    </span>
                  )}
                </Plain>
              ))}
            </div>
          );
        })}
      </section>
      <section
        className="pane corner-side"
        data-pane="Curves"
        aria-label="Curves, heights and construction"
        tabIndex={0}
      >
        <HowTo of="travel" />
        {picked && <Curves file={file} q={picked} body={{ arrived: body.arrived!, planned }} />}
        <States file={file} unit={unit} form={form} />
        <Construction file={file} unit={unit} />
        <p className="small mut" style={{ padding: '10px 16px 18px' }}>
          Computed from the points and facts in Arrive. It certifies nothing: headlights, camera aim and the
          maker’s limits are checked on the car.
        </p>
      </section>
    </main>
  );
}

interface Heights {
  arrived: Schemas['Gains'];
  planned: { front_mm: number; rear_mm: number } | undefined;
}

/** The curve that shows a quantity, or the nearest one. */
function Curves({ file, q, body }: { file: File; q: Item; body: Heights }) {
  const { units } = useSettings();
  const rear = q.area === 'rear';
  const curves = rear && file.curves.rear ? file.curves.rear : file.curves.front;
  const mean = (a: number, b: number) => (a + b) / 2;
  const came = rear
    ? mean(body.arrived.left_rear, body.arrived.right_rear)
    : mean(body.arrived.left_front, body.arrived.right_front);
  const gain = body.planned ? (rear ? body.planned.rear_mm : body.planned.front_mm) : undefined;
  const planned = gain === undefined || gain === 0 ? undefined : came + gain;
  const set = file.set_curves[rear ? 'rear' : 'front'] ?? undefined;
  type Of = (p: Schemas['HeightPoint']) => number | null | undefined;
  const lines = (from: AxleCurves | null, f: Of): Line[] =>
    (['left', 'right'] as const).map((side) => ({
      points: (from?.[side] ?? []).flatMap((p): [number, number][] => {
        const v = f(p);
        return v === null || v === undefined ? [] : [[p.height_mm, v]];
      }),
      color: `var(--${side})`,
      ...(side === 'right' ? { dash: '8 4' } : {}),
    }));
  const over = (f: Of) => ({ lines: lines(curves, f), set: set && lines(set, f) });
  const leftOver = (f: Of) => ({
    lines: lines(curves, f).slice(0, 1),
    set: set && lines(set, f).slice(0, 1),
  });
  const turn = (f: (p: Schemas['SteerPoint']) => number): [number, number][] =>
    file.steer.map((p) => [p.turn_deg, f(p)]);
  const live = (f: (p: Schemas['LivePoint']) => number | null | undefined): Line[] => [
    {
      points: file.live.flatMap((p): [number, number][] => {
        const v = f(p);
        return v === null || v === undefined ? [] : [[p.height_mm, v]];
      }),
      color: 'var(--ink)',
    },
  ];
  const height = `body height over design, ${units.length}`;
  const steering = 'mean turn of both wheels, degrees';
  const marks = { came, planned };
  const chart = () => {
    switch (q.id) {
      case 'front_roll_centre':
      case 'rear_roll_centre':
        return (
          <Curve
            title="Roll centre"
            unit="mm"
            digits={0}
            {...leftOver((p) => p.roll_centre_mm)}
            xLabel={height}
            overHeight
            units={units}
            usual={q.usual as [number, number]}
            {...marks}
          />
        );
      case 'bump_steer':
      case 'rear_bump_steer':
        return (
          <Curve
            title="Toe against design"
            unit="°"
            digits={2}
            {...over((p) => p.toe_change_deg)}
            xLabel={height}
            overHeight
            units={units}
            {...marks}
          />
        );
      case 'bump_scrub':
      case 'rear_bump_scrub':
      case 'front_track_change':
      case 'rear_track_change':
        return (
          <Curve
            title="Tyre sideways"
            unit="mm"
            digits={1}
            {...over((p) => p.scrub_mm)}
            xLabel={height}
            overHeight
            units={units}
            {...marks}
          />
        );
      case 'ackermann':
      case 'turning_scrub':
        return (
          <Curve
            title="Inner wheel"
            unit="°"
            digits={1}
            signedX={false}
            xLabel={steering}
            units={units}
            lines={[
              { points: turn((p) => p.inner_deg), color: 'var(--left)', name: 'inner, as it is' },
              {
                points: turn((p) => p.ideal_inner_deg),
                color: 'var(--aim)',
                dash: '8 4',
                name: 'rolling freely',
              },
            ]}
          />
        );
      case 'lock_inner_camber':
      case 'lock_outer_camber':
      case 'sai':
        return (
          <Curve
            title="Camber turning left"
            unit="°"
            digits={1}
            signedX={false}
            xLabel={steering}
            units={units}
            lines={[
              { points: turn((p) => p.inner_camber_deg), color: 'var(--left)', name: 'inner' },
              { points: turn((p) => p.outer_camber_deg), color: 'var(--right)', dash: '8 4', name: 'outer' },
            ]}
          />
        );
      case 'lock_lift':
      case 'lock_forward':
        return (
          <Curve
            title="Body lift, inner wheel"
            unit="mm"
            digits={1}
            signedX={false}
            xLabel={steering}
            units={units}
            lines={[{ points: turn((p) => p.inner_lift_mm), color: 'var(--left)' }]}
          />
        );
      case 'axle_shift':
        return (
          <Curve
            title="Axle to the left"
            unit="mm"
            digits={1}
            lines={live((p) => p.lateral_shift_mm)}
            xLabel={height}
            overHeight
            units={units}
            {...marks}
          />
        );
      case 'axle_pitch':
        return (
          <Curve
            title="Axle, nose down"
            unit="°"
            digits={1}
            lines={live((p) => p.pitch_deg)}
            xLabel={height}
            overHeight
            units={units}
            {...marks}
          />
        );
      case 'steering_wheel':
        return (
          <Curve
            title="Steering wheel, right"
            unit="°"
            digits={0}
            lines={live((p) => p.steering_wheel_deg)}
            xLabel={height}
            overHeight
            units={units}
            {...marks}
          />
        );
      case 'caster':
      case 'trail':
      case 'scrub_radius':
        return (
          <Curve
            title="Caster to the body"
            unit="°"
            digits={1}
            {...over((p) => p.caster_deg)}
            xLabel={height}
            overHeight
            units={units}
            {...marks}
          />
        );
      case 'wheelbase':
      case 'anti_dive':
      case 'anti_lift':
      case 'anti_squat':
        return (
          <Curve
            title="Wheel forward"
            unit="mm"
            digits={1}
            {...over((p) => p.wheel_x_mm)}
            xLabel={height}
            overHeight
            units={units}
            {...marks}
          />
        );
      default:
        return (
          <Curve
            title="Camber to the body"
            unit="°"
            digits={2}
            {...over((p) => p.camber_deg)}
            xLabel={height}
            overHeight
            units={units}
            {...marks}
          />
        );
    }
  };
  const sided = ![
    'ackermann',
    'turning_scrub',
    'lock_inner_camber',
    'lock_outer_camber',
    'sai',
    'lock_lift',
    'lock_forward',
    'axle_shift',
    'axle_pitch',
    'steering_wheel',
    'front_roll_centre',
    'rear_roll_centre',
  ].includes(q.id);
  return (
    <div style={{ padding: '12px 16px 4px' }} data-testid="corner-curve">
      <p className="small mut" style={{ display: 'flex', gap: 14, flexWrap: 'wrap' }}>
        <b style={{ color: 'var(--ink)' }}>{q.label}</b>
        {sided && (
          <>
            <span className="word small">
              <Half side="left" size={14} /> left, solid
            </span>
            <span className="word small">
              <Half side="right" size={14} /> right, dashed
            </span>
          </>
        )}
        <span>■ came · ◆ planned{set ? ', dotted' : ''}</span>
      </p>
      {chart()}
    </div>
  );
}

function States({ file, unit, form }: { file: File; unit: LengthUnit; form: AngleForm }) {
  const rear = file.states[0]?.wheels.some((w) => w.axle === 'rear');
  const cell = (row: File['states'][number], axle: 'front' | 'rear', side: 'left' | 'right') =>
    row.wheels.find((w) => w.axle === axle && w.side === side);
  const cols = [
    ['front', 'left'],
    ['front', 'right'],
    ...(rear
      ? [
          ['rear', 'left'],
          ['rear', 'right'],
        ]
      : []),
  ] as ['front' | 'rear', 'left' | 'right'][];
  const len = (mm: number) => {
    const t = unit === 'mm' ? num(mm) : inches(mm);
    return mm > 0 && t !== '0' ? `+${t}` : t;
  };
  return (
    <div style={{ padding: '8px 16px', overflowX: 'auto' }}>
      <h3 style={{ margin: '6px 0' }}>At every height it stands at</h3>
      <table className="figures" data-testid="states">
        <thead>
          <tr>
            <th />
            <th>body</th>
            {cols.map(([a, s]) => (
              <th key={a + s}>
                <span className="word small" style={{ gap: 4 }}>
                  <Half side={s} size={13} />
                  {a}
                </span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {file.states.map((row) => (
            <tr key={row.name}>
              <th scope="row">
                {row.name}
                {row.band_mm > 0 && (
                  <span className="small">
                    {' '}
                    ±{unit === 'mm' ? `${num(row.band_mm)} mm` : `${inches(row.band_mm)} in`}
                  </span>
                )}
              </th>
              <td style={{ fontSize: 18 }}>
                <div>{len(row.gains.left_front)}</div>
                {rear && <div>{len(row.gains.left_rear)}</div>}
              </td>
              {cols.map(([a, s]) => {
                const w = cell(row, a, s);
                if (!w?.wheel)
                  return (
                    <td key={a + s}>
                      <span className="word small">
                        <Glyph name="short" size={14} /> past travel
                      </span>
                    </td>
                  );
                const d = w.doubt;
                const half = (v: number | undefined, n: number) =>
                  v === undefined ? null : (
                    <span className="small">
                      {' '}
                      ±{form === 'minutes' ? tick(Math.round(v * 60) / 60, form, n) : num(v, n)}
                    </span>
                  );
                return (
                  <td key={a + s}>
                    {angle(w.wheel.camber_deg, form, 1)}
                    {half(d?.camber_deg, 1)}
                    <div style={{ fontSize: 16, fontWeight: 600, color: 'var(--ink2)' }}>
                      toe {angle(w.wheel.toe_deg, form, 2)}
                      {half(d?.toe_deg, 2)}
                    </div>
                    {w.wheel.steer && a === 'front' && (
                      <div style={{ fontSize: 16, fontWeight: 600, color: 'var(--ink2)' }}>
                        caster {angle(w.wheel.steer.caster_deg, form)}
                        {half(d?.caster_deg, 1)}
                      </div>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="small mut" style={{ marginTop: 6 }}>
        Camber large, toe and caster below it, over the ground, before anything is set; ± holds nine cars in
        ten. Body{rear ? ', front above rear' : ''}: {unit} against as it came.
      </p>
    </div>
  );
}

function Construction({ file, unit }: { file: File; unit: LengthUnit }) {
  const { form } = useSettings();
  const left = (mm: number) => (unit === 'mm' ? `${num(mm, 1)} mm` : `${num(mm / 25.4, 3)} in`);
  const a = file.aids;
  const len = (mm: number) => (unit === 'mm' ? `${num(mm)}` : num(mm / 25.4, 2));
  const at = (p: number[]) => `out ${len(p[0]!)}, up ${len(p[1]!)}`;
  const rows: [string, string, string, string, string][] = [];
  if (a.upper_pivot) {
    const p = a.upper_pivot;
    rows.push(
      ['Upper pivot, no bump scrub', 'now', at(p.now), left(p.scrub_now_mm), ''],
      ['', 'bisector', at(p.bisector), left(p.scrub_bisector_mm), ''],
      ['', 'exact', at(p.exact), left(p.scrub_exact_mm), `arm ${len(p.arm_mm)}`],
    );
  }
  if (a.tie_rod) {
    const p = a.tie_rod;
    rows.push(
      ['Inner tie rod, no bump steer', 'now', at(p.now), angle(p.steer_now_deg, form, 2), ''],
      ['', 'bisector', at(p.bisector), angle(p.steer_bisector_deg, form, 2), ''],
      ['', 'exact', at(p.exact), angle(p.steer_exact_deg, form, 2), `rod ${len(p.length_mm)}`],
      ['', 'height only', at([p.now[0]!, p.height_only]), angle(p.steer_height_deg, form, 2), ''],
    );
  }
  if (a.ackermann) {
    const p = a.ackermann;
    rows.push(
      ['Outer tie rod, Ackermann', 'now', `out ${len(p.now_y)}`, angle(p.error_now_deg, form, 1), ''],
      ['', 'construction', `out ${len(p.construction_y)}`, angle(p.error_construction_deg, form, 1), ''],
      ['', 'exact', `out ${len(p.exact_y)}`, angle(p.error_exact_deg, form, 1), ''],
    );
  }
  if (!rows.length) return null;
  return (
    <div style={{ padding: '8px 16px', overflowX: 'auto' }}>
      <h3 style={{ margin: '6px 0' }}>For arms made here, front left</h3>
      <table className="figures aids" data-testid="aids">
        <thead>
          <tr>
            <th />
            <th style={{ textAlign: 'left' }}>by</th>
            <th style={{ textAlign: 'left' }}>place, {unit}</th>
            <th>left over</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {rows.map((r, i) => (
            <tr key={i}>
              <th scope="row">{r[0]}</th>
              <td style={{ textAlign: 'left', fontSize: 18 }}>{r[1]}</td>
              <td style={{ textAlign: 'left' }}>{r[2]}</td>
              <td>{r[3]}</td>
              <td style={{ fontSize: 18 }}>{r[4]}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="small mut" style={{ marginTop: 6 }}>
        Over ±{num(a.travel_mm)} mm of travel from design. Left over: what remains in the exact model with
        that place. Welded and cut suspension parts are for licensed inspection.
      </p>
    </div>
  );
}
