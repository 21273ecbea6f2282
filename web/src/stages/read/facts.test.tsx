// @vitest-environment happy-dom
// What stands beside the pad in a DOM, and a pad whose typing outlives it.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, render, renderHook, screen } from '@testing-library/react';
import userEvent from '../../test/user';
import type { ReactNode } from 'react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Ticket } from '../../api/client';
import { SettingsProvider } from '../../ui/settings';
import type { Method, Target } from '../../pad/readings';
import { PadFacts } from '../../pad/PadFacts';
import { usePad } from '../../pad/usePad';

const method = {
  id: 'toe-string',
  title: 'String along the wheel',
  quantity: 'toe',
  half_turn: true,
  entries: [
    { name: 'front-gap', label: 'Front', kind: 'length' },
    { name: 'rear-gap', label: 'Rear', kind: 'length' },
    { name: 'strung', label: 'Strung', kind: 'choice', choices: ['parallel', 'rear-wheels'] },
    { name: 'zeroed-on-floor', label: 'Zeroed on this floor', kind: 'choice', choices: ['false', 'true'] },
  ],
} as unknown as Method;
const target: Target = { quantity: 'toe', place: { axle: 'front', side: 'left' } } as Target;
const ticket = { job: { id: 'j' } } as unknown as Ticket;
const shell = ({ children }: { children: ReactNode }) => (
  <SettingsProvider>
    <QueryClientProvider client={new QueryClient()}>{children}</QueryClientProvider>
  </SettingsProvider>
);
const pad = (t = target) =>
  renderHook(() => usePad(ticket, 'found', t, method, () => {}), { wrapper: shell });

function Facts({ at = target }: { at?: Target }) {
  const p = usePad(ticket, 'found', at, method, () => {});
  return (
    <>
      <PadFacts pad={p} />
      <output>{JSON.stringify({ choices: p.choices, half: p.half, jack: p.jack, names: p.names })}</output>
    </>
  );
}
const told = () => JSON.parse(document.querySelector('output')!.textContent) as Record<string, unknown>;

beforeEach(() => {
  localStorage.clear();
  vi.stubGlobal('fetch', () => new Promise(() => {}));
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

describe('facts of a reading', () => {
  it('offer every choice of the method, half a turn and how the wheel stands', async () => {
    render(<Facts />, { wrapper: shell });
    await userEvent.selectOptions(screen.getByTestId('choice-strung'), 'rear-wheels');
    await userEvent.click(screen.getByTestId('choice-zeroed-on-floor'));
    await userEvent.click(screen.getByTestId('half-turn'));
    expect(told()).toMatchObject({
      choices: { strung: 'rear-wheels', 'zeroed-on-floor': 'true' },
      half: true,
    });
    expect(told().names).toContain('front-gap@half-turn');
  });
  it('ask for the height on the jack only when it is jacked', async () => {
    render(<Facts />, { wrapper: shell });
    expect(screen.queryByTestId('jacked-height')).toBeNull();
    await userEvent.selectOptions(screen.getByTestId('jack'), 'jacked');
    await userEvent.type(screen.getByTestId('jacked-height'), '22 3/4');
    expect(screen.getByTestId<HTMLInputElement>('jacked-height').value).toBe('22 3/4');
  });
  it('ask nothing of one wheel where the whole axle is read', () => {
    const both = { quantity: 'toe', place: { axle: 'front', side: 'both' } } as Target;
    render(<Facts at={both} />, { wrapper: shell });
    expect(screen.queryByTestId('jack')).toBeNull();
  });
});

describe('a pad that is left', () => {
  it('shows what was typed again, on the same wheel only', () => {
    const first = pad();
    act(() => first.result.current.set(() => '12 5/8', 'front-gap'));
    first.unmount();
    const again = pad();
    expect(again.result.current.now('front-gap')).toBe('12 5/8');
    expect(again.result.current.typing.restored).toBe(true);
    again.unmount();
    const right = pad({ quantity: 'toe', place: { axle: 'front', side: 'right' } } as Target);
    expect(right.result.current.now('front-gap')).toBe('');
    expect(right.result.current.typing.restored).toBe(false);
  });
  it('does not take millimetres for inches: a draft belongs to the unit it was typed in', () => {
    const first = pad();
    act(() => first.result.current.set(() => '9', 'front-gap'));
    first.unmount();
    localStorage.setItem('bold-stance.settings', JSON.stringify({ unit: 'in' }));
    const inches = pad();
    expect(inches.result.current.unit).toBe('in');
    expect(inches.result.current.now('front-gap')).toBe('');
    expect(inches.result.current.typing.restored).toBe(false);
  });
  it('is empty again once it is dropped', () => {
    const p = pad();
    act(() => p.result.current.set(() => '1', 'front-gap'));
    const key = () => localStorage.getItem('bold-stance.draft.pad.j.found.front.left.toe-string.mm');
    expect(key()).toContain('"1"');
    act(() => p.result.current.typing.drop());
    expect(key()).toBeNull();
  });
});
