// After another view was opened the keys and the screen reader go on in it, not at the button that is gone.

/** How long a view may take to come, ms. */
const MOST_MS = 3000;

/** How often it is looked whether it came, ms. */
const LOOK_MS = 50;

/** Moves the focus into the view once it is there, and again where what it waited on makes room for it; where the view or a hand
 *  put the focus somewhere, it stays there. */
export function focusView(): void {
  const before = document.querySelector('main');
  const from = document.activeElement;
  let put: Element | undefined;
  let looks = MOST_MS / LOOK_MS;
  const look = () => {
    const main = document.querySelector('main');
    const at = document.activeElement;
    const nobody = !at || at === document.body || at === from || at === put;
    if (main && main !== before && main !== put) {
      if (!nobody || document.querySelector('[role=dialog]')) return;
      put = main;
      main.tabIndex = -1;
      main.focus({ preventScroll: true });
    }
    if (--looks > 0) setTimeout(look, LOOK_MS);
  };
  setTimeout(look, LOOK_MS);
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
