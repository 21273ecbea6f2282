// What the shop learned: what parts really move, and how well it said what would come.
import { HowTo } from '../../ui/HowTo';
import { useQuery } from '@tanstack/react-query';
import { getMemory } from '../../api/calls';
import type { Schemas } from '../../api/client';
import { at, SoldAndMoved } from '../../figures/SoldAndMoved';
import { ShopFrame } from '../../shell/ShopFrame';
import { useTitle } from '../../shell/title';
import { useShop } from '../../shell/ticket';
import { Glyph, type GlyphName } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { angle, length, num } from '../../units/print';
import { axleWord } from '../../sheet/sheet';
import { HeightsKnown } from './Heights';
import { OtherShops } from './OtherShops';

type Row = Schemas['MemoryRow'];

export default function Memory() {
  useTitle('What the shop learned');
  const shop = useShop();
  const memory = useQuery({ queryKey: ['memory'], queryFn: getMemory });
  const m = memory.data;
  const odd = m?.parts.reduce((n, p) => n + p.of.cars.filter((c) => c.explained).length, 0) ?? 0;
  return (
    <ShopFrame
      title="What the shop learned"
      here={{ to: '/memory', name: 'Memory' }}
      strip={
        <div className="tablet-up memory-counts">
          <Count n={m?.cars ?? 0} word={m?.cars === 1 ? 'car proved' : 'cars proved'} />
          {!!m?.handed && <Count n={m.handed} word="of other shops" />}
          <Count n={m?.parts.length ?? 0} word="parts tried" />
          <Count n={odd} word="odd, not counted" />
        </div>
      }
    >
      <main className="main memory-main">
        {memory.isError && (
          <section className="pane" style={{ padding: 20 }} role="alert">
            <span className="plate">
              <Glyph name="stale" /> {memory.error.message}
            </span>
          </section>
        )}
        <section className="pane" aria-label="Sold, and moved">
          <div className="memory-title">
            <h2>Sold, and moved</h2>
            <HowTo of="memory" />
            <span className="small mut">dot: one car. Rope: what we say next time, 90 in 100.</span>
          </div>
          {m && !m.parts.length && (
            <p style={{ padding: '14px 18px' }} data-testid="memory-empty">
              No part was tried yet. A car teaches once a part on it is turned, read, and accepted at Prove.
            </p>
          )}
          {m && m.parts.length > 0 && (
            <div className="memory-row memory-head" aria-hidden="true">
              <span />
              <span />
              <svg viewBox="0 0 330 22" width="100%">
                {[0.6, 1, 1.4].map((v) => (
                  <text
                    key={v}
                    x={at(Math.log(v))}
                    y="16"
                    fontSize="15"
                    fontWeight="600"
                    fill="var(--ink2)"
                    textAnchor="middle"
                    fontFamily="var(--figure)"
                  >
                    {v === 1 ? 'as sold' : `×${v}`}
                  </text>
                ))}
              </svg>
              <span />
            </div>
          )}
          {m?.parts.map((r) => (
            <PartRow key={`${r.of.part ?? ''}/${r.of.adjuster}`} r={r} />
          ))}
        </section>
        <section className="pane" aria-label="How well we said it">
          <div className="memory-title">
            <h2>How well we said it</h2>
            <span className="small mut">in the ring, of 100. 90 is right. Then the middle miss.</span>
          </div>
          {m && !m.how_well.length && (
            <p style={{ padding: '14px 18px' }}>No car of this shop was proved yet.</p>
          )}
          {m?.how_well.map((h) => (
            <HowWell key={h.axle + h.angle} h={h} />
          ))}
          {m?.heights && <HeightsKnown known={m.heights} ways={shop.data?.ways ?? []} />}
          <OtherShops />
        </section>
      </main>
    </ShopFrame>
  );
}

function Count({ n, word }: { n: number; word: string }) {
  return (
    <span>
      <b className="fig">{n}</b> {word}
    </span>
  );
}

