// What turns of a collar or bolt gave on the shop's cars, and how far each way of changing height settled.
import type { Schemas } from '../../api/client';
import { useSettings } from '../../ui/settings';
import { length, num } from '../../units/print';

type Known = Schemas['KnownHeights'];

const cars = (n: number) => (n === 1 ? '1 car' : `${n} cars`);

export function HeightsKnown({ known, ways }: { known: Known; ways: { kind: string; words: string }[] }) {
  const { unit } = useSettings();
  const turns = [
    { name: 'Collar', of: 'of its thread over its ratio', t: known.turns?.collar },
    { name: 'Torsion bolt', of: 'of what is usual', t: known.turns?.torsion_bolt },
  ];
  const settles = known.settles ?? [];
  if (!settles.length && turns.every((r) => !r.t)) return null;
  return (
    <section aria-label="Height" data-testid="memory-heights">
      <div className="memory-title">
        <h2>Height</h2>
        <span className="small mut">what a turn gave, how far it settled; then the next car, 90 in 100.</span>
      </div>
      {turns.map(
        ({ name, of, t }) =>
          t && (
            <div
              key={name}
              className="memory-height"
              data-testid={`memory-turn-${name.toLowerCase().replace(' ', '-')}`}
            >
              <span>
                <b>{name}</b>
                <span className="small">a turn, {of}</span>
              </span>
              <b className="fig">×{num(t.times, 2)}</b>
              <span>
                {cars(t.cars)}
                <span className="small">
                  next ×{num(t.between[0]!, 2)} to {num(t.between[1]!, 2)}
                </span>
              </span>
            </div>
          ),
      )}
      {settles.map((s) => (
        <div
          key={s.way ?? 'untold'}
          className="memory-height"
          data-testid={`memory-settle-${s.way ?? 'untold'}`}
        >
          <span>
            <b>
              {ways.find((w) => w.kind === s.way)?.words.replace(/^./, (c) => c.toUpperCase()) ??
                'Way not told'}
            </b>
            <span className="small">settles by</span>
          </span>
          <b className="fig">{length(s.mm, unit)}</b>
          <span>
            {cars(s.cars)}
            <span className="small">
              next {length(s.between[0]!, unit)} to {length(s.between[1]!, unit)}
            </span>
          </span>
        </div>
      ))}
    </section>
  );
}
