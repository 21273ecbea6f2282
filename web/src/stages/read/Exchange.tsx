// Readings out and in: CSV, and the form on paper.
import { ChipLink } from '../../ui/Press';
import { useState } from 'react';
import type { Ticket } from '../../api/client';
import { CsvTable } from '../../shell/CsvTable';
import { useBench } from '../../shell/ticket';
import type { VisitView } from '../../pad/readings';

export function Exchange({ view }: { view: VisitView }) {
  const { ticket, setTicket } = useBench();
  const [count, setCount] = useState<number>();
  return (
    <div className="exchange">
      <CsvTable<Ticket>
        path={`/api/v1/jobs/${ticket.job.id}/readings.csv`}
        out="Readings as CSV"
        what="readings"
        testid="csv"
        taken={(t) => {
          setTicket(t);
          setCount(t.readings.length);
        }}
      >
        <ChipLink to={`../read-form?visit=${view.kind}`} testid="paper">
          Paper form
        </ChipLink>
      </CsvTable>
      {count !== undefined && (
        <p className="small" data-testid="csv-done">
          {count} readings on this ticket now.
        </p>
      )}
    </div>
  );
}
