// Says that what a form shows was typed earlier and never kept, and takes it back to what is kept.
import { ChipButton } from '../ui/Press';
import { useDraft } from './drafts';
import { Glyph } from '../ui/glyphs';

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** State of a form or dialog whose typing outlives a closed dialog, another stage and a reload. */
export function useTyped<T>(key: string, start: () => T) {
  return useDraft<T>(key, start, same);
}

export function Unkept({ typed }: { typed: { restored: boolean; drop: () => void } }) {
  if (!typed.restored) return null;
  return (
    <p className="small" style={{ display: 'flex', gap: 8, alignItems: 'center' }} role="status">
      <Glyph name="stale" size={16} /> Typed before and not kept yet.
      <ChipButton size="small" onClick={typed.drop} data-testid="drop-draft">
        Drop it
      </ChipButton>
    </p>
  );
}
