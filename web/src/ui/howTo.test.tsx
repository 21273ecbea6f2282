// @vitest-environment happy-dom
// How a drawing is read: short, and each kind of drawing has its own.
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, expect, it } from 'vitest';
import user from '../test/user';
import { HowTo } from './HowTo';
import { howTo, type Drawn } from './howTo';

afterEach(cleanup);

it('is opened beside the drawing and closed again', async () => {
  render(<HowTo of="ladder" />);
  const mark = screen.getByRole('button', { name: 'How to read this: height ladder' });
  expect(screen.queryByRole('dialog')).toBeNull();
  await user.click(mark);
  const said = screen.getByRole('dialog').textContent;
  for (const line of howTo.ladder.lines) expect(said).toContain(line);
  await user.keyboard('{Escape}');
});

it('takes no more than four lines of it, each a sentence or a few', () => {
  for (const k of Object.keys(howTo) as Drawn[]) {
    const { lines } = howTo[k];
    expect(lines.length, k).toBeLessThanOrEqual(4);
    for (const l of lines) {
      expect(l.length, l).toBeLessThan(190);
      expect(l.endsWith('.'), l).toBe(true);
    }
  }
});
