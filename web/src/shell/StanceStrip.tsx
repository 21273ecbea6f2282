// The strip: the vehicle at its heights, as found or as planned.
import { Bare } from '../ui/Press';
import { Car, Ground } from '../ui/Car';
import { halfPath, Inches } from '../ui/glyphs';
import { Link } from 'react-router';
import { Home } from './Home';
import { useKeys } from './bindings';
import { outlines } from '../ui/outlines';
import { useSettings } from '../ui/settings';
import { UnitsMenu } from './UnitsMenu';
import { axleOf, partOf, useShop, type Bench } from './ticket';
import { usePhone } from '../ui/phone';
import { angle, length, num, signed } from '../units/print';
import { StageSheet, type StageLink } from './StageSheet';

interface Props {
  bench: Bench;
  stage: string;
  /** Ways of the phone's sheet. */
  stages: StageLink[];
  keys: () => void;
}

export function StanceStrip({ bench, stage, stages, keys }: Props) {
  const { ticket, draft, answer } = bench;
  const s = useSettings();
  const phone = usePhone();
  const shop = useShop();
  useKeys({
    length: () => s.set({ unit: s.unit === 'mm' ? 'in' : 'mm' }),
    angle: () => s.set({ form: s.form === 'decimal' ? 'minutes' : 'decimal' }),
  });
  const f = ticket.vehicle.facts;
  const found = stage === 'arrive' || stage.startsWith('read') || !draft || !answer;
  // Every height and the rake are the core's: as found, as read after settling, as the plan has it.
  const was = ticket.found;
  const settled = stage === 'set' ? ticket.settled.axles : undefined;
  const settledRead = settled?.front.mm != null;
  const changed = (a: 'front' | 'rear') =>
    found ? 0 : (axleOf(answer, a)?.stop?.used_mm ?? partOf(draft, a).height_change_mm);
  const [lift, rear] = [changed('front'), changed('rear')];
  const foundMean = was.axles.front.mm ?? undefined;
  const rearFound = was.axles.rear.mm ?? f.axles.rear.height_mm;
  const front =
    (settledRead ? settled.front.mm : found ? was.axles.front.mm : answer.stands.mm.front) ?? undefined;
  const rearNow = (found ? undefined : answer.stands.mm.rear) ?? rearFound;
  const rake = found
    ? was.rake_deg
    : settledRead
      ? (ticket.settled.rake_deg ?? answer.stands.rake_deg)
      : answer.stands.rake_deg;
  const gap = settled?.front.left_over_right_mm ?? was.axles.front.left_over_right_mm ?? undefined;
  const unit = s.unit;
  const show = (mm: number) => (unit === 'mm' ? num(mm) : <Inches mm={mm} />);
  const c = outlines[f.silhouette] ?? outlines.pickup;
  const scale = c ? Math.min(0.0395, 230 / c.len) : 0.04;
  const arch = c ? c.r * 2.23 * scale : 30;
  const nose = 52;
  if (phone)
    return (
      <header className="strip">
        <Link to="/" aria-label="Bold Stance, all jobs" className="strip-car">
          <svg width="76" height="52" viewBox="0 0 76 52" aria-hidden="true">
            <Ground x0={2} x1={74} y={42} />
            <Car
              kind={f.silhouette}
              x={4}
              ground={42}
              scale={c ? Math.min(0.015, 68 / c.len) : 0.013}
              width={1.2}
            />
          </svg>
        </Link>
        <div className="strip-name">
          <b className="fig">{f.name}</b>
          <span className="small">
            front <span data-testid="strip-front">{front === undefined ? '—' : show(front)}</span> · rear{' '}
            {show(rearNow)} {unit}
          </span>
          <span className="small">
            {settledRead ? 'as set' : found ? 'as found' : 'as planned'}, hub to arch
          </span>
        </div>
        <StageSheet stages={stages} keys={keys} />
      </header>
    );
  return (
    <header className="strip">
      <Home />
      <div style={{ width: 216, flex: '0 1 216px', minWidth: 120, padding: '15px 8px 0 4px' }}>
        <div
          className="fig"
          style={{
            fontSize: 25,
            fontWeight: 750,
            whiteSpace: 'nowrap',
            overflow: 'hidden',
            textOverflow: 'ellipsis',
          }}
        >
          {f.name}
        </div>
        <div className="small tablet-up" style={{ color: 'var(--chalk2)', marginTop: 6 }}>
          {shop.data?.name}
        </div>
        <div className="small" style={{ color: 'var(--chalk2)' }}>
          Ticket {String(ticket.job.ticket).padStart(4, '0')} · {f.tyre_size}
        </div>
      </div>
      <svg
        className="tablet-up"
        width="300"
        height="100"
        viewBox="0 0 300 100"
        style={{ flex: '0 1 300px', minWidth: 0 }}
        role="img"
        aria-label={`${f.name} from its left side, ${found ? 'as found' : 'as planned, change drawn twice'}`}
      >
        <Ground x0={2} x1={292} y={86} />
        {!found && lift !== 0 && (
          <Car kind={f.silhouette} x={nose} ground={86} scale={scale} stroke="var(--ghost)" width={1} ghost />
        )}
        <Car kind={f.silhouette} x={nose} ground={86} scale={scale} front={lift * 2} rear={rear * 2} />
        <path
          d={`M${nose - 14} 86V${86 - arch - lift * 2 * scale}m-5 0h${22}`}
          stroke="var(--do)"
          strokeWidth="1.6"
          fill="none"
        />
        <text x="296" y="20" textAnchor="end" fontSize="15" fontWeight="600" fill="var(--chalk2)">
          {found ? 'as found' : settledRead ? 'as set' : 'change ×2'}
        </text>
      </svg>
      <div className="cell">
        <div className="lab">Front, hub to arch</div>
        {front === undefined ? (
          <div className="fig" style={{ color: 'var(--chalk2)' }}>
            — <small>not read</small>
          </div>
        ) : (
          <>
            <div className="fig" data-testid="strip-front">
              {show(front)}
              <small>{unit}</small>
            </div>
            <div className="small">
              {settledRead
                ? 'read after settling'
                : found
                  ? 'as found'
                  : `was ${unit === 'mm' ? num(foundMean ?? 0) : length(foundMean ?? 0, 'in')}`}
              {!found && !settledRead && lift !== 0 && (
                <b style={{ color: 'var(--do)' }}>
                  {' '}
                  {unit === 'mm' ? signed(lift) : <Inches mm={lift} sign />}
                </b>
              )}
            </div>
          </>
        )}
      </div>
      <div className="cell tablet-up">
        <div className="lab">Rear, hub to arch</div>
        <div className="fig">
          {show(rearNow)}
          <small>{unit}</small>
        </div>
        <div className="small">
          {rear
            ? `was ${unit === 'mm' ? num(rearFound) : length(rearFound, 'in')}`
            : found
              ? 'as found'
              : 'no change'}
          {rear !== 0 && (
            <b style={{ color: 'var(--do)' }}> {unit === 'mm' ? signed(rear) : <Inches mm={rear} sign />}</b>
          )}
        </div>
      </div>
      <div className="cell tablet-up">
        <div className="lab">Rake, nose down</div>
        <div className="fig">{rake == null ? '—' : angle(rake ?? 0, s.form, 1)}</div>
        <div className="small">
          {found || was.rake_deg == null ? 'arches over the floor' : `was ${angle(was.rake_deg, s.form, 1)}`}
        </div>
      </div>
      <div className="cell wide-only">
        <div className="lab">Left to right</div>
        <div style={{ display: 'flex', gap: 10, alignItems: 'center' }}>
          <svg width="40" height="44" viewBox="0 0 40 44" aria-hidden="true">
            <path d="M4 22H36" stroke="var(--slateline)" strokeWidth="1.2" />
            <path
              d={halfPath('left', 19, 22 - Math.max(-8, Math.min(8, (gap ?? 0) * 0.8)), 12)}
              fill={gap === undefined ? 'none' : 'var(--leftS)'}
              stroke="var(--leftS)"
              strokeDasharray={gap === undefined ? '3 3' : undefined}
            />
            <path
              d={halfPath('right', 21, 22 + Math.max(-8, Math.min(8, (gap ?? 0) * 0.8)), 12)}
              fill={gap === undefined ? 'none' : 'var(--rightS)'}
              stroke="var(--rightS)"
              strokeDasharray={gap === undefined ? '3 3' : undefined}
            />
          </svg>
          <div>
            <div className="fig" style={{ fontSize: 34 }}>
              {gap === undefined ? '—' : unit === 'mm' ? num(Math.abs(gap)) : <Inches mm={Math.abs(gap)} />}
              <small>{unit}</small>
            </div>
            <div className="small" style={{ marginTop: 2 }}>
              {gap === undefined
                ? 'not read'
                : Math.abs(gap) < 0.5
                  ? 'sides level'
                  : gap < 0
                    ? 'left low'
                    : 'right low'}
            </div>
          </div>
        </div>
      </div>
      <div
        className="tablet-up"
        style={{
          marginLeft: 'auto',
          padding: '0 10px 0 6px',
          display: 'flex',
          flexDirection: 'column',
          // Two of 44 px fit the strip of a tablet too.
          justifyContent: 'center',
          flex: 'none',
        }}
      >
        <Toggle
          label="Length unit"
          on={[unit === 'mm', unit === 'in']}
          names={['mm', 'in']}
          press={() => s.set({ unit: unit === 'mm' ? 'in' : 'mm' })}
        />
        <Toggle
          label="Angle form"
          on={[s.form === 'decimal', s.form === 'minutes']}
          names={[`${num(0, 1)}°`, '0°0′']}
          press={() => s.set({ form: s.form === 'decimal' ? 'minutes' : 'decimal' })}
        />
      </div>
      <div className="tablet-up" style={{ padding: '0 8px 0 0', flex: 'none', alignSelf: 'center' }}>
        <UnitsMenu />
      </div>
    </header>
  );
}

function Toggle({
  label,
  names,
  on,
  press,
}: {
  label: string;
  names: [string, string];
  on: [boolean, boolean];
  press: () => void;
}) {
  return (
    <Bare
      // What is seen is part of what is heard.
      aria-label={`${names.join(' | ')}, ${label.toLowerCase()}: ${on[0] ? names[0] : names[1]}`}
      onClick={press}
      style={{
        height: 44,
        width: 92,
        border: '1px solid var(--slateline)',
        borderRadius: 5,
        textAlign: 'center',
        fontSize: 14,
        color: 'var(--chalk)',
      }}
    >
      <span>
        <span
          style={{
            fontWeight: on[0] ? 800 : 500,
            textDecoration: on[0] ? 'underline' : 'none',
            color: on[0] ? 'inherit' : 'var(--chalk2)',
          }}
        >
          {names[0]}
        </span>
        {' | '}
        <span
          style={{
            fontWeight: on[1] ? 800 : 500,
            textDecoration: on[1] ? 'underline' : 'none',
            color: on[1] ? 'inherit' : 'var(--chalk2)',
          }}
        >
          {names[1]}
        </span>
      </span>
    </Bare>
  );
}
