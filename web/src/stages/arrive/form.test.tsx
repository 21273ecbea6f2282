// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// The vehicle's form in a DOM: typed as a shop has it, refused at the field, and kept to the last digit where nobody typed.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '../../test/user';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiProblem, type VehicleFacts } from '../../api/client';
import { starting } from '../../fixtures';
import { SettingsProvider, useSettings } from '../../ui/settings';
import { VehicleForm } from './VehicleForm';

// The client takes fetch when it is loaded, before any test runs.
const server = vi.hoisted(() => {
  const it = { answers: {} as Record<string, unknown> };
  globalThis.fetch = async (input) => {
    const last = new URL((input as Request).url).pathname.split('/').at(-1)!;
    return new Response(JSON.stringify(it.answers[last]), {
      headers: { 'content-type': 'application/json' },
    });
  };
  return it;
});
server.answers = {
  shop: {
    name: 'Larkspur Axle & Arm',
    starter: starting,
    settings: { labour_rate: 90, currency: '', figures: 'price', rule_books: [] },
  },
  geometry: { problems: [], remarks: [] },
  'car-drawing': { corners: [], wheelbase_mm: 3200 },
  archetypes: [],
};

// A car as it was once measured: no figure of it is round in the other unit.
const kept: VehicleFacts = {
  ...starting,
  name: 'Ridgeback',
  wheelbase_mm: 3203.3719,
  pressure_kpa: 241.3166,
  axles: { ...starting.axles, front: { ...starting.axles.front, track_mm: 1613.1234 } },
  car: {
    ...starting.car,
    axles: { ...starting.car.axles, front: { ...starting.car.axles.front, load_n: 6672.3324 } },
  },
};

function Toggle() {
  const { unit, set } = useSettings();
  return <button onClick={() => set({ unit: unit === 'mm' ? 'in' : 'mm' })}>other unit</button>;
}
const done = vi.fn<(f: VehicleFacts) => void>();
const open = (more: { start?: VehicleFacts; fresh?: boolean; fault?: ApiProblem } = {}) =>
  render(
    <SettingsProvider>
      <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
        <Toggle />
        <VehicleForm
          start={more.start ?? kept}
          fault={more.fault}
          fresh={more.fresh ?? false}
          busy={false}
          action="Keep the vehicle"
          done={done}
          head={null}
          draftKey="form"
        />
      </QueryClientProvider>
    </SettingsProvider>,
  );
const field = (id: string) => screen.getByTestId<HTMLInputElement>(id);
const put = (id: string, value: string) => fireEvent.change(field(id), { target: { value } });
const save = async () => {
  await userEvent.click(screen.getByTestId('save-vehicle'));
  return done.mock.calls.at(-1)![0];
};
const inches = () => localStorage.setItem('bold-stance.settings', JSON.stringify({ unit: 'in' }));

beforeEach(() => {
  localStorage.clear();
  done.mockClear();
});
afterEach(cleanup);

describe('the form of a vehicle', () => {
  it.each(['mm', 'in'])('keeps every digit that nobody typed, shown in %s', async (unit) => {
    if (unit === 'in') inches();
    open();
    put('name', 'Ridgeback, long bed');
    const front = { ...kept.axles.front, geometry: expect.anything() };
    const axles = { ...kept.axles, front };
    expect(await save()).toEqual({ ...kept, name: 'Ridgeback, long bed', axles });
  });
  it('keeps them through a change of unit and back', async () => {
    open();
    expect(field('wheelbase_mm').value).toBe('3203.372');
    await userEvent.click(screen.getByText('other unit'));
    expect(field('wheelbase_mm').value).toBe('126.117');
    expect(field('pressure_kpa').value).toBe('35');
    expect(field('car.axles.front.load_n').value).toBe('1500');
    await userEvent.click(screen.getByText('other unit'));
    put('name', 'x');
    const facts = await save();
    expect(facts.wheelbase_mm).toBeCloseTo(kept.wheelbase_mm, 2);
    expect(facts.pressure_kpa).toBeCloseTo(kept.pressure_kpa, 0);
  });
  it('reads feet, fractions, another unit and a flotation size as a shop writes them', async () => {
    inches();
    open();
    put('wheelbase_mm', '9 ft 7 1/2');
    put('axles.front.track_mm', '1626 mm');
    put('axles.front.height_mm', '21 3/8');
    put('tread_depth_mm', '13/32');
    put('pressure_kpa', '2.9 bar');
    put('placard_kpa', '38');
    put('tyre_size', '33x12.50R15');
    const facts = await save();
    // 115.5 in, 21.375 in and 13/32 in at 25.4 mm; 38 psi at 6.894 757 kPa.
    expect(facts.wheelbase_mm).toBeCloseTo(2933.7, 6);
    expect(facts.axles.front.track_mm).toBeCloseTo(1626, 9);
    expect(facts.axles.front.height_mm).toBeCloseTo(542.925, 6);
    expect(facts.tread_depth_mm).toBeCloseTo(10.31875, 6);
    expect(facts.pressure_kpa).toBeCloseTo(290, 6);
    expect(facts.placard_kpa).toBeCloseTo(262.0, 1);
    expect(facts.tyre_size).toBe('33x12.50R15');
  });
  it('says at the field what is wrong, holds the button, and loses nothing that was typed', async () => {
    open();
    put('wheelbase_mm', 'long');
    expect(field('wheelbase_mm').getAttribute('aria-invalid')).toBe('true');
    expect(screen.getByTestId('form-fault').textContent).toContain('Wheelbase');
    expect(screen.getByTestId<HTMLButtonElement>('save-vehicle').disabled).toBe(true);
    await userEvent.click(screen.getByText('other unit'));
    expect(field('wheelbase_mm').value).toBe('long');
    put('wheelbase_mm', '126 1/8');
    expect(screen.queryByTestId('form-fault')).toBeNull();
    expect((await save()).wheelbase_mm).toBeCloseTo(3203.575, 6);
  });
  it('shows what the server refused at its own field', () => {
    const problem = { field: 'facts.wheelbase_mm', wrong: 'is 32 mm', right: 'from 1 500 mm to 6 000 mm' };
    open({ fault: new ApiProblem(422, 'refused', '', [problem]) });
    expect(field('wheelbase_mm').getAttribute('aria-invalid')).toBe('true');
    expect(screen.getByText(/is 32 mm; from 1 500 mm to 6 000 mm/)).toBeTruthy();
  });
  it('keeps what was typed over a reload until it is dropped', async () => {
    const first = open();
    put('wheelbase_mm', '3210');
    await waitFor(() => expect(JSON.stringify(localStorage)).toContain('3210'));
    first.unmount();
    open();
    expect(field('wheelbase_mm').value).toBe('3210');
    await userEvent.click(screen.getByTestId('drop-draft'));
    expect(field('wheelbase_mm').value).toBe('3203.372');
  });
  it('says of a new car what is only usual, until it is measured', () => {
    open({ start: starting, fresh: true });
    const usual = () => field('wheelbase_mm').parentElement!.textContent;
    expect(usual()).toContain('usual');
    put('wheelbase_mm', '3220');
    expect(usual()).not.toContain('usual');
    expect(screen.getByTestId('save-vehicle').textContent).toBe('Give it a name');
  });
});
