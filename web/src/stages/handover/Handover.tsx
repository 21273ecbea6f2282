// The page for the owner of the car: ink on white, one page, in the units chosen; only what was read is claimed.
import { Button } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { Link, useLocation } from 'react-router';
import { getHandover } from '../../api/calls';
import type { Schemas, SideName } from '../../api/client';
import { halfPath, Glyph, Half, Logo } from '../../ui/glyphs';
import { Car } from '../../ui/Car';
import { outlines } from '../../ui/outlines';
import { ReadingsFirst, Waiting } from '../../shell/ReadingsFirst';
import { useBench, useShop, type Bench } from '../../shell/ticket';
import { findingWords } from '../../sheet/gateWords';
import { sideWord } from '../../sheet/sheet';
import { useSettings } from '../../ui/settings';
import { bare, far, farUnit, unitName } from '../../units/measure';
import { angle, bareLength, length, num, type AngleForm, type LengthUnit } from '../../units/print';

type Page = Schemas['Handover'];
type Pair = Schemas['BeforeAfter'];
type Wheel = Schemas['WheelTold'];

export default function Handover() {
  const bench = useBench();
  const { plan, input, ticket } = bench;
  const page = useQuery({
    queryKey: [
      'handover',
      plan?.id,
      plan?.version,
      ticket.job.version,
      ticket.readings.length,
      ticket.done.length,
    ],
    queryFn: () => getHandover(plan?.id ?? ''),
    enabled: !!plan && !!input,
  });
  if (!input || !plan) return <ReadingsFirst title="Nothing to hand over yet" missing={ticket.missing} />;
  if (!page.data) return <Waiting words="Writing the page…" fault={page.error?.message} />;
  return <HandoverView bench={bench} page={page.data} />;
}

const show = (v: number | null | undefined, form: AngleForm, digits: number) =>
  v === null || v === undefined ? 'not read' : angle(v, form, digits);

function Cell({ pair, form, digits }: { pair: Pair | null | undefined; form: AngleForm; digits: number }) {
  if (!pair) return <td>–</td>;
  return (
    <td>
      {show(pair.found, form, digits)} <span className="ho-arrow">→</span>{' '}
      <b>{show(pair.now, form, digits)}</b>
    </td>
  );
}

/** Two halves over one another: as it came, and now. */
function Heights({ wheels, axle, unit }: { wheels: Wheel[]; axle: 'front' | 'rear'; unit: LengthUnit }) {
  const own = (side: SideName) => wheels.find((w) => w.axle === axle && w.side === side)?.height_mm;
  const [l, r] = [own('left'), own('right')];
  if (!l || !r) return <div />;
  const row = (of: 'found' | 'now', y: number, solid: boolean) => {
    const [a, b] = [l[of], r[of]];
    // Half a millimetre a pixel, at most what the row has room for.
    const shift = a == null || b == null ? 0 : Math.max(-12, Math.min(12, (a - b) / 1.5));
    const text = (v: number | null | undefined) => (v == null ? 'not read' : bareLength(v, unit));
    return (
      <g>
        <path
          d={halfPath('left', 79, y - shift / 2, 17)}
          fill={solid && a != null ? 'var(--ho-left)' : '#fff'}
          stroke="var(--ho-left)"
          strokeWidth="2"
          strokeDasharray={a == null ? '3 3' : undefined}
        />
        <path
          d={halfPath('right', 81, y + shift / 2, 17)}
          fill={solid && b != null ? 'var(--ho-right)' : '#fff'}
          stroke="var(--ho-right)"
          strokeWidth="2"
          strokeDasharray={b == null ? '3 3' : undefined}
        />
        <text x="54" y={y + 7} textAnchor="end" className={solid ? 'ho-now' : 'ho-was'}>
          {text(a)}
        </text>
        <text x="106" y={y + 7} className={solid ? 'ho-now' : 'ho-was'}>
          {text(b)}
        </text>
      </g>
    );
  };
  return (
    <div>
      <h3>{axle === 'front' ? 'Front' : 'Rear'}, left and right</h3>
      <svg viewBox="0 0 160 112" width="170" role="img" aria-label={`${axle} heights as it came and now`}>
        {row('found', 24, false)}
        <path d="M80 46V60M75 55L80 61L85 55" stroke="#1c1528" strokeWidth="2" fill="none" />
        {row('now', 84, true)}
      </svg>
    </div>
  );
}

