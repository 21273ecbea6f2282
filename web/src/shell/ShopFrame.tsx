// A page of the shop rather than of a car: its name on the strip, the way back to the jobs, who is at the bench.
import { Button } from '@mui/material';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { AtBench } from '../door/AtBench';
import { onSlate } from '../theme/onSlate';
import { Home } from './Home';
import { ShopRail, type ShopPlace } from './ShopRail';
import { useShop } from './ticket';

interface Props {
  title: string;
  /** This page in the rail. */
  here: ShopPlace;
  /** On the strip, between the title and the way back. */
  strip?: ReactNode;
  /** On the strip, after the way back. */
  deed?: ReactNode;
  children: ReactNode;
}

export function ShopFrame({ title, here, strip, deed, children }: Props) {
  const shop = useShop();
  return (
    <div className="app">
      <header className="strip" style={{ alignItems: 'center' }}>
        <Home />
        <div style={{ flex: strip ? '0 1 330px' : '1 1 330px', minWidth: 0 }}>
          <h1 style={{ fontSize: 34 }}>{title}</h1>
          <div style={{ color: 'var(--chalk2)', marginTop: 4 }}>{shop.data?.name}</div>
        </div>
        {strip}
        <Button
          component={Link}
          to="/"
          variant="outlined"
          className="tablet-up"
          sx={{ mr: 2, minHeight: 56, flex: 'none', ...onSlate }}
        >
          Back to the jobs
        </Button>
        {deed}
      </header>
      <ShopRail here={here} foot={<AtBench />} />
      {children}
    </div>
  );
}
