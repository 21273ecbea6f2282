// Wear: all four tyres before and after setting, what a change is worth, depths, rotation, and causes.
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { useBench } from '../../shell/ticket';
import { useKeys } from '../../shell/bindings';
import { ReadingsFirst, Waiting } from '../../shell/ReadingsFirst';
import { FieldError } from '../../shell/Fault';
import { ApiProblem } from '../../api/client';
import { leadOf, places, useTread, useWear, type Place } from '../../shell/tread';
import { Depths } from './Depths';
import { Diagnose } from './Diagnose';
import { Limit } from './Limit';
import { Modes, type Mode } from './Modes';
import { usePhone } from '../../ui/phone';
import { Rotate } from './Rotate';
import { TreadPane } from './TreadPane';

export default function Wear() {
  const { ticket, draft, input } = useBench();
  const [params] = useSearchParams();
  const [mode, setMode] = useState<Mode>(params.get('mode') === 'depths' ? 'depths' : 'tread');
  const [place, setPlace] = useState<Place>('left_front');
  const [otherId, setOther] = useState('');
  const [chosen, setKm] = useState<number>();
  const plan = ticket.plans.find((p) => p.id === otherId);
  const tread = useTread(ticket.job.id);
  const wear = useWear(ticket, input, tread.data?.log, plan);
  const tyre = wear.data?.tyres.find((t) => t.place === place) ?? wear.data?.tyres[0];
  // Opens where the tread tells most: past half of the shorter life.
  const median = tyre?.scenes[tyre.lead]?.band_km.median ?? 20000;
  const km = chosen ?? Math.max(0, Math.round((0.6 * median) / 1000) * 1000);
  const side = (s: 'left' | 'right') =>
    setPlace((p) => places.find((x) => x.startsWith(s) && x.slice(-4) === p.slice(-4)) ?? p);
  useKeys({
    left: () => side('left'),
    right: () => side('right'),
    nearer: () => setKm(Math.max(0, km - 1000)),
    farther: () => setKm(Math.min(200000, km + 1000)),
  });
  const phone = usePhone();
  const all = <Modes mode={mode} set={setMode} warned={(wear.data ?? tread.data)?.warnings.length ?? 0} />;
  // A phone has them above the panes, whichever is open.
  const modes = phone ? null : all;
  const view = () => {
    if (mode === 'diagnose') return <Diagnose modes={modes} tyre={tyre} tyres={wear.data?.tyres ?? []} />;
    if (mode === 'depths')
      return <Depths modes={modes} wear={wear.data} view={tread.data} place={place} pick={setPlace} />;
    if (!input || !draft) return <ReadingsFirst title="Wear waits for the plan" missing={ticket.missing} />;
    if (!wear.data && wear.error)
      return (
        <main className="main wear-main">
          <section className="pane" style={{ padding: 24 }}>
            <h1 style={{ marginBottom: 12 }}>The tread cannot be worked yet</h1>
            {wear.error instanceof ApiProblem && wear.error.problems.length ? (
              wear.error.problems.map((p) => (
                <FieldError key={p.field} wrong={`${p.field}: ${p.wrong}`} right={p.right} />
              ))
            ) : (
              <p>{wear.error.message}</p>
            )}
            <Limit start={undefined} />
          </section>
          <section className="pane wear-side">{modes}</section>
        </main>
      );
    if (!wear.data || !tyre) return <Waiting words="Working the tread…" />;
    if (mode === 'rotate') return <Rotate modes={modes} wear={wear.data} />;
    return (
      <TreadPane
        key={leadOf(tyre).id}
        modes={modes}
        wear={wear.data}
        tyre={tyre}
        pick={setPlace}
        km={km}
        setKm={setKm}
        other={otherId}
        setOther={setOther}
      />
    );
  };
  return (
    <>
      {phone && <div className="phone-modes">{all}</div>}
      {view()}
    </>
  );
}
