// Which jobs are listed and in which order, and all of them as a table.
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { stages, stageTitle } from '../../shell/stages';
import { useShop } from '../../shell/ticket';
import { Pick } from '../../ui/Pick';
import { CsvTable } from '../../shell/CsvTable';

export interface Sieve {
  kind: Schemas['TicketKind'] | '';
  stage: Schemas['Stage'] | '';
  sort: 'newest' | 'oldest' | 'vehicle';
}
export const everything: Sieve = { kind: '', stage: '', sort: 'newest' };

export const sorts: readonly { value: Sieve['sort']; words: string }[] = [
  { value: 'newest', words: 'newest first' },
  { value: 'oldest', words: 'oldest first' },
  { value: 'vehicle', words: 'by vehicle' },
];

export function SieveBar({ sieve, set }: { sieve: Sieve; set: (s: Sieve) => void }) {
  const shop = useShop();
  const queries = useQueryClient();
  const [booked, setBooked] = useState<Schemas['Booked']>();
  const kinds = shop.data?.tickets ?? [];
  return (
    <section className="pane sieve" aria-label="Which jobs">
      <Pick
        label="Job"
        value={sieve.kind}
        pick={(kind) => set({ ...sieve, kind })}
        list={[
          { value: '' as const, words: 'every kind' },
          ...kinds.map((t) => ({ value: t.kind, words: t.title })),
        ]}
        testid="sieve-kind"
      />
      <Pick
        label="Stage reached"
        value={sieve.stage}
        pick={(stage) => set({ ...sieve, stage })}
        list={[
          { value: '' as const, words: 'every stage' },
          ...stages.map((s) => ({ value: s, words: stageTitle(s) })),
        ]}
        testid="sieve-stage"
      />
      <Pick
        label="Order"
        value={sieve.sort}
        pick={(sort) => set({ ...sieve, sort })}
        list={sorts}
        testid="sieve-sort"
      />
      <span className="sieve-out">
        <CsvTable<Schemas['Booked']>
          path="/api/v1/jobs.csv"
          out="Jobs as CSV"
          what="tickets to open"
          testid="jobs"
          taken={(v) => {
            setBooked(v);
            void queries.invalidateQueries({ queryKey: ['jobs'] });
          }}
        />
        {booked && (
          <p className="small" role="status" data-testid="jobs-booked">
            {booked.new
              ? `${booked.new} opened: ${booked.tickets.map((n) => String(n).padStart(4, '0')).join(', ')}`
              : 'Nothing new: every ticket of it is here already.'}
          </p>
        )}
      </span>
    </section>
  );
}