/** What it was found to move, in its own measure, and between what. */
export function movedWords(r: Row, unit: 'mm' | 'in', form: 'decimal' | 'minutes') {
  const show = (times: number) =>
    r.claim_mm != null
      ? unit === 'in'
        ? `${num((r.claim_mm * times) / 25.4, 3)} in`
        : length(r.claim_mm * times, unit, 1)
      : r.claim_deg != null
        ? angle(r.claim_deg * times, form, 2)
        : `×${num(times, 2)}`;
  const [low, high] = r.of.between;
  return { sold: show(1), moved: show(r.of.times), between: `${show(low!)} to ${show(high!)}` };
}

function PartRow({ r }: { r: Row }) {
  const { unit, form } = useSettings();
  const w = movedWords(r, unit, form);
  const n = r.of.known?.cars ?? 0;
  return (
    <div
      className="memory-row"
      data-testid={`memory-${r.of.part ?? 'own'}-${r.of.adjuster.toLowerCase().replaceAll(' ', '-')}`}
    >
      <span>
        <b>{r.name ?? 'On the car'}</b>
        <span className="small" style={{ display: 'block' }}>
          {r.of.adjuster.toLowerCase()}
          {(r.claim_mm ?? r.claim_deg) != null && `, sold ±${w.sold}`}
        </span>
      </span>
      <b className="fig memory-moved">{n ? w.moved : 'claim only'}</b>
      <SoldAndMoved
        cars={r.of.cars.map((c) => ({ ticket: c.ticket, times: c.times, odd: !!c.explained }))}
        between={[r.of.between[0]!, r.of.between[1]!]}
        known={n > 0}
        label={`${r.name ?? 'On the car'}: sold ${w.sold}, moved ${w.moved}, next car ${w.between}`}
      />
      <span className="memory-cars">
        {n === 1 ? '1 car' : `${n} cars`}
        <span className="small" style={{ display: 'block' }}>
          next {w.between}
        </span>
      </span>
      {r.of.cars
        .filter((c) => c.explained)
        .map((c) => (
          <p key={c.ticket} className="memory-odd">
            <Glyph name="watch" size={16} />{' '}
            {c.ticket ? `Ticket ${String(c.ticket).padStart(4, '0')}` : 'A car of another shop'} not counted:{' '}
            {c.explained}
          </p>
        ))}
    </div>
  );
}

const held: Record<Schemas['HowHeld'], [GlyphName, string]> = {
  holds: ['done', 'holds'],
  too_sure: ['short', 'too sure'],
  too_careful: ['none', 'too careful'],
};

function HowWell({ h }: { h: Schemas['HowWell'] }) {
  const { form } = useSettings();
  const [glyph, word] = held[h.held];
  return (
    <div className="memory-how" data-testid={`how-${h.axle}-${h.angle}`}>
      <b>
        {axleWord(h.axle)} {h.angle}
      </b>
      <svg
        viewBox={`0 0 300 ${14 + 12 * Math.floor((h.inside.length - 1) / 30)}`}
        width="100%"
        role="img"
        aria-label={`${h.inside.filter(Boolean).length} of ${h.inside.length} inside the ring`}
      >
        {h.inside.map((inside, i) => {
          const [x, y] = [6 + (i % 30) * 9.8, 7 + 12 * Math.floor(i / 30)];
          return inside ? (
            <circle key={i} cx={x} cy={y} r="3.6" fill="var(--edge)" />
          ) : (
            <g key={i} stroke="var(--ink)" strokeWidth="1.6" fill="none">
              <circle cx={x} cy={y} r="3.6" />
              <path d={`M${x - 4.4} ${y + 4.4}L${x + 4.4} ${y - 4.4}`} />
            </g>
          );
        })}
      </svg>
      <span>
        <b className="fig" style={{ fontSize: 26 }}>
          {num(h.share)}
        </b>{' '}
        ({num(h.between[0]!)}–{num(h.between[1]!)})
      </span>
      <span className="fig" style={{ fontSize: 20 }}>
        {angle(h.middle_deg, form, 2)}
      </span>
      <span className="word">
        <Glyph name={glyph} size={18} /> {word}
      </span>
    </div>
  );
}
