// What happens on other screens, one line after the other, for as long as somebody listens. A browser has six lines to a server
// for all its pages: one page holds the line and tells the others, and one that is left lets go of it at once.
export interface Told {
  id: number;
  job?: string;
  what: string;
}

const NAME = 'bold-stance.line';

/** Opens the line behind the last event that was seen; gives what closes it. */
function line(after: number | undefined, tell: (t: Told) => void): () => void {
  const source = new EventSource(`/api/v1/events${after ? `?after=${after}` : ''}`);
  source.onmessage = (e: MessageEvent<string>) => tell(JSON.parse(e.data) as Told);
  return () => source.close();
}

/** Tells every event of the shop; gives what ends it. A browser without such lines is told nothing. */
export function follow(tell: (t: Told) => void): () => void {
  if (!('EventSource' in globalThis)) return () => {};
  let last: number | undefined;
  const heard = (t: Told) => {
    if (t.id) last = Math.max(last ?? 0, t.id);
    tell(t);
  };
  const locks = globalThis.navigator?.locks as LockManager | undefined;
  const others = locks && 'BroadcastChannel' in globalThis ? new BroadcastChannel(NAME) : undefined;
  if (others) others.onmessage = (e: MessageEvent<Told>) => heard(e.data);
  let drop: (() => void) | undefined;
  const begin = () => {
    if (drop) return;
    const gone = new AbortController();
    drop = () => gone.abort();
    const hold = () =>
      new Promise<void>((done) => {
        const close = line(last, (t) => {
          heard(t);
          others?.postMessage(t);
        });
        const end = () => {
          close();
          done();
        };
        if (gone.signal.aborted) end();
        else gone.signal.addEventListener('abort', end);
      });
    if (locks && others) locks.request(NAME, { signal: gone.signal }, hold).catch(() => {});
    else void hold();
  };
  const end = () => {
    drop?.();
    drop = undefined;
  };
  // A page that is kept for "back" would keep its line as well.
  window.addEventListener('pagehide', end);
  window.addEventListener('pageshow', begin);
  begin();
  return () => {
    end();
    others?.close();
    window.removeEventListener('pagehide', end);
    window.removeEventListener('pageshow', begin);
  };
}
