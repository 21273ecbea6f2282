// The question before something that has no way back.
import { Button, Dialog } from '@mui/material';

interface Props {
  /** Start of the ids. */
  id: string;
  title: string;
  /** What goes, what stays. */
  children: React.ReactNode;
  /** Why it was refused. */
  fault: Error | null;
  yes: string;
  busy: boolean;
  act: () => void;
  close: () => void;
}

export function Sure({ id, title, children, fault, yes, busy, act, close }: Props) {
  return (
    <Dialog open onClose={close} aria-labelledby={`${id}-title`}>
      <div className="secret-dialog">
        <h2 id={`${id}-title`}>{title}</h2>
        <p>{children}</p>
        {fault && (
          <p className="plate" role="alert">
            {fault.message}
          </p>
        )}
        <div className="member-acts">
          <Button variant="contained" disabled={busy} onClick={act} data-testid={`${id}-now`}>
            {yes}
          </Button>
          <Button variant="outlined" onClick={close}>
            Keep it
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
