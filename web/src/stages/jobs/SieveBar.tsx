// Which jobs are listed and in which order, and all of them as a table.
import type { Schemas } from '../../api/client';
import { stages, stageTitle } from '../../shell/JobFrame';
import { useShop } from '../../shell/ticket';
import { Pick } from '../../ui/Pick';
import { ChipButton } from '../../ui/Press';

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
        <ChipButton href="/api/v1/jobs.csv" download data-testid="jobs-csv">
          Jobs as CSV
        </ChipButton>
        <ChipButton href="/api/v1/jobs.xlsx" download data-testid="jobs-xlsx">
          XLSX
        </ChipButton>
      </span>
    </section>
  );
}
