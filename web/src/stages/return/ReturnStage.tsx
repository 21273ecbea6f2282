// Return: how far it fell, the turns that bring it back, angles and tread then and today, and when it is looked at next.
import { HowTo } from '../../ui/HowTo';
import { Button } from '@mui/material';
import { useState } from 'react';
import type { AxleName, SideName } from '../../api/client';
import { Falls } from '../../figures/Falls';
import { MeasureField } from '../../input/Field';
import { readField, wrongOf } from '../../input/kinds';
import { ReadingsFirst, Waiting } from '../../shell/ReadingsFirst';
import { NotTheOne } from '../../shell/ChoosePlan';
import { useBench, type Bench } from '../../shell/ticket';
import { rests, useAfter, type Act } from '../../sheet/after';
import { AfterFault } from '../../sheet/AfterFault';
import { GatePad, type AtGate } from '../../sheet/GatePad';
import { sideWord, useSheet, type Sheet } from '../../sheet/sheet';
import { TrimPane } from '../../sheet/TrimPane';
import { Glyph, Half } from '../../ui/glyphs';
import { Plain } from '../../ui/Press';
import { useSettings } from '../../ui/settings';
import { farUnit } from '../../units/measure';
import { length } from '../../units/print';
import { LookNext } from './LookNext';
import { Ready } from './Ready';
import { ThenToday } from './ThenToday';
import { Tread } from './Tread';

export default function ReturnStage() {
  const bench = useBench();
  const sheet = useSheet(bench);
  if (!bench.input || !bench.plan)
    return <ReadingsFirst title="It was not set yet" missing={bench.ticket.missing} />;
  if (!sheet.data) return <Waiting words="Looking at how it came back…" fault={sheet.error?.message} />;
  return (
    <ReturnView
      key={bench.ticket.job.aftercare.returns?.length ?? 0}
      bench={bench}
      sheet={sheet.data}
      stale={sheet.isPlaceholderData || sheet.isError}
    />
  );
}

