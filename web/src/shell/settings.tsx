// What the user prefers, kept in this browser: units, theme, hand.
import { createContext, useContext, useEffect, useMemo, useState, type ReactNode } from 'react';
import { speakIn } from '../api/units';
import type { ThemeName } from '../theme/theme';
import type { AngleForm, LengthUnit } from '../units/print';

export interface Settings {
  unit: LengthUnit;
  form: AngleForm;
  theme: ThemeName;
  set: (change: Partial<Pick<Settings, 'unit' | 'form' | 'theme'>>) => void;
}

const Context = createContext<Settings | null>(null);
const KEY = 'bold-stance.settings';

function kept(): { unit: LengthUnit; form: AngleForm; theme: ThemeName } {
  const start = { unit: 'mm', form: 'decimal', theme: 'day' } as const;
  try {
    const v = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Record<string, unknown>;
    return {
      unit: v.unit === 'in' ? 'in' : start.unit,
      form: v.form === 'minutes' ? 'minutes' : start.form,
      theme: v.theme === 'night' ? 'night' : start.theme,
    };
  } catch {
    return start;
  }
}

export function SettingsProvider({ children }: { children: ReactNode }) {
  const [state, setState] = useState(kept);
  // Before anything below asks for a sentence.
  speakIn(state.unit, state.form);
  useEffect(() => {
    document.documentElement.dataset.theme = state.theme;
    localStorage.setItem(KEY, JSON.stringify(state));
  }, [state]);
  const value = useMemo<Settings>(
    () => ({ ...state, set: (c) => setState((s) => ({ ...s, ...c })) }),
    [state],
  );
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

export function useSettings(): Settings {
  const v = useContext(Context);
  if (!v) throw new Error('settings are missing');
  return v;
}
