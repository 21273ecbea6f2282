// The slip: shown once, printed, and the only way back for an owner who loses the PIN.
import { Button } from '@mui/material';
import { useState } from 'react';
import { Tick } from '../ui/Tick';

export function Slip({ slip, why, done }: { slip: string; why: string; done: () => void }) {
  const [kept, setKept] = useState(false);
  return (
    <section className="slip" aria-labelledby="slip-title">
      <h2 id="slip-title">Recovery slip</h2>
      <p>{why}</p>
      <p className="slip-letters fig" data-testid="slip-letters">
        {slip}
      </p>
      <p className="mut">
        No mail, no net needed. Lose the PIN and the slip, and only a backup brings the shop back. Keep it off
        the bench.
      </p>
      <div className="slip-acts no-print">
        <Button variant="outlined" onClick={() => window.print()} data-testid="slip-print">
          Print it
        </Button>
        <Tick on={kept} set={setKept} testid="slip-kept">
          It is printed or written down
        </Tick>
        <Button
          variant="contained"
          disabled={!kept}
          onClick={done}
          sx={{ minHeight: 60 }}
          data-testid="slip-done"
        >
          To the bays
        </Button>
      </div>
    </section>
  );
}
