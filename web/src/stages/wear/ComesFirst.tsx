// What was found on the car and comes before any forecast of its tyres.
import { Glyph } from '../../ui/glyphs';

export function ComesFirst({ first }: { first: string[] | undefined }) {
  if (!first?.length) return null;
  return (
    <ul className="wear-first" data-testid="wear-first" aria-label="Before any forecast">
      {first.map((f) => (
        <li key={f}>
          <Glyph name="short" size={16} /> {f}
        </li>
      ))}
    </ul>
  );
}
