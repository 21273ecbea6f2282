// A gauge on a cable of this device: the browser's serial port (Web Serial), which speaks the same lines as one the server
// listens to. One at a time, and it stays through every page.
import { useSyncExternalStore } from 'react';
import { LONGEST, parseLine, type Angle } from './lines';

/** The little of the browser's serial port that is used; not every browser has one. */
export interface Port {
  open: (how: { baudRate: number }) => Promise<void>;
  close: () => Promise<void>;
  readable: ReadableStream<Uint8Array> | null;
  writable: WritableStream<Uint8Array> | null;
}
interface Serial {
  requestPort: () => Promise<Port>;
}

/** As docs/GAUGE.md has it. */
export const BAUD = 115_200;
/** Lines in a row that are none of a gauge before it is said not to be one. */
const STRANGE = 20;
/** How long the gauge may take over a button, ms. */
const ANSWER_MS = 2000;

export interface Cable {
  state: 'none' | 'opening' | 'on' | 'lost';
  name: string;
  simulated: boolean;
  angle: Angle | undefined;
  /** Why there is none. */
  fault: string | undefined;
}

const none: Cable = { state: 'none', name: '', simulated: false, angle: undefined, fault: undefined };
let now = none;
let port: Port | undefined;
let waits: { done: () => void; refused: (why: Error) => void }[] = [];
const listeners = new Set<() => void>();

function change(to: Partial<Cable>) {
  now = { ...now, ...to };
  for (const l of listeners) l();
}

export const serial = (): Serial | undefined => (navigator as unknown as { serial?: Serial }).serial;

function take(text: string): boolean {
  const line = parseLine(text);
  if (!line) return false;
  if (line.kind === 'hello') change({ name: line.name, simulated: line.simulated });
  else if (line.kind === 'angle')
    change({ angle: { deg: line.deg, held: line.held, zeroed: line.zeroed }, state: 'on', fault: undefined });
  else {
    const first = waits.shift();
    if (line.kind === 'ok') first?.done();
    else first?.refused(new Error(line.why || 'the gauge would not'));
  }
  return true;
}

/** Reads until it ends; gives why. */
async function listen(from: ReadableStream<Uint8Array>): Promise<string> {
  const reader = from.getReader();
  const text = new TextDecoder();
  let rest = '';
  let strange = 0;
  try {
    for (;;) {
      const { value, done } = await reader.read();
      if (done) return 'The gauge was unplugged.';
      rest += text.decode(value, { stream: true });
      const lines = rest.split('\n');
      rest = lines.pop() ?? '';
      for (const l of lines.filter((l) => l.trim())) strange = take(l) ? 0 : strange + 1;
      if (strange >= STRANGE || rest.length > LONGEST) {
        await reader.cancel();
        return `What comes over the cable is no gauge of ours: lines as docs/GAUGE.md has them, ${BAUD} baud.`;
      }
    }
  } catch (e) {
    return e instanceof Error ? e.message : 'The cable was lost.';
  } finally {
    reader.releaseLock();
  }
}

/** Asks which port it is and listens to it; nothing happens where none is chosen. */
export async function connect(): Promise<void> {
  const found = await serial()
    ?.requestPort()
    .catch(() => undefined);
  if (!found) return;
  port = found;
  change({ ...none, state: 'opening', name: 'Gauge by cable' });
  try {
    await found.open({ baudRate: BAUD });
  } catch {
    port = undefined;
    change({
      ...none,
      state: 'lost',
      fault: 'The port is taken or gone: close what else uses it, plug it in again.',
    });
    return;
  }
  const why = found.readable ? await listen(found.readable) : 'The port cannot be read.';
  if (port !== found) return;
  port = undefined;
  for (const w of waits) w.refused(new Error(why));
  waits = [];
  await found.close().catch(() => {});
  change({ ...none, state: 'lost', fault: why });
}

/** Presses a button of the gauge. */
export async function press(button: string): Promise<void> {
  const writer = port?.writable?.getWriter();
  if (!writer) throw new Error('no gauge on the cable');
  const answered = new Promise<void>((done, refused) => {
    const mine = { done, refused };
    waits.push(mine);
    setTimeout(() => {
      waits = waits.filter((w) => w !== mine);
      refused(new Error('the gauge does not answer'));
    }, ANSWER_MS);
  });
  try {
    await writer.write(new TextEncoder().encode(`${button}\n`));
  } finally {
    // The next button may be pressed before this one is answered.
    writer.releaseLock();
  }
  await answered;
}

const subscribe = (f: () => void) => {
  listeners.add(f);
  return () => void listeners.delete(f);
};
export const useCable = () => useSyncExternalStore(subscribe, () => now);
