// The four ways of looking at tread.
import { Glyph } from '../../ui/glyphs';

export type Mode = 'tread' | 'depths' | 'rotate' | 'diagnose';
const all: [Mode, string][] = [
  ['tread', 'Tread'],
  ['depths', 'Depths'],
  ['rotate', 'Rotate'],
  ['diagnose', 'Causes'],
];

export function Modes({ mode, set, warned }: { mode: Mode; set: (m: Mode) => void; warned: number }) {
  return (
    <div className="seg wear-modes" role="group" aria-label="Look at">
      {all.map(([id, word]) => (
        <button
          key={id}
          type="button"
          aria-pressed={mode === id}
          onClick={() => set(id)}
          data-testid={`wear-${id}`}
        >
          {id === 'depths' && warned > 0 && <Glyph name="watch" size={17} />}
          {word}
          {id === 'depths' && warned > 0 && <span className="vh">, {warned} to look at</span>}
        </button>
      ))}
    </div>
  );
}
