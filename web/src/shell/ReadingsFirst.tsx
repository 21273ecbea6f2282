// A stage that waits for readings, and the way to them.
import { Button } from '@mui/material';
import { Link } from 'react-router';

export function ReadingsFirst({ title, missing }: { title: string; missing: string[] }) {
  return (
    <main className="main">
      <section className="pane" style={{ padding: 28 }}>
        <h1>{title}</h1>
        <p style={{ margin: '12px 0 20px' }}>Readings first: {missing.join(', ')}.</p>
        <Button component={Link} to={`../read${window.location.search}`} variant="contained">
          Take the readings
        </Button>
      </section>
    </main>
  );
}

/** While an answer is worked out, or why there is none. */
export function Waiting({ words, fault }: { words: string; fault?: string | undefined }) {
  return (
    <main className="main">
      <section className="pane" style={{ padding: 28 }} role={fault ? 'alert' : undefined}>
        {fault ?? words}
      </section>
    </main>
  );
}
