// Fingers on a map: two draw it nearer, one that stays looks through a glass at what it hides. One that moves scrolls the page.
import { useEffect, useRef, type RefObject } from 'react';

type At = [number, number];

interface Deeds {
  /** Two fingers: spread since they came down, and their middle then and now, on the page. */
  pinch: (spread: number, from: At, to: At, first: boolean) => void;
  /** One finger rests on, and then moves over, a place of the page. */
  look: (at: At) => void;
  /** It was lifted where it last looked, or taken away. */
  lifted: (there: boolean) => void;
}

/** How long a finger rests before it looks, ms. */
const rests = 450;
/** How far it may stray meanwhile, px. */
const strays = 9;

export function useFingers(of: RefObject<Element | null>, deeds: Deeds, on: boolean) {
  const does = useRef(deeds);
  does.current = deeds;
  useEffect(() => {
    const el = of.current;
    if (!el || !on) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let looking = false;
    let down: At | undefined;
    let two: { far: number; mid: At } | undefined;
    const place = (t: Touch): At => [t.clientX, t.clientY];
    const between = (e: TouchEvent) => {
      const [a, b] = [place(e.touches[0]!), place(e.touches[1]!)];
      const mid: At = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
      return { far: Math.max(Math.hypot(a[0] - b[0], a[1] - b[1]), 20), mid };
    };
    const noLook = (there: boolean) => {
      clearTimeout(timer);
      if (looking) does.current.lifted(there);
      looking = false;
      down = undefined;
    };
    const start = (e: TouchEvent) => {
      if (e.touches.length === 2) {
        noLook(false);
        two = between(e);
        does.current.pinch(1, two.mid, two.mid, true);
        e.preventDefault();
        return;
      }
      noLook(false);
      down = place(e.touches[0]!);
      const at = down;
      timer = setTimeout(() => {
        looking = true;
        does.current.look(at);
      }, rests);
    };
    const move = (e: TouchEvent) => {
      if (two && e.touches.length === 2) {
        const now = between(e);
        does.current.pinch(now.far / two.far, two.mid, now.mid, false);
        e.preventDefault();
      } else if (looking) {
        does.current.look(place(e.touches[0]!));
        e.preventDefault();
      } else if (down) {
        const [x, y] = place(e.touches[0]!);
        if (Math.hypot(x - down[0], y - down[1]) > strays) noLook(false);
      }
    };
    const end = (e: TouchEvent) => {
      // A finger that looked, or drew nearer, does not press as well.
      if (looking || two) e.preventDefault();
      if (e.touches.length < 2) two = undefined;
      noLook(e.type === 'touchend');
    };
    const listen: [string, (e: TouchEvent) => void][] = [
      ['touchstart', start],
      ['touchmove', move],
      ['touchend', end],
      ['touchcancel', end],
    ];
    // A long press asks for a menu of the browser's; here it is the glass.
    const menu = (e: Event) => e.preventDefault();
    for (const [name, f] of listen) el.addEventListener(name, f as EventListener, { passive: false });
    el.addEventListener('contextmenu', menu);
    return () => {
      clearTimeout(timer);
      for (const [name, f] of listen) el.removeEventListener(name, f as EventListener);
      el.removeEventListener('contextmenu', menu);
    };
  }, [of, on]);
}
