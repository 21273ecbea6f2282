// Prove and Return: what will come here.
import { Button } from '@mui/material';
import { Link } from 'react-router';
import { useSettings } from '../../ui/settings';
import { Glyph } from '../../ui/glyphs';
import { farUnit } from '../../units/measure';

const words = {
  prove: [
    'Prove',
    'The full re-read after setting: predicted against measured, side by side, and what to do when they differ. The readings of the last gate on the setting sheet are already kept for it.',
  ],
  return: [
    'Return',
    'The settled re-check after 1 to 2 weeks or { far }: what the springs and bushings lost, what to turn back, and what was learned for the next one.',
  ],
} as const;

const visits = { prove: 'proved', return: 'returned' } as const;

export default function Later({ stage }: { stage: keyof typeof words }) {
  const { units } = useSettings();
  const [title, text] = words[stage];
  const told = text.replace('{ far }', farUnit(1000, units));
  return (
    <main className="main">
      <section className="pane" style={{ padding: 40, maxWidth: 720 }}>
        <h1 style={{ display: 'flex', gap: 12 }}>
          <Glyph name="unread" size={32} /> {title}, not built yet
        </h1>
        <p style={{ fontSize: 18, marginTop: 16 }}>{told}</p>
        <p style={{ fontSize: 18, margin: '16px 0' }}>
          Its readings can be taken already, as a visit of their own.
        </p>
        <Button
          component={Link}
          to={`../read?visit=${visits[stage]}`}
          variant="contained"
          data-testid="later-read"
        >
          Open that visit
        </Button>
      </section>
    </main>
  );
}
