// The record: who changed what, from which device, newest first.
import { Button } from '@mui/material';
import { useInfiniteQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { getRecord } from '../../api/calls';
import { Pick } from '../../ui/Pick';
import { ChipButton } from '../../ui/Press';
import { when } from '../../units/when';
import type { PeopleData } from './list';

const PAGE = 100;
const what: Record<string, string> = {
  job: 'ticket',
  done_step: 'step of the sheet',
  shop_part: 'part of the shop',
  shop_aim: 'aim of the shop',
  shop_shape: 'shape of the shop',
  tread_line: 'line of a tread log',
  member: 'member',
};

/** What a row is known by, and nobody reads. */
const own = new Set([
  'id',
  'n',
  'seq',
  'shop_id',
  'job_id',
  'plan_id',
  'vehicle_id',
  'tyre_id',
  'member_id',
  'created_at',
  'taken_at',
  'written_at',
  'done_at',
  'author',
  'version',
]);

/** What is different, in short. */
function differs(v: unknown): string {
  if (v === null || v === undefined) return '';
  const text = Object.entries(v as Record<string, unknown>)
    .filter(([k, x]) => !own.has(k) && x !== null && x !== '' && !(Array.isArray(x) && !x.length))
    .map(([k, x]) => `${k.replaceAll('_', ' ')} ${typeof x === 'object' ? JSON.stringify(x) : String(x)}`)
    .join(', ');
  return text.length > 160 ? `${text.slice(0, 160)}…` : text;
}

export function Record({ people }: { people: PeopleData }) {
  const [member, setMember] = useState('');
  const record = useInfiniteQuery({
    queryKey: ['record', member],
    queryFn: ({ pageParam }) =>
      getRecord({ limit: PAGE, ...(pageParam && { before: pageParam }), ...(member && { member }) }),
    initialPageParam: 0,
    getNextPageParam: (last) => (last.length < PAGE ? undefined : last.at(-1)?.id),
  });
  const lines = record.data?.pages.flat() ?? [];
  return (
    <section className="pane people-record" aria-label="The record">
      <header>
        <h2>The record</h2>
        <Pick
          label="By"
          value={member}
          list={[
            { value: '', words: 'everybody' },
            ...people.members.map((m) => ({ value: m.member.id, words: m.member.name })),
          ]}
          pick={setMember}
          testid="record-by"
        />
        <ChipButton
          href={`/api/v1/record.csv${member ? `?member=${member}` : ''}`}
          download
          data-testid="record-out"
        >
          CSV out
        </ChipButton>
      </header>
      {record.data && !lines.length && <p className="mut">Nothing was changed by a name yet.</p>}
      {lines.length > 0 && (
        <div className="record-lines" role="table" aria-label="Changes, newest first">
          {lines.map((c) => (
            <div role="row" key={c.id} data-testid="record-line">
              <span role="cell" className="small mut">
                {when(c.at)}
              </span>
              <span role="cell">
                <b>{c.member ?? 'nobody signed'}</b>
                <span className="small mut"> {c.device ?? ''}</span>
              </span>
              <span role="cell">
                {what[c.what] ?? c.what} {c.change}
                {c.ticket ? ` · ${String(c.ticket).padStart(4, '0')}` : ''}
              </span>
              <span role="cell" className="small">
                {c.change === 'erased' ? 'taken out' : differs(c.change === 'removed' ? c.before : c.after)}
              </span>
            </div>
          ))}
        </div>
      )}
      {record.hasNextPage && (
        <Button
          variant="outlined"
          onClick={() => void record.fetchNextPage()}
          disabled={record.isFetchingNextPage}
        >
          Show older
        </Button>
      )}
    </section>
  );
}
