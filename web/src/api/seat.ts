// Who sits here, as far as every request has to know: what a write carries back, and that nobody sits here any more.
let carriedNow = '';
const told = new Set<() => void>();

/** What every write carries from now on; nothing where nobody is signed in. */
export function carry(csrf: string | null | undefined): void {
  carriedNow = csrf ?? '';
}

/** The header of a write. */
export const carried = (): Record<string, string> => (carriedNow ? { 'X-CSRF-Token': carriedNow } : {});

/** The server does not know who asks. */
export function unseated(): void {
  told.forEach((f) => f());
}

export function onUnseated(f: () => void): () => void {
  told.add(f);
  return () => told.delete(f);
}
