// What is typed and not kept yet, in the browser's own store: it survives another stage, a reload and a dead server.
import { useCallback, useEffect, useRef, useState } from 'react';

const PREFIX = 'bold-stance.draft.';

export function readDraft<T>(key: string): T | undefined {
  try {
    const text = localStorage.getItem(PREFIX + key);
    return text ? (JSON.parse(text) as T) : undefined;
  } catch {
    return undefined;
  }
}

export function writeDraft<T>(key: string, value: T | undefined): void {
  try {
    if (value === undefined) localStorage.removeItem(PREFIX + key);
    else localStorage.setItem(PREFIX + key, JSON.stringify(value));
  } catch {
    // A full or forbidden store only loses the convenience.
  }
}

/** State of a form that is kept as a draft while it differs from its start. */
export function useDraft<T>(key: string, start: () => T, same: (a: T, b: T) => boolean) {
  const first = useRef<T>(undefined);
  first.current ??= start();
  const [value, setValue] = useState<T>(() => readDraft<T>(key) ?? first.current!);
  const [restored, setRestored] = useState(() => readDraft<T>(key) !== undefined);
  const under = useRef(key);
  useEffect(() => {
    // Under another name (another unit), nothing stays behind under the old one.
    if (under.current !== key) writeDraft(under.current, undefined);
    under.current = key;
    writeDraft(key, same(value, first.current!) ? undefined : value);
  }, [key, value, same]);
  const drop = useCallback(() => {
    writeDraft(key, undefined);
    setRestored(false);
    setValue(first.current!);
  }, [key]);
  const forget = useCallback(() => writeDraft(key, undefined), [key]);
  return { value, setValue, restored, drop, forget };
}
