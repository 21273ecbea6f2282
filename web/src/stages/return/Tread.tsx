// The newest depths of each tyre, and the way to type today's.
import { Button } from '@mui/material';
import { Link, useLocation } from 'react-router';
import { placeName, places, sideOf, useTread } from '../../shell/tread';
import { Half } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { bare, unitName } from '../../units/measure';

export function Tread({ job, short }: { job: string; short: boolean }) {
  const { units } = useSettings();
  const { search } = useLocation();
  const tread = useTread(job);
  return (
    <section className="pane return-tread" aria-label="Tread">
      <div style={{ display: 'flex', justifyContent: 'space-between', gap: 8 }}>
        <span className="small">tread, {unitName('tread', units)}</span>
        <span className="small mut">inner · centre · outer</span>
      </div>
      {places.map((p) => {
        const line = tread.data?.tyres.map((t) => t.lines.at(-1)).find((l) => l?.entry.place === p);
        const depths = line?.entry.depths_mm;
        return (
          <p key={p} className="return-depths">
            <Half side={sideOf(p)} size={16} /> {placeName(p)}
            <b className="fig">
              {depths ? depths.map((d) => bare('tread', d, units)).join(' · ') : 'not read'}
            </b>
          </p>
        );
      })}
      <div className="return-tread-foot">
        <span className="small mut">{short && 'Too short to judge by depths yet.'}</span>
        <Button
          component={Link}
          to={`../wear${search ? `${search}&` : '?'}mode=depths`}
          variant="outlined"
          sx={{ flex: 'none', whiteSpace: 'nowrap' }}
          data-testid="to-depths"
        >
          Type depths
        </Button>
      </div>
    </section>
  );
}
