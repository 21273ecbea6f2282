// A job's story: what happened, in order, in words; readings taken one after the other are one line.
import type { Schemas, Ticket } from '../../api/client';
import { placeWords } from '../../pad/readings';
import type { AngleForm, LengthUnit } from '../../units/print';
import { angle, length } from '../../units/print';

type Event = Schemas['Event'];

export interface Line {
  at: string;
  author: string;
  words: string;
  /** What may stand together in one line. */
  kind: 'event' | 'reading' | 'step' | 'note';
  /** More of it, a line each. */
  more: string[];
}

const ways: Record<string, string> = {
  arrived: 'Taken in',
  'vehicle saved': 'Facts of the car kept',
  'ticket saved': 'Ticket kept',
  'job imported': 'Brought in from a file',
  'same car again': 'Opened again from an earlier ticket',
  'put away': 'Put away',
  'taken out again': 'Taken out again',
  'visit opened': 'A visit begun',
  'prepare list': 'Prepare list answered',
  'reading kept': 'Read',
  'readings imported': 'Readings brought in from a table',
  'readings put right': 'Readings put right by what was answered since',
  'note written': 'A note written',
  'note struck out': 'A note struck out',
  'plan chosen': 'Another plan is the one to set',
  'plan removed': 'A plan removed',
  'tread imported': 'Tread log brought in from a table',
  'tread struck out': 'A line of the tread log struck out',
  'turned again': 'What was left was turned',
  'no longer accepted': 'Worked on again: no longer accepted',
};

/** What it is called; what nobody gave a name stands as it was written down. */
export const eventWords = (e: Event): string =>
  ways[e.what] ?? e.what.charAt(0).toUpperCase() + e.what.slice(1);

const readWords = (r: Ticket['readings'][number], unit: LengthUnit, form: AngleForm) => {
  const value = ['camber', 'caster', 'toe', 'included'].includes(r.quantity)
    ? angle(r.value, form, 2)
    : ['height', 'wheelbase', 'axle_offset'].includes(r.quantity)
      ? length(r.value, unit)
      : String(Math.round(r.value * 100) / 100);
  return `${placeWords({ axle: r.axle, side: r.side })} ${r.quantity.replaceAll('_', ' ')} ${value}`;
};

/** Everything on the ticket that has a time, oldest first. */
export function storyOf(
  events: Event[],
  ticket: Ticket,
  title: (step: string) => string,
  unit: LengthUnit,
  form: AngleForm,
): Line[] {
  const told = events
    // Each reading, step and note is told by itself, with what it says.
    .filter((e) => !['reading kept', 'step', 'note written'].includes(e.what))
    .map((e): Line => ({ at: e.at, author: e.author, kind: 'event', words: eventWords(e), more: [] }));
  const read = ticket.readings.map((r): Line => ({
    at: r.taken_at,
    author: r.author,
    kind: 'reading',
    words: 'Read',
    more: [readWords(r, unit, form)],
  }));
  const done = ticket.done
    .filter((d) => !d.step.includes('/'))
    .map((d): Line => ({
      at: d.done_at,
      author: d.record.signed ?? d.author,
      kind: 'step',
      words: `Done: ${d.record.title || title(d.step)}`,
      more: [
        ...(d.record.rounds ?? []).flatMap((r) =>
          r.turned.map(
            (t) =>
              `${t.side ? `${t.side} ` : ''}${t.name}: ${t.words}${t.typed ? `, really ${t.typed}` : ''}${
                t.could_not ? `, not turned (${t.could_not.replaceAll('_', ' ')})` : ''
              }`,
          ),
        ),
        ...(d.record.reason ? [`Off plan: ${d.record.reason}`] : []),
      ],
    }));
  const notes = ticket.notes.map((n): Line => ({
    at: n.written_at,
    author: n.author,
    kind: 'note',
    words: 'Note',
    more: [n.text],
  }));
  const all = [...told, ...read, ...done, ...notes].toSorted((a, b) => Date.parse(a.at) - Date.parse(b.at));
  const out: Line[] = [];
  for (const l of all) {
    const last = out.at(-1);
    if (last && last.kind === 'reading' && l.kind === 'reading' && last.author === l.author)
      out[out.length - 1] = { ...last, more: [...last.more, ...l.more] };
    else out.push(l);
  }
  return out;
}
