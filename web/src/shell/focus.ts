// After another view was opened the keys and the screen reader go on in it, not at the button that is gone.

/** How long a view may take to come, ms. */
const MOST_MS = 3000;

/** Moves the focus into the view once it is there; where it took the focus itself, it keeps it. */
export function focusView(from = performance.now(), before = document.querySelector('main')): void {
  requestAnimationFrame(() => {
    const main = document.querySelector('main');
    if (!main || main === before) {
      if (performance.now() - from < MOST_MS) focusView(from, before);
      return;
    }
    if (main.contains(document.activeElement) || document.querySelector('[role=dialog]')) return;
    main.tabIndex = -1;
    main.focus({ preventScroll: true });
  });
}

interface Router {
  subscribe: (
    f: (s: { location: { pathname: string }; navigation: { state: string } }) => void,
  ) => () => void;
  state: { location: { pathname: string } };
}

/** Follows a router; gives what ends it. */
export function followViews(router: Router): () => void {
  let at = router.state.location.pathname;
  return router.subscribe((s) => {
    if (s.navigation.state !== 'idle' || s.location.pathname === at) return;
    at = s.location.pathname;
    focusView();
  });
}
