// The pad a PIN is typed on: keys of 74 px for a greasy thumb, and every digit as a dot, since somebody stands behind.
import { useEffect } from 'react';
import { Plain } from '../ui/Press';

/** A slot for each digit; four until there are more. */
export function PinSlots({ n, label, kept }: { n: number; label: string; kept?: boolean }) {
  const slots = Math.max(4, n + (n >= 4 && n < 8 && !kept ? 1 : 0));
  return (
    <div className="pin-slots" role="img" aria-label={`${label}: ${n} digits typed`}>
      {Array.from({ length: slots }, (_, i) => (
        <span
          key={i}
          className={i < n ? 'full' : i === n ? 'next' : i >= 4 ? 'more' : ''}
          aria-hidden="true"
        />
      ))}
    </div>
  );
}

interface Props {
  pin: string;
  set: (pin: string) => void;
  /** The key at the lower left. */
  side: { word: string; press: () => void; testid: string };
  /** Pressed by Enter, where there is something to press. */
  enter?: () => void;
  disabled?: boolean;
}

export function PinPad({ pin, set, side, enter, disabled }: Props) {
  const put = (d: string) => !disabled && pin.length < 8 && set(pin + d);
  const back = () => set(pin.slice(0, -1));
  useEffect(() => {
    const on = (e: KeyboardEvent) => {
      const t = e.target as HTMLElement;
      if (/^(INPUT|TEXTAREA|SELECT)$/.test(t.tagName) || e.ctrlKey || e.metaKey || e.altKey) return;
      if (/^\d$/.test(e.key)) put(e.key);
      else if (e.key === 'Backspace') back();
      else if (e.key === 'Enter' && enter && t.tagName !== 'BUTTON') enter();
      else return;
      e.preventDefault();
    };
    window.addEventListener('keydown', on);
    return () => window.removeEventListener('keydown', on);
  });
  return (
    <div className="pin-keys" role="group" aria-label="Digits">
      {['1', '2', '3', '4', '5', '6', '7', '8', '9'].map((d) => (
        <Plain key={d} onClick={() => put(d)} disabled={disabled} data-testid={`digit-${d}`}>
          {d}
        </Plain>
      ))}
      <Plain className="side" onClick={side.press} data-testid={side.testid}>
        {side.word}
      </Plain>
      <Plain onClick={() => put('0')} disabled={disabled} data-testid="digit-0">
        0
      </Plain>
      <Plain onClick={back} aria-label="Take the last digit back" data-testid="digit-back">
        <svg width="40" height="28" viewBox="0 0 40 28" aria-hidden="true">
          <path
            d="M12 2H38V26H12L2 14Z M18 8L30 20M30 8L18 20"
            fill="none"
            stroke="currentColor"
            strokeWidth="2.6"
            strokeLinejoin="round"
          />
        </svg>
      </Plain>
    </div>
  );
}
