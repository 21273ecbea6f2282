// @vitest-environment happy-dom
// Keys in a DOM: one registry for what is pressed and what the help says; silent while somebody types.
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { help, stageAction, useKeys, type Action } from './bindings';
import { Keys } from './Keys';

function Listening({ acts }: { acts: Partial<Record<Action, () => void>> }) {
  useKeys(acts);
  return (
    <>
      <input data-testid="typing" />
      <button type="button">press</button>
    </>
  );
}
afterEach(cleanup);

describe('keys', () => {
  it('do what they are bound to, in either case', () => {
    const acts = { left: vi.fn(), lower: vi.fn(), lower_little: vi.fn(), stage3: vi.fn() };
    render(<Listening acts={acts} />);
    for (const key of ['l', 'L', '[', '{', '3', 'q']) fireEvent.keyDown(window, { key });
    expect(acts.left).toHaveBeenCalledTimes(2);
    expect(acts.lower).toHaveBeenCalledOnce();
    expect(acts.lower_little).toHaveBeenCalledOnce();
    expect(acts.stage3).toHaveBeenCalledOnce();
    expect(stageAction(2)).toBe('stage3');
  });
  it('are silent while somebody types, with a modifier, and for Enter on a button', () => {
    const acts = { left: vi.fn(), fit: vi.fn() };
    render(<Listening acts={acts} />);
    fireEvent.keyDown(screen.getByTestId('typing'), { key: 'l' });
    fireEvent.keyDown(window, { key: 'l', ctrlKey: true });
    fireEvent.keyDown(screen.getByText('press'), { key: 'Enter' });
    expect(acts.left).not.toHaveBeenCalled();
    expect(acts.fit).not.toHaveBeenCalled();
    fireEvent.keyDown(window, { key: 'Enter' });
    expect(acts.fit).toHaveBeenCalledOnce();
  });
  it('leave a part of the screen with it, and take new acts at once', () => {
    const [one, two] = [vi.fn(), vi.fn()];
    const page = render(<Listening acts={{ undo: one }} />);
    page.rerender(<Listening acts={{ undo: two }} />);
    fireEvent.keyDown(window, { key: 'z' });
    page.unmount();
    fireEvent.keyDown(window, { key: 'z' });
    expect([one.mock.calls.length, two.mock.calls.length]).toEqual([0, 1]);
  });
  it('are listed from the registry, each once', () => {
    render(<Keys open close={() => {}} />);
    for (const [keys, word] of help) expect(screen.getByText(word).previousSibling?.textContent).toBe(keys);
    expect(new Set(help.map(([, w]) => w)).size).toBe(help.length);
    expect(help.length).toBeGreaterThan(12);
  });
});
