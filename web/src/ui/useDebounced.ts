// A value once it has stood still.
import { useEffect, useState } from 'react';

/** The value as it was when it last stood still for `ms`. */
export function useDebounced<T>(value: T, ms: number): T {
  const [now, setNow] = useState(value);
  useEffect(() => {
    const t = setTimeout(() => setNow(value), ms);
    return () => clearTimeout(t);
  }, [value, ms]);
  return now;
}
