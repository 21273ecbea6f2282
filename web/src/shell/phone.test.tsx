// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// The phone's shell in a DOM: panes by their names, and the sheet from the bottom with all that the rail and the strip hold.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, render, screen } from '@testing-library/react';
import { MemoryRouter, useLocation } from 'react-router';
import userEvent from '../test/user';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { SettingsProvider, useSettings } from '../ui/settings';
import { PaneBar } from './PaneBar';
import { StageSheet, type StageLink } from './StageSheet';

beforeEach(() => localStorage.clear());
afterEach(cleanup);

/** happy-dom lays nothing out: where each pane of a `main` 400 px wide lies is told here. */
function laidOut(at: Record<string, number>) {
  const main = document.querySelector('main')!;
  Object.defineProperty(main, 'clientWidth', { value: 400, configurable: true });
  for (const p of main.querySelectorAll<HTMLElement>('[data-pane]'))
    Object.defineProperty(p, 'offsetLeft', { value: at[p.dataset.pane!] ?? 0, configurable: true });
  main.scrollTo = vi.fn((to: ScrollToOptions) => {
    main.scrollLeft = to.left ?? 0;
    main.dispatchEvent(new Event('scroll'));
  }) as unknown as typeof main.scrollTo;
  return main;
}
const names = () => screen.queryAllByRole('button').map((b) => b.textContent);
const open = () => screen.getAllByRole('button').find((b) => b.getAttribute('aria-current'))?.textContent;
const settle = () => act(() => new Promise((r) => setTimeout(r, 0)));

function Stage({ panes, front }: { panes: string[]; front?: string }) {
  return (
    <div>
      <PaneBar />
      <main>
        {panes.map((p) => (
          <section key={p} data-pane={p} data-front={p === front ? '' : undefined} />
        ))}
        <span>no pane</span>
      </main>
    </div>
  );
}

describe('the panes of a stage', () => {
  it('are named as they lie on the screen, not as they are written', async () => {
    const { rerender } = render(<Stage panes={[]} />);
    rerender(<Stage panes={['All steps', 'Now']} />);
    laidOut({ 'All steps': 400, Now: 0 });
    await settle();
    // Laid out before the bar looked again.
    rerender(<Stage panes={['All steps', 'Now', 'Print']} />);
    laidOut({ 'All steps': 400, Now: 0, Print: 800 });
    await settle();
    expect(names()).toEqual(['Now', 'All steps', 'Print']);
    expect(open()).toBe('Now');
  });
  it('go where a name is pressed, and say where a swipe went', async () => {
    render(<Stage panes={['Map', 'Height', 'Parts']} />);
    const main = laidOut({ Map: 0, Height: 400, Parts: 800 });
    await settle();
    await userEvent.click(screen.getByText('Parts'));
    expect(main.scrollTo).toHaveBeenCalledWith(expect.objectContaining({ left: 800 }));
    expect(open()).toBe('Parts');
    await act(async () => {
      main.scrollLeft = 390;
      main.dispatchEvent(new Event('scroll'));
    });
    expect(open()).toBe('Height');
  });
  it('bring the one that was called for to the front', async () => {
    const { rerender } = render(<Stage panes={['Order', 'Picture']} />);
    const main = laidOut({ Order: 0, Picture: 400 });
    await settle();
    expect(main.scrollTo).not.toHaveBeenCalled();
    Object.defineProperty(HTMLElement.prototype, 'offsetLeft', {
      configurable: true,
      get(this: HTMLElement) {
        return this.dataset.pane === 'Prepare' ? 400 : 0;
      },
    });
    rerender(<Stage panes={['Order', 'Prepare']} front="Prepare" />);
    await settle();
    expect(main.scrollTo).toHaveBeenCalledWith(expect.objectContaining({ left: 400 }));
    Reflect.deleteProperty(HTMLElement.prototype, 'offsetLeft');
  });
  it('are not named where there is one', async () => {
    render(<Stage panes={['Alone']} />);
    await settle();
    expect(screen.queryByRole('navigation')).toBeNull();
  });
});

const stages: StageLink[] = [
  { stage: 'plan', title: 'Plan', glyph: 'short', word: 'short', open: true },
  { stage: 'set', title: 'Set', glyph: 'unread', word: 'not begun', open: false },
];
function At() {
  const { pathname, search } = useLocation();
  const { theme, unit } = useSettings();
  return <output data-testid="at">{`${pathname}${search} ${theme} ${unit}`}</output>;
}
function sheet(keys = () => {}) {
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { enabled: false } } })}>
      <SettingsProvider>
        <MemoryRouter initialEntries={['/job/7/plan?plan=9']}>
          <StageSheet stages={stages} keys={keys} />
          <At />
        </MemoryRouter>
      </SettingsProvider>
    </QueryClientProvider>,
  );
}

describe('the sheet of stages', () => {
  it('opens from the stage that is open, and goes to another with what the address holds', async () => {
    sheet();
    expect(screen.getByTestId('stage-sheet').textContent).toContain('Plan');
    await userEvent.click(screen.getByTestId('stage-sheet'));
    expect(screen.getByTestId('go-plan').getAttribute('aria-current')).toBe('page');
    expect(screen.getByTestId('go-set').textContent).toContain('not begun');
    await userEvent.click(screen.getByTestId('go-set'));
    expect(screen.getByTestId('at').textContent).toContain('set?plan=9');
  });
  it('holds the light, the units and the keys', async () => {
    const keys = vi.fn();
    sheet(keys);
    await userEvent.click(screen.getByTestId('stage-sheet'));
    await userEvent.click(screen.getByTestId('sheet-light'));
    await userEvent.click(screen.getByTestId('units-length-in'));
    expect(screen.getByTestId('at').textContent).toMatch(/night in$/);
    await userEvent.click(screen.getByText('Keys, drawings'));
    expect(keys).toHaveBeenCalledOnce();
  });
});
