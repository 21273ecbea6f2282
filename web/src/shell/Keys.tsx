// The keys, listed.
import { Dialog } from '@mui/material';
import { useState } from 'react';
import { ChipButton } from '../ui/Press';
import { help, setSingleKeys, singleKeys } from './bindings';
import { Drawings } from './Drawings';

export function Keys({ open, close }: { open: boolean; close: () => void }) {
  const [single, setSingle] = useState(singleKeys);
  return (
    <Dialog open={open} onClose={close} aria-labelledby="keys-title">
      <div style={{ padding: 24, minWidth: 320 }}>
        <h2 id="keys-title" style={{ marginBottom: 14 }}>
          Keys
        </h2>
        <p style={{ marginBottom: 12 }}>
          <ChipButton
            aria-pressed={single}
            onClick={() => {
              setSingleKeys(!single);
              setSingle(!single);
            }}
            data-testid="single-keys"
          >
            Single keys: {single ? 'on' : 'off'}
          </ChipButton>
        </p>
        <dl style={{ display: 'grid', gridTemplateColumns: 'auto 1fr', gap: '8px 18px', margin: 0 }}>
          {help.map(([k, what]) => (
            <div key={k} style={{ display: 'contents' }}>
              <dt>
                <span className="key" style={{ whiteSpace: 'pre' }}>
                  {k}
                </span>
              </dt>
              <dd style={{ margin: 0 }}>{what}</dd>
            </div>
          ))}
        </dl>
        {open && <Drawings />}
      </div>
    </Dialog>
  );
}
