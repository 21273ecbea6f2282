// Keys of writes: made once for what is sent, kept until an answer comes, so that sending again stores nothing twice.
import { v4 } from 'uuid';

/** An id nobody else has. Works on plain http too, where the browser's own is not to be had. */
export const newId = (): string => v4();

/** The key of each write that has no answer yet, by method, address and body. */
export class WriteKeys {
  private readonly open = new Map<string, string>();

  /** The key of a write: the one it had when it was last sent without an answer, else a new one. */
  of(write: string): string {
    const had = this.open.get(write);
    if (had) return had;
    const key = newId();
    this.open.set(write, key);
    // A page that stays open for a week keeps no endless list.
    if (this.open.size > 200) this.open.delete(this.open.keys().next().value!);
    return key;
  }

  /** An answer came: the same content sent later is another write. */
  answered(write: string): void {
    this.open.delete(write);
  }
}

export const reads = (method: string) => method === 'GET' || method === 'HEAD';
