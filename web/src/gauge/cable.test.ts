// @vitest-environment happy-dom
// The gauge on a cable, on a stub of the browser's port that speaks as docs/GAUGE.md has it: greeting, angles cut anywhere,
// buttons and their answers, what is no gauge, and a plug pulled.
import { act, renderHook } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { BAUD, connect, press, useCable, type Port } from './cable';
import { LONGEST, parseLine } from './lines';

/** A port whose other end is held in the test. */
function plug() {
  let out!: ReadableStreamDefaultController<Uint8Array>;
  const told: string[] = [];
  const open = vi.fn(() => Promise.resolve());
  const port: Port = {
    open,
    close: vi.fn(() => Promise.resolve()),
    readable: new ReadableStream<Uint8Array>({ start: (c) => void (out = c) }),
    writable: new WritableStream<Uint8Array>({ write: (b) => void told.push(new TextDecoder().decode(b)) }),
  };
  Object.defineProperty(navigator, 'serial', {
    configurable: true,
    value: { requestPort: () => Promise.resolve(port) },
  });
  const says = async (text: string) => {
    await act(async () => {
      out.enqueue(new TextEncoder().encode(text));
      await new Promise((r) => setTimeout(r, 5));
    });
  };
  return {
    says,
    told,
    open,
    pull: () => act(async () => out.close()),
    breaks: (e: Error) => act(async () => out.error(e)),
  };
}
const settle = () => act(() => new Promise((r) => setTimeout(r, 5)));

afterEach(() => Reflect.deleteProperty(navigator, 'serial'));

it('greets, follows the angle however the bytes are cut, and ends with the plug', async () => {
  const { result } = renderHook(useCable);
  const p = plug();
  void connect();
  await settle();
  expect(p.open).toHaveBeenCalledWith({ baudRate: BAUD });
  expect(result.current.state).toBe('opening');
  await p.says('hello bold-stance.gauge/1 name=Bench_gauge step=0.05\nang');
  await p.says('le -0.35');
  expect(result.current.angle).toBeUndefined();
  await p.says('0 seq=12 held\r\n');
  expect(result.current).toMatchObject({
    state: 'on',
    name: 'Bench gauge',
    angle: { deg: -0.35, held: true, zeroed: false },
  });
  await p.pull();
  await settle();
  expect(result.current).toMatchObject({
    state: 'lost',
    angle: undefined,
    fault: 'The gauge was unplugged.',
  });
});

it('presses buttons, one answer after the other, and says why one was refused', async () => {
  const p = plug();
  void connect();
  await settle();
  const zero = press('zero');
  await settle();
  const hold = press('hold');
  const refused = expect(hold).rejects.toThrow('shaken');
  await settle();
  await p.says('angle 0.1 seq=1\nok\n');
  await zero;
  await p.says('no shaken\n');
  await refused;
  expect(p.told).toEqual(['zero\n', 'hold\n']);
  await p.pull();
  await settle();
  await expect(press('zero')).rejects.toThrow('no gauge on the cable');
});

it('says what is no gauge, and what was lost', async () => {
  const { result } = renderHook(useCable);
  const p = plug();
  void connect();
  await settle();
  await p.says('$GPGGA,123519\n'.repeat(20));
  await settle();
  expect(result.current.fault).toContain('docs/GAUGE.md');
  const q = plug();
  void connect();
  await settle();
  await q.breaks(new Error('The device has been lost.'));
  await settle();
  expect(result.current.fault).toBe('The device has been lost.');
});

it('stays as it is where no port is chosen, and says a port that is taken', async () => {
  const { result } = renderHook(useCable);
  const before = result.current;
  Object.defineProperty(navigator, 'serial', {
    configurable: true,
    value: { requestPort: () => Promise.reject(new DOMException('none', 'NotFoundError')) },
  });
  void connect();
  await settle();
  expect(result.current).toBe(before);
  const p = plug();
  p.open.mockRejectedValueOnce(new Error('busy'));
  void connect();
  await settle();
  expect(result.current.fault).toContain('taken or gone');
});

it('reads the lines of docs/GAUGE.md and nothing else', () => {
  expect(parseLine('hello bold-stance.gauge/1 name=Bench_gauge step=0.05 simulated=yes')).toEqual({
    kind: 'hello',
    name: 'Bench gauge',
    step_deg: 0.05,
    simulated: true,
  });
  expect(parseLine('angle -0.350 seq=12 zeroed')).toEqual({
    kind: 'angle',
    deg: -0.35,
    held: false,
    zeroed: true,
  });
  for (const bad of [
    'hello bold-stance.gauge/2 step=0.05',
    'hello bold-stance.gauge/1 name=x step=0',
    'angle seq=1',
    'angle 361 seq=1',
    'angle NaN seq=1',
    'angle 1e2 seq=1',
    'angle 0.1',
    '',
    `angle 0.1 seq=${'1'.repeat(LONGEST)}`,
  ])
    expect(parseLine(bad), bad).toBeUndefined();
});
