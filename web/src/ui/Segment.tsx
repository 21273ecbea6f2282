// One of a few, side by side: MUI's toggle group, in which one is always chosen.
import { ToggleButton, ToggleButtonGroup } from '@mui/material';
import type { CSSProperties, ReactNode } from 'react';

export interface Choice<T extends string> {
  value: T;
  label: ReactNode;
  /** Where the label is a picture or an abbreviation. */
  name?: string;
  testid?: string;
  className?: string;
}

interface Props<T extends string> {
  label?: string;
  value: T | undefined;
  choices: readonly Choice<T>[];
  choose: (v: T) => void;
  /** Pressed again, nothing is chosen; without it what is chosen stays chosen. */
  clear?: () => void;
  id?: string;
  className?: string;
  style?: CSSProperties;
  /** Every choice as wide as the others. */
  wide?: boolean;
  /** Text of the choices, px. */
  size?: number;
}

export function Segment<T extends string>(p: Props<T>) {
  return (
    <ToggleButtonGroup
      exclusive
      value={p.value ?? null}
      onChange={(_, v: T | null) => (v === null ? p.clear?.() : p.choose(v))}
      id={p.id}
      aria-label={p.label}
      className={`seg ${p.className ?? ''}`}
      style={p.style}
    >
      {p.choices.map((c) => (
        <ToggleButton
          key={c.value}
          value={c.value}
          aria-label={c.name}
          data-testid={c.testid}
          className={c.className}
          style={{ ...(p.wide && { flex: 1 }), ...(p.size && { fontSize: p.size }) }}
        >
          {c.label}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}
