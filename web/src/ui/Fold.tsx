// What is not needed most of the time, folded away under its words: MUI's accordion.
import { Accordion, AccordionDetails, AccordionSummary } from '@mui/material';
import type { ReactNode } from 'react';

interface Props {
  words: ReactNode;
  className?: string;
  testid?: string;
  /** Whether it starts unfolded. */
  open?: boolean;
  children: ReactNode;
}

const chevron = (
  <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true">
    <path d="M4 6.5L9 12L14 6.5" fill="none" stroke="currentColor" strokeWidth="2.2" />
  </svg>
);

export function Fold({ words, className, testid, open = false, children }: Props) {
  return (
    <Accordion className={className ?? ''} defaultExpanded={open} slotProps={{ transition: { timeout: 0 } }}>
      <AccordionSummary expandIcon={chevron} data-testid={testid} sx={{ gap: 1 }}>
        {words}
      </AccordionSummary>
      <AccordionDetails>{children}</AccordionDetails>
    </Accordion>
  );
}
