// When something was done, by day and minute, as the reader's own place writes it.
export const when = (at: string): string =>
  new Date(at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });
