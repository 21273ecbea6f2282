// Whether the server answered last, for whoever shows it.
let since: number | undefined;
const told = new Set<() => void>();

/** The server answered, or it did not. */
export function heard(answered: boolean): void {
  const next = answered ? undefined : (since ?? Date.now());
  if (next === since) return;
  since = next;
  told.forEach((f) => f());
}

/** Since when it does not answer, ms; undefined while it does. */
export const awaySince = () => since;

export function onAway(f: () => void): () => void {
  told.add(f);
  return () => told.delete(f);
}
