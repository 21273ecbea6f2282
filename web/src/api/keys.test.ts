// A write that got no answer is sent again with the key it had; one that was answered is another write next time.
import { afterEach, describe, expect, it, vi } from 'vitest';
import { newId, WriteKeys } from './keys';

afterEach(() => vi.unstubAllGlobals());

describe('keys of writes', () => {
  it('stay until there is an answer', () => {
    const keys = new WriteKeys();
    const first = keys.of('POST /a {}');
    expect(keys.of('POST /a {}')).toBe(first);
    expect(keys.of('POST /a {"x":1}')).not.toBe(first);
    keys.answered('POST /a {}');
    expect(keys.of('POST /a {}')).not.toBe(first);
  });
  it('are had without a secure context', () => {
    // On plain http a browser has no randomUUID.
    vi.stubGlobal('crypto', {
      getRandomValues: <T extends ArrayBufferView>(a: T) => {
        new Uint8Array(a.buffer).forEach((_, i, all) => (all[i] = (i * 37 + 11) % 256));
        return a;
      },
    });
    expect(newId()).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
  });
});
