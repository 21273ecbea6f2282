// New arrival: a vehicle and its job from nothing.
import { Bare } from '../../ui/Press';
import { newJob } from '../../api/calls';
import { TextField } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { ApiProblem, type VehicleFacts } from '../../api/client';
import { Glyph, Logo } from '../../ui/glyphs';
import { writeDraft } from '../../shell/drafts';
import { useTitle } from '../../shell/title';
import { useSettings } from '../../ui/settings';
import { usePhone } from '../../ui/phone';
import { PaneBar } from '../../shell/PaneBar';
import { stagesOf, useShop } from '../../shell/ticket';
import { TicketFor, type TicketKind } from './TicketFor';
import { VehicleForm } from './VehicleForm';

export default function NewArrival() {
  useTitle('New arrival');
  const shop = useShop();
  const s = useSettings();
  const phone = usePhone();
  const navigate = useNavigate();
  const [complaint, setComplaint] = useState('');
  const [bay, setBay] = useState('');
  const [kind, setKind] = useState<TicketKind>('height');
  const bayBad = bay.trim() !== '' && !/^[1-9]\d?$/.test(bay.trim());
  const [bayTried, setBayTried] = useState('');
  const make = useMutation({
    mutationFn: (vehicle: VehicleFacts) =>
      newJob({ vehicle, job: { complaint, kind, bay: bay.trim() && !bayBad ? Number(bay) : null } }),
    onSuccess: (t) => {
      writeDraft('vehicle2.new', undefined);
      void navigate(`/job/${t.job.id}/${stagesOf(shop.data, t.job.kind)[1] ?? 'read'}`);
    },
  });
  const data = shop.data;
  // What the server said of the bay, until another is typed.
  const taken =
    make.error instanceof ApiProblem && bay === bayTried
      ? make.error.problems.find((p) => p.field === 'job.bay')
      : undefined;
  const bayWords = bayBad ? '1 to 99' : taken && `${taken.wrong}. Right would be: ${taken.right}`;
  const start = data?.starter as VehicleFacts | undefined;
  return (
    <div className="app app-job">
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
        <Bare
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
        </Bare>
      </header>
      <nav className="rail" aria-label="Shop">
        <Link to="/" className="idle">
          <Glyph name="unread" size={24} />
          Jobs
        </Link>
        <span className="vh">New arrival</span>
      </nav>
      {phone && <PaneBar />}
      {start ? (
        <VehicleForm
          start={start}
          fault={make.error instanceof ApiProblem ? make.error : undefined}
          busy={make.isPending}
          action="Take it in"
          fresh
          draftKey="vehicle2.new"
          done={(f) => {
            if (bayBad) return;
            setBayTried(bay);
            make.mutate(f);
          }}
          head={
            <>
              <h1>What came in</h1>
              <p className="small mut" style={{ marginTop: 6 }}>
                Pick what is under it, tape what you can reach.
              </p>
            </>
          }
          extra={
            <>
              <TicketFor kind={kind} pick={setKind} />
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
                  error={!!bayWords}
                  helperText={bayWords}
                  slotProps={{ htmlInput: { inputMode: 'numeric', 'data-testid': 'bay' } }}
                />
              </div>
            </>
          }
        />
      ) : (
        <main className="main" />
      )}
    </div>
  );
}
