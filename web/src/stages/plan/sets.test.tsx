// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// The sets of parts in a DOM: lines of a stream, filters that are sent, a search that is stopped, and taking a set.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '../../test/user';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { CarInput, Schemas } from '../../api/client';
import { SettingsProvider } from '../../ui/settings';
import { SetsPane } from './SetsPane';
import type { Tyres } from './useSearch';

type SetPlan = Schemas['SetPlan'];
const side = { lock: null } as unknown as SetPlan['left'];
const set = (ids: string[], more: Partial<SetPlan> = {}): SetPlan =>
  ({
    parts: ids.map((id) => ({ id, name: id.replaceAll('-', ' ') })),
    cost: 80 * ids.length,
    labour_minutes: 90,
    reached: true,
    short_deg: 0,
    bump_toe_deg: 0.4,
    fouls: [],
    best_at: [],
    reasons: [`because of ${ids.join(' and ') || 'nothing'}`],
    life_km: null,
    left: side,
    right: side,
    ...more,
  }) as unknown as SetPlan;
const result = (plans: SetPlan[]) => ({
  plans,
  considered: 167197,
  headline: `${plans.length} ways`,
  sentence: 'First: the first.',
  ways_differ: ['Left and right differ at lock.'],
});

let stream: ReadableStreamDefaultController<Uint8Array> | undefined;
let asked: { body: Record<string, unknown>; signal: AbortSignal }[] = [];
const say = async (text: string) => {
  await act(async () => {
    stream!.enqueue(new TextEncoder().encode(text));
    await new Promise((r) => setTimeout(r, 20));
  });
};

beforeEach(() => {
  localStorage.clear();
  asked = [];
  stream = undefined;
  vi.stubGlobal('fetch', async (_: string, init: RequestInit) => {
    asked.push({ body: JSON.parse(init.body as string) as Record<string, unknown>, signal: init.signal! });
    const body = new ReadableStream<Uint8Array>({ start: (c) => void (stream = c) });
    return { ok: true, body } as unknown as Response;
  });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const input = {
  base: { wheelbase_mm: 3220 },
  plan: {
    axles: {
      front: {
        height_change_mm: 65,
        fitted: ['a'],
        picked: { left: { camber_deg: 0, second_deg: 4 }, right: null },
      },
      rear: { fitted: ['b'] },
    },
  },
} as unknown as CarInput;
function pane(fitted: string[] = [], pins = { pinned: [] as string[], excluded: [] as string[] }) {
  const take = vi.fn();
  const setPins = vi.fn();
  const view = render(
    <SettingsProvider>
      <QueryClientProvider client={new QueryClient()}>
        <SetsPane
          input={input}
          axle="front"
          tyres={{} as Tyres}
          fitted={fitted}
          pins={pins}
          setPins={setPins}
          take={take}
        />
      </QueryClientProvider>
    </SettingsProvider>,
  );
  return { ...view, take, setPins };
}
const started = (n = 1) => waitFor(() => expect(asked).toHaveLength(n), { timeout: 3000 });
const headline = () => screen.getByTestId('sets-headline').textContent;

describe('a search', () => {
  it('is read line by line, however the lines are cut', async () => {
    const { take } = pane();
    await started();
    // What is fitted or picked by hand changes nothing of what is looked for.
    expect(asked[0]!.body).toMatchObject({
      axle: 'front',
      car: {
        base: { wheelbase_mm: 3220 },
        plan: {
          axles: {
            front: { fitted: [], picked: { left: null, right: null }, height_change_mm: 65 },
            rear: { fitted: ['b'] },
          },
        },
      },
    });
    const text = `${JSON.stringify({ result: result([set(['upper-shims']), set(['a', 'b'])]) })}\n`;
    await say('{"progress":{"doing":"posing","done":1,"of":9}}\n' + text.slice(0, 40));
    expect(headline()).toBe('Looking…');
    await say(text.slice(40));
    expect(headline()).toContain('2 ways. First: the first. 167 197 sets looked at.');
    expect(screen.getByText('because of upper-shims')).toBeTruthy();
    expect(screen.getByText('Left and right differ at lock.')).toBeTruthy();
    await userEvent.click(screen.getByTestId('set-1'));
    await userEvent.click(screen.getByTestId('take-set'));
    expect(take).toHaveBeenCalledWith(['a', 'b']);
  });

  it('says how far it is when it is slow, and stops when told to', async () => {
    pane();
    await started();
    await say('{"progress":{"doing":"posing","done":40,"of":900}}\n');
    await screen.findByText(/posing 40 of 900/, {}, { timeout: 2000 });
    await userEvent.click(screen.getByTestId('sets-stop'));
    expect(asked[0]!.signal.aborted).toBe(true);
  });

  it('ends with its page', async () => {
    const p = pane();
    await started();
    p.unmount();
    expect(asked[0]!.signal.aborted).toBe(true);
  });

  it('says what is wrong with the plan, with what would be right', async () => {
    pane();
    await started();
    const wrong = { field: 'adjusters', wrong: 'too many adjusters at once', right: 'lock some' };
    await say(`${JSON.stringify({ problems: [wrong] })}\n`);
    expect(headline()).toBe('too many adjusters at once; lock some');
    expect(screen.getByTestId<HTMLButtonElement>('take-set').disabled).toBe(true);
  });
});

describe('what may be used', () => {
  it('is sent with the search: rules, a price, pins', async () => {
    pane([], { pinned: ['upper-arm'], excluded: ['shims@3'] });
    await started();
    fireEvent.click(screen.getByTestId('rule-welding'));
    fireEvent.change(screen.getByTestId('budget'), { target: { value: '400' } });
    await started(2);
    expect(asked.at(-1)!.body.filters).toMatchObject({
      forbid: ['welding'],
      budget: 400,
      most_parts: 4,
      pinned: ['upper-arm'],
      excluded: ['shims@3'],
    });
    expect(asked[0]!.signal.aborted).toBe(true);
  });

  it('is no price that cannot be read, and pins come off by a press', async () => {
    const { setPins } = pane([], { pinned: ['upper-arm'], excluded: ['shims@3'] });
    fireEvent.change(screen.getByTestId('budget'), { target: { value: 'cheap' } });
    expect(screen.getByText(/“cheap” is no price/)).toBeTruthy();
    await userEvent.click(screen.getByText(/without shims/));
    expect(setPins).toHaveBeenCalledWith({ pinned: ['upper-arm'], excluded: [] });
  });
});

describe('a set', () => {
  it('says whether it is fitted, fouls, reaches or how far it is short', async () => {
    pane(['a']);
    await started();
    const plans = [
      set(['a']),
      set(['b'], { fouls: ['tyre to strut −0.2 mm'] }),
      set(['c']),
      set(['d'], { reached: false, short_deg: 0.04 }),
      set([], { reached: false, short_deg: 1.44 }),
    ];
    await say(`${JSON.stringify({ result: result(plans) })}\n`);
    const word = (i: number) => screen.getByTestId(`set-${i}`).querySelector('.word')!.textContent!.trim();
    expect([0, 1, 2, 3, 4].map(word)).toEqual(['Fitted', 'Fouls', 'Reaches', '0.04° short', '1.4° short']);
    expect(screen.getByTestId('take-set').textContent).toBe('This set is fitted');
    await userEvent.click(screen.getByTestId('set-1'));
    expect(screen.getByText('tyre to strut −0.2 mm')).toBeTruthy();
    await userEvent.click(screen.getByTestId('set-4'));
    expect(screen.getByTestId('take-set').textContent).toBe('Take every part off');
  });
});
