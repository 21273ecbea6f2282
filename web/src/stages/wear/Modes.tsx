// The four ways of looking at tread.
import { Segment } from '../../ui/Segment';
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
    <Segment
      label="Look at"
      className="wear-modes"
      value={mode}
      choose={set}
      choices={all.map(([value, word]) => ({
        value,
        testid: `wear-${value}`,
        label: (
          <>
            {value === 'depths' && warned > 0 && <Glyph name="watch" size={17} />}
            {word}
            {value === 'depths' && warned > 0 && <span className="vh">, {warned} to look at</span>}
          </>
        ),
      }))}
    />
  );
}
