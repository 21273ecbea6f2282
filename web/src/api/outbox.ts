// Readings typed while the server does not answer: kept in the browser as they were typed, sent in order once it does.
// Each bears the id it was made with, so that none is stored twice, however often it is sent.
import { createStore, del, entries, set } from 'idb-keyval';
import { addReading } from './calls';
import { ApiProblem, type Problem, type Ticket, type TypedReading } from './client';

/** A reading that waits. */
export interface Waits {
  job: string;
  typed: TypedReading;
  /** What and where it is read, and with what, in words. */
  what: string;
  /** When it was typed, ms. */
  at: number;
  /** Why the server did not take it; it stays until somebody drops it or types it again. */
  refused?: Problem[];
}

const open = () => createStore('bold-stance.outbox', 'readings');

export class Outbox {
  private list: readonly Waits[] = [];
  private readonly told = new Set<() => void>();
  private store: ReturnType<typeof open> | undefined;
  private sending: Promise<void> | undefined;
  private because: string | undefined;

  /** What waited when the page was opened. */
  async load(): Promise<void> {
    try {
      this.store = open();
      const kept = (await entries<string, Waits>(this.store)).map(([, w]) => w);
      const here = new Set(this.list.map((w) => w.typed.id));
      this.change(
        [...kept.filter((w) => !here.has(w.typed.id)), ...this.list].toSorted((a, b) => a.at - b.at),
      );
    } catch {
      // Without a store they wait as long as the page is open.
      this.store = undefined;
    }
  }

  readonly waiting = () => this.list;
  /** Why the newest that was sent has to wait, where the server said it. */
  readonly why = () => this.because;
  readonly listen = (f: () => void) => {
    this.told.add(f);
    return () => this.told.delete(f);
  };

  private change(list: readonly Waits[]): void {
    this.list = list;
    this.told.forEach((f) => f());
  }

  private waitsFor(e: ApiProblem): void {
    this.because = e.status ? e.title : undefined;
    this.change([...this.list]);
  }

  private async write(w: Waits): Promise<void> {
    if (this.store) await set(w.typed.id, w, this.store).catch(() => {});
  }

  private async add(w: Waits): Promise<void> {
    const there = this.list.some((x) => x.typed.id === w.typed.id);
    this.change(there ? this.list.map((x) => (x.typed.id === w.typed.id ? w : x)) : [...this.list, w]);
    await this.write(w);
  }

  /** Takes one back: it was sent, or nobody wants it any more. */
  async drop(id: string): Promise<void> {
    this.change(this.list.filter((w) => w.typed.id !== id));
    if (this.store) await del(id, this.store).catch(() => {});
  }

  /** Sends a reading, behind those of its job that wait; undefined where it has to wait itself. */
  async keep(job: string, typed: TypedReading, what: string): Promise<Ticket | undefined> {
    const behind = () => this.list.some((w) => w.job === job && !w.refused);
    if (behind()) await this.send(() => {});
    if (!behind()) {
      try {
        return await addReading(job, typed);
      } catch (e) {
        // A full disk, a busy database or nobody signed in is no refusal of what was read: it waits.
        if (!(e instanceof ApiProblem && e.canGoAgain)) throw e;
        this.waitsFor(e);
      }
    }
    await this.add({ job, typed, what, at: Date.now() });
    return undefined;
  }

  /** Sends what waits, oldest first, until one finds no answer. One page of the browser sends at a time. */
  send(kept: (t: Ticket) => void): Promise<void> {
    const run = async () => {
      for (const w of this.list.filter((x) => !x.refused)) {
        try {
          kept(await addReading(w.job, w.typed));
          await this.drop(w.typed.id);
        } catch (e) {
          if (!(e instanceof ApiProblem)) return;
          if (e.canGoAgain) return this.waitsFor(e);
          const said = e.problems.length ? e.problems : [{ field: '', wrong: e.message, right: '' }];
          await this.add({ ...w, refused: said });
        }
      }
    };
    const alone = async () => {
      const locks = globalThis.navigator?.locks as LockManager | undefined;
      if (!locks) return run();
      await locks.request('bold-stance.outbox', { ifAvailable: true }, (lock) => (lock ? run() : undefined));
    };
    this.sending ??= alone().finally(() => (this.sending = undefined));
    return this.sending;
  }
}

export const outbox = new Outbox();
