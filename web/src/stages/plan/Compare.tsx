// Up to four plans side by side: figures, both corners overlaid, wear and money.
import { Button } from '@mui/material';
import { useQueries } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { api, take, type CarWear, type Plan, type PlanResult } from '../../api/client';
import { Overlay } from '../../figures/Overlay';
import { Glyph, Half } from '../../shell/glyphs';
import { useSettings } from '../../shell/settings';
import { inputOf, useBench } from '../../shell/ticket';
import { angle, distance, signed, num } from '../../units/print';
import { carTyres, firstDone, leadOf, placeName, range, useTread } from '../wear/data';

interface Column {
  plan: Plan;
  result: PlanResult | undefined;
  wear: CarWear | undefined;
}

export default function Compare() {
  const { ticket, plan } = useBench();
  const { form } = useSettings();
  const [chosen, setChosen] = useState<string[]>();
  const shown = useMemo(() => {
    const first = [plan, ...ticket.plans.filter((p) => p.id !== plan?.id)].filter((p): p is Plan => !!p);
    return chosen ? first.filter((p) => chosen.includes(p.id)) : first.slice(0, 4);
  }, [plan, ticket.plans, chosen]);
  const inputs = shown.map((p) => inputOf(ticket, p.document));
  const results = useQueries({
    queries: inputs.map((input) => ({
      queryKey: ['compare', input],
      queryFn: () => take(api.POST('/api/v1/predict', { body: input! })),
      enabled: !!input,
    })),
  });
  const tread = useTread(ticket.job.id);
  const wears = useQueries({
    queries: inputs.map((input, i) => ({
      queryKey: ['compare-wear', input, i > 0 ? inputs[0] : null, ticket.vehicle.version, tread.data?.log],
      queryFn: () =>
        take(
          api.POST('/api/v1/wear', {
            body: {
              front: input!,
              rear: inputOf(ticket, shown[i]!.document, 'rear') ?? null,
              // The first plan stands on the same tyres, so that what both share in doubt cancels.
              other:
                i > 0 && inputs[0]
                  ? {
                      name: shown[0]!.name,
                      front: inputs[0],
                      rear: inputOf(ticket, shown[0]!.document, 'rear') ?? null,
                    }
                  : null,
              tyres: carTyres(ticket, shown[i]!.document.limit_mm),
              log: tread.data!.log,
            },
          }),
        ),
      enabled: !!input && !!tread.data,
    })),
  });
  if (!plan) return <main className="main" />;
  const columns: Column[] = shown.map((p, i) => ({
    plan: p,
    result: results[i]?.data,
    wear: wears[i]?.data,
  }));
  const toggle = (id: string) => {
    const now = shown.map((p) => p.id);
    const next = now.includes(id) ? now.filter((x) => x !== id) : [...now, id];
    if (next.length >= 1 && next.length <= 4) setChosen(next);
  };
  const fitted = (r: PlanResult) => r.candidates.filter((c) => c.status === 'fitted');
  const both = (f: (s: PlanResult['left']) => string) => (r: PlanResult) => (
    <>
      <span className="word fig">
        <Half side="left" size={14} /> {f(r.left)}
      </span>{' '}
      <span className="word fig">
        <Half side="right" size={14} /> {f(r.right)}
      </span>
    </>
  );
  const rows: [string, (r: PlanResult, c: Column) => React.ReactNode][] = [
    [
      'Verdict',
      (r) => (
        <span className={r.verdict.reached ? 'word' : 'plate'}>
          <Glyph name={r.verdict.reached ? 'aim' : 'short'} size={17} /> {r.verdict.headline}
        </span>
      ),
    ],
    ['Aim', (_, c) => c.plan.document.aim.name],
    ['Front height', (_, c) => <span className="fig">{signed(c.plan.document.height_change_mm)} mm</span>],
    [
      'Parts',
      (r) =>
        fitted(r)
          .map((c) => c.part.name)
          .join(', ') || 'none',
    ],
    ['Camber, set', both((s) => angle(s.set.camber_deg, form))],
    ['Caster, set', both((s) => angle(s.set.caster_deg, form))],
    ['Toe, set', both((s) => angle(s.set.toe_deg, form, 2))],
    ['Axis lean (SAI)', both((s) => angle(s.set.sai_deg, form))],
    ['Full lock, outside', both((s) => (s.lock ? angle(s.lock.set.outer_deg, form) : '–'))],
    ['Full lock, inside', both((s) => (s.lock ? angle(s.lock.set.inner_deg, form) : '–'))],
    ['Scrub', both((s) => `${s.set.scrub_radius_mm.toFixed(0)} mm`)],
    ['Trail', both((s) => `${s.set.mechanical_trail_mm.toFixed(0)} mm`)],
    [
      'Fouls',
      (r) => {
        const bad = [
          ...new Set([...r.left.checks, ...r.right.checks].filter((c) => !c.ok).map((c) => c.words)),
        ];
        return bad.length ? <span className="plate">{bad.join('; ')}</span> : 'nothing';
      },
    ],
    [
      'Its tyres against 1',
      (_, c) => {
        if (c.plan.id === shown[0]?.id) return 'is 1';
        const q = c.wear && firstDone(c.wear)?.scenes.find((s) => s.id === 'other')?.ratio_to_lead;
        if (!q) return '…';
        const close = q.low < 1 && q.high > 1;
        return (
          <span className="fig">
            ×{num(q.ratio, 2)} ({num(q.low, 2)}–{num(q.high, 2)}){close && ', too close to call'}
          </span>
        );
      },
    ],
    [
      'First tyre done',
      (_, c) => {
        const first = c.wear && firstDone(c.wear);
        if (!first) return '…';
        const band = leadOf(first).band_km;
        return (
          <span className="fig">
            {placeName(first.place)}, {distance(band.median)} km {range(band)}
          </span>
        );
      },
    ],
    [
      'Parts and work',
      (r) => (
        <span className="fig">
          {fitted(r)
            .reduce((s, c) => s + c.part.cost, 0)
            .toFixed(0)}{' '}
          in parts · {(fitted(r).reduce((s, c) => s + c.part.labour_minutes, 0) / 60).toFixed(1)} h
        </span>
      ),
    ],
  ];
  return (
    <main className="main compare-main four">
      <section
        className="pane"
        style={{
          gridColumn: '1 / -1',
          padding: '12px 16px',
          display: 'flex',
          gap: 8,
          flexWrap: 'wrap',
          alignItems: 'center',
        }}
      >
        <h2 style={{ marginRight: 8 }}>Compare up to four plans</h2>
        {ticket.plans.map((p) => (
          <button
            key={p.id}
            type="button"
            className="chip"
            aria-pressed={shown.some((s) => s.id === p.id)}
            onClick={() => toggle(p.id)}
          >
            <Glyph name={shown.some((s) => s.id === p.id) ? 'done' : 'none'} size={14} /> {p.name}
          </button>
        ))}
        {ticket.plans.length < 2 && (
          <span className="small mut">Duplicate the plan in its menu, change one thing, and come back.</span>
        )}
      </section>
      <section className="pane" style={{ overflow: 'auto' }}>
        <table className="compare-table" data-testid="compare">
          <thead>
            <tr>
              <th />
              {columns.map((c, i) => (
                <th key={c.plan.id} scope="col" data-testid={`compare-${'abcd'[i]}`}>
                  <span className="overlay-key">{i + 1}</span> <b>{c.plan.name}</b>
                  <div>
                    <Button
                      size="small"
                      component={Link}
                      to={`../plan?plan=${c.plan.id}`}
                      variant="outlined"
                      sx={{ mt: 0.5, minHeight: 44 }}
                    >
                      Work on it
                    </Button>
                  </div>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(([name, cell]) => (
              <tr key={name}>
                <th scope="row">{name}</th>
                {columns.map((c) => (
                  <td key={c.plan.id}>{c.result ? cell(c.result, c) : '…'}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <section className="pane slate" style={{ overflow: 'auto', padding: 12 }}>
        <Overlay
          items={columns.flatMap((c, i) =>
            c.result ? [{ key: i + 1, name: c.plan.name, drawing: c.result.left.drawing_set }] : [],
          )}
        />
      </section>
    </main>
  );
}
