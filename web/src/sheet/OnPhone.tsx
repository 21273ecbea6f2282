// The code that opens this page on another device of the shop: ticks, what was really turned and readings flow both ways.
import { Button, Dialog } from '@mui/material';
import { useState } from 'react';
import { useLocation } from 'react-router';
import { sheetCode } from '../api/calls';
import { ChipButton } from '../ui/Press';

const here = () => /^(localhost|127\.|\[::1\])/.test(window.location.hostname);

export function OnPhone() {
  const [open, setOpen] = useState(false);
  const { pathname, search } = useLocation();
  return (
    <>
      <ChipButton onClick={() => setOpen(true)} data-testid="on-phone">
        On the phone
      </ChipButton>
      {open && (
        <Dialog open onClose={() => setOpen(false)} aria-labelledby="on-phone-title">
          <div className="secret-dialog" data-testid="on-phone-code">
            <h2 id="on-phone-title">This sheet on the phone</h2>
            <img
              alt="Code to hold a camera to: this sheet"
              src={sheetCode(`${pathname}${search}`)}
              width={260}
              height={260}
              style={{ background: '#fff', padding: 10, borderRadius: 6 }}
            />
            <p>
              Hold the phone’s camera to it. Whoever is at the phone signs with their own mark; what is
              ticked, turned or read there is here within a second.
            </p>
            {here() && (
              <p className="small mut">
                This server answers to this machine only: another device reaches it once it is started for the
                network.
              </p>
            )}
            <Button variant="outlined" onClick={() => setOpen(false)}>
              Back
            </Button>
          </div>
        </Dialog>
      )}
    </>
  );
}
