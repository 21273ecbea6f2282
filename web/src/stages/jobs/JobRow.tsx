// A job as a row of a list: its outline, its ticket, and how it stands.
import { Link } from 'react-router';
import type { JobLine } from '../../api/client';
import { Car } from '../../ui/Car';
import { Glyph, type GlyphName } from '../../ui/glyphs';
import { outlines } from '../../ui/outlines';

export const ticketNo = (j: JobLine) => `Ticket ${String(j.job.ticket).padStart(4, '0')}`;

interface Props {
  j: JobLine;
  to: string;
  glyph: GlyphName;
  word: string;
  testid?: string;
}

export function JobRow({ j, to, glyph, word, testid }: Props) {
  return (
    <Link to={`/job/${j.job.id}/${to}`} className="job-row" data-testid={testid}>
      <svg width="118" height="50" viewBox="0 0 118 50" aria-hidden="true" style={{ flex: 'none' }}>
        <path d="M0 47H118" stroke="var(--edge)" strokeWidth="1.2" />
        <Car
          kind={j.silhouette}
          x={4}
          ground={47}
          scale={105 / (outlines[j.silhouette]?.len ?? 5000)}
          stroke="var(--ink)"
          width={1.3}
        />
      </svg>
      <span style={{ flex: 1, minWidth: 0 }}>
        <b style={{ fontSize: 16 }}>{j.vehicle}</b>
        <span className="small mut" style={{ display: 'block' }}>
          {ticketNo(j)} · {j.job.complaint || 'no wish written down'}
        </span>
      </span>
      <span className="word" style={{ minWidth: 120 }}>
        <Glyph name={glyph} size={18} />
        {word}
      </span>
    </Link>
  );
}
