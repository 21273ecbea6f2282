// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://localhost/" }
// The dialogs of a plan in a DOM: windows of an aim, limits of a car, and the menu that removes and brings back.
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '../../test/user';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Aim, Schemas } from '../../api/client';
import { readDraft } from '../../shell/drafts';
import { SettingsProvider } from '../../ui/settings';
import type { Bench } from '../../shell/ticket';
import { notMeasured, starting } from '../../fixtures';
import { AimDialog } from './AimDialog';
import { ChecksPanel } from './ChecksPanel';
import { PlanMenu } from './PlanMenu';

// The client takes fetch when it is loaded, before any test runs.
const server = vi.hoisted(() => {
  const it = {
    asked: [] as { method: string; path: string; body: Record<string, unknown> }[],
    answer: (_method: string, _path: string): { status: number; body: unknown } => ({
      status: 200,
      body: [],
    }),
  };
  globalThis.fetch = async (input) => {
    const r = input as Request;
    const path = new URL(r.url).pathname;
    const text = await r.text();
    it.asked.push({
      method: r.method,
      path,
      body: text ? (JSON.parse(text) as Record<string, unknown>) : {},
    });
    const { status, body } = it.answer(r.method, path);
    return new Response(status === 204 ? null : JSON.stringify(body), {
      status,
      headers: { 'content-type': 'application/json' },
    });
  };
  return it;
});

beforeEach(() => {
  localStorage.clear();
  server.asked.length = 0;
  server.answer = () => ({ status: 200, body: [] });
});
afterEach(cleanup);

const put = (id: string, value: string) => fireEvent.change(screen.getByTestId(id), { target: { value } });
const value = (id: string) => screen.getByTestId<HTMLInputElement>(id).value;
const Shell = ({ children }: { children: ReactNode }) => (
  <MemoryRouter>
    <SettingsProvider>
      <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
        {children}
      </QueryClientProvider>
    </SettingsProvider>
  </MemoryRouter>
);

const school = (id: string, name: string, camber: number[]): Aim =>
  ({
    id,
    name,
    reason: `why ${name}`,
    camber_deg: camber,
    caster_deg: [3.7, 4.7],
    toe_total_deg: [0, 0.2],
    rear_camber_deg: [-1, 0],
    rear_toe_total_deg: [0, 0.3],
    cross_camber_deg: 0.5,
    cross_caster_deg: 0.5,
    judged_at: 'planned',
    views: [],
  }) as unknown as Aim;
const truck = school('loaded-truck', 'Loaded truck', [-0.3, 0.3]);
const sports = school('sports', 'Winding roads', [-2, -1]);

function aim(keep = vi.fn(), close = vi.fn()) {
  const view = render(
    <AimDialog open aim={truck} draftKey="aim.p" tyreMm={700} levels={['Trail']} close={close} keep={keep} />,
    { wrapper: Shell },
  );
  return { ...view, keep, close };
}

