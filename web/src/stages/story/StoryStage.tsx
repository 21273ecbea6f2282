// A job's whole story on one page: the car before and after, and what happened in order.
import { HowTo } from '../../ui/HowTo';
import { useQuery } from '@tanstack/react-query';
import { jobStory } from '../../api/calls';
import { useMay } from '../../door/useSession';
import { Overlay } from '../../figures/Overlay';
import { useBench } from '../../shell/ticket';
import { axleWord, useSheet } from '../../sheet/sheet';
import { useSettings } from '../../ui/settings';
import { when } from '../../units/when';
import { Erase } from './Erase';
import { storyOf } from './story';

export default function StoryStage() {
  const bench = useBench();
  const { ticket, answer } = bench;
  const { unit, form } = useSettings();
  const sheet = useSheet(bench);
  const story = useQuery({
    queryKey: ['story', ticket.job.id, ticket.job.version, ticket.readings.length, ticket.done.length],
    queryFn: () => jobStory(ticket.job.id),
  });
  const may = useMay();
  const title = (step: string) => sheet.data?.steps.find((s) => s.id === step)?.title ?? step;
  const lines = storyOf(story.data?.events ?? [], ticket, title, unit, form);
  return (
    <main className="main story-main" data-testid="story">
      <section className="pane story-lines" data-pane="What happened" aria-label="What happened">
        <h1>Ticket {String(ticket.job.ticket).padStart(4, '0')}, from the beginning</h1>
        <p className="mut">
          {[ticket.vehicle.facts.name, ticket.job.plate, ticket.job.complaint].filter(Boolean).join(' · ')}
        </p>
        {may('records') && <Erase />}
        {story.isError && <p className="plate">{story.error.message}</p>}
        <ol className="story">
          {lines.map((l, i) => (
            // Two things may carry one time; their order is what tells them apart.
            // oxlint-disable-next-line react/no-array-index-key
            <li key={l.at + i}>
              <div>
                <b>{l.words}</b>{' '}
                <span className="small mut">
                  {when(l.at)} · {l.author}
                </span>
              </div>
              {l.more.map((m, k) => (
                // oxlint-disable-next-line react/no-array-index-key
                <p key={m + k} className="small">
                  {m}
                </p>
              ))}
            </li>
          ))}
        </ol>
      </section>
      {/* It scrolls by the keys as well. */}
      {/* oxlint-disable-next-line jsx-a11y/no-noninteractive-tabindex */}
      <section
        className="pane slate story-before"
        data-pane="Before and after"
        aria-label="Before and after"
        tabIndex={0}
      >
        {(['front', 'rear'] as const).map((axle) => {
          const r = answer?.axles[axle];
          return (
            r && (
              <div key={axle}>
                <div className="drawn">
                  <HowTo of="overlay" />
                  <Overlay
                    title={`${axleWord(axle)} left, true scale`}
                    items={[
                      { key: 1, name: 'as found', drawing: r.left.drawing_before },
                      { key: 2, name: 'as planned', drawing: r.left.drawing_set },
                    ]}
                  />
                </div>
              </div>
            )
          );
        })}
        {!answer && <p style={{ padding: 18 }}>Drawn once it was read and planned.</p>}
      </section>
    </main>
  );
}
