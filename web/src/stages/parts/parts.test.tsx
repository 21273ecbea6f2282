// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// A part's form in a DOM: what is typed outlives the form, what is wrong is said at its field, what is kept is forgotten.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { readDraft } from '../../shell/drafts';
import { SettingsProvider } from '../../ui/settings';
import type { Part } from './kinds';
import { PartForm } from './PartForm';

const part: Part = {
  id: 'moved-pivot',
  name: 'Moved pivot',
  group: 'shims',
  summary: 'moves the upper front pivot',
  fits: { layouts: ['double_wishbone'], axles: ['front'], replaces: 'shim' },
  edits: [{ kind: 'move_pivot', point: 'upper_front', by: [0, 2, 0] } as never],
  adjusters: [],
  limits: [] as never,
  requires: [],
  provides: [],
  conflicts: [],
  side_effect: '',
  reach_note: '',
  labour_minutes: 45,
  cost: 38,
  rules: [],
  access: '',
  sockets: '',
  torque: '',
  cautions: [],
} as unknown as Part;

// The client takes fetch when it is loaded, before any test runs.
const server = vi.hoisted(() => {
  const it = {
    asked: [] as { method: string; url: string; body: string }[],
    answer: { status: 200, body: [] as unknown },
  };
  globalThis.fetch = async (input) => {
    const r = input as Request;
    it.asked.push({ method: r.method, url: r.url, body: await r.text() });
    const look = r.url.endsWith('/look');
    return new Response(JSON.stringify(look ? { problems: [], on: 'a wishbone' } : it.answer.body), {
      status: look ? 200 : it.answer.status,
      headers: { 'content-type': 'application/json' },
    });
  };
  return it;
});

beforeEach(() => {
  localStorage.clear();
  server.asked.length = 0;
  server.answer = { status: 200, body: [] };
});
afterEach(cleanup);

function form(fresh = false) {
  const kept = vi.fn();
  const view = render(
    <SettingsProvider>
      <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
        <PartForm part={part} version={3} retired={false} fresh={fresh} copy={vi.fn()} kept={kept} />
      </QueryClientProvider>
    </SettingsProvider>,
  );
  return { ...view, kept };
}
const put = (id: string, value: string) => fireEvent.change(screen.getByTestId(id), { target: { value } });
const name = () => screen.getByTestId<HTMLInputElement>('part-name');

it('keeps what was typed when the form is left, and drops it when told to', async () => {
  const first = form();
  put('part-name', 'Moved pivot for trucks');
  first.unmount();
  form();
  expect(name().value).toBe('Moved pivot for trucks');
  fireEvent.click(screen.getByTestId('drop-draft'));
  expect(name().value).toBe('Moved pivot');
  expect(screen.queryByTestId('drop-draft')).toBeNull();
});

it('forgets the draft once the part is kept, and sends the version it began with', async () => {
  const f = form();
  put('part-name', 'Moved pivot 2');
  expect(readDraft('part.moved-pivot')).toBeDefined();
  fireEvent.click(screen.getByTestId('part-keep'));
  await waitFor(() => expect(f.kept).toHaveBeenCalled());
  expect(readDraft('part.moved-pivot')).toBeUndefined();
  const sent = server.asked.find((a) => a.method === 'PUT')!;
  expect(sent.url).toContain('/api/v1/parts/moved-pivot');
  expect(JSON.parse(sent.body)).toMatchObject({ version: 3, part: { name: 'Moved pivot 2' } });
});

it('says a refusal at its field and keeps the typing', async () => {
  server.answer = {
    status: 422,
    body: {
      title: 'Refused',
      detail: 'x',
      problems: [{ field: 'cost', wrong: '900000', right: '0 to 100000' }],
    },
  };
  form();
  const cost = screen.getByTestId<HTMLInputElement>('part-cost');
  put('part-cost', '900000');
  fireEvent.click(screen.getByTestId('part-keep'));
  await screen.findByText('900000; 0 to 100000');
  expect(cost.value).toBe('900000');
  expect(readDraft('part.moved-pivot')).toBeDefined();
});

it('takes no price below nothing and no size that is no number', () => {
  form();
  put('part-cost', '-5');
  expect(screen.getByText('less than nothing; 0 or more')).toBeTruthy();
  expect(screen.getByTestId<HTMLButtonElement>('part-keep').disabled).toBe(true);
  put('part-sizes', '8 x');
  expect(screen.getByText('numbers, such as 8 14 20')).toBeTruthy();
});

it('makes the short word of a new part from its name', () => {
  form(true);
  put('part-name', 'Upper shim, 3 mm');
  expect(screen.getByTestId<HTMLInputElement>('part-id').value).toBe('upper-shim-3-mm');
});
