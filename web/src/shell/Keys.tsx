// Keys: the overlay, and the listener. Never while typing.
import { Dialog } from '@mui/material';
import { useEffect, useRef } from 'react';

const list: [string, string][] = [
  ['1 – 7', 'stage'],
  ['G', 'all jobs'],
  ['N', 'new arrival, on the jobs page'],
  ['L  R  B', 'left, right, both'],
  ['[  ]', 'height −5 / +5 mm, with Shift 1 mm'],
  ['P', 'next part'],
  ['C', 'compare plans'],
  ['K', 'map at full lock, and back'],
  ['/', 'find a ticket, on the jobs page'],
  ['Enter', 'fit the part, or press the focused button'],
  ['Backspace', 'take the part off'],
  [',  .', 'distance −1 000 / +1 000 km'],
  ['T', 'table beside the drawing'],
  ['Z', 'undo in the plan'],
  ['U  M', 'mm or inches, decimal or minutes'],
  ['?', 'this list'],
];

export function useKeys(map: Record<string, (e: KeyboardEvent) => void>) {
  const latest = useRef(map);
  latest.current = map;
  useEffect(() => {
    const on = (e: KeyboardEvent) => {
      const t = e.target as HTMLElement;
      const typing = /^(INPUT|TEXTAREA|SELECT)$/.test(t.tagName) || t.isContentEditable;
      const acting = /^(BUTTON|A)$/.test(t.tagName) && (e.key === 'Enter' || e.key === ' ');
      if (typing || acting || e.ctrlKey || e.metaKey || e.altKey || document.querySelector('[role=dialog]'))
        return;
      const f = latest.current[e.key] ?? latest.current[e.key.toLowerCase()];
      if (f) {
        e.preventDefault();
        f(e);
      }
    };
    window.addEventListener('keydown', on);
    return () => window.removeEventListener('keydown', on);
  }, []);
}

export function Keys({ open, close }: { open: boolean; close: () => void }) {
  return (
    <Dialog open={open} onClose={close} aria-labelledby="keys-title">
      <div style={{ padding: 24, minWidth: 320 }}>
        <h2 id="keys-title" style={{ marginBottom: 14 }}>
          Keys
        </h2>
        <dl style={{ display: 'grid', gridTemplateColumns: 'auto 1fr', gap: '8px 18px', margin: 0 }}>
          {list.map(([k, what]) => (
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
      </div>
    </Dialog>
  );
}
