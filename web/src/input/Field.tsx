// A field for one quantity: text as it is typed, read by the one notation; what is wrong stands at it, what was typed stays.
import { TextField } from '@mui/material';
import type { ReactNode } from 'react';
import { useSettings } from '../ui/settings';
import { echoOf, suffixOf, tyreWords, tyreWrong, wrongOf, type FieldKind } from './kinds';

interface Common {
  label: string;
  text: string;
  onText: (text: string) => void;
  testid: string;
  /** What the form or the server says is wrong; goes before what the field finds itself. */
  fault?: { wrong: string; right: string } | undefined;
  hint?: ReactNode;
  /** Shown inside the field, at its end. */
  end?: ReactNode;
  placeholder?: string;
  disabled?: boolean;
  onBlur?: () => void;
}

const words = (f: { wrong: string; right: string } | undefined) =>
  f && [f.wrong, f.right].filter(Boolean).join('; ');

/** A number with its unit, in any notation the shop writes. */
export function MeasureField({
  kind,
  suffix,
  ...f
}: Common & {
  kind: FieldKind;
  /** Behind the label, where the kind has no unit of its own. */
  suffix?: string | undefined;
}) {
  const { units } = useSettings();
  const fault = f.fault ?? wrongOf(kind, f.text, units);
  const unit = suffix ?? suffixOf(kind, units);
  return (
    <TextField
      size="small"
      label={unit ? `${f.label}, ${unit}` : f.label}
      value={f.text}
      onChange={(e) => f.onText(e.target.value)}
      onBlur={f.onBlur}
      error={!!fault}
      helperText={words(fault) ?? echoOf(kind, f.text, units) ?? f.hint}
      placeholder={f.placeholder}
      disabled={f.disabled}
      slotProps={{
        htmlInput: { 'data-testid': f.testid, inputMode: 'text' },
        // Above its box, empty or not: a narrow field never hides its unit, and nothing moves under the finger.
        inputLabel: { shrink: true },
        input: f.end ? { endAdornment: f.end } : {},
      }}
    />
  );
}

/** A tyre size with its diameter under it. */
export function TyreField(f: Common) {
  const { units } = useSettings();
  const fault = f.fault ?? tyreWrong(f.text);
  return (
    <TextField
      size="small"
      label={f.label}
      value={f.text}
      onChange={(e) => f.onText(e.target.value)}
      error={!!fault}
      helperText={words(fault) ?? f.hint ?? tyreWords(f.text, units)}
      placeholder={f.placeholder}
      slotProps={{ htmlInput: { 'data-testid': f.testid } }}
    />
  );
}
