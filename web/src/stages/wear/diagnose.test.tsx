// @vitest-environment happy-dom
// Causes in a DOM: what the job knows stands pressed, is taken out by a press, and the core is told which.
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '../../test/user';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';

import { Diagnose } from './Diagnose';
import { SettingsProvider } from '../../ui/settings';
import type { TyreForecast } from '../../shell/tread';

const asked = vi.hoisted(() => [] as Record<string, unknown>[]);

vi.mock('../../shell/ticket', () => ({ useBench: () => ({ ticket: { tyres: { class: 'all_season' } } }) }));
vi.mock('../../api/calls', () => ({
  getWearData: () =>
    Promise.resolve({
      limits: [],
      diagnosis: {
        about: '',
        causes: [],
        questions: [
          { id: 'pattern', about: '', ask: 'Where is it gone?', answers: [{ id: 'even', label: 'even' }] },
          {
            id: 'axle',
            about: '',
            ask: 'Which axle?',
            answers: [
              { id: 'front', label: 'front' },
              { id: 'rear', label: 'rear' },
            ],
          },
          {
            id: 'camber',
            about: '',
            ask: 'Camber',
            answers: [
              { id: 'negative', label: 'past' },
              { id: 'near_zero', label: 'near' },
            ],
          },
        ],
      },
    }),
  diagnose: (body: Record<string, unknown>) => {
    asked.push(body);
    return Promise.resolve({
      known: { axle: 'rear', camber: 'negative' },
      causes: [],
      headline: 'Nothing told',
      ask_next: null,
      measured_pattern: null,
      stop: null,
      replace: null,
    });
  },
}));

const setups = [{ camber_deg: -1.5, toe_deg: 0.1, share: 1 }];
const shares = { use: 0.5, toe: 0.1, camber: 0.4, pressure: 0 };
const tyre = { place: 'left_rear', scenes: [{ setups, shares }], learned: null } as unknown as TyreForecast;

beforeEach(() => {
  asked.length = 0;
});
afterEach(cleanup);

function open() {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  return render(
    <SettingsProvider>
      <QueryClientProvider client={client}>
        <Diagnose modes={null} tyre={tyre} tyres={[tyre]} />
      </QueryClientProvider>
    </SettingsProvider>,
  );
}

it('asks the core what the job knows of this tyre, and shows it pressed', async () => {
  open();
  const negative = await screen.findByTestId('seen-camber-negative');
  await vi.waitFor(() => expect(negative.getAttribute('aria-pressed')).toBe('true'));
  expect(asked[0]).toMatchObject({
    seen: {},
    taken_out: [],
    asked: { axle: 'rear', found: { setups, shares } },
  });
  expect(screen.getAllByText('from the job')).toHaveLength(2);
});

it('tells the core what was taken out and what was pressed over it', async () => {
  open();
  const negative = await screen.findByTestId('seen-camber-negative');
  await vi.waitFor(() => expect(negative.getAttribute('aria-pressed')).toBe('true'));
  await userEvent.click(negative);
  await vi.waitFor(() => expect(asked.at(-1)).toMatchObject({ seen: {}, taken_out: ['camber'] }));
  expect(negative.getAttribute('aria-pressed')).toBe('false');
  await userEvent.click(screen.getByTestId('seen-camber-near_zero'));
  await vi.waitFor(() =>
    expect(asked.at(-1)).toMatchObject({ seen: { camber: 'near_zero' }, taken_out: [] }),
  );
});
