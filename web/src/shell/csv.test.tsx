// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// A table in and out, in a DOM: taken whole or refused whole, with what is wrong by line, in the units of the shop.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { CsvTable } from './CsvTable';
import { inUnits, speakIn } from '../api/units';
import { SettingsProvider } from '../ui/settings';

const sent: { path: string; type: string | null; units: string | null; body: string }[] = [];
let answer = { status: 200, body: {} as unknown };
beforeEach(() => {
  localStorage.clear();
  sent.length = 0;
  vi.stubGlobal('fetch', async (path: string, init: RequestInit) => {
    const h = new Headers(init.headers);
    const body = new TextDecoder().decode(init.body as ArrayBuffer);
    sent.push({ path, type: h.get('content-type'), units: h.get('x-units'), body });
    return new Response(JSON.stringify(answer.body), { status: answer.status });
  });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const open = (taken = vi.fn()) =>
  render(
    <SettingsProvider>
      <QueryClientProvider client={new QueryClient()}>
        <CsvTable path="/api/v1/x.csv" out="As CSV" what="readings" testid="t" taken={taken} />
      </QueryClientProvider>
    </SettingsProvider>,
  );
const bring = (text: string) =>
  fireEvent.change(screen.getByTestId('t-in'), { target: { files: [new File([text], 'a.csv')] } });

describe('a table', () => {
  it('goes out as a download and comes in whole', async () => {
    const taken = vi.fn();
    answer = { status: 200, body: { rows: 2 } };
    open(taken);
    expect(screen.getByTestId('t-out').getAttribute('href')).toBe('/api/v1/x.csv');
    bring('a,b\n1,2\n');
    await waitFor(() =>
      expect(taken).toHaveBeenCalledWith({ rows: 2 }, expect.anything(), undefined, expect.anything()),
    );
    expect(sent).toEqual([{ path: '/api/v1/x.csv', type: 'text/csv', units: null, body: 'a,b\n1,2\n' }]);
    expect(screen.queryByTestId('t-fault')).toBeNull();
  });
  it('goes out in the units of the shop', () => {
    speakIn({
      length: 'in',
      angle: 'decimal',
      pressure: 'psi',
      load: 'lb',
      distance: 'miles',
      tread: 'in32',
      // A table's numbers are numbers: with a point, whatever stands on the screen.
      decimal: 'comma',
    });
    expect(decodeURIComponent(inUnits('/api/v1/x.csv'))).toBe(
      '/api/v1/x.csv?units=length=in; pressure=psi; load=lb; distance=miles; tread=in32',
    );
    speakIn({
      length: 'mm',
      angle: 'decimal',
      pressure: 'kpa',
      load: 'n',
      distance: 'km',
      tread: 'mm',
      decimal: 'point',
    });
    expect(inUnits('/api/v1/x.csv')).toBe('/api/v1/x.csv');
  });
  it('is refused whole, with up to six faults by line', async () => {
    const problems = Array.from({ length: 9 }, (_, i) => ({
      field: `line ${i + 2}`,
      wrong: 'no number',
      right: 'a depth',
    }));
    answer = { status: 422, body: { title: 'Refused', detail: 'x', problems } };
    const taken = vi.fn();
    open(taken);
    bring('a\nx\n');
    await screen.findByTestId('t-fault');
    expect(screen.getByText('Nothing was taken in.')).toBeTruthy();
    expect(screen.getByTestId('t-fault').textContent).toContain('line 2: no number');
    expect(screen.getByTestId('t-fault').textContent).not.toContain('line 8');
    expect(taken).not.toHaveBeenCalled();
  });
  it('says why when there is no field to blame, and asks in the shop’s units', async () => {
    localStorage.setItem('bold-stance.settings', JSON.stringify({ unit: 'in' }));
    answer = { status: 413, body: { title: 'Too large', detail: 'over 8 MB', problems: [] } };
    open();
    bring('a');
    await waitFor(() => expect(screen.getByTestId('t-fault').textContent).toContain('over 8 MB'));
    expect(sent[0]!.units).toBe('length=in; pressure=psi; load=lb; distance=miles; tread=in32');
  });
});
