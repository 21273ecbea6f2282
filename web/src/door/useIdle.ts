// Whether nobody has touched this screen for a time.
import { useEffect, useRef } from 'react';

const touches = ['pointerdown', 'pointermove', 'keydown', 'wheel', 'touchstart'] as const;

/** Calls `left` once nobody touched the screen for so many minutes; never without a number. */
export function useIdle(minutes: number | undefined, left: () => void): void {
  const act = useRef(left);
  act.current = left;
  useEffect(() => {
    if (!minutes) return;
    let last = Date.now();
    const touched = () => {
      last = Date.now();
    };
    // A tablet that slept looks at the clock when it wakes, not at a timer that slept too.
    const look = () => {
      if (Date.now() - last >= minutes * 60_000) {
        last = Date.now();
        act.current();
      }
    };
    const every = setInterval(look, 5000);
    document.addEventListener('visibilitychange', look);
    for (const t of touches) window.addEventListener(t, touched, { capture: true, passive: true });
    return () => {
      clearInterval(every);
      document.removeEventListener('visibilitychange', look);
      for (const t of touches) window.removeEventListener(t, touched, { capture: true });
    };
  }, [minutes]);
}
