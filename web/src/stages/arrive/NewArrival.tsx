// New arrival: a vehicle and its job from nothing.
import { TextField } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, ApiProblem, take, type VehicleFacts } from '../../api/client';
import { Glyph, Logo } from '../../ui/glyphs';
import { writeDraft } from '../../shell/drafts';
import { useSettings } from '../../shell/settings';
import { useShop } from '../../shell/ticket';
import { useArchetypes } from './AxleEditor';
import { usualCar } from './carFacts';
import { VehicleForm } from './VehicleForm';

export default function NewArrival() {
  const shop = useShop();
  const shapes = useArchetypes();
  const s = useSettings();
  const navigate = useNavigate();
  const [complaint, setComplaint] = useState('');
  const [bay, setBay] = useState('');
  const bayBad = bay.trim() !== '' && !/^[1-9]\d?$/.test(bay.trim());
  const make = useMutation({
    mutationFn: (vehicle: VehicleFacts) =>
      take(
        api.POST('/api/v1/jobs', {
          body: { vehicle, job: { complaint, bay: bay.trim() && !bayBad ? Number(bay) : null } },
        }),
      ),
    onSuccess: (t) => {
      writeDraft('vehicle.new', undefined);
      void navigate(`/job/${t.job.id}/read`);
    },
  });
  const data = shop.data;
  const geometry = shapes.data?.[0]?.geometry;
  const start = useMemo<VehicleFacts | undefined>(
    () =>
      data &&
      geometry && {
        name: '',
        silhouette: 'pickup',
        wheelbase_mm: 3200,
        track_front_mm: 1600,
        track_rear_mm: 1600,
        tyre_size: '265/70R17',
        tyre_class: 'all_terrain',
        tread_depth_mm: 11,
        drive: 'both',
        use: 'mixed',
        front_load_n: 6500,
        pressure_kpa: 240,
        placard_kpa: 240,
        design_height_mm: 500,
        rear_height_mm: 560,
        knowledge: 'archetype',
        geometry,
        rear_geometry: null,
        rear_knowledge: 'archetype',
        car: usualCar,
        adjusters: data.starter_adjusters,
      },
    [data, geometry],
  );
  return (
    <div className="app">
      <header className="strip" style={{ alignItems: 'center' }}>
        <Link
          to="/"
          aria-label="All jobs"
          style={{ width: 84, flex: 'none', display: 'flex', justifyContent: 'center' }}
        >
          <Logo />
        </Link>
        <div className="new-title">
          <div className="fig">New arrival</div>
          <div>{data?.name}</div>
        </div>
        <button
          type="button"
          className="bare"
          onClick={() => s.set({ unit: s.unit === 'mm' ? 'in' : 'mm' })}
          style={{
            marginLeft: 'auto',
            marginRight: 18,
            border: '1px solid var(--slateline)',
            borderRadius: 6,
            padding: '0 18px',
            height: 48,
            fontWeight: 700,
          }}
          data-testid="unit"
        >
          {s.unit === 'mm' ? 'mm' : 'inches'}
          <span className="wide-only">{s.unit === 'mm' ? ' · change to inches' : ' · change to mm'}</span>
        </button>
      </header>
      <nav className="rail" aria-label="Shop">
        <Link to="/" className="idle">
          <Glyph name="unread" size={24} />
          Jobs
        </Link>
        <span className="vh">New arrival</span>
      </nav>
      {start ? (
        <VehicleForm
          start={start}
          fault={make.error instanceof ApiProblem ? make.error : undefined}
          busy={make.isPending}
          action="Take it in"
          fresh
          draftKey="vehicle.new"
          done={(f) => !bayBad && make.mutate(f)}
          head={
            <>
              <h1>What came in</h1>
              <p className="small mut" style={{ marginTop: 6 }}>
                Pick what is under it, tape what you can reach.
              </p>
            </>
          }
          extra={
            <div style={{ display: 'grid', gridTemplateColumns: '1fr 90px', gap: 12 }}>
              <TextField
                label="Complaint or wish"
                value={complaint}
                onChange={(e) => setComplaint(e.target.value)}
                size="small"
                slotProps={{ htmlInput: { maxLength: 500, 'data-testid': 'complaint' } }}
              />
              <TextField
                label="Bay"
                value={bay}
                onChange={(e) => setBay(e.target.value)}
                size="small"
                error={bayBad}
                helperText={bayBad ? '1 to 99' : undefined}
                slotProps={{ htmlInput: { inputMode: 'numeric' } }}
              />
            </div>
          }
        />
      ) : (
        <main className="main" />
      )}
    </div>
  );
}