describe('the aim', () => {
  beforeEach(() => {
    server.answer = () => ({
      status: 200,
      body: [truck, sports].map((a) => ({ aim: a, own: false, version: 0 })),
    });
  });

  it('takes the right apart from the left, and keeps it apart when the left is typed over', () => {
    const { keep } = aim();
    put('right-caster_deg', '-0.5');
    put('caster_deg-0', '4');
    fireEvent.click(screen.getByTestId('judged-at-Trail'));
    fireEvent.click(screen.getByTestId('aim-keep'));
    const got = keep.mock.calls[0]![0] as Aim;
    expect(got.caster_deg).toEqual([4, 4.7]);
    expect(got.right?.caster_deg?.map((v) => Math.round(v * 100) / 100)).toEqual([3.5, 4.2]);
    expect([got.right?.camber_deg, got.level]).toEqual([null, 'Trail']);
  });

  it('reads a window off the maker’s sheet, and says at the field what is none', async () => {
    const { keep } = aim();
    const schools = server.answer;
    server.answer = () => ({ status: 200, body: { window_deg: [0.0819, 0.2456] } });
    put('sheet-window', '2 ± 1 mm');
    fireEvent.click(screen.getByTestId('sheet-use'));
    await waitFor(() => expect(screen.getByTestId<HTMLInputElement>('toe_total_deg-1').value).toBe('0.246'));
    const problem = { field: 'text', wrong: 'no window', right: '2 ± 1 mm' };
    server.answer = () => ({ status: 422, body: { title: 'No', detail: 'no', problems: [problem] } });
    put('sheet-window', 'two');
    fireEvent.click(screen.getByTestId('sheet-use'));
    await screen.findByText('no window; 2 ± 1 mm');
    server.answer = schools;
    fireEvent.click(screen.getByTestId('aim-keep'));
    expect((keep.mock.calls[0]![0] as Aim).toe_total_deg).toEqual([0.082, 0.246]);
  });

  it('keeps what was typed, with a window that runs backwards refused in words', async () => {
    const { keep } = aim();
    put('camber_deg-0', '0.5');
    expect(screen.getByText('Runs backwards: low end first')).toBeTruthy();
    expect(screen.getByTestId<HTMLButtonElement>('aim-keep').disabled).toBe(true);
    put('camber_deg-0', 'half');
    expect(screen.getByText("No angle: degrees such as -0.3, or 0°18'")).toBeTruthy();
    put('camber_deg-0', '-40');
    expect(screen.getByText('Outside -12 to 12°')).toBeTruthy();
    put('camber_deg-0', '-0.5');
    await userEvent.click(screen.getByTestId('aim-keep'));
    expect(keep).toHaveBeenCalledWith(
      expect.objectContaining({ camber_deg: [-0.5, 0.3], id: 'loaded-truck' }),
    );
  });

  it('gives typed windows back after another school was picked', async () => {
    aim();
    put('camber_deg-0', '-0.7');
    await userEvent.click(await screen.findByTestId('aim-sports'));
    expect(value('camber_deg-0')).toBe('-2.00');
    await userEvent.click(screen.getByTestId('aim-back'));
    expect(value('camber_deg-0')).toBe('-0.7');
  });

  it('outlives a press outside it, and leaves nothing once it is used', async () => {
    const first = aim();
    put('cross_camber_deg', '0.4');
    first.unmount();
    const again = aim();
    expect(value('cross_camber_deg')).toBe('0.4');
    expect(screen.getByTestId('drop-draft')).toBeTruthy();
    await userEvent.click(screen.getByTestId('aim-keep'));
    again.unmount();
    aim();
    expect(screen.queryByTestId('drop-draft')).toBeNull();
    expect(value('cross_camber_deg')).toBe('0.50');
  });

  it('does not call what is typed next typed before', async () => {
    const first = aim();
    put('cross_camber_deg', '0.4');
    first.unmount();
    aim();
    await userEvent.click(screen.getByTestId('aim-keep'));
    put('cross_camber_deg', '0.3');
    expect(screen.queryByTestId('drop-draft')).toBeNull();
  });

  it('is kept as the shop’s own under its name', async () => {
    aim();
    const shipped = server.answer('GET', '/api/v1/aims');
    // The server gives the aim back as it has it now.
    server.answer = (method) =>
      method === 'PUT'
        ? { status: 200, body: { own: true, version: 1, aim: server.asked.at(-1)!.body.aim } }
        : shipped;
    put('aim-own-name', 'Our trail truck');
    await userEvent.click(screen.getByTestId('aim-own-keep'));
    await waitFor(() => expect(value('aim-own-name')).toBe(''));
    const sent = server.asked.find((a) => a.method === 'PUT')!;
    expect(sent.path).toBe('/api/v1/aims/own-our-trail-truck');
    expect(sent.body).toMatchObject({
      version: 0,
      aim: { name: 'Our trail truck', camber_deg: [-0.3, 0.3] },
    });
    expect(value('camber_deg-0')).toBe('-0.30');
  });
});

