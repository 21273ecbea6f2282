// Days as they are kept, `2026-12-13`, against today.
const DAY_MS = 24 * 3600e3;

/** Whole days from today to a day as it is kept, `2026-12-13`; past days are negative. */
export function daysTo(on: string, now = new Date()): number {
  const day = new Date(`${on}T00:00`);
  const today = new Date(now.getFullYear(), now.getMonth(), now.getDate());
  return Math.round((day.getTime() - today.getTime()) / DAY_MS);
}

/** A day so many from now, as a date field writes it. */
export function dayFrom(days: number, now = new Date()): string {
  const d = new Date(now.getFullYear(), now.getMonth(), now.getDate() + days);
  const two = (n: number) => String(n).padStart(2, '0');
  return `${d.getFullYear()}-${two(d.getMonth() + 1)}-${two(d.getDate())}`;
}
