// Wear: the front tread before and after setting.
import { Button, TextField } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { api, take, type Schemas, type SideName, type TyreWear } from '../../api/client';
import { TreadSection } from '../../figures/TreadSection';
import { Glyph, Half } from '../../shell/glyphs';
import { useKeys } from '../../shell/Keys';
import { ReadingsFirst, Waiting } from '../../shell/ReadingsFirst';
import { useBench } from '../../shell/ticket';
import { distance, num, signed } from '../../units/print';

type Request = Schemas['WearRequest'];

export default function Wear() {
  const { ticket, draft, input, change, result } = useBench();
  const { search } = useLocation();
  const f = ticket.vehicle.facts;
  const [side, setSide] = useState<SideName>('left');
  const [chosen, setKm] = useState<number>();
  const [limitText, setLimitText] = useState<string>();
  const body = useMemo<Request | undefined>(
    () =>
      input && draft
        ? {
            plan: input,
            tyres: {
              tyre_size: f.tyre_size,
              tyre_class: f.tyre_class,
              tread_depth_mm: f.tread_depth_mm,
              limit_mm: draft.limit_mm,
              load_n: f.front_load_n,
              pressure_kpa: f.pressure_kpa,
              placard_kpa: f.placard_kpa,
              drive_share: f.drive === 'front' ? 1 : f.drive === 'both' ? 0.5 : 0,
              use: f.use,
              load_transfer_per_g:
                f.silhouette === 'pickup' || f.silhouette === 'box'
                  ? 0.85
                  : f.silhouette === 'coupe'
                    ? 0.6
                    : 0.7,
            },
          }
        : undefined,
    [input, draft, f],
  );
  const wear = useQuery({
    queryKey: ['wear', body],
    queryFn: () => take(api.POST('/api/v1/wear', { body: body! })),
    enabled: !!body,
    placeholderData: (p) => p,
  });
  // Opens where the tread tells most: past half of the shorter life.
  const median = wear.data?.[side][1]?.band_km.median ?? 20000;
  const km = chosen ?? Math.round((0.6 * median) / 1000) * 1000;
  useKeys({
    l: () => setSide('left'),
    r: () => setSide('right'),
    ',': () => setKm(Math.max(0, km - 1000)),
    '.': () => setKm(Math.min(160000, km + 1000)),
  });
  if (!input || !draft) return <ReadingsFirst title="Wear waits for the plan" missing={ticket.missing} />;
  if (!wear.data) return <Waiting words="Working the tread…" fault={wear.error?.message} />;
  const tyre = wear.data[side];
  const [found, lifted, set] = [tyre[0]!, tyre[1]!, tyre[2]!];
  const q = lifted.ratio_to_set;
  const close = q.low < 1 && q.high > 1;
  const limit = limitText === undefined ? draft.limit_mm : Number(limitText.replace(',', '.'));
  const limitBad =
    !Number.isFinite(limit) ||
    limit < 0.5 ||
    limit >= f.tread_depth_mm ||
    (limitText !== undefined && !/^\d{1,2}([.,]\d{1,2})?$/.test(limitText.trim()));
  const k = (v: number) => Math.round(v / 1000);
  const spread = (t: TyreWear): [number, number] => [
    t.band_km.low / t.band_km.median,
    t.band_km.high / t.band_km.median,
  ];
  const top = Math.max(
    40000,
    Math.ceil(
      Math.max(...(['left', 'right'] as const).flatMap((s) => wear.data[s].map((t) => t.band_km.high))) /
        20000,
    ) * 20000,
  );
  const scale = Math.min(top, 160000);
  const statement = (t: TyreWear) => `${t.worst.replace(/^./, (c) => c.toUpperCase())} reaches the limit at`;
  return (
    <main className="main wear-main">
      <section className="pane" style={{ display: 'flex', flexDirection: 'column', minWidth: 0 }}>
        <div style={{ padding: '12px 20px 10px' }}>
          <h1 style={{ fontSize: 44, fontWeight: 800 }} data-testid="wear-statement">
            {statement(set)} {distance(set.band_km.median)} km{' '}
            <span style={{ fontWeight: 600, color: 'var(--ink2)', fontSize: 34 }}>
              ({k(set.band_km.low)}–{k(set.band_km.high)})
            </span>
          </h1>
          <p className="mut" style={{ marginTop: 6 }}>
            {side === 'left' ? 'Left' : 'Right'} front, set as planned. If not set: {lifted.worst} at{' '}
            {distance(lifted.band_km.median)} km ({k(lifted.band_km.low)}–{k(lifted.band_km.high)}).{' '}
            <b>
              {close ? 'Too close to call: setting moves distance ' : 'Setting buys distance '}×
              {num(q.ratio, 2)} ({num(q.low, 2)}–{num(q.high, 2)}).
            </b>
          </p>
        </div>
        <div className="slate" style={{ padding: '10px 4px 0' }} data-testid="tread">
          <TreadSection
            side={side}
            rate={lifted.rate_mm_per_1000km}
            depth={f.tread_depth_mm}
            limit={draft.limit_mm}
            km={km}
            spread={spread(lifted)}
            label="before setting"
          />
          <div style={{ height: 1, background: 'var(--slateline)', margin: '2px 0 8px' }} />
          <TreadSection
            side={side}
            rate={set.rate_mm_per_1000km}
            depth={f.tread_depth_mm}
            limit={draft.limit_mm}
            km={km}
            spread={spread(set)}
            label="after setting"
          />
        </div>
        <Scrubber
          km={km}
          max={scale}
          set={setKm}
          marks={[
            { t: lifted, word: 'unset', dash: true },
            { t: set, word: 'set', dash: false },
          ]}
          side={side}
        />
        <div style={{ display: 'flex', borderTop: '1px solid var(--line)', marginTop: 'auto' }}>
          {(['left', 'right'] as const).map((s) => {
            const t = wear.data[s][2]!;
            return (
              <button
                key={s}
                type="button"
                className={`bare reading ${s === side ? 'on' : ''}`}
                aria-pressed={s === side}
                onClick={() => setSide(s)}
                data-testid={`tyre-${s}`}
                style={{ flex: 1, borderTop: 0 }}
              >
                <Half side={s} size={20} color={s === side ? `var(--${s}S)` : undefined} />
                <span style={{ flex: 1 }}>
                  <b>{s === 'left' ? 'Left' : 'Right'} front</b> <span className="small">set, {t.worst}</span>
                </span>
                <span className="fig" style={{ fontSize: 26 }}>
                  {distance(t.band_km.median)} <span style={{ fontSize: 17 }}>km</span>
                </span>
              </button>
            );
          })}
        </div>
      </section>
      <section
        className="pane"
        style={{ padding: 16, display: 'flex', flexDirection: 'column', gap: 9, overflowY: 'auto' }}
        aria-label="Reasons"
      >
        <div
          style={{
            display: 'flex',
            justifyContent: 'space-between',
            alignItems: 'baseline',
            borderBottom: '3px solid var(--ink)',
            paddingBottom: 8,
          }}
        >
          <h3>Show tread at</h3>
          <span className="fig" style={{ fontSize: 46, fontWeight: 800 }} data-testid="wear-km">
            {distance(km) === '0' ? '0' : distance(km)}
            <span style={{ fontSize: 22, fontWeight: 600 }}> km</span>
          </span>
        </div>
        <Causes title={`What eats the ${lifted.worst}, unset`} t={lifted} id="u" />
        <Causes title={`What eats the ${set.worst}, set`} t={set} id="s" />
        <table className="figures">
          <thead>
            <tr>
              <th />
              <th scope="col">found</th>
              <th scope="col">unset</th>
              <th scope="col">set</th>
            </tr>
          </thead>
          <tbody>
            {(
              [
                ['Camber', (t) => `${num(t.camber_deg, 1)}°`],
                ['Toe, half of total', (t) => `${num(t.toe_deg, 2)}°`],
                ['Limit at, km', (t) => distance(t.band_km.median)],
              ] as [string, (t: TyreWear) => string][]
            ).map(([n, get]) => (
              <tr key={n}>
                <th scope="row">{n}</th>
                {[found, lifted, set].map((t, i) => (
                  <td key={i}>{get(t)}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
        <TextField
          label="Limit, mm"
          size="small"
          value={limitText ?? String(draft.limit_mm)}
          onChange={(e) => setLimitText(e.target.value)}
          onBlur={() => {
            if (!limitBad) {
              change({ limit_mm: limit });
              setLimitText(undefined);
            }
          }}
          error={limitBad}
          helperText={
            limitBad
              ? `A depth from 0.5 mm to below the ${num(f.tread_depth_mm, 1)} mm it starts from`
              : 'Law: 1.6 mm (EU), 2/32 in (49 CFR 570.9)'
          }
        />
        <Button component={Link} to={`../set${search}`} variant="contained">
          {result?.verdict.reached ? 'Set it' : 'Open the setting sheet'}
        </Button>
        <div
          style={{
            marginTop: 'auto',
            display: 'flex',
            gap: 11,
            background: 'var(--well)',
            borderRadius: 6,
            padding: '10px 12px',
          }}
        >
          <Glyph name="watch" size={22} />
          <p className="small">
            <b>Ratios are firmer than distances.</b> {wear.data.notes[1]}{' '}
            {Math.abs(lifted.feather) > 0.15 &&
              `Not set, ribs feather: toe ${lifted.feather > 0 ? 'in' : 'out'}.`}
          </p>
        </div>
      </section>
    </main>
  );
}

const fills = ['var(--ink)', 'url(#PAT1)', 'url(#PAT2)', 'none'];

function Causes({ title, t, id }: { title: string; t: TyreWear; id: string }) {
  const s = t.shares;
  const list: [string, number][] = [
    [
      `Camber, ${t.camber_deg < 0 ? 'top leans in' : 'top leans out'} ${num(Math.abs(t.camber_deg), 1)}°`,
      s.camber,
    ],
    [`Toe, ${t.toe_deg < 0 ? 'out' : 'in'} ${num(Math.abs(t.toe_deg), 2)}°`, s.toe],
    ['Pressure against placard', s.pressure],
    ['Would wear anyway (use)', s.use],
  ];
  const positive = list.reduce((a, [, v]) => a + Math.max(0, v), 0);
  let x = 0;
  const fill = (i: number) => fills[i]!.replace('PAT', `${id}p`);
  return (
    <div>
      <h3 style={{ marginBottom: 7 }}>{title}</h3>
      <svg viewBox="0 0 318 32" width="100%" aria-hidden="true">
        <defs>
          <pattern
            id={`${id}p1`}
            width="6"
            height="6"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width="6" height="6" fill="var(--well)" />
            <path d="M1.5 0V6" stroke="var(--ink)" strokeWidth="3" />
          </pattern>
          <pattern id={`${id}p2`} width="6" height="6" patternUnits="userSpaceOnUse">
            <rect width="6" height="6" fill="var(--well)" />
            <circle cx="3" cy="3" r="1.4" fill="var(--ink)" />
          </pattern>
        </defs>
        {list.map(([n, v], i) => {
          if (v <= 0.004) return null;
          const w = (v / positive) * 318;
          const r = (
            <rect
              key={n}
              x={x + 1}
              y="1"
              width={Math.max(1, w - 3)}
              height="30"
              fill={fill(i)}
              stroke="var(--ink)"
              strokeWidth="1.5"
            />
          );
          x += w;
          return r;
        })}
      </svg>
      <ul style={{ listStyle: 'none', margin: '6px 0 0', padding: 0, display: 'grid', gap: 3 }}>
        {list.map(([n, v], i) => (
          <li
            key={n}
            style={{ display: 'flex', gap: 9, alignItems: 'center', fontWeight: 600, fontSize: 14.5 }}
          >
            <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true">
              <rect x="1" y="1" width="14" height="14" fill={fill(i)} stroke="var(--ink)" strokeWidth="1.5" />
            </svg>
            <span style={{ flex: 1 }}>{n}</span>
            <span className="fig" style={{ fontSize: 19 }}>
              {v < -0.004 ? `helps ${signed(v * 100)} %` : `${num(v * 100)} %`}
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}

function Scrubber({
  km,
  max,
  set,
  marks,
  side,
}: {
  km: number;
  max: number;
  set: (k: number) => void;
  marks: { t: TyreWear; word: string; dash: boolean }[];
  side: SideName;
}) {
  const W = 838;
  const X = (v: number) => 28 + (Math.min(v, max) / max) * (W - 56);
  const drag = (e: React.PointerEvent<SVGSVGElement>) => {
    const b = e.currentTarget.getBoundingClientRect();
    const v = (((e.clientX - b.left) / b.width) * W - 28) / (W - 56);
    set(Math.round((Math.max(0, Math.min(1, v)) * max) / 500) * 500);
  };
  const ticks: number[] = [];
  for (let v = 0; v <= max; v += max > 80000 ? 20000 : 10000) ticks.push(v);
  return (
    <svg
      viewBox={`0 0 ${W} 112`}
      width="100%"
      className="grip"
      role="slider"
      tabIndex={0}
      aria-label="Distance"
      aria-valuemin={0}
      aria-valuemax={max}
      aria-valuenow={km}
      aria-valuetext={`${km} kilometres`}
      data-testid="scrubber"
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        drag(e);
      }}
      onPointerMove={(e) => e.currentTarget.hasPointerCapture(e.pointerId) && drag(e)}
      onKeyDown={(e) => {
        const d = {
          ArrowRight: 1000,
          ArrowUp: 1000,
          ArrowLeft: -1000,
          ArrowDown: -1000,
          PageUp: 5000,
          PageDown: -5000,
        }[e.key];
        if (d) {
          e.preventDefault();
          set(Math.max(0, Math.min(max, km + d)));
        }
      }}
    >
      {marks.map(({ t, word, dash }, i) => {
        const y = 12 + i * 20;
        const { low, median, high } = t.band_km;
        return (
          <g key={word} stroke={`var(--${side})`} strokeWidth="2" strokeDasharray={dash ? '5 3' : undefined}>
            <path
              d={`M${X(low)} ${y}L${X(median)} ${y - 8}L${X(high)} ${y}L${X(median)} ${y + 8}Z`}
              fill={dash ? 'none' : 'var(--shade)'}
            />
            <path d={`M${X(median)} ${y - 10}V66`} />
            <text
              x={X(high) > W - 90 ? X(low) - 8 : X(high) + 8}
              y={y + 6}
              textAnchor={X(high) > W - 90 ? 'end' : 'start'}
              stroke="none"
              fontSize="18"
              fontWeight="700"
              fill={`var(--${side})`}
            >
              {word}
            </text>
          </g>
        );
      })}
      {ticks.map((v) => (
        <g key={v}>
          <path d={`M${X(v)} 66v11`} stroke="var(--edge)" strokeWidth="1.4" />
          <text x={X(v)} y="106" textAnchor="middle" fontSize="18" fontWeight="600" fill="var(--ink2)">
            {v ? distance(v) : '0'}
          </text>
        </g>
      ))}
      <path d={`M${X(0)} 66H${X(max)}`} stroke="var(--edge)" strokeWidth="5" strokeLinecap="round" />
      <path d={`M${X(0)} 66H${X(km)}`} stroke="var(--ink)" strokeWidth="7" strokeLinecap="round" />
      <g transform={`translate(${X(km)} 66)`}>
        <rect
          x="-30"
          y="-22"
          width="60"
          height="44"
          rx="22"
          fill="var(--sheet)"
          stroke="var(--ink)"
          strokeWidth="2.6"
        />
        <path d="M-9 -9L-17 0L-9 9M9 -9L17 0L9 9M0 -11V11" fill="none" stroke="var(--ink)" strokeWidth="3" />
      </g>
    </svg>
  );
}
