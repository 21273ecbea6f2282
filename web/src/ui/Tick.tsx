// Yes or no, with its words: MUI's checkbox, as large as a thumb.
import { Checkbox, FormControlLabel } from '@mui/material';
import type { ReactNode } from 'react';

interface Props {
  on: boolean;
  set: (on: boolean) => void;
  testid?: string;
  className?: string;
  disabled?: boolean;
  children: ReactNode;
}

export function Tick({ on, set, testid, className, disabled, children }: Props) {
  return (
    <FormControlLabel
      className={`tick ${className ?? ''}`}
      label={children}
      disabled={disabled ?? false}
      control={
        <Checkbox
          checked={on}
          onChange={(e) => set(e.target.checked)}
          color="secondary"
          slotProps={{ input: { 'data-testid': testid } as object }}
        />
      }
    />
  );
}
