// The units somebody keeps with their name come with them to every device.
import { useEffect, useRef } from 'react';
import { useSettings } from '../ui/settings';
import { useSession } from './useSession';

interface Kept {
  unit?: unknown;
  form?: unknown;
  own?: unknown;
}

export function MemberUnits() {
  const session = useSession();
  const { set } = useSettings();
  const who = session.data?.who;
  const seated = useRef<string>(undefined);
  useEffect(() => {
    const seat = `${who?.member ?? ''} ${who?.session ?? ''}`;
    if (!who?.member || seated.current === seat) return;
    seated.current = seat;
    const kept = who.units as Kept | null | undefined;
    if (!kept) return;
    set({
      ...(kept.unit === 'mm' || kept.unit === 'in' ? { unit: kept.unit } : {}),
      ...(kept.form === 'decimal' || kept.form === 'minutes' ? { form: kept.form } : {}),
      ...(typeof kept.own === 'object' && kept.own ? { own: kept.own } : {}),
    });
  }, [who, set]);
  return null;
}
