// How a part stands, as a mark and a word.
import type { Candidate } from '../../api/client';
import type { GlyphName } from '../../ui/glyphs';
import { angle, type AngleForm } from '../../units/print';

export function status(c: Candidate, form: AngleForm): { glyph: GlyphName; word: string } {
  switch (c.status) {
    case 'fitted':
      return { glyph: 'done', word: 'Fitted' };
    case 'reaches':
      return { glyph: 'aim', word: 'Reaches' };
    case 'not_judged':
      return { glyph: 'unread', word: 'Not judged' };
    case 'short':
      return { glyph: 'short', word: `${angle(c.short_deg, form, c.short_deg < 0.095 ? 2 : 1)} short` };
    case 'toe_only':
      return { glyph: 'none', word: 'Toe only' };
    case 'needs':
      return { glyph: 'unread', word: 'Needs more' };
    case 'fouls':
      return { glyph: 'clash', word: 'Fouls' };
    case 'clash':
      return { glyph: 'clash', word: 'Clash' };
    default:
      return { glyph: 'gate', word: 'Stops' };
  }
}

/** Hours of a part with what comes along with it. */
export const hoursOf = (c: Candidate) =>
  [c.part, ...c.kit].reduce((sum, p) => sum + p.labour_minutes, 0) / 60;
