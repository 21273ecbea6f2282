// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// Rotation in a DOM: the best that is not hindered first, every pattern in words, and why one cannot be.
import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '../../test/user';
import { afterEach, expect, it, vi } from 'vitest';
import type { CarWear, Schemas } from '../../api/client';
import { SettingsProvider } from '../../ui/settings';
import { usualCar } from '../../fixtures';
import { Rotate } from './Rotate';

vi.mock('../../shell/ticket', async (real) => ({
  ...(await real<Record<string, unknown>>()),
  useBench: () => ({ ticket: { vehicle: { facts: { car: { ...usualCar } } } } }),
}));
afterEach(cleanup);

const pattern = (rotation: string, goes_to: string[], more: Partial<Schemas['RotationPlan']> = {}) =>
  ({
    rotation,
    name: rotation === 'stay' ? 'Left alone' : `Pattern ${rotation}`,
    goes_to,
    first_km: 21000,
    first_place: 'left_front',
    last_km: 40000,
    ratio: 1,
    hindered: null,
    ...more,
  }) as unknown as Schemas['RotationPlan'];
const all = ['left_front', 'right_front', 'left_rear', 'right_rear'];
const wear = (rotations: Schemas['RotationPlan'][]) => ({ rotations }) as unknown as CarWear;
const show = (rotations: Schemas['RotationPlan'][]) =>
  render(<Rotate modes={<nav>modes</nav>} wear={wear(rotations)} />, { wrapper: SettingsProvider });

it('names the best pattern that nothing hinders, and what it buys over leaving them', () => {
  show([
    pattern('cross', ['right_rear', 'left_rear', 'left_front', 'right_front'], {
      ratio: 1.6,
      hindered: 'directional tread: it stays on its side',
    }),
    pattern('swap', ['left_rear', 'right_rear', 'left_front', 'right_front'], {
      ratio: 1.42,
      first_km: 29800,
    }),
    pattern('stay', all),
  ]);
  expect(screen.getByTestId('rotate-statement').textContent).toBe('Pattern swap ×1.42');
  expect(screen.getByText(/first tyre done at 30.000 km/).textContent).toMatch(/Left alone: 21.000 km/);
  expect(screen.getByTestId('rotation-cross').textContent).toContain(
    'Directional tread: it stays on its side',
  );
});

it('says where each tyre goes, and that one stays', async () => {
  show([
    pattern('swap', ['left_rear', 'right_front', 'left_front', 'right_rear'], { ratio: 1.2 }),
    pattern('stay', all),
  ]);
  const side = within(screen.getByRole('region', { name: 'Pattern' }));
  const said = side.getAllByRole('listitem').map((x) => x.textContent);
  expect(said).toEqual([
    'Left frontto left rear',
    'Right frontstays',
    'Left rearto left front',
    'Right rearstays',
  ]);
  await userEvent.click(screen.getByTestId('rotation-stay'));
  expect(side.getAllByText('stays')).toHaveLength(4);
  expect(side.getByRole('img').getAttribute('aria-label')).toContain('left front goes left front');
});

it('leaves them where they are when that is best', () => {
  show([pattern('stay', all), pattern('swap', all, { ratio: 0.97 })]);
  expect(screen.getByTestId('rotate-statement').textContent).toContain('Leave them where they are');
});

it('asks for the axle that is missing', () => {
  show([]);
  expect(screen.getByText('Rotation needs all four tyres')).toBeTruthy();
  expect(screen.getByText('modes')).toBeTruthy();
});
