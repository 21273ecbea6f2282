// @vitest-environment happy-dom
// Notes in a DOM: written at a place of the car, a photo made smaller before it is sent, refused in words, struck out.
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '../../test/user';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { ApiProblem, type Ticket } from '../../api/client';
import { Notes } from './Notes';
import { asKept, fitted } from './photo';

const sent = vi.hoisted(() => ({
  add: vi.fn((_id: string, _body: unknown): Promise<unknown> => Promise.resolve({})),
  strike: vi.fn((_id: string, _note: string): Promise<unknown> => Promise.resolve({})),
}));
vi.mock('../../api/calls', () => ({
  addNote: sent.add,
  strikeNote: sent.strike,
  photoOf: (id: string, n: string) => `/photo/${id}/${n}`,
}));

const note = (id: string, more = {}) => ({
  id,
  place: { axle: 'rear', side: 'left' },
  text: 'boot torn',
  author: 'Specialist A',
  written_at: '2026-01-02T10:00:00Z',
  ...more,
});
const ticket = (notes: unknown[]) => ({ job: { id: 'j1' }, notes }) as unknown as Ticket;
let got: unknown;
const open = (notes: unknown[] = []) =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <Notes ticket={ticket(notes)} setTicket={(t) => (got = t)} />
    </QueryClientProvider>,
  );
beforeEach(() => {
  localStorage.clear();
  sent.add.mockClear();
  got = undefined;
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

it('is written at the place that was pressed, and says where others stand', async () => {
  open([note('a'), note('b', { text: 'and again' })]);
  expect(screen.getByTestId('note-at-rear-left').getAttribute('aria-label')).toBe('left rear, 2 notes');
  await userEvent.click(screen.getByTestId('note-at-both-right'));
  expect(screen.getByTestId<HTMLButtonElement>('note-keep').disabled).toBe(true);
  await userEvent.type(screen.getByTestId('note-text'), 'sill bent');
  await userEvent.click(screen.getByTestId('note-keep'));
  await waitFor(() => expect(got).toEqual({}));
  expect(sent.add.mock.calls[0]).toEqual([
    'j1',
    { place: { axle: 'both', side: 'right' }, text: 'sill bent', photo: null },
  ]);
  expect(screen.getByTestId<HTMLTextAreaElement>('note-text').value).toBe('');
});

it('keeps what was typed when the server refuses it, and says why at the field', async () => {
  const why = { field: 'text', wrong: 'too many', right: 'strike one out' };
  sent.add.mockRejectedValueOnce(new ApiProblem(422, 'No', 'no', [why as never]));
  open();
  await userEvent.type(screen.getByTestId('note-text'), 'a crack');
  await userEvent.click(screen.getByTestId('note-keep'));
  await screen.findByText('too many; strike one out');
  expect(screen.getByTestId<HTMLTextAreaElement>('note-text').value).toBe('a crack');
  cleanup();
  open();
  expect(screen.getByTestId<HTMLTextAreaElement>('note-text').value, 'after a reload').toBe('a crack');
});

it('strikes a note out and takes no thirteenth photo', async () => {
  const full = Array.from({ length: 12 }, (_, i) => note(`n${i}`, { photo: { width: 8, height: 6 } }));
  open(full);
  expect(screen.getByText('12 photos are kept')).toBeTruthy();
  await userEvent.click(screen.getAllByTestId('note-strike')[3]!);
  expect(sent.strike.mock.calls[0]).toEqual(['j1', 'n3']);
});

it('draws a photo smaller, and coarser while it is too large', async () => {
  expect([fitted(4000, 3000), fitted(800, 600), fitted(30, 9000)]).toEqual([
    { width: 1280, height: 960 },
    { width: 800, height: 600 },
    { width: 4, height: 1280 },
  ]);
  const tries: [number, number][] = [];
  vi.stubGlobal('createImageBitmap', () => Promise.resolve({ width: 4000, height: 3000 }));
  const make = document.createElement.bind(document);
  vi.spyOn(document, 'createElement').mockImplementation(((name: string) => {
    if (name !== 'canvas') return make(name);
    return {
      getContext: () => ({ drawImage: () => {} }),
      toBlob(this: { width: number }, done: (b: Blob) => void, _type: string, quality: number) {
        tries.push([this.width, quality]);
        done(new Blob([new Uint8Array(tries.length < 3 ? 600_000 : 9)]));
      },
    };
  }) as typeof document.createElement);
  expect((await asKept(new File(['x'], 'a.png'))).length).toBeGreaterThan(4);
  expect(tries.map(([w]) => w)).toEqual([1280, 1280, 960]);
  vi.restoreAllMocks();
});

it('says of a file that is no picture that it is none', async () => {
  vi.stubGlobal('createImageBitmap', () => Promise.reject(new Error('no')));
  open();
  fireEvent.change(screen.getByTestId('note-photo'), { target: { files: [new File(['x'], 'list.txt')] } });
  await screen.findByText(/list\.txt is no picture/);
});
