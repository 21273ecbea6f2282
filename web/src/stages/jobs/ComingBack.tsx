// Cars that are due for another look, the soonest first.
import type { JobLine } from '../../api/client';
import { useSettings } from '../../ui/settings';
import { daysTo } from '../../units/days';
import { farUnit } from '../../units/measure';
import { JobRow } from './JobRow';

export const dueWord = (days: number): string =>
  days < 0
    ? `${-days} ${days === -1 ? 'day' : 'days'} overdue`
    : days === 0
      ? 'due today'
      : `in ${days} ${days === 1 ? 'day' : 'days'}`;

export const isDue = (j: JobLine) => !!j.job.aftercare.next_look;

export function ComingBack({ jobs }: { jobs: JobLine[] }) {
  const { units } = useSettings();
  const day = (j: JobLine) => j.job.aftercare.next_look?.on ?? '9999';
  const due = jobs.filter(isDue).toSorted((a, b) => day(a).localeCompare(day(b)));
  if (!due.length) return null;
  return (
    <section className="pane" aria-label="Coming back" data-testid="coming-back">
      <div style={{ display: 'flex', justifyContent: 'space-between', padding: '14px 18px 8px' }}>
        <h3>Coming back</h3>
        <span className="small mut">the soonest first</span>
      </div>
      {due.map((j) => {
        const look = j.job.aftercare.next_look!;
        const days = look.on ? daysTo(look.on) : undefined;
        const far = look.after_km == null ? '' : farUnit(look.after_km, units);
        const word = [days === undefined ? '' : dueWord(days), far && `or ${far}`].filter(Boolean).join(' ');
        return (
          <JobRow
            key={j.job.id}
            j={j}
            to="return"
            glyph={days !== undefined && days < 0 ? 'stale' : 'unread'}
            word={word.replace(/^or /, 'after ')}
            testid={`due-${j.job.ticket}`}
          />
        );
      })}
    </section>
  );
}
