// A line of text or figures where a whole field with its label would be too much: MUI's input with our figures.
import { OutlinedInput, type OutlinedInputProps } from '@mui/material';

type Props = Omit<OutlinedInputProps, 'inputProps'> & { testid?: string; inputMode?: 'text' | 'decimal' };

export function LineInput({ testid, inputMode, ...rest }: Props) {
  return (
    <OutlinedInput
      size="small"
      {...rest}
      slotProps={{
        input: {
          'data-testid': testid,
          inputMode,
          'aria-label': rest['aria-label'],
          'aria-invalid': rest['aria-invalid'],
        } as object,
      }}
      sx={{ width: '100%', font: '650 19px/1 var(--figure)', minHeight: 44, ...rest.sx }}
    />
  );
}
