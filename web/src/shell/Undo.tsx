// The last deed with its way back, in sight for eight seconds over the strip, where nothing is pressed; and the list of all of
// them.
import { Button, Dialog } from '@mui/material';
import { useEffect, useState } from 'react';
import { Plain } from '../ui/Press';
import { clock } from '../units/when';
import { IN_SIGHT_MS, takeBack, useDeeds } from './deeds';

export function Undo() {
  const deeds = useDeeds();
  const last = deeds.at(-1);
  const [gone, setGone] = useState(0);
  const [open, setOpen] = useState(false);
  const [fault, setFault] = useState('');
  // What was refused is said of this deed alone.
  const [of, setOf] = useState(0);
  if (last && of !== last.id) {
    setOf(last.id);
    setFault('');
  }
  const stamp = last ? last.id * 1e13 + last.at.getTime() : 0;
  useEffect(() => {
    if (!stamp) return;
    const t = setTimeout(() => setGone(stamp), IN_SIGHT_MS);
    return () => clearTimeout(t);
  }, [stamp]);
  const back = (id: number) => {
    setFault('');
    takeBack(id).catch((e: Error) => setFault(e.message));
  };
  const shown = last && gone !== stamp;
  return (
    <>
      <div className="undo" role="status" data-testid="undo">
        {shown && (
          <div className="undo-chip">
            <span>{fault || (last.undone ? `Taken back: ${last.words}` : last.words)}</span>
            {last.undo && !last.undone && (
              <Plain onClick={() => back(last.id)} data-testid="undo-last">
                Undo
              </Plain>
            )}
            <Plain onClick={() => setOpen(true)} data-testid="undo-list" aria-label="What was done here">
              All
            </Plain>
          </div>
        )}
      </div>
      <Dialog open={open} onClose={() => setOpen(false)} aria-labelledby="deeds-title">
        <div style={{ padding: 24, minWidth: 300, maxWidth: 560 }}>
          <h2 id="deeds-title">Done here since the page was opened</h2>
          {fault && <p role="alert">{fault}</p>}
          <ul className="deeds">
            {deeds.toReversed().map((d) => (
              <li key={d.id}>
                <span className="fig mut">{clock(d.at.toISOString())}</span>
                <span style={{ textDecoration: d.undone ? 'line-through' : undefined }}>{d.words}</span>
                {d.undone ? (
                  <span className="small mut">taken back</span>
                ) : d.undo ? (
                  <Button variant="outlined" onClick={() => back(d.id)}>
                    Undo
                  </Button>
                ) : (
                  <span className="small mut">stays in the record</span>
                )}
              </li>
            ))}
          </ul>
        </div>
      </Dialog>
    </>
  );
}
