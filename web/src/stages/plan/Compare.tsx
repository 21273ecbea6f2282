// Two plans side by side on the same plane.
import { Button } from '@mui/material';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { ReachMap } from '../../figures/ReachMap';
import { Glyph } from '../../shell/glyphs';
import { useSettings } from '../../shell/settings';
import { inputOf, useBench, usePredict } from '../../shell/ticket';
import type { Plan } from '../../api/client';
import { angle, signed } from '../../units/print';

export default function Compare() {
  const { ticket, plan } = useBench();
  const others = ticket.plans.filter((p) => p.id !== plan?.id);
  const [pick, setPick] = useState<string>();
  const other = others.find((p) => p.id === pick) ?? others[0];
  if (!plan) return <main className="main" />;
  return (
    <main className="main compare-main">
      <Side plan={plan} first>
        <h2>{plan.name}</h2>
      </Side>
      {other ? (
        <Side plan={other}>
          <label>
            <span className="vh">Plan to compare with</span>
            <select
              value={other.id}
              onChange={(e) => setPick(e.target.value)}
              className="fig"
              style={{
                fontSize: 25,
                fontWeight: 750,
                minHeight: 44,
                maxWidth: '100%',
                background: 'transparent',
                color: 'inherit',
                border: '1.5px solid var(--edge)',
                borderRadius: 6,
                padding: '0 8px',
              }}
            >
              {others.map((p) => (
                <option key={p.id} value={p.id}>
                  {p.name}
                </option>
              ))}
            </select>
          </label>
        </Side>
      ) : (
        <section className="pane" style={{ padding: 24 }}>
          <h2>Only one plan</h2>
          <p style={{ margin: '10px 0 18px' }}>
            Duplicate it in the plan&rsquo;s menu, change one thing, and come back.
          </p>
          <Button component={Link} to={`../plan?plan=${plan.id}`} variant="contained">
            Back to the plan
          </Button>
        </section>
      )}
    </main>
  );
}

function Side({ plan, children, first }: { plan: Plan; children: React.ReactNode; first?: boolean }) {
  const { ticket } = useBench();
  const { form } = useSettings();
  const input = useMemo(() => inputOf(ticket, plan.document), [ticket, plan]);
  const { result, fault } = usePredict(input);
  const d = plan.document;
  if (!result)
    return (
      <section className="pane" style={{ padding: 24 }}>
        {fault ? fault.message : 'Working…'}
      </section>
    );
  const v = result.verdict;
  const hours = result.candidates
    .filter((c) => c.status === 'fitted')
    .reduce((s, c) => s + c.part.labour_minutes / 60, 0);
  const cost = result.candidates.filter((c) => c.status === 'fitted').reduce((s, c) => s + c.part.cost, 0);
  const rows: [string, string, string][] = [
    ['Camber, set', angle(result.left.set.camber_deg, form), angle(result.right.set.camber_deg, form)],
    ['Caster, set', angle(result.left.set.caster_deg, form), angle(result.right.set.caster_deg, form)],
    ['Toe, set', angle(result.left.set.toe_deg, form, 2), angle(result.right.set.toe_deg, form, 2)],
    [
      'Scrub',
      `${result.left.set.scrub_radius_mm.toFixed(0)} mm`,
      `${result.right.set.scrub_radius_mm.toFixed(0)} mm`,
    ],
    [
      'Trail',
      `${result.left.set.mechanical_trail_mm.toFixed(0)} mm`,
      `${result.right.set.mechanical_trail_mm.toFixed(0)} mm`,
    ],
  ];
  return (
    <section
      className="pane"
      style={{ display: 'flex', flexDirection: 'column', padding: '14px 16px' }}
      data-testid={first ? 'compare-a' : 'compare-b'}
    >
      <div style={{ display: 'flex', justifyContent: 'space-between', gap: 10, alignItems: 'center' }}>
        {children}
        <span className={v.reached ? 'word' : 'plate'}>
          <Glyph name={v.reached ? 'aim' : 'short'} size={18} /> {v.reached ? 'On aim' : 'Short'}
        </span>
      </div>
      <p className="mut" style={{ margin: '6px 0' }}>
        {v.headline}. Front {signed(d.height_change_mm)} mm,{' '}
        {d.fitted.length
          ? result.candidates
              .filter((c) => c.status === 'fitted')
              .map((c) => c.part.name.toLowerCase())
              .join(', ')
          : 'no parts'}
        ; {hours.toFixed(1)} h of parts work, {cost.toFixed(0)} in parts.
      </p>
      <div style={{ flex: 1, minHeight: 260 }}>
        <ReachMap
          result={result}
          aim={d.aim}
          focus="both"
          planned={d.height_change_mm}
          form={form}
          stale={false}
          width={580}
          height={390}
        />
      </div>
      <table className="figures">
        <thead>
          <tr>
            <th />
            <th scope="col">left</th>
            <th scope="col">right</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([n, l, r]) => (
            <tr key={n}>
              <th scope="row">{n}</th>
              <td>{l}</td>
              <td>{r}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div style={{ marginTop: 12 }}>
        <Button component={Link} to={`../plan?plan=${plan.id}`} variant={first ? 'outlined' : 'contained'}>
          Work on this one
        </Button>
      </div>
    </section>
  );
}
