// The one thing to do next about the part in hand.
import { Button, type ButtonProps } from '@mui/material';
import { useNavigate } from 'react-router';
import type { Candidate } from '../../api/client';

export interface InHand {
  current: Candidate | undefined;
  fitted: boolean;
  /** The plan lands as it is. */
  ready: boolean;
  fit: () => void;
  takeOff: () => void;
}

const lower = (n: string) => n.replace(/^./, (c) => c.toLowerCase());

/** What cannot be fitted as it is. */
export const barred = (c: Candidate | undefined) => !c || ['clash', 'stops', 'needs'].includes(c.status);

interface Props {
  of: InHand;
  /** Without the part's name, where it stands beside it. */
  brief?: boolean;
  sx?: ButtonProps['sx'];
  testid?: string;
}

export function MainAct({ of, brief, sx, testid = 'fit' }: Props) {
  const navigate = useNavigate();
  const { current, fitted, ready } = of;
  if (ready)
    return (
      <Button variant="contained" sx={sx ?? {}} onClick={() => navigate(`../wear${window.location.search}`)}>
        Check the wear
      </Button>
    );
  if (fitted && current)
    return (
      <Button variant="contained" sx={sx ?? {}} onClick={of.takeOff}>
        {brief ? 'Take it off' : `Take off ${lower(current.part.name)}`}
      </Button>
    );
  const names = current && [current.part, ...current.kit].map((p) => lower(p.name)).join(' and ');
  return (
    <Button
      variant="contained"
      sx={{ lineHeight: 1.15, ...sx }}
      disabled={barred(current)}
      onClick={of.fit}
      data-testid={testid}
    >
      {!current ? 'Pick a part' : brief ? 'Fit it' : `Fit ${names}`}
    </Button>
  );
}
