// Causes: what is seen and felt, ranked, with the reading that separates them.
import { Bare, ChipButton } from '../../ui/Press';
import { diagnose } from '../../api/calls';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';

import { WornTread } from '../../figures/WornTread';
import { Glyph } from '../../ui/glyphs';
import { useBench } from '../../shell/ticket';
import { num } from '../../units/print';
import type { Schemas } from '../../api/client';
import { sideOf, useWearData, type TyreForecast, type Tyres } from '../../shell/tread';

type AskedTyre = Schemas['AskedTyre'];
type Seen = Record<string, string>;

/** What the job tells of the tyre asked about; the core knows which answers that makes. */
function askedOf(t: TyreForecast | undefined, picked: string | undefined, tyres: Tyres): AskedTyre {
  const axle = picked ?? (t && (t.place.endsWith('front') ? 'front' : 'rear'));
  const found = t?.scenes[0];
  return {
    tyres,
    axle: axle === 'front' || axle === 'rear' ? axle : null,
    found: found && { setups: found.setups, shares: found.shares },
  };
}

interface Props {
  modes: React.ReactNode;
  /** The tyre in hand, and all of them. */
  tyre: TyreForecast | undefined;
  tyres: TyreForecast[];
}

export function Diagnose({ modes, tyre: inHand, tyres }: Props) {
  const { ticket } = useBench();
  const [said, setSaid] = useState<Record<string, string | null>>({});
  // Another axle picked is another tyre: its drive, camber, toe and forecast, not those of the one before.
  const tyre =
    said.axle && inHand && !inHand.place.endsWith(said.axle)
      ? tyres.find((t) => t.place.endsWith(said.axle!) && sideOf(t.place) === sideOf(inHand.place))
      : inHand;
  const data = useWearData();
  // Depths as last read stand in for the pattern until one is pressed or taken out.
  const depths = said.pattern === undefined ? (tyre?.learned?.points.at(-1)?.read_mm ?? null) : null;
  const body = useMemo(() => {
    const pressed = Object.entries(said).filter((e): e is [string, string] => e[1] !== null);
    return {
      seen: Object.fromEntries(pressed),
      taken_out: Object.keys(said).filter((q) => said[q] === null),
      asked: askedOf(tyre, said.axle ?? undefined, ticket.tyres),
      depths_mm: depths as [number, number, number] | null,
    };
  }, [said, tyre, ticket, depths]);
  const answer = useQuery({
    queryKey: ['diagnose', body],
    queryFn: () => diagnose(body),
    placeholderData: (p) => p,
  });
  const start: Seen = answer.data?.known ?? {};
  const seen: Seen = Object.fromEntries(
    Object.entries({ ...start, ...said }).filter((e): e is [string, string] => e[1] !== null),
  );
  const d = answer.data;
  const measured = depths ? d?.measured_pattern : undefined;
  const shown = seen.pattern ?? measured;
  const told = Object.keys(said).some((k) => said[k] !== null) || !!measured;
  const questions = data.data?.diagnosis.questions ?? [];
  const pattern = questions.find((q) => q.id === 'pattern');
  const toggle = (q: string, a: string) =>
    setSaid((s) => ({ ...s, [q]: (q === 'pattern' ? shown : seen[q]) === a ? null : a }));
  return (
    <main className="main wear-main diagnose">
      <section className="pane" data-pane="Look" style={{ overflowY: 'auto' }}>
        <div style={{ padding: '12px 20px 10px' }}>
          <h1 className="wear-head" data-testid="diagnose-statement">
            {told ? (d?.headline ?? '…') : 'Say what the tread looks like'}
          </h1>
          <p className="mut" style={{ marginTop: 6 }}>
            Press what you see and feel. What the job knows already is filled in; press again to take it out.
          </p>
        </div>
        <div className="slate patterns">
          {pattern?.answers.map((a) => (
            <Bare
              key={a.id}

              aria-pressed={shown === a.id}
              onClick={() => toggle('pattern', a.id)}
              data-testid={`seen-pattern-${a.id}`}
            >
              <WornTread kind={a.id} />
              <span>
                {a.label}
                {measured === a.id && <small> by depth</small>}
              </span>
            </Bare>
          ))}
        </div>
        <div className="questions">
          {questions
            .filter((q) => q.id !== 'pattern')
            .map((q) => (
              <div key={q.id} className={d?.ask_next === q.id && told ? 'next' : ''}>
                <span className="ask">
                  {d?.ask_next === q.id && told && <Glyph name="now" size={16} />} {q.ask}
                  {start[q.id] && said[q.id] === undefined && <small> from the job</small>}
                </span>
                <span className="answers">
                  {q.answers.map((a) => (
                    <ChipButton
                      key={a.id}
                      size="small"
                      aria-pressed={seen[q.id] === a.id}
                      onClick={() => toggle(q.id, a.id)}
                      data-testid={`seen-${q.id}-${a.id}`}
                    >
                      {a.label}
                    </ChipButton>
                  ))}
                </span>
              </div>
            ))}
        </div>
      </section>
      <section className="pane wear-side" data-pane="Causes" aria-label="Causes" aria-live="polite">
        {modes}
        {d?.stop && (
          <div className="plate wide" role="alert" data-testid="diagnose-stop">
            <Glyph name="short" size={22} /> {d.stop}
          </div>
        )}
        {told && d?.replace && (
          <div className="plate wide" data-testid="diagnose-replace">
            <Glyph name="short" size={22} /> {d.replace}
          </div>
        )}
        {!told && <p>Causes come here, likeliest first, each with the reading that separates it.</p>}
        {told &&
          d?.causes.slice(0, 4).map((c, i) => (
            <article key={c.id} className="cause" data-testid={`cause-${i}`}>
              <h3>
                <span>
                  {i + 1}. {c.name}
                </span>
                <span className="fig">{num(c.share * 100)} %</span>
              </h3>
              <svg viewBox="0 0 318 8" width="100%" height="8" aria-hidden="true">
                <rect width="318" height="8" fill="var(--well)" />
                <rect width={318 * c.share} height="8" fill="var(--ink)" />
              </svg>
              {i < 2 && <p>{c.why}</p>}
              <p>
                <b>Separates it:</b> {c.separates}
              </p>
              {i === 0 && (
                <p>
                  <b>Then:</b> {c.then}
                </p>
              )}
              {c.caution && i < 2 && (
                <p className="word" style={{ whiteSpace: 'normal' }}>
                  <Glyph name="watch" size={18} /> {c.caution}
                </p>
              )}
              {i < 2 && (
                <p className="small">
                  {c.speaks_for.length > 0 && <>For: {c.speaks_for.map((x) => x.label).join(', ')}. </>}
                  {c.speaks_against.length > 0 && (
                    <>Against: {c.speaks_against.map((x) => x.label).join(', ')}.</>
                  )}
                </p>
              )}
            </article>
          ))}
        <p className="small" style={{ marginTop: 'auto' }}>
          Rules of thumb by judgement. Shares order the causes; they are no measurement. Irregular wear is not
          caused by balance, run-out or dampers.
        </p>
      </section>
    </main>
  );
}
