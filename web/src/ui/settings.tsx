// What the user prefers, kept in this browser: units, theme, hand.
import { createContext, useContext, useEffect, useMemo, useState, type ReactNode } from 'react';
import { speakIn } from '../api/units';
import type { ThemeName } from '../theme/tokens';
import { unitsOf, type Own, type Units } from '../units/measure';
import { pointIs, type AngleForm, type LengthUnit } from '../units/print';

interface Kept {
  unit: LengthUnit;
  form: AngleForm;
  theme: ThemeName;
  /** Units that were chosen by themselves. */
  own: Own;
}
export interface Settings extends Kept {
  /** Every unit somebody works in. */
  units: Units;
  set: (change: Partial<Kept>) => void;
}

const Context = createContext<Settings | null>(null);
const KEY = 'bold-stance.settings';
const choices: { [K in keyof Required<Own>]: readonly Units[K][] } = {
  pressure: ['kpa', 'bar', 'psi'],
  load: ['n', 'kg', 'lb'],
  distance: ['km', 'miles'],
  tread: ['mm', 'in32'],
  decimal: ['point', 'comma'],
};

function kept(): Kept {
  const start: Kept = { unit: 'mm', form: 'decimal', theme: 'day', own: {} };
  try {
    const v = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Record<string, unknown>;
    const own = (v.own ?? {}) as Record<string, unknown>;
    return {
      unit: v.unit === 'in' ? 'in' : start.unit,
      form: v.form === 'minutes' ? 'minutes' : start.form,
      theme: v.theme === 'night' ? 'night' : start.theme,
      own: Object.fromEntries(
        Object.entries(choices)
          .filter(([k, list]) => (list as readonly unknown[]).includes(own[k]))
          .map(([k]) => [k, own[k]]),
      ),
    };
  } catch {
    return start;
  }
}

export function SettingsProvider({ children }: { children: ReactNode }) {
  const [state, setState] = useState(kept);
  const units = useMemo(() => unitsOf(state.unit, state.form, state.own), [state]);
  // Before anything below asks for a sentence.
  speakIn(units);
  pointIs(units.decimal);
  useEffect(() => {
    document.documentElement.dataset.theme = state.theme;
    localStorage.setItem(KEY, JSON.stringify(state));
  }, [state]);
  const value = useMemo<Settings>(
    () => ({ ...state, units, set: (c) => setState((s) => ({ ...s, ...c })) }),
    [state, units],
  );
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

export function useSettings(): Settings {
  const v = useContext(Context);
  if (!v) throw new Error('settings are missing');
  return v;
}
