// Jobs that are closed, and those that were put away, fetched when somebody asks for them.
import { Button } from '@mui/material';
import { useInfiniteQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { listJobs } from '../../api/calls';
import type { JobLine } from '../../api/client';
import { JobRow } from './JobRow';

const PAGE = 50;

const words = {
  closed: { name: 'Closed jobs', hide: 'Hide what is closed', none: 'Nothing is closed yet.', to: 'return' },
  archived: {
    name: 'Put away',
    hide: 'Hide what was put away',
    none: 'Nothing was put away yet.',
    to: 'story',
  },
} as const;

/** When it was closed or put away. */
const since = (j: JobLine, which: keyof typeof words) => {
  const at = which === 'closed' ? j.job.aftercare.closed?.at : j.job.archived_at;
  return at ? new Date(at).toLocaleDateString() : which;
};

export function PastJobs({ which }: { which: keyof typeof words }) {
  const [open, setOpen] = useState(false);
  const w = words[which];
  const jobs = useInfiniteQuery({
    queryKey: ['jobs', which],
    queryFn: ({ pageParam }) => listJobs({ after: pageParam ?? null, limit: PAGE, [which]: true }),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (last) => (last.length < PAGE ? undefined : last.at(-1)?.job.id),
    enabled: open,
  });
  const all = jobs.data?.pages.flat() ?? [];
  return (
    <section className="pane" aria-label={w.name}>
      <div style={{ padding: '12px 18px' }}>
        <Button
          variant="outlined"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
          data-testid={`${which}-jobs`}
        >
          {open ? w.hide : w.name}
        </Button>
      </div>
      {open && jobs.data && !all.length && (
        <p className="mut" style={{ padding: '0 18px 18px' }}>
          {w.none}
        </p>
      )}
      {open && all.map((j) => <JobRow key={j.job.id} j={j} to={w.to} glyph="done" word={since(j, which)} />)}
      {open && jobs.hasNextPage && (
        <div style={{ padding: '10px 18px 16px' }}>
          <Button variant="outlined" onClick={() => void jobs.fetchNextPage()}>
            Show older ones
          </Button>
        </div>
      )}
    </section>
  );
}
