// A short "how to read this" on a drawing: what each mark of it is, in the words that are used beside it.
import { Popover } from '@mui/material';
import { useState } from 'react';
import { Bare } from './Press';
import { howTo, type Drawn } from './howTo';

export function HowTo({ of }: { of: Drawn }) {
  const [at, setAt] = useState<HTMLElement>();
  const { title, lines } = howTo[of];
  return (
    <>
      <Bare
        className="how-to no-print"
        aria-label={`How to read this: ${title.toLowerCase()}`}
        aria-haspopup="dialog"
        aria-expanded={!!at}
        onClick={(e) => setAt(e.currentTarget)}
        data-testid={`how-to-${of}`}
      >
        <span aria-hidden="true">?</span>
      </Bare>
      <Popover
        open={!!at}
        anchorEl={at ?? null}
        onClose={() => setAt(undefined)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'right' }}
        transformOrigin={{ vertical: 'top', horizontal: 'right' }}
      >
        <div className="how-to-text" role="dialog" aria-label={`How to read this: ${title.toLowerCase()}`}>
          <h3>{title}</h3>
          <ul>
            {lines.map((l) => (
              <li key={l}>{l}</li>
            ))}
          </ul>
        </div>
      </Popover>
    </>
  );
}
