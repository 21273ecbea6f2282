// On a tablet the three parts that do most stand under the map with what to do; everything else of the parts is a sheet away.
import { Button } from '@mui/material';
import type { ReactNode } from 'react';
import { useNavigate } from 'react-router';
import type { Candidate } from '../../api/client';
import { Bare } from '../../ui/Press';
import { Glyph } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { num } from '../../units/print';
import { MainAct, type InHand } from './MainAct';
import { hoursOf, status } from './status';

/** The first three, and the one in hand in the last place where it is none of them. */
export function bestThree(all: readonly Candidate[], current: Candidate | undefined): Candidate[] {
  const first = all.slice(0, 3);
  return !current || first.some((c) => c.part.id === current.part.id)
    ? first
    : [...first.slice(0, 2), current];
}

interface Props {
  /** Which plan it is, and whether it is saved. */
  menu: ReactNode;
  candidates: readonly Candidate[];
  of: InHand;
  pick: (id: string) => void;
  /** Opens the aim, every part, sets and the whole car. */
  all: () => void;
}

export function BestParts({ menu, candidates, of, pick, all }: Props) {
  const { form } = useSettings();
  const navigate = useNavigate();
  return (
    <section className="pane best-parts" aria-label="Best parts">
      <div className="best-row">
        {bestThree(candidates, of.current).map((c) => {
          const st = status(c, form);
          const on = c.part.id === of.current?.part.id;
          return (
            <Bare
              key={c.part.id}
              aria-pressed={on}
              className={on ? 'on' : ''}
              onClick={() => pick(c.part.id)}
              data-testid={`best-${c.part.id.split('@')[0]}`}
            >
              <span className="best-name">
                <b>{c.part.name}</b>
                <span className="word">
                  <Glyph name={st.glyph} size={17} /> {st.word}
                </span>
              </span>
              <span className="fig">
                {c.does} · {num(hoursOf(c), 1)} h
              </span>
              <span className="small mut clamp">{c.fouls[0] ?? c.costs}</span>
            </Bare>
          );
        })}
      </div>
      <div className="best-acts">
        <div className="best-plan">{menu}</div>
        <MainAct of={of} sx={{ flex: 1 }} testid="fit-best" />
        <Button variant="outlined" onClick={all} data-testid="all-parts">
          Aim, all {candidates.length} parts
        </Button>
        <Button variant="outlined" onClick={() => navigate(`../compare${window.location.search}`)}>
          Compare
        </Button>
      </div>
    </section>
  );
}
