// Answers kept in the browser: a bay without radio still opens what it had last.
import { clear, createStore, get, set } from 'idb-keyval';
import { ApiProblem } from './client';
import { unitsHeader } from './units';

const store = () => createStore('bold-stance.kept', 'answers');
let opened: ReturnType<typeof store> | undefined;
const answers = () => (opened ??= store());

interface Kept<T> {
  at: number;
  data: T;
}

/** Sentences of an answer are in the units it was asked in. */
const keyOf = (name: string) => `${name} ${JSON.stringify(unitsHeader())}`;

// A full, forbidden or missing store only loses the convenience.
async function keep(key: string, what: Kept<unknown>): Promise<void> {
  try {
    await set(key, what, answers());
  } catch {
    return;
  }
}

async function last<T>(key: string): Promise<Kept<T> | undefined> {
  try {
    return await get<Kept<T>>(key, answers());
  } catch {
    return undefined;
  }
}

/** The answer of a call; where the server does not answer, the one it gave last. A refusal is an answer. */
export async function orKept<T>(name: string, call: () => Promise<T>): Promise<T> {
  const key = keyOf(name);
  try {
    const data = await call();
    void keep(key, { at: Date.now(), data } satisfies Kept<T>);
    return data;
  } catch (e) {
    if (!(e instanceof ApiProblem) || e.status !== 0) throw e;
    const had = await last<T>(key);
    if (!had) throw e;
    return had.data;
  }
}

/** Forgets every answer: whoever left was at a browser that is not the shop's. */
export async function forgetKept(): Promise<void> {
  try {
    await clear(answers());
  } catch {
    return;
  }
}
