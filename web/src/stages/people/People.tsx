// People, devices and the record of a shop, as its owner sees them.
import { useQuery } from '@tanstack/react-query';
import { Navigate } from 'react-router';
import { getPeople } from '../../api/calls';
import { useMay } from '../../door/useSession';
import { ShopFrame } from '../../shell/ShopFrame';
import { useTitle } from '../../shell/title';
import { Glyph } from '../../ui/glyphs';
import { Devices } from './Devices';
import { Members } from './Members';
import { Record } from './Record';
import { peopleKey } from './list';
import { Trust } from './Trust';

export default function People() {
  useTitle('People and devices');
  const may = useMay();
  const people = useQuery({ queryKey: peopleKey, queryFn: getPeople, enabled: may('people') });
  const p = people.data;
  // Whoever signed in over the owner's page goes to the jobs.
  if (!may('people')) return <Navigate to="/" replace />;
  return (
    <ShopFrame title="People and devices" here={{ to: '/people', name: 'People' }}>
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
    </ShopFrame>
  );
}
