// A page that is not there, or one that broke: say so and offer the way back.
import { Button } from '@mui/material';
import { Link, useRouteError } from 'react-router';
import { ApiProblem } from '../api/client';
import { Glyph } from '../ui/glyphs';

export function Fault() {
  const e = useRouteError();
  return (
    <main style={{ padding: 40, maxWidth: 640 }}>
      <h1 style={{ display: 'flex', gap: 12 }}>
        <Glyph name="clash" size={30} /> {e ? 'This page broke' : 'Nothing at this address'}
      </h1>
      <p style={{ margin: '14px 0 20px' }}>
        {e instanceof Error ? e.message : 'The ticket may have been removed.'} What was kept is safe in the
        shop&rsquo;s database.
      </p>
      <Button component={Link} to="/" variant="contained">
        Back to the jobs
      </Button>
    </main>
  );
}

/** A stage that could not be fetched or broke: the job around it stays, with everything typed in it. */
export function StageFault() {
  const e = useRouteError();
  return (
    <main className="main" style={{ padding: 28 }}>
      <section className="pane" style={{ padding: 24 }} role="alert">
        <h1>This stage did not open</h1>
        <p style={{ margin: '12px 0 18px' }}>
          {e instanceof Error ? e.message : 'The server may be away.'} What was typed elsewhere is kept.
        </p>
        <Button variant="contained" onClick={() => window.location.reload()}>
          Try again
        </Button>
      </section>
    </main>
  );
}

/** A refusal of the whole, where no field is wrong. */
export function Refusal({ error }: { error: Error }) {
  return (
    <div className="field-error" role="alert">
      <Glyph name="clash" size={16} />
      <span>
        {error instanceof ApiProblem && <b>{error.title}. </b>}
        {error.message}
      </span>
    </div>
  );
}

/** A refusal beside what was typed. */
export function FieldError({ wrong, right }: { wrong: string; right: string }) {
  return (
    <div className="field-error" role="alert">
      <Glyph name="clash" size={16} />
      <span>
        <b>{wrong}.</b> Right would be: {right}.
      </span>
    </div>
  );
}
