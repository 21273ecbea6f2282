// Who sits here, as far as every request has to know: what a write carries back, and that nobody sits here any more.
let carriedNow = '';
const told = new Set<() => void>();

/** What every write carries from now on; nothing where nobody is signed in. */
export function carry(csrf: string | null | undefined): void {
  carriedNow = csrf ?? '';
}

let asking: Promise<unknown> | undefined;

/** The server is being asked who sits here: what is written meanwhile waits for its answer, or for there being none. */
export function learning<T>(answer: Promise<T>): Promise<T> {
  const mine = answer.then(
    () => {},
    () => {},
  );
  asking = mine;
  void mine.then(() => {
    if (asking === mine) asking = undefined;
  });
  return answer;
}

/** The header of a write, once it is known who sits here. */
export async function carried(): Promise<Record<string, string>> {
  await asking;
  return carriedNow ? { 'X-CSRF-Token': carriedNow } : {};
}

/** What was told of who sits here is of somebody before them: another page of this browser signed in. */
export const OTHER_SEAT = 'urn:bold-stance:other-seat';

/** The server does not know who asks. */
export function unseated(): void {
  told.forEach((f) => f());
}

export function onUnseated(f: () => void): () => void {
  told.add(f);
  return () => told.delete(f);
}
