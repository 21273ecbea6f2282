// @vitest-environment happy-dom
// What a page is called follows it, and goes with it.
import { cleanup, render } from '@testing-library/react';
import { afterEach, expect, it } from 'vitest';
import { useTitle } from './title';

function Page({ title }: { title: string }) {
  useTitle(title);
  return null;
}

afterEach(cleanup);

it('is called after what is open, and by its own name once that is left', () => {
  const { rerender, unmount } = render(<Page title="Set, Tern estate" />);
  expect(document.title).toBe('Set, Tern estate · Bold Stance');
  rerender(<Page title="Prove, Tern estate" />);
  expect(document.title).toBe('Prove, Tern estate · Bold Stance');
  unmount();
  expect(document.title).toBe('Bold Stance');
});
