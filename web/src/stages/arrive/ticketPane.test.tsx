// @vitest-environment happy-dom
// The ticket in a DOM: kept as typed with the units in use, refused at its field, put away and opened again.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { ApiProblem, type Ticket } from '../../api/client';
import user from '../../test/user';
import { SettingsProvider } from '../../ui/settings';
import { TicketPane } from './TicketPane';

const sent = vi.hoisted(() => ({
  save: vi.fn((_id: string, _body: any): Promise<any> => Promise.resolve({})),
  away: vi.fn((_id: string, _body: any): Promise<any> => Promise.resolve({})),
  again: vi.fn((_id: string): Promise<any> => Promise.resolve({ job: { id: 'j2' } })),
}));
vi.mock('../../api/calls', () => ({
  saveTicket: sent.save,
  putAway: sent.away,
  sameCarAgain: sent.again,
  getShop: () => Promise.resolve({ tickets: [{ kind: 'height', title: 'Height', how: '', stages: [] }] }),
}));
const job = {
  id: 'j1',
  version: 3,
  kind: 'height',
  complaint: 'Sags',
  plate: '',
  bay: null,
  odometer_km: null,
  archived_at: null,
};
let got: any;
const open = (more = {}) =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <SettingsProvider>
        <MemoryRouter>
          <TicketPane
            ticket={{ job: { ...job, ...more } } as unknown as Ticket}
            setTicket={(t) => (got = t)}
          />
        </MemoryRouter>
      </SettingsProvider>
    </QueryClientProvider>,
  );
const type = (field: string, value: string) =>
  fireEvent.change(screen.getByTestId(`ticket-${field}`), { target: { value } });
beforeEach(() => {
  localStorage.clear();
  got = undefined;
  Object.values(sent).forEach((f) => f.mockClear());
});
afterEach(cleanup);

it('keeps plate, odometer and bay, and nothing before something was typed', async () => {
  sent.save.mockImplementation((_id, body) => Promise.resolve({ job: { ...job, ...body.job, version: 4 } }));
  localStorage.setItem(
    'bold-stance.settings',
    JSON.stringify({ unit: 'in', form: 'minutes', theme: 'day', own: {} }),
  );
  open();
  expect(screen.getByTestId('ticket-more').textContent).toBe('Ticket: no bay');
  expect((screen.getByTestId('keep-ticket') as HTMLButtonElement).disabled).toBe(true);
  type('plate', 'FLEET 88');
  type('odometer', '52300');
  type('bay', '4');
  await user.click(screen.getByTestId('keep-ticket'));
  await waitFor(() => expect(got?.job.plate).toBe('FLEET 88'));
  const [id, body] = sent.save.mock.calls[0]!;
  expect([id, body.version, body.job.bay, body.job.complaint]).toEqual(['j1', 3, 4, 'Sags']);
  // Miles where miles are used.
  expect(body.job.odometer_km).toBeCloseTo(52300 * 1.609344, 3);
});

it('says at the field what is wrong and keeps what was typed', async () => {
  sent.save.mockImplementation(() =>
    Promise.reject(
      new ApiProblem(422, 'Something typed needs another look', 'bay', [
        { field: 'job.bay', wrong: 'bay 2 holds ticket 0418', right: 'a bay that is free' },
      ]),
    ),
  );
  open();
  type('bay', 'two');
  expect(screen.getByText('1 to 99')).toBeTruthy();
  expect((screen.getByTestId('keep-ticket') as HTMLButtonElement).disabled).toBe(true);
  type('odometer', 'far');
  expect((screen.getByTestId('keep-ticket') as HTMLButtonElement).disabled).toBe(true);
  type('odometer', '');
  type('bay', '2');
  await user.click(screen.getByTestId('keep-ticket'));
  expect(await screen.findByText('bay 2 holds ticket 0418. Right would be: a bay that is free')).toBeTruthy();
  expect((screen.getByTestId('ticket-bay') as HTMLInputElement).value).toBe('2');
  expect(got).toBeUndefined();
});

it('puts it away, takes it out again, and opens the same car again', async () => {
  sent.away.mockImplementation((_id, body) =>
    Promise.resolve({ job: { ...job, version: 4, archived_at: body.away ? '2026-11-30T10:00:00Z' : null } }),
  );
  open();
  await user.click(screen.getByTestId('put-away'));
  await waitFor(() => expect(got?.job.archived_at).toBeTruthy());
  expect(sent.away.mock.calls[0]).toEqual(['j1', { version: 3, away: true }]);
  await user.click(screen.getByTestId('same-car-again'));
  expect(sent.again.mock.calls[0]![0]).toBe('j1');
  cleanup();
  open({ archived_at: '2026-11-30T10:00:00Z' });
  expect(screen.getByTestId('put-away').textContent).toBe('Take it out again');
});
