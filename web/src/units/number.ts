// A plain number as typed: the same notation as the core's. A comma is never guessed.

const DASH = /[−–—]/g;
const SPACE = /[\u2009\u202f\u00a0\t]/g;

const plain = (text: string) => text.replace(DASH, '-').replace(SPACE, ' ').trim();

/** The two readings of a number whose one comma may be a decimal comma or part thousands. */
export function bothReadings(text: string): [number, number] | undefined {
  const m = /^[-+]?\s*([1-9]\d{0,2}),(\d{3})$/.exec(plain(text));
  return m ? [Number(`${m[1]}.${m[2]}`), Number(`${m[1]}${m[2]}`)] : undefined;
}

/** The number, or NaN: nothing typed, no number, or a comma that could be either. */
export function toNumber(text: string): number {
  const t = plain(text);
  if (bothReadings(t)) return NaN;
  const m = /^([-+]?)\s*(.*)$/.exec(t)!;
  let body = m[2]!;
  let part = '';
  const point = body.indexOf('.');
  if (point >= 0) {
    part = body.slice(point + 1);
    body = body.slice(0, point);
  } else if ((body.match(/,/g) ?? []).length === 1) {
    [body, part] = body.split(',') as [string, string];
  }
  const whole = /^\d{1,3}([, ]\d{3})+$/.test(body) ? body.replace(/[, ]/g, '') : body;
  if (!/^\d*$/.test(whole) || !/^\d*$/.test(part) || !(whole || part)) return NaN;
  const v = Number(`${whole || '0'}.${part || '0'}`);
  return v < 1e9 ? (m[1] === '-' ? -v : v) : NaN;
}

/** What is wrong with a number that is being typed; undefined while nothing is. */
export function numberProblem(text: string): { wrong: string; right: string } | undefined {
  if (!text.trim()) return undefined;
  const both = bothReadings(text);
  if (both)
    return {
      wrong: `“${text.trim()}” can be ${both[0]} or ${both[1]}`,
      right: `${both[0]} with a point, or ${both[1]} without the comma`,
    };
  return Number.isNaN(toNumber(text)) ? { wrong: 'not a number', right: 'a number such as 12.5' } : undefined;
}

/** The number, or undefined where there is none to be read. */
export const readNumber = (text: string): number | undefined => {
  const v = toNumber(text);
  return Number.isNaN(v) ? undefined : v;
};
