// A job's story: in the order of time, readings of one go in one line, what was really turned in its words.
import { expect, it } from 'vitest';
import type { Schemas, Ticket } from '../../api/client';
import { eventWords, storyOf } from './story';

const at = (m: number) => new Date(Date.UTC(2026, 10, 30, 8, m)).toISOString();
const event = (m: number, what: string): Schemas['Event'] => ({
  at: at(m),
  author: 'Bay 2',
  what,
  detail: {},
});
const read = (m: number, quantity: string, value: number) => ({
  quantity,
  axle: 'front',
  side: 'left',
  value,
  taken_at: at(m),
  author: 'Specialist A',
});
const ticket = {
  readings: [read(2, 'height', 500), read(3, 'camber', -0.4), read(9, 'toe', 0.1)],
  done: [
    {
      step: 'cams',
      done_at: at(7),
      author: 'Bay 2',
      record: {
        title: 'Cams, both fronts',
        rounds: [
          {
            at: at(7),
            author: 'Bay 2',
            turned: [
              { side: 'left', name: 'Front cam', words: '2 notches out', typed: '3', could_not: null },
            ],
          },
        ],
      },
    },
    { step: 'reswept/roll', done_at: at(8), author: 'Bay 2', record: {} },
    {
      step: 'proved',
      done_at: at(11),
      author: 'Bay 2',
      record: { title: '', signed: 'Specialist A', reason: 'as it is' },
    },
  ],
  notes: [{ text: 'boot torn', author: 'Bay 2', written_at: at(5) }],
} as unknown as Ticket;

it('tells everything once and in order', () => {
  const lines = storyOf(
    [event(1, 'arrived'), event(2, 'reading kept'), event(7, 'step'), event(12, 'put away')],
    ticket,
    (s) => `the step ${s}`,
    'mm',
    'decimal',
  );
  expect(lines.map((l) => l.words)).toEqual([
    'Taken in',
    'Read',
    'Note',
    'Done: Cams, both fronts',
    'Read',
    'Done: the step proved',
    'Put away',
  ]);
  expect(lines[1]!.more).toEqual(['left front height 500 mm', 'left front camber −0.40°']);
  expect(lines[3]!.more).toEqual(['left Front cam: 2 notches out, really 3']);
  expect(lines[5]).toMatchObject({ author: 'Specialist A', more: ['Off plan: as it is'] });
});

it('reads in inches and minutes where those are used', () => {
  const lines = storyOf([], ticket, (s) => s, 'in', 'minutes');
  expect(lines[0]!.more).toEqual(['left front height 19 11/16 in', 'left front camber −0°24′']);
});

it('says what nobody gave a name as it was written down', () => {
  expect(eventWords(event(1, 'vehicle saved'))).toBe('Facts of the car kept');
  expect(eventWords(event(1, 'came back'))).toBe('Came back');
});
