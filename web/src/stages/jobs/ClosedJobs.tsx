// Jobs that are closed, fetched when somebody asks for them.
import { Button } from '@mui/material';
import { useInfiniteQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { listJobs } from '../../api/calls';
import { JobRow } from './JobRow';

const PAGE = 50;

export function ClosedJobs() {
  const [open, setOpen] = useState(false);
  const jobs = useInfiniteQuery({
    queryKey: ['jobs', 'closed'],
    queryFn: ({ pageParam }) => listJobs(null, pageParam ?? null, PAGE, true),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (last) => (last.length < PAGE ? undefined : last.at(-1)?.job.id),
    enabled: open,
  });
  const all = jobs.data?.pages.flat() ?? [];
  return (
    <section className="pane" aria-label="Closed jobs">
      <div style={{ padding: '12px 18px' }}>
        <Button
          variant="outlined"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
          data-testid="closed-jobs"
        >
          {open ? 'Hide what is closed' : 'Closed jobs'}
        </Button>
      </div>
      {open && jobs.data && !all.length && (
        <p className="mut" style={{ padding: '0 18px 18px' }}>
          Nothing is closed yet.
        </p>
      )}
      {open &&
        all.map((j) => (
          <JobRow
            key={j.job.id}
            j={j}
            to="return"
            glyph="done"
            word={
              j.job.aftercare.closed ? new Date(j.job.aftercare.closed.at).toLocaleDateString() : 'closed'
            }
          />
        ))}
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
