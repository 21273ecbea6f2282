// When something was done, by day and minute, as the reader's own place writes it.
export const when = (at: string): string =>
  new Date(at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });

/** When today something was done. */
export const clock = (at: string): string =>
  new Date(at).toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' });
