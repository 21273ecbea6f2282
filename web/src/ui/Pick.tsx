// One of a list, with what is picked beside it: MUI's native select, which a tablet opens its own way.
import { NativeSelect } from '@mui/material';
import { useId, type CSSProperties } from 'react';

interface Props<T extends string> {
  label: string;
  value: T;
  list: readonly { value: T; words: string }[];
  pick: (v: T) => void;
  testid?: string;
  style?: CSSProperties;
}

export function Pick<T extends string>({ label, value, list, pick, testid, style }: Props<T>) {
  const id = useId();
  return (
    <div className="pick" style={style}>
      <label className="small" htmlFor={id}>
        {label}
      </label>
      <NativeSelect
        value={value}
        onChange={(e) => pick(e.target.value as T)}
        slotProps={{ input: { id, 'data-testid': testid } as object }}
        disableUnderline
        sx={{ border: '1px solid var(--edge)', borderRadius: '6px', pl: 1 }}
      >
        {list.map((o) => (
          <option key={o.value} value={o.value}>
            {o.words}
          </option>
        ))}
      </NativeSelect>
    </div>
  );
}
