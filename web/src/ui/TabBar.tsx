// Ways of looking at one thing, one at a time: MUI's tabs, reached by arrow keys.
import { Tab, Tabs } from '@mui/material';
import type { ReactNode } from 'react';

interface Props<T extends string> {
  label: string;
  value: T;
  tabs: readonly { value: T; label: ReactNode; testid?: string; disabled?: boolean }[];
  choose: (v: T) => void;
}

export function TabBar<T extends string>({ label, value, tabs, choose }: Props<T>) {
  return (
    <Tabs value={value} onChange={(_, v: T) => choose(v)} aria-label={label} variant="fullWidth">
      {tabs.map((t) => (
        <Tab
          key={t.value}
          value={t.value}
          label={t.label}
          data-testid={t.testid}
          disabled={t.disabled ?? false}
        />
      ))}
    </Tabs>
  );
}