describe('limits of a car', () => {
  const check = (words: string, ok: boolean): Schemas['Check'] =>
    ({
      kind: 'upper_joint',
      words,
      ok,
      measured: false,
      value: 1,
      limit: 2,
      unit: '°',
    }) as unknown as Schemas['Check'];
  const result = {
    misfits: ['two arms in one place'],
    left: { checks: [check('upper joint 14°', false)], why: [] },
  } as unknown as Schemas['PlanResult'];
  const bench = (setTicket = vi.fn()) =>
    ({
      ticket: {
        job: { id: 'j' },
        vehicle: { version: 3, facts: starting },
      },
      setTicket,
    }) as unknown as Bench;
  const panel = (b = bench()) =>
    render(<ChecksPanel result={result} side="left" bench={b} axle="front" />, { wrapper: Shell });
  const open = () => userEvent.click(screen.getByTestId('measure-limits'));

  it('are typed in millimetres and degrees, refused at their field, and kept whole', async () => {
    const setTicket = vi.fn();
    panel(bench(setTicket));
    expect(screen.getByTestId('checks-panel').textContent).toContain('upper joint 14°fouls');
    expect(screen.getByText('two arms in one place')).toBeTruthy();
    await open();
    put('limit-droop_mm', 'far');
    expect(screen.getByText('“far” cannot be read; a length such as 498 or 19 5/8in')).toBeTruthy();
    put('limit-arch_front_mm', '1 1/4 in');
    expect(screen.getByText('= 31.8 mm')).toBeTruthy();
    expect(screen.getByTestId<HTMLButtonElement>('limits-keep').disabled).toBe(true);
    put('limit-droop_mm', '95');
    server.answer = () => ({ status: 200, body: { job: { id: 'j' } } });
    await userEvent.click(screen.getByTestId('limits-keep'));
    await waitFor(() => expect(setTicket).toHaveBeenCalled());
    expect(server.asked.at(-1)!.body).toMatchObject({
      version: 3,
      facts: {
        car: {
          axles: {
            front: { limits: { droop_mm: 95, bump_mm: null, arch_front_mm: 31.75 } },
            rear: { limits: notMeasured },
          },
        },
      },
    });
    expect(readDraft('limits.j.mm')).toBeUndefined();
  });

  it('outlive a lost answer with everything typed', async () => {
    const first = panel();
    await open();
    put('limit-bump_mm', '80');
    server.answer = () => ({
      status: 503,
      body: { title: 'x', detail: 'The database did not answer', problems: [] },
    });
    await userEvent.click(screen.getByTestId('limits-keep'));
    await screen.findByText(/The database did not answer/);
    first.unmount();
    panel();
    await open();
    expect(value('limit-bump_mm')).toBe('80');
  });
});

describe('the menu of plans', () => {
  const plan = { id: 'p', name: 'Lift 65', version: 2, document: { height_change_mm: 65 } };
  const bench = (pick = vi.fn(), done: unknown[] = []) =>
    ({
      ticket: { job: { id: 'j' }, plans: [plan, { ...plan, id: 'q', name: 'Lift 40' }], done },
      plan,
      draft: plan.document,
      saving: 'saved',
      pick,
    }) as unknown as Bench;
  const open = async (b: Bench) => {
    render(<PlanMenu bench={b} />, { wrapper: Shell });
    await userEvent.click(screen.getByTestId('plan-menu'));
  };

  it('asks before it removes, says what goes with it, and brings it back', async () => {
    const pick = vi.fn();
    await open(
      bench(pick, [
        { plan_id: 'p', step: 'cams' },
        { plan_id: 'p', step: 'proved/Roll 3 m' },
      ]),
    );
    await userEvent.click(screen.getByTestId('plan-remove'));
    expect(screen.getByText(/1 step of its sheet were done/)).toBeTruthy();
    expect(server.asked.some((a) => a.method === 'DELETE')).toBe(false);
    server.answer = (method) => ({ status: method === 'DELETE' ? 204 : 201, body: { id: 'new' } });
    await userEvent.click(screen.getByTestId('plan-remove-sure'));
    await userEvent.click(await screen.findByTestId('plan-undo-remove'));
    await waitFor(() => expect(pick).toHaveBeenCalledWith('new'));
    const back = server.asked.find((a) => a.method === 'POST')!;
    expect(back.path).toBe('/api/v1/jobs/j/plans');
    expect(back.body).toMatchObject({ name: 'Lift 65', document: { height_change_mm: 65 } });
  });

  it('renames with the version it began with, and says a refused name at the name', async () => {
    await open(bench());
    await userEvent.click(screen.getByTestId('plan-rename'));
    server.answer = () => ({
      status: 422,
      body: {
        title: 'x',
        detail: 'x',
        problems: [{ field: 'name', wrong: 'nothing was entered', right: 'a name' }],
      },
    });
    const name = screen.getByLabelText('Name');
    fireEvent.change(name, { target: { value: ' ' } });
    fireEvent.submit(name.closest('form')!);
    await screen.findByText(/nothing was entered/);
    expect(server.asked.at(-1)!.body).toMatchObject({ version: 2, name: ' ' });
  });

  it('picks another plan of the job', async () => {
    const pick = vi.fn();
    await open(bench(pick));
    await userEvent.click(screen.getByText('Lift 40'));
    expect(pick).toHaveBeenCalledWith('q');
  });
});
