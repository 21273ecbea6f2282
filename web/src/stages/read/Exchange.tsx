// Readings out and in: CSV, and the form on paper.
import { useMutation } from '@tanstack/react-query';
import { useRef } from 'react';
import { Link } from 'react-router';
import { ApiProblem, type Schemas, type Ticket } from '../../api/client';
import { FieldError } from '../../shell/Fault';
import { useBench } from '../../shell/ticket';
import type { VisitView } from './data';

export function Exchange({ view }: { view: VisitView }) {
  const { ticket, setTicket } = useBench();
  const file = useRef<HTMLInputElement>(null);
  const path = `/api/v1/jobs/${ticket.job.id}/readings.csv`;
  const bring = useMutation({
    mutationFn: async (f: File) => {
      const r = await fetch(path, {
        method: 'POST',
        headers: { 'content-type': 'text/csv' },
        body: await f.arrayBuffer(),
      });
      const doc: unknown = await r.json().catch(() => ({}));
      if (r.ok) return doc as Ticket;
      const p = doc as Partial<Schemas['ProblemDocument']>;
      throw new ApiProblem(r.status, p.title ?? 'Refused', p.detail ?? r.statusText, p.problems ?? []);
    },
    onSuccess: setTicket,
  });
  const fault = bring.error instanceof ApiProblem ? bring.error : undefined;
  return (
    <div className="exchange">
      <div style={{ display: 'flex', gap: 8, flexWrap: 'wrap' }}>
        <Link className="chip" to={`../read-form?visit=${view.kind}`} data-testid="paper">
          Paper form
        </Link>
        <a className="chip" href={path} download data-testid="csv-out">
          Readings as CSV
        </a>
        <button
          type="button"
          className="chip"
          onClick={() => file.current?.click()}
          disabled={bring.isPending}
        >
          CSV in
        </button>
        <input
          ref={file}
          type="file"
          accept=".csv,text/csv"
          className="vh"
          aria-label="CSV of readings"
          data-testid="csv-in"
          onChange={(e) => {
            const f = e.target.files?.[0];
            if (f) bring.mutate(f);
            e.target.value = '';
          }}
        />
      </div>
      {bring.isSuccess && (
        <p className="small" data-testid="csv-done">
          {bring.data.readings.length} readings on this ticket now.
        </p>
      )}
      {fault && (
        <div data-testid="csv-fault">
          <p style={{ marginTop: 8 }}>
            <b>Nothing was taken in.</b>
          </p>
          {fault.problems.slice(0, 6).map((p) => (
            <FieldError key={p.field + p.wrong} wrong={`${p.field}: ${p.wrong}`} right={p.right} />
          ))}
          {!fault.problems.length && <FieldError wrong={fault.title} right={fault.message} />}
        </div>
      )}
    </div>
  );
}
