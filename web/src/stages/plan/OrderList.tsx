// The parts of a plan to order: on the screen, on paper, and as a table.
import { Button } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { Link, useLocation } from 'react-router';
import { partsToOrder } from '../../api/calls';
import type { Schemas } from '../../api/client';
import { Waiting } from '../../shell/ReadingsFirst';
import { useBench, useShop } from '../../shell/ticket';
import { axleWord } from '../../sheet/sheet';
import { ChipButton } from '../../ui/Press';
import { when } from '../../units/when';

type ToOrder = Schemas['ToOrder'];

/** An amount of money as the reader's own place writes it, with what the shop puts beside it. */
export const money = (v: number, currency: string): string =>
  `${v.toLocaleString(undefined, { minimumFractionDigits: 2, maximumFractionDigits: 2 })}${
    currency ? `\u00a0${currency}` : ''
  }`;

const sidesOf = (r: ToOrder['rows'][number]) => (r.only ? `${r.only} only` : 'left and right');

export default function OrderList() {
  const { ticket, plan } = useBench();
  const shop = useShop();
  const { search } = useLocation();
  const list = useQuery({
    queryKey: ['order', plan?.id, plan?.version],
    queryFn: () => partsToOrder(plan?.id ?? ''),
    enabled: !!plan,
  });
  if (!plan || !list.data) return <Waiting words="Listing the parts…" fault={list.error?.message} />;
  const { rows, currency } = list.data;
  const total = rows.reduce((a, r) => a + r.price, 0);
  const noNumber = rows.filter((r) => !r.order_number).length;
  return (
    <main className="main order-main">
      <section className="pane order-page" data-testid="order-list">
        <div className="order-head">
          <div style={{ flex: 1 }}>
            <h1>Parts to order</h1>
            <p className="mut">
              {ticket.vehicle.facts.name} · Ticket {String(ticket.job.ticket).padStart(4, '0')} · {plan.name}
              <span className="order-print">
                {' '}
                · {shop.data?.name} · {when(new Date().toISOString())}
              </span>
            </p>
          </div>
          <div className="order-acts">
            <Button variant="contained" onClick={() => window.print()}>
              Print
            </Button>
            <ChipButton href={`/api/v1/plans/${plan.id}/order.csv`} download data-testid="order-csv">
              CSV
            </ChipButton>
            <ChipButton href={`/api/v1/plans/${plan.id}/order.xlsx`} download data-testid="order-xlsx">
              XLSX
            </ChipButton>
            <Button component={Link} to={`../plan${search}`} variant="outlined">
              Back to the plan
            </Button>
          </div>
        </div>
        {rows.length === 0 ? (
          <p style={{ padding: '18px 0' }}>Nothing is fitted in this plan.</p>
        ) : (
          <>
            <table className="order-table">
              <thead>
                <tr>
                  <th>Number</th>
                  <th>Part</th>
                  <th>Axle</th>
                  <th>Sides</th>
                  <th className="n">Price</th>
                  <th className="n">Labour, min</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((r) => (
                  <tr key={r.axle + r.id}>
                    <td className="fig">{r.order_number || '–'}</td>
                    <td>
                      <b>{r.name}</b>
                      <div className="small mut">{r.id}</div>
                    </td>
                    <td>{axleWord(r.axle)}</td>
                    <td>{sidesOf(r)}</td>
                    <td className="n fig">{money(r.price, currency)}</td>
                    <td className="n fig">{r.labour_minutes}</td>
                  </tr>
                ))}
              </tbody>
              <tfoot>
                <tr>
                  <th colSpan={4}>Together</th>
                  <td className="n fig">{money(total, currency)}</td>
                  <td className="n fig">{rows.reduce((a, r) => a + r.labour_minutes, 0)}</td>
                </tr>
              </tfoot>
            </table>
            {noNumber > 0 && (
              <p className="small mut" data-testid="no-number">
                {noNumber === rows.length ? 'None of them has' : `${noNumber} of them have no`}
                {noNumber === rows.length ? ' a number it is ordered by' : ' number to order by'}: type it at
                the part, under Parts.
              </p>
            )}
          </>
        )}
      </section>
    </main>
  );
}