function ReturnView({ bench, sheet, stale }: { bench: Bench; sheet: Sheet; stale: boolean }) {
  const { ticket, setTicket } = bench;
  const { unit, units } = useSettings();
  const [pad, setPad] = useState<AtGate>();
  const [chosen, setChosen] = useState<{ axle: AxleName; side: SideName }>();
  const care = ticket.job.aftercare;
  const { acts, problems } = useAfter(ticket, setTicket);
  const busy = stale || acts.isPending;
  const act = (what: Act) => acts.mutate(what);
  const r = sheet.returned ?? undefined;
  const known = ['act', 'amount', 'signed', 'on', 'after_km', 'driven_km'];
  const corner =
    r?.corners.find((c) => chosen && c.axle === chosen.axle && c.side === chosen.side) ??
    r?.corners.toSorted((a, b) => Math.abs(b.off_mm) - Math.abs(a.off_mm))[0];
  const read = (axle: AxleName, side: SideName, quantity: AtGate['quantity'] = 'height') =>
    setPad({ visit: 'returned', quantity, axle, side });
  return (
    <main className="main return-main" style={{ opacity: stale ? 0.6 : 1 }} aria-busy={busy}>
      <section className="pane return-head" data-pane="Back" aria-label="How it came back">
        <div style={{ minWidth: 0 }}>
          <NotTheOne bench={bench} />
          <h1 data-testid="return-headline">{r ? r.headline : 'Not back yet'}</h1>
          <p className="mut" style={{ marginTop: 6 }} data-testid="return-sentence">
            {r
              ? `${r.sentence}${r.time > 1 ? ` Return ${r.time}.` : ''}`
              : 'Springs and bushings settle in the first two weeks. When it is here again: roll it, set the pressures, read it all again.'}
          </p>
          {r && <Ready ticket={ticket} kept={setTicket} />}
          <AfterFault
            error={acts.error}
            problems={problems}
            at={(f) => known.includes(f) || f.startsWith('turned')}
          />
        </div>
        <CameBack again={!!r} act={act} busy={busy} problems={problems} closed={!!care.closed} />
      </section>
      {r ? (
        <>
          <section className="pane return-falls" data-pane="Fell" aria-label="How far it fell">
            <div className="return-falls-title">
              <h2>How far it fell</h2>
              <HowTo of="falls" />
              <span className="small mut">
                hub to arch, {unit}. Ring: what we said. Half discs: read today.
              </span>
            </div>
            <div className="return-two">
              {(['front', 'rear'] as const).map((axle) => {
                const own = r.corners.filter((c) => c.axle === axle);
                return (
                  <div key={axle} className="return-axle">
                    <h3>{axle === 'front' ? 'Front' : 'Rear'}</h3>
                    <Falls
                      axle={axle}
                      days={r.days}
                      unit={unit}
                      falls={own.map((c) => ({
                        side: c.side,
                        set: c.set_mm ?? undefined,
                        said: c.said_mm ?? undefined,
                        ring: c.ring_mm,
                        came: c.back_mm ?? undefined,
                        now: c.now_mm ?? undefined,
                        to: c.trim?.to_mm,
                      }))}
                    />
                    <div className="return-corners">
                      {own.map((c) => {
                        const [glyph, word] = rests[c.rest];
                        return (
                          <Plain
                            key={c.side}
                            className={`return-corner ${corner === c ? 'on' : ''}`}
                            onClick={() => {
                              setChosen(c);
                              if (c.rest === 'not_read' || c.rest === 'stale') read(axle, c.side);
                            }}
                            data-testid={`corner-${axle}-${c.side}`}
                          >
                            <Half side={c.side} size={18} />
                            <b>
                              {sideWord(c.side)} {c.now_mm == null ? '' : length(c.now_mm, unit)}
                            </b>
                            <span>
                              <Glyph name={glyph} size={16} /> {word}
                            </span>
                          </Plain>
                        );
                      })}
                    </div>
                  </div>
                );
              })}
            </div>
          </section>
          <TrimPane
            key={corner ? `${corner.axle}${corner.side}${corner.trims.length}` : ''}
            corner={corner}
            turned={corner ? (care.turned?.[corner.axle] ?? undefined) : undefined}
            cautions={r.cautions}
            busy={busy}
            problems={problems}
            act={act}
            tape={() => corner && read(corner.axle, corner.side)}
          />
          <div className="return-foot" data-pane="Angles, tread">
            <ThenToday returned={r} read={read} />
            <Tread job={ticket.job.id} short={r.too_short} />
            <LookNext care={care} usual={sheet.next_look} busy={busy} problems={problems} act={act} />
          </div>
        </>
      ) : (
        <section className="pane return-wait" data-pane="Next look">
          <LookNext care={care} usual={sheet.next_look} busy={busy} problems={problems} act={act} />
          <p className="mut" style={{ padding: '0 18px 18px' }}>
            Usual: within {sheet.next_look.days} days or after {farUnit(sheet.next_look.after_km, units)}, the
            sooner.
          </p>
        </section>
      )}
      <GatePad at={pad} ticket={ticket} close={() => setPad(undefined)} kept={setTicket} />
    </main>
  );
}

interface BackProps {
  again: boolean;
  closed: boolean;
  busy: boolean;
  problems: { field: string; wrong: string; right: string }[];
  act: (a: Act) => void;
}

function CameBack({ again, closed, busy, problems, act }: BackProps) {
  const { units } = useSettings();
  const [asked, setOpen] = useState(false);
  const open = !again || asked;
  const [driven, setDriven] = useState('');
  const fault = problems.find((p) => p.field === 'driven_km' || p.field === 'act');
  if (!open)
    return (
      <Button variant="outlined" sx={{ flex: 'none' }} onClick={() => setOpen(true)} data-testid="back-again">
        {closed ? 'It is here again' : 'Here another time'}
      </Button>
    );
  const km = driven.trim() ? readField('distance', driven, units) : undefined;
  const wrong = wrongOf('distance', driven, units);
  return (
    <form
      className="return-back"
      onSubmit={(e) => {
        e.preventDefault();
        if (!wrong) act({ act: 'came_back', driven_km: km ?? null });
      }}
    >
      <MeasureField
        kind="distance"
        label="Driven since"
        text={driven}
        onText={setDriven}
        testid="driven"
        fault={fault}
        hint="empty when nobody knows"
      />
      <Button type="submit" variant="contained" disabled={busy || !!wrong} data-testid="came-back">
        It is here
      </Button>
      {again && (
        <Button variant="outlined" onClick={() => setOpen(false)}>
          Not now
        </Button>
      )}
    </form>
  );
}
