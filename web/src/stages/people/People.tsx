// People, devices and the record of a shop, as its owner sees them.
import { Button } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { Link, Navigate } from 'react-router';
import { getPeople } from '../../api/calls';
import { AtBench } from '../../door/AtBench';
import { useMay } from '../../door/useSession';
import { Home } from '../../shell/Home';
import { useShop } from '../../shell/ticket';
import { useTitle } from '../../shell/title';
import { onSlate } from '../../theme/onSlate';
import { Glyph } from '../../ui/glyphs';
import { Devices } from './Devices';
import { Members } from './Members';
import { Record } from './Record';
import { peopleKey } from './list';
import { Trust } from './Trust';

export default function People() {
  useTitle('People and devices');
  const shop = useShop();
  const may = useMay();
  const people = useQuery({ queryKey: peopleKey, queryFn: getPeople, enabled: may('people') });
  const p = people.data;
  // Whoever signed in over the owner's page goes to the jobs.
  if (!may('people')) return <Navigate to="/" replace />;
  return (
    <div className="app">
      <header className="strip" style={{ alignItems: 'center' }}>
        <Home />
        <div style={{ flex: '1 1 330px', minWidth: 0 }}>
          <h1 style={{ fontSize: 34 }}>People and devices</h1>
          <div style={{ color: 'var(--chalk2)', marginTop: 4 }}>{shop.data?.name}</div>
        </div>
        <Button component={Link} to="/" variant="outlined" sx={{ mr: 2, minHeight: 56, ...onSlate }}>
          Back to the jobs
        </Button>
      </header>
      <nav className="rail" aria-label="Shop">
        <Link to="/">
          <Glyph name="none" size={24} />
          Jobs
        </Link>
        <Link to="/people" className="now" aria-current="page">
          <Glyph name="now" size={24} />
          People
        </Link>
        <div className="foot">
          <AtBench />
        </div>
      </nav>
      <main className="main people-main">
        {people.isError && (
          <section className="pane" style={{ padding: 20 }} role="alert">
            <span className="plate">
              <Glyph name="stale" /> {people.error.message}
            </span>
          </section>
        )}
        {p && (
          <>
            <Members people={p} />
            <div className="people-side">
              <Devices people={p} />
              <Trust trust={p.trust} />
            </div>
            <Record people={p} />
          </>
        )}
      </main>
    </div>
  );
}
