// On a phone the part in hand stands under the map, with the one thing to do about it.
import { Glyph } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { MainAct, type InHand } from './MainAct';
import { status } from './status';

export function PartInHand({ of }: { of: InHand }) {
  const { form } = useSettings();
  const { current } = of;
  if (!current) return null;
  const st = status(current, form);
  return (
    <div className="part-in-hand" data-testid="part-in-hand">
      <p>
        <b>{current.part.name}</b>
        <span className="word">
          <Glyph name={st.glyph} size={17} /> {st.word}
        </span>
        <span className="small mut">{current.does}</span>
      </p>
      <MainAct of={of} brief testid="fit-in-hand" />
    </div>
  );
}
