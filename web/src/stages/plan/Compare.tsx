// Up to four plans side by side: figures, both corners overlaid, wear and money.
import { HowTo } from '../../ui/HowTo';
import { ChipButton } from '../../ui/Press';
import { predict, forecastWear } from '../../api/calls';
import { Button } from '@mui/material';
import { useQueries, useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { AxleName, CarAnswer, CarWear, Plan, PlanResult } from '../../api/client';
import { Overlay } from '../../figures/Overlay';
import { Glyph, Half } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { usePhone } from '../../ui/phone';
import { axleOf, inputOf, partOf, ticketKey, useBench, useShop } from '../../shell/ticket';
import { farUnit } from '../../units/measure';
import { angle, length, lengthChange, num } from '../../units/print';
import { ComparePatches } from './ComparePatches';
import { inParts, money } from './money';
import { CsvTable } from '../../shell/CsvTable';
import { PrintHead } from '../../shell/PrintHead';
import { carTyres, firstDone, leadOf, placeName, range, tooClose, useTread } from '../../shell/tread';

interface Column {
  plan: Plan;
  answer: CarAnswer | undefined;
  wear: CarWear | undefined;
}

type Row = [string, (r: CarAnswer, c: Column) => React.ReactNode];

export default function Compare() {
  const { ticket, plan } = useBench();
  const { form, unit, units } = useSettings();
  const shop = useShop().data?.settings;
  const phone = usePhone();
  const queries = useQueryClient();
  const [chosen, setChosen] = useState<string[]>();
  const shown = useMemo(() => {
    const first = [plan, ...ticket.plans.filter((p) => p.id !== plan?.id)].filter((p): p is Plan => !!p);
    return chosen ? first.filter((p) => chosen.includes(p.id)) : first.slice(0, 4);
  }, [plan, ticket.plans, chosen]);
  const inputs = shown.map((p) => inputOf(ticket, p, p.document));
  const results = useQueries({
    queries: inputs.map((input) => ({
      queryKey: ['compare', input],
      queryFn: () => predict(input!, 'none'),
      enabled: !!input,
    })),
  });
  const tread = useTread(ticket.job.id);
  const wears = useQueries({
    queries: inputs.map((input, i) => ({
      queryKey: ['compare-wear', input, i > 0 ? inputs[0] : null, ticket.vehicle.version, tread.data?.log],
      queryFn: () =>
        forecastWear({
          car: input!,
          // The first plan stands on the same tyres, so that what both share in doubt cancels.
          other:
            i > 0 && inputs[0]
              ? { name: shown[0]!.name, plan: inputs[0].plan, turned: inputs[0].base.turned }
              : null,
          tyres: carTyres(ticket, shown[i]!.document.limit_mm),
          log: tread.data!.log,
        }),
      enabled: !!input && !!tread.data,
    })),
  });
  if (!plan) return <main className="main" />;
  const columns: Column[] = shown.map((p, i) => ({
    plan: p,
    answer: results[i]?.data,
    wear: wears[i]?.data,
  }));
  const toggle = (id: string) => {
    const now = shown.map((p) => p.id);
    const next = now.includes(id) ? now.filter((x) => x !== id) : [...now, id];
    if (next.length >= 1 && next.length <= 4) setChosen(next);
  };
  const axles = ['front', 'rear'] as const;
  const onSide = (c: Column, id: string) => {
    const side = axles.map((a) => partOf(c.plan.document, a).only[id]).find((s) => s);
    return side ? `, ${side} only` : '';
  };
  const fitted = (r: CarAnswer) =>
    axles.flatMap((a) => axleOf(r, a)?.candidates.filter((c) => c.status === 'fitted') ?? []);
  const both = (axle: AxleName, f: (s: PlanResult['left']) => string) => (r: CarAnswer) => {
    const of = axleOf(r, axle);
    if (!of) return <span className="mut">not read</span>;
    return (
      <>
        <span className="word fig">
          <Half side="left" size={14} /> {f(of.left)}
        </span>{' '}
        <span className="word fig">
          <Half side="right" size={14} /> {f(of.right)}
        </span>
      </>
    );
  };
  const rear = columns.some((c) => c.answer?.axles.rear);
  const behind = (row: Row): Row[] => (rear ? [row] : []);
  const rows: Row[] = [
    [
      'Verdict',
      (r) => (
        <span className={r.verdict.reached ? 'word' : 'plate'}>
          <Glyph
            name={
              !r.verdict.worst && r.verdict.not_read.length ? 'unread' : r.verdict.reached ? 'aim' : 'short'
            }
            size={17}
          />{' '}
          {r.verdict.headline}
        </span>
      ),
    ],
    ['Aim', (_, c) => c.plan.document.aim.name],
    [
      'Height, front and rear',
      (_, c) => (
        <span className="fig">
          {axles.map((a) => lengthChange(partOf(c.plan.document, a).height_change_mm, unit)).join(' · ')}
        </span>
      ),
    ],
    [
      'Parts',
      (r, col) =>
        fitted(r)
          .map((c) => c.part.name + onSide(col, c.part.id))
          .join('; ') || 'none',
    ],
    ['Front camber, set', both('front', (s) => angle(s.set.camber_deg, form))],
    ['Caster, set', both('front', (s) => angle(s.set.caster_deg, form))],
    ['Front toe, set', both('front', (s) => angle(s.set.toe_deg, form, 2))],
    ...behind(['Rear camber, set', both('rear', (s) => angle(s.set.camber_deg, form))]),
    ...behind(['Rear toe, set', both('rear', (s) => angle(s.set.toe_deg, form, 2))]),
    ['Axis lean (SAI)', both('front', (s) => angle(s.set.sai_deg, form))],
    ['Full lock, outside', both('front', (s) => (s.lock ? angle(s.lock.set.outer_deg, form) : '–'))],
    ['Full lock, inside', both('front', (s) => (s.lock ? angle(s.lock.set.inner_deg, form) : '–'))],
    ['Scrub', both('front', (s) => length(s.set.scrub_radius_mm, unit))],
    ['Trail', both('front', (s) => length(s.set.mechanical_trail_mm, unit))],
    [
      'Fouls',
      (r) => {
        const checks = axles.flatMap((a) => {
          const of = axleOf(r, a);
          return of ? [...of.left.checks, ...of.right.checks] : [];
        });
        const bad = [...new Set(checks.filter((c) => !c.ok).map((c) => c.words))];
        return bad.length ? <span className="plate">{bad.join('; ')}</span> : 'nothing';
      },
    ],
    [
      'Its tyres against 1',
      (_, c) => {
        if (c.plan.id === shown[0]?.id) return 'is 1';
        const q = c.wear && firstDone(c.wear)?.scenes.find((s) => s.id === 'other')?.ratio_to_lead;
        if (!q) return '…';
        const close = tooClose(q);
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
            {placeName(first.place)}, {farUnit(band.median, units)} {range(band, units)}
          </span>
        );
      },
    ],
    [
      'Parts and work',
      (r) => {
        const parts = fitted(r);
        const cost = parts.reduce((sum, c) => sum + c.part.cost, 0);
        const hours = parts.reduce((sum, c) => sum + c.part.labour_minutes, 0) / 60;
        return (
          <span className="fig">
            {inParts(cost, shop)} · {num(hours, 1)} h
            {shop && hours > 0 && <> · {money(cost + hours * shop.labour_rate, shop)} with labour</>}
          </span>
        );
      },
    ],
  ];
  const chooser = (
    <div
      style={{
        padding: '12px 16px',
        display: 'flex',
        gap: 8,
        flexWrap: 'wrap',
        alignItems: 'center',
      }}
    >
      <h2 style={{ marginRight: 8 }}>Compare up to four plans</h2>
      {ticket.plans.map((p) => (
        <ChipButton
          key={p.id}

          aria-pressed={shown.some((s) => s.id === p.id)}
          onClick={() => toggle(p.id)}
        >
          <Glyph name={shown.some((s) => s.id === p.id) ? 'done' : 'none'} size={14} /> {p.name}
        </ChipButton>
      ))}
      <CsvTable
        path={`/api/v1/jobs/${ticket.job.id}/plans.csv`}
        out="Plans as CSV"
        what="plans"
        testid="plans"
        taken={() => void queries.invalidateQueries({ queryKey: ticketKey(ticket.job.id) })}
      />
      <ChipButton onClick={() => window.print()} data-testid="compare-print">
        Print
      </ChipButton>
      {ticket.plans.length < 2 && (
        <span className="small mut no-print">
          Duplicate the plan in its menu, change one thing, and come back.
        </span>
      )}
    </div>
  );
  return (
    <main className="main compare-main four">
      <PrintHead title="Plans side by side" plans={shown.map((p) => p.name)} />
      {!phone && (
        <section className="pane no-print" style={{ gridColumn: '1 / -1' }}>
          {chooser}
        </section>
      )}
      <section className="pane" data-pane="Figures" style={{ overflow: 'auto' }}>
        {phone && chooser}
        <table className="compare-table" data-testid="compare">
          <thead>
            <tr>
              <th />
              {columns.map((c, i) => (
                <th key={c.plan.id} scope="col" data-testid={`compare-${'abcd'[i]}`}>
                  <span className="overlay-key">{i + 1}</span> <b>{c.plan.name}</b>
                  {c.plan.id === ticket.job.plan_id && <span className="small mut"> to set</span>}
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
                  <td key={c.plan.id}>{c.answer ? cell(c.answer, c) : '…'}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <section className="pane slate" data-pane="Drawings" style={{ overflow: 'auto', padding: 12 }}>
        <ComparePatches
          plans={columns.map((c) => ({ name: c.plan.name, answer: c.answer }))}
          tyres={ticket.tyres}
        />
        <div className="drawn">
          <HowTo of="overlay" />
          <Overlay
            items={columns.flatMap((c, i) =>
              axleOf(c.answer, 'front')
                ? [{ key: i + 1, name: c.plan.name, drawing: axleOf(c.answer, 'front')!.left.drawing_set }]
                : [],
            )}
          />
        </div>
      </section>
    </main>
  );
}
