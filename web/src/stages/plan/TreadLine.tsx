// What the plan does to the tyres, in a line: as set against as found for each axle, or that it is too close to call.
import { Link } from 'react-router';
import type { AxleName, CarInput, CarWear, Ticket } from '../../api/client';
import { useTread, useWear, firstDone, leadOf, placeName, tooClose } from '../../shell/tread';
import { Glyph } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { useDebounced } from '../../ui/useDebounced';
import { farUnit } from '../../units/measure';
import { num } from '../../units/print';

/** How an axle's worse tyre does as set over as found; nothing where its angles were not read. */
export function axleRatio(w: CarWear, axle: AxleName) {
  const tyres = w.tyres.filter((t) => t.place.endsWith(axle));
  const ratios = tyres.flatMap((t) => t.scenes.filter((s) => s.id === 'found').map((s) => s.ratio_to_lead));
  // The wheel that gains least decides.
  return ratios.toSorted((a, b) => a.ratio - b.ratio)[0];
}

export function ratioWords(r: { ratio: number; low: number; high: number }): string {
  if (tooClose(r)) return 'too close to call';
  return `${num(r.ratio, 1)} times as far (${num(r.low, 1)}–${num(r.high, 1)})`;
}

export function TreadLine({ ticket, input }: { ticket: Ticket; input: CarInput }) {
  const { units } = useSettings();
  const still = useDebounced(input, 400);
  const tread = useTread(ticket.job.id);
  const wear = useWear(ticket, still, tread.data?.log).data;
  const first = wear && firstDone(wear);
  if (!wear || !first) return null;
  const each = (['front', 'rear'] as const).flatMap((a) => {
    const r = axleRatio(wear, a);
    return r ? [`${a} ${ratioWords(r)}`] : [];
  });
  if (!each.length) return null;
  return (
    <Link to={`../wear${window.location.search}`} className="tread-line" data-testid="tread-line">
      <Glyph name="watch" size={16} />
      <span>
        Tread as set against as found: {each.join(' · ')}. First at its limit: {placeName(first.place)},{' '}
        {farUnit(leadOf(first).band_km.median, units)}.
      </span>
    </Link>
  );
}