function HandoverView({ bench, page: p }: { bench: Bench; page: Page }) {
  const { ticket, plan } = bench;
  const { unit, form, units } = useSettings();
  const { search } = useLocation();
  const shop = useShop();
  const f = ticket.vehicle.facts;
  const kind = f.silhouette;
  const c = outlines[kind] ?? outlines.pickup!;
  const [front, rear] = [p.moved_mm.front ?? 0, p.moved_mm.rear ?? 0];
  const aim = plan!.document.aim;
  const windowWords = (w: number[] | null | undefined, digits: number) =>
    w ? `${angle(w[0]!, form, digits)} to ${angle(w[1]!, form, digits)}` : '–';
  const band = (of: (w: Wheel) => Pair | null | undefined) => {
    const all = p.wheels.map(of).filter((b) => b?.now != null);
    return all.length ? Math.max(...all.map((b) => b!.band)) : undefined;
  };
  const doubts = (
    [
      ['camber', band((w) => w.camber_deg)],
      ['caster', band((w) => w.caster_deg)],
      ['toe', band((w) => w.toe_deg)],
    ] as const
  ).filter(([, b]) => b !== undefined);
  const moves = (['front', 'rear'] as const).flatMap((axle) => {
    const mm = axle === 'front' ? front : rear;
    return Math.abs(mm) < 0.5 ? [] : [`${axle} ${length(Math.abs(mm), unit)} ${mm < 0 ? 'lower' : 'higher'}`];
  });
  const still = Math.abs(front) < 0.5 && Math.abs(rear) < 0.5;
  return (
    <main className="main ho-main">
      <div className="ho-bar no-print">
        <Button component={Link} to={`../prove${search}`} variant="outlined">
          Back to Prove
        </Button>
        <Button variant="contained" onClick={() => window.print()} data-testid="ho-print">
          Print, or save as PDF
        </Button>
        {!p.signed && (
          <span className="plate">
            <Glyph name="gate" size={18} /> Nobody stands for it yet
          </span>
        )}
      </div>
      <article className="ho-page" data-testid="handover">
        <header>
          <Logo />
          <div>
            <b className="ho-name">{shop.data?.name}</b>
            <p>
              {ticket.job.bay ? `Bay ${ticket.job.bay} · ` : ''}
              {p.signed ?? 'not signed'}
            </p>
          </div>
          <div style={{ marginLeft: 'auto', textAlign: 'right' }}>
            <b className="ho-name">{f.name}</b>
            <p>
              Ticket {String(ticket.job.ticket).padStart(4, '0')} · {f.tyre_size} ·{' '}
              {new Date(p.signed_at ?? Date.now()).toLocaleDateString()}
            </p>
          </div>
        </header>
        <h1 data-testid="ho-headline">{p.headline}</h1>
        <p className="ho-lead">
          {ticket.job.complaint && `It came for: ${ticket.job.complaint.replace(/[.\s]*$/, '.')} `}
          {p.came.join(' ')}
        </p>
        <section className="ho-heights">
          <Heights wheels={p.wheels} axle="front" unit={unit} />
          <div>
            <svg viewBox="0 0 400 130" width="100%" role="img" aria-label="The car as it stands">
              <path d="M4 118H396" stroke="#1c1528" strokeWidth="1.6" />
              {!still && (
                <Car
                  kind={kind}
                  x={(400 - c.len * 0.068) / 2}
                  ground={118}
                  scale={0.068}
                  front={-front * 2}
                  rear={-rear * 2}
                  stroke="#857b96"
                  width={1}
                  ghost
                />
              )}
              <Car
                kind={kind}
                x={(400 - c.len * 0.068) / 2}
                ground={118}
                scale={0.068}
                stroke="#1c1528"
                width={1.5}
              />
            </svg>
            <p className="ho-note">
              {still ? 'Height as it came.' : `Dashed: as it came, change drawn ×2. Now ${moves.join(', ')}.`}{' '}
              Figures: hub to arch, {unit}.
            </p>
          </div>
          <Heights wheels={p.wheels} axle="rear" unit={unit} />
        </section>
        <section>
          <div className="ho-row">
            <h2>Angles, as it came and now</h2>
            <span className="ho-note">
              {form === 'minutes' ? 'degrees and minutes' : 'degrees'}, read here, rolled
              {doubts.length > 0 &&
                `. Doubt ${doubts.map(([w, b]) => `${w} ±${angle(b!, form, 2)}`).join(', ')}`}
            </span>
          </div>
          <table>
            <thead>
              <tr>
                <th />
                <th>camber, minus is top in</th>
                <th>caster</th>
                <th>toe of each wheel, plus is in</th>
              </tr>
            </thead>
            <tbody>
              {p.wheels.map((w) => (
                <tr key={w.axle + w.side} data-testid={`ho-${w.axle}-${w.side}`}>
                  <th scope="row">
                    <Half side={w.side} size={15} color={`var(--ho-${w.side})`} /> {sideWord(w.side)} {w.axle}
                  </th>
                  <Cell pair={w.camber_deg} form={form} digits={1} />
                  <Cell pair={w.caster_deg} form={form} digits={1} />
                  <Cell pair={w.toe_deg} form={form} digits={2} />
                </tr>
              ))}
              <tr className="ho-aim">
                <th scope="row">Aim, {aim.name}</th>
                <td>
                  front {windowWords(aim.camber_deg, 1)}
                  {aim.right?.camber_deg && `, right ${windowWords(aim.right.camber_deg, 1)}`}
                  {aim.rear_camber_deg && `; rear ${windowWords(aim.rear_camber_deg, 1)}`}
                </td>
                <td>
                  {windowWords(aim.caster_deg, 1)}
                  {aim.right?.caster_deg && `, right ${windowWords(aim.right.caster_deg, 1)}`}
                </td>
                <td>
                  both wheels: front {windowWords(aim.toe_total_deg, 2)}
                  {aim.rear_toe_total_deg && `; rear ${windowWords(aim.rear_toe_total_deg, 2)}`}
                </td>
              </tr>
            </tbody>
          </table>
          {(p.lies ?? []).map((l) => (
            <p key={l} className="ho-lies">
              {l}
            </p>
          ))}
        </section>
        <div className="ho-two">
          <section>
            <h2>What was done</h2>
            <ul className="ho-list">
              {p.done.map((d, i) => (
                <li key={d.title + i}>
                  <Glyph name="done" size={15} />
                  <span>
                    <b>{d.title}</b>
                    {d.turned.map((t, k) => (
                      <span key={t + k} className="ho-sub">
                        {t}
                      </span>
                    ))}
                  </span>
                </li>
              ))}
              {!p.done.length && <li>Nothing was turned.</li>}
            </ul>
          </section>
          <section>
            <h2>What it means for the tyres</h2>
            {p.tyre ? <Tyre t={p.tyre} /> : <p>Too little was read before and after to say.</p>}
          </section>
          <section>
            <h2>Please watch</h2>
            <ul className="ho-list">
              {p.next_look && (
                <li>
                  <Glyph name="stale" size={15} />
                  <b>
                    Back{' '}
                    {[
                      p.next_look.on && `on ${new Date(`${p.next_look.on}T12:00`).toLocaleDateString()}`,
                      p.next_look.after_km != null && `after ${farUnit(p.next_look.after_km, units)}`,
                    ]
                      .filter(Boolean)
                      .join(' or ')}
                    , the sooner.
                  </b>
                </li>
              )}
              {p.road && (
                <li data-testid="ho-road">
                  <Glyph name="done" size={15} />
                  <span>{p.road}</span>
                </li>
              )}
              {p.watch.map((t) => (
                <li key={t}>
                  <Glyph name="watch" size={15} />
                  <span>{t}</span>
                </li>
              ))}
            </ul>
          </section>
          <section>
            <h2>Not read, not promised</h2>
            <ul className="ho-list">
              {p.passed_off.map((g) => (
                <li key={g.title}>
                  <Glyph name="short" size={15} />
                  <span>
                    <b>{g.title}, passed off plan:</b>{' '}
                    {g.off.map((o) => findingWords(o, unit, form)).join('; ')}. Why: {g.reason}
                    {g.signed && ` (${g.signed})`}.
                  </span>
                </li>
              ))}
              {p.not_read.map((t) => (
                <li key={t}>
                  <Glyph name="none" size={15} />
                  <span>{t}</span>
                </li>
              ))}
              {ticket.notes
                .filter((n) => n.text.trim())
                .slice(0, 4)
                .map((n) => (
                  <li key={n.id}>
                    <Glyph name="none" size={15} />
                    <span>
                      Noted, {[n.place.side, n.place.axle].filter((x) => x !== 'both').join(' ') || 'the car'}
                      : {n.text}
                    </span>
                  </li>
                ))}
            </ul>
          </section>
        </div>
        <footer>
          {['for the shop', 'for the owner', 'date'].map((w) => (
            <span key={w}>{w}</span>
          ))}
        </footer>
        <p className="ho-note">
          Worked out from what was told and read here; it certifies nothing. The maker&apos;s figures, local
          rules and a licensed inspection go before it.
        </p>
      </article>
    </main>
  );
}

function Tyre({ t }: { t: NonNullable<Page['tyre']> }) {
  const { units } = useSettings();
  const place = t.place.replace('_', ' ');
  const ratio = t.times.ratio;
  return (
    <div data-testid="ho-tyre">
      {t.too_close ? (
        <p>
          <b>Too close to call</b> against how it came ({num(t.times.low, 1)} to {num(t.times.high, 1)} times
          as far).
        </p>
      ) : (
        <p className="ho-times">
          <b>×{num(ratio, 1)}</b>
          <span>
            as far on the {place} tyre
            <br />({num(t.times.low, 1)} to {num(t.times.high, 1)}) as against how it came
          </span>
        </p>
      )}
      <p>
        {place.replace(/^./, (x) => x.toUpperCase())} now{' '}
        {t.depth_mm.map((d) => bare('tread', d, units)).join(' · ')} {unitName('tread', units)}. About{' '}
        <b>{farUnit(t.km[1]!, units)}</b> ({far(t.km[0]!, units)} to {far(t.km[2]!, units)}) until the first
        of it is at {bare('tread', t.limit_mm, units)}. First there: {t.worst}.
      </p>
      <p className="ho-note">Three depths a tyre at the next look narrow it.</p>
    </div>
  );
}
