// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// What can be turned, in a DOM: one more at its place, sides told apart, sizes in the shop's units, told to be all.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '../../test/user';
import { useState } from 'react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { Geometry } from '../../api/client';
import { SettingsProvider } from '../../ui/settings';
import { Adjusters } from './Adjusters';
import type { Found, HeightBy } from './turnable';

const cam = {
  kind: 'eccentric',
  point: 'lower_front',
  direction: [0, 1, 0],
  eccentricity_mm: 3.2,
  min_deg: -90,
  max_deg: 90,
  notches_per_half_turn: 8,
  position: 0,
  unseen: true,
};
const asked = vi.hoisted(() => [] as { adjusters: unknown[]; told: boolean }[]);
vi.mock('../../api/calls', () => ({
  turnable: (body: { adjusters: { name: string; position: number }[]; told: boolean }) => {
    asked.push(body);
    const side = {
      stands: 'not looked',
      held: null,
      step: { name: 'x', step: 'one notch', camber_deg: -0.13, caster_deg: 0.28, toe_deg: -0.25 },
    };
    return Promise.resolve({
      rows: body.adjusters.map(() => ({
        spot: [0, 400, 200],
        size: '8 notches, ±3.2 mm usual',
        sides: { left: side, right: side },
      })),
      offers: [
        {
          kind: 'cam',
          none: null,
          places: [
            {
              place: 'lower arm, front pivot',
              name: 'Cam, lower arm, front pivot',
              adjuster: { ...cam, name: 'lower_front' },
            },
            {
              place: 'lower arm, rear pivot',
              name: 'Cam, lower arm, rear pivot',
              adjuster: { ...cam, name: 'lower_rear', point: 'lower_rear' },
            },
          ],
        },
        { kind: 'wedge', none: 'no live axle', places: [] },
      ],
      reach: { left: null, right: null },
      tabs_out: { left: null, right: null },
      nothing: body.told ? 'Camber: nothing turns it.' : null,
    });
  },
}));

let bad: Record<string, string> = {};
let list: Found[] = [];
let onShaft: boolean | null = null;
function Bench({ start }: { start: Found[] }) {
  const [now, setNow] = useState(start);
  const [told, setTold] = useState(false);
  const [by, setBy] = useState<HeightBy | null>(null);
  const [shaft, setShaft] = useState<boolean | null>(null);
  const [chosen, choose] = useState(0);
  list = now;
  onShaft = shaft;
  return (
    <Adjusters
      axle="front"
      geometry={{ layout: 'double_wishbone' } as Geometry}
      list={now}
      told={told}
      heightBy={by}
      upperShaft={shaft}
      setUpperShaft={setShaft}
      change={setNow}
      setTold={setTold}
      setHeightBy={setBy}
      chosen={chosen}
      choose={choose}
      bad={(b) => (bad = b)}
      problems={[]}
    />
  );
}
const open = (start: Found[] = []) =>
  render(
    <SettingsProvider>
      <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
        <Bench start={start} />
      </QueryClientProvider>
    </SettingsProvider>,
  );
const add = async (at: string) => {
  await userEvent.click(await screen.findByTestId('turn-kind-cam'));
  await userEvent.click(screen.getByTestId(`turn-at-${at}`));
};

beforeEach(() => {
  localStorage.clear();
  asked.length = 0;
  bad = {};
});
afterEach(cleanup);

it('puts one more at its place, and two of a name are told apart', async () => {
  open();
  expect((await screen.findByTestId<HTMLButtonElement>('turn-kind-wedge')).disabled).toBe(true);
  expect(screen.getByText('no live axle')).toBeTruthy();
  await add('lower_rear');
  await add('lower_rear');
  expect(list.map((a) => a.name)).toEqual(['Cam, lower arm, rear pivot', 'Cam, lower arm, rear pivot 2']);
  expect(within(screen.getByTestId('turn-row-1')).getByText('Not looked')).toBeTruthy();
  await userEvent.click(screen.getByTestId('turn-remove'));
  expect(list).toHaveLength(1);
});

it('holds one side and turns the other, and says both', async () => {
  open();
  await add('lower_front');
  await userEvent.click(screen.getByTestId('turn-left-more'));
  await userEvent.click(screen.getByTestId('turn-apart'));
  await userEvent.click(screen.getByTestId('turn-right-seized'));
  expect(list[0]).toMatchObject({ position: 22.5, unseen: false, right: { position: 22.5, held: 'seized' } });
  expect(within(screen.getByTestId('turn-row-1')).getByText('Seized, right')).toBeTruthy();
  await waitFor(() => expect(asked.at(-1)!.adjusters[0]).toMatchObject({ right: { held: 'seized' } }));
});

it('takes tabs as holding the middle of the slot', async () => {
  open();
  await add('lower_front');
  await userEvent.click(screen.getByTestId('turn-left-more'));
  await userEvent.click(screen.getByTestId('turn-left-tabs_in'));
  expect(list[0]).toMatchObject({ position: 0, unseen: false, held: 'tabs_in' });
});

it('reads a throw in the shop’s units, refuses what is none at its field, and keeps it', async () => {
  localStorage.setItem('bold-stance.settings', JSON.stringify({ unit: 'in' }));
  open();
  await add('lower_front');
  const field = screen.getByTestId<HTMLInputElement>('turn-eccentricity_mm');
  expect(field.value).toBe('0.126');
  fireEvent.change(field, { target: { value: '3/16' } });
  expect(list[0]).toMatchObject({ eccentricity_mm: expect.closeTo(4.7625, 6), measured: true });
  fireEvent.change(field, { target: { value: 'wide' } });
  expect(field.value).toBe('wide');
  await waitFor(() => expect(Object.values(bad)[0]).toContain('cannot be read'));
  expect(list[0]).toMatchObject({ eccentricity_mm: expect.closeTo(4.7625, 6) });
});

it('says that nothing turns an angle only once it was told to be all', async () => {
  open();
  await screen.findByTestId('turn-kind-cam');
  expect(screen.queryByTestId('turn-nothing')).toBeNull();
  await userEvent.click(screen.getByTestId('turn-all'));
  expect((await screen.findByTestId('turn-nothing')).textContent).toContain('nothing turns it');
  await userEvent.click(screen.getByTestId('height-by-collar'));
  expect(screen.getByTestId('height-by-collar').getAttribute('aria-pressed')).toBe('true');
});

it('asks whether shims have a place, and takes the answer back', async () => {
  open();
  await userEvent.click(screen.getByTestId('shaft-no'));
  expect(onShaft).toBe(false);
  await userEvent.click(screen.getByTestId('shaft-yes'));
  expect(onShaft).toBe(true);
  await userEvent.click(screen.getByTestId('shaft-yes'));
  expect(onShaft).toBeNull();
});
