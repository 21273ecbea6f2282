// A button with an edge, on the dark head of a page.
export const onSlate = {
  '&.MuiButton-outlined': { color: 'var(--chalk)', borderColor: 'var(--chalk2)' },
} as const;
