// The phone's way to everything the rail and the strip hold: stages, jobs, units, light and keys, from the bottom at the thumb.
import { Button, Drawer } from '@mui/material';
import { useState } from 'react';
import { AtBench } from '../door/AtBench';
import { Link, useLocation } from 'react-router';
import { Glyph, type GlyphName } from '../ui/glyphs';
import { useSettings } from '../ui/settings';
import { UnitRows } from './UnitsMenu';

export interface StageLink {
  stage: string;
  title: string;
  glyph: GlyphName;
  word: string;
  open: boolean;
}

interface Props {
  stages: StageLink[];
  /** Opens the list of keys, with what can be drawn from here. */
  keys: () => void;
}

export function StageSheet({ stages, keys }: Props) {
  const [open, setOpen] = useState(false);
  const { search } = useLocation();
  const s = useSettings();
  const close = () => setOpen(false);
  const now = stages.find((x) => x.open);
  return (
    <>
      <Button
        className="stage-open"
        onClick={() => setOpen(true)}
        aria-haspopup="dialog"
        aria-expanded={open}
        data-testid="stage-sheet"
      >
        <Glyph name="now" size={17} /> {now?.title ?? 'Stages'}
      </Button>
      <Drawer anchor="bottom" open={open} onClose={close} slotProps={{ paper: { className: 'stage-sheet' } }}>
        <nav aria-label="All stages">
          {stages.map((x) => (
            <Link
              key={x.stage}
              to={`${x.stage}${search}`}
              onClick={close}
              aria-current={x.open ? 'page' : undefined}
              data-testid={`go-${x.stage}`}
            >
              <Glyph name={x.open ? 'now' : x.glyph} size={22} />
              <b>{x.title}</b>
              <span className="small">{x.open ? 'open' : x.word}</span>
            </Link>
          ))}
        </nav>
        <div className="stage-sheet-acts">
          <Button component={Link} to="/" variant="outlined">
            All jobs
          </Button>
          <Button
            variant="outlined"
            onClick={() => s.set({ theme: s.theme === 'day' ? 'night' : 'day' })}
            data-testid="sheet-light"
          >
            {s.theme === 'day' ? 'Night light' : 'Day light'}
          </Button>
          <Button
            variant="outlined"
            onClick={() => {
              close();
              keys();
            }}
          >
            Keys, drawings
          </Button>
        </div>
        <AtBench row />
        <UnitRows />
        <Button variant="outlined" onClick={close} sx={{ m: 2, mt: 1 }} data-testid="sheet-close">
          Back to {now?.title ?? 'the job'}
        </Button>
      </Drawer>
    </>
  );
}
