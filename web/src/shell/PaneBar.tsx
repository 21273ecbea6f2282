// On a phone a stage's panes lie side by side, one per screen: swiped, or opened by their names here.
import { useEffect, useRef, useState } from 'react';
import { Plain } from '../ui/Press';

/** Panes of the stage that is open: the children of its `main` that have a name. */
const panesNow = () =>
  [...document.querySelectorAll<HTMLElement>('main > [data-pane]')].toSorted(
    (a, b) => a.offsetLeft - b.offsetLeft,
  );

const go = (i: number, how: ScrollBehavior) => {
  const main = document.querySelector<HTMLElement>('main');
  const still = matchMedia('(prefers-reduced-motion: reduce)').matches;
  main?.scrollTo({ left: i * main.clientWidth, behavior: still ? 'instant' : how });
};

/** Reads the panes from the page, since every stage lays out its own. */
export function PaneBar() {
  const [names, setNames] = useState<string[]>([]);
  const [at, setAt] = useState(0);
  const bar = useRef<HTMLElement>(null);
  useEffect(() => {
    const frame = bar.current?.parentElement;
    if (!frame) return;
    let shown = '';
    const look = () => {
      const panes = panesNow();
      const now = panes.map((p) => p.dataset.pane ?? '');
      if (now.join('|') === shown) return;
      shown = now.join('|');
      setNames(now);
      // One that was just called for comes first.
      const front = panes.findIndex((p) => p.dataset.front !== undefined);
      if (front >= 0) go(front, 'instant');
      swiped();
    };
    // Which pane fills the screen.
    const swiped = () => {
      const main = document.querySelector<HTMLElement>('main');
      if (main?.clientWidth) setAt(Math.round(main.scrollLeft / main.clientWidth));
    };
    const changed = new MutationObserver(look);
    changed.observe(frame, { childList: true, subtree: true });
    frame.addEventListener('scroll', swiped, { capture: true, passive: true });
    look();
    return () => {
      changed.disconnect();
      frame.removeEventListener('scroll', swiped, { capture: true });
    };
  }, []);
  return (
    <nav className="pane-bar" aria-label="Panes of this stage" ref={bar} hidden={names.length < 2}>
      {names.map((n, i) => (
        <Plain
          key={n}
          aria-current={i === at ? 'true' : undefined}
          onClick={() => go(i, 'smooth')}
          data-testid={`pane-${i}`}
        >
          {n}
        </Plain>
      ))}
    </nav>
  );
}
