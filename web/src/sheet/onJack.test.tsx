// @vitest-environment happy-dom
// The aim while a wheel hangs on the jack, in a DOM: asked as typed, refused at its field, told with where it goes.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { ApiProblem } from '../api/client';
import user from '../test/user';
import { SettingsProvider } from '../ui/settings';
import { OnJack } from './OnJack';

const asked = vi.hoisted(() => vi.fn());
vi.mock('../api/calls', async (real) => ({ ...(await real<object>()), onJack: asked }));
afterEach(cleanup);

const open = async () => {
  render(
    <QueryClientProvider client={new QueryClient()}>
      <SettingsProvider>
        <OnJack planId="p" axle="front" />
      </SettingsProvider>
    </QueryClientProvider>,
  );
  await user.click(screen.getByTestId('jack-open'));
};

it('asks with what was typed and says what to set and where it goes once down', async () => {
  asked.mockResolvedValueOnce({
    floor: { camber_deg: -0.2, caster_deg: 4, toe_deg: 0.05 },
    jack: { camber_deg: 0.3, caster_deg: 3.2, toe_deg: -0.2 },
    camber_deg: [0, 0.7],
    caster_deg: [2.9, 3.7],
    toe_deg: [-0.25, -0.15],
  });
  await open();
  expect(screen.getByTestId<HTMLButtonElement>('jack-ask').disabled).toBe(true);
  await user.click(screen.getByTestId('jack-right'));
  fireEvent.change(screen.getByTestId('jack-height'), { target: { value: '22 1/4 in' } });
  fireEvent.change(screen.getByTestId('jack-lean'), { target: { value: '1.5' } });
  await user.click(screen.getByTestId('jack-ask'));
  expect(asked).toHaveBeenLastCalledWith('p', {
    axle: 'front',
    side: 'right',
    height: '22 1/4 in',
    unit: 'mm',
    lean: '1.5',
  });
  const said = await screen.findByTestId('jack-answer');
  expect(said.textContent).toContain('Right front');
  expect(screen.getByTestId('jack-camber').textContent).toBe('0.0° to 0.7°');
  expect(said.textContent).toContain('−0.5°');
  expect(screen.getByTestId('jack-toe').textContent).toBe('−0.25° to −0.15°');
});

it('says at its field what is wrong and keeps what was typed', async () => {
  const problem = { field: 'height', wrong: 'hub to arch 900 mm cannot be had', right: 'as far as it hangs' };
  asked.mockRejectedValueOnce(new ApiProblem(422, 'refused', 'refused', [problem]));
  await open();
  fireEvent.change(screen.getByTestId('jack-height'), { target: { value: '900' } });
  await user.click(screen.getByTestId('jack-ask'));
  expect(await screen.findByText(/cannot be had/)).toBeTruthy();
  expect(screen.getByTestId('jack-height').getAttribute('aria-invalid')).toBe('true');
  expect(screen.getByTestId<HTMLInputElement>('jack-height').value).toBe('900');
});
