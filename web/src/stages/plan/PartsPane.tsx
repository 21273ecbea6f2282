// What closes the gap: the aim, the parts, the one thing to do next, and the plans of this job.
import { Segment } from '../../ui/Segment';
import { Bare, ChipButton } from '../../ui/Press';
import { Button } from '@mui/material';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import type { Candidate, PlanResult } from '../../api/client';
import { PartThumb } from '../../figures/PartThumb';
import { windowOf } from '../../figures/reach';
import { Glyph } from '../../ui/glyphs';
import type { AxleName, SideName } from '../../api/client';
import type { Bench } from '../../shell/ticket';
import { useSettings } from '../../ui/settings';
import { angle, num } from '../../units/print';
import { AimDialog } from './AimDialog';
import { PlanMenu } from './PlanMenu';
import { CarSearch } from './CarSearch';
import { known } from './known';
import { MainAct } from './MainAct';
import { hoursOf, status } from './status';
import { SetsPane } from './SetsPane';
import { TreadLine } from './TreadLine';

interface Props {
  /** The plan's menu stands outside, in view. */
  menuElsewhere?: boolean;
  bench: Bench;
  axle: AxleName;
  result: PlanResult;
  fitted: string[];
  setFitted: (ids: string[], onBoth?: boolean) => void;
  current: Candidate | undefined;
  pick: (id: string) => void;
  fit: (id?: string) => void;
  /** Of the fitted parts, what goes on one side only. */
  only: Partial<Record<string, SideName>>;
  setOnly: (id: string, side: SideName | undefined) => void;
}

const pts = (v: number[][]) => v as [number, number][];

export function PartsPane(p: Props) {
  const { bench, axle, result, fitted: on, setFitted, current, pick, fit, only, setOnly } = p;
  const { draft, change, ticket, input } = bench;
  const { form } = useSettings();
  const [aims, setAims] = useState(false);
  const [mode, setMode] = useState<'parts' | 'sets' | 'car'>('parts');
  const [pins, setPins] = useState<{ pinned: string[]; excluded: string[] }>({ pinned: [], excluded: [] });
  const limit = draft?.limit_mm ?? 3;
  const tyres = useMemo(() => ({ ...ticket.tyres, limit_mm: limit }), [ticket.tyres, limit]);
  const navigate = useNavigate();
  if (!draft) return null;
  const { verdict, candidates } = result;
  // Tenths, hundredths where a tenth would tell another window: toe's are narrow.
  const end = (v = 0) =>
    form === 'minutes' ? angle(v, form) : num(v, Math.abs(v * 10 - Math.round(v * 10)) < 1e-6 ? 1 : 2);
  const w = (v: number[]) => `${end(v[0])}…${end(v[1])}`;
  const fitted = current && on.includes(current.part.id);
  const takeOff = (id: string) => setFitted(on.filter((f) => f !== id));
  const win = windowOf(result, draft.aim);
  const family = (id: string) => id.split('@')[0]!;
  const gap = Math.max(
    result.left.shortfall.caster_deg,
    result.left.shortfall.camber_deg,
    result.right.shortfall.caster_deg,
    result.right.shortfall.camber_deg,
  );
  const short = (n: string) => n.replace(/^./, (c) => c.toLowerCase());
  const ready = verdict.reached;
  return (
    <section className="pane plan-parts" data-pane="Parts" aria-label="Aim and parts">
      <div style={{ padding: '12px 14px 11px' }}>
        {!p.menuElsewhere && <PlanMenu bench={bench} />}
        <h3 style={{ marginTop: 12 }}>
          {ready
            ? result.expected.length
              ? 'What was read is on aim'
              : 'On aim with this plan'
            : gap > 0
              ? `What closes ${angle(gap, form, gap < 0.095 ? 2 : 1)}`
              : 'Parts'}
        </h3>
        <Bare
          onClick={() => setAims(true)}
          data-testid="aim"
          style={{
            width: '100%',
            border: '1.5px solid var(--edge)',
            borderRadius: 6,
            minHeight: 56,
            marginTop: 10,
            display: 'flex',
            alignItems: 'center',
            padding: '4px 12px',
            gap: 12,
          }}
        >
          <span style={{ color: 'var(--aim)' }}>
            <Glyph name="aim" size={24} />
          </span>
          <span style={{ flex: 1, minWidth: 0 }}>
            <b>{draft.aim.name}</b>
            <span
              className="fig"
              style={{ display: 'block', fontSize: 18, fontWeight: 600, color: 'var(--ink2)', marginTop: 3 }}
            >
              camber {w(win[0])} · {axle === 'front' ? `caster ${w(win[1])} · ` : ''}toe{' '}
              {w(axle === 'front' ? draft.aim.toe_total_deg : (draft.aim.rear_toe_total_deg ?? [0, 0.3]))}
            </span>
          </span>
          <span
            style={{ fontWeight: 700, fontSize: 14, textDecoration: 'underline', textUnderlineOffset: 3 }}
          >
            Change
          </span>
        </Bare>
        {input && <TreadLine ticket={ticket} input={input} />}
        <Segment
          label="Parts or sets"
          className="wide-seg"
          wide
          style={{ marginTop: 10 }}
          value={mode}
          choose={setMode}
          choices={(['parts', 'sets', 'car'] as const).map((m) => ({
            value: m,
            label: { parts: 'One part', sets: 'Best sets', car: 'Whole car' }[m],
            testid: `mode-${m}`,
          }))}
        />
      </div>
      {mode === 'sets' && (
        <SetsPane
          input={bench.input!}
          axle={axle}
          tyres={tyres}
          // What is on one side only is not the set that was looked for.
          fitted={on.filter((id) => !only[id])}
          pins={pins}
          setPins={setPins}
          take={(ids) => setFitted(ids, true)}
        />
      )}
      {mode === 'car' && <CarSearch input={bench.input!} draft={draft} tyres={tyres} change={change} />}
      {mode === 'parts' && (
        <>
          <div className="part-list" role="group" aria-label="Parts">
            {candidates.map((c) => {
              const on = c.part.id === current?.part.id;
              const st = status(c, form);
              return (
                <div key={c.part.id} className={`part-box ${on ? 'on' : ''}`}>
                  <Bare
                    aria-pressed={on}
                    className={`part ${on ? 'on' : ''}`}
                    data-testid={`part-${family(c.part.id)}`}
                    onClick={() => pick(c.part.id)}
                  >
                    <PartThumb
                      window={win}
                      base={pts(result.left.bare_reach?.outline ?? result.left.reach?.outline ?? [])}
                      part={pts(c.left_outline)}
                      fitted={c.status === 'fitted'}
                    />
                    <span style={{ flex: 1, minWidth: 0 }}>
                      <span style={{ display: 'flex', justifyContent: 'space-between', gap: 8 }}>
                        <b style={{ fontSize: 16 }}>{c.part.name}</b>
                        <span className="word">
                          <Glyph name={st.glyph} size={17} />
                          {st.word}
                        </span>
                      </span>
                      <span
                        className="fig"
                        style={{
                          display: 'flex',
                          justifyContent: 'space-between',
                          fontSize: 19.5,
                          fontWeight: 650,
                          marginTop: 4,
                        }}
                      >
                        <span>{c.does}</span>
                        <span className="mut part-hours">{num(hoursOf(c), 1)} h</span>
                      </span>
                      {c.kit.length > 0 && (
                        <span className="small" data-testid={`kit-${family(c.part.id)}`}>
                          with <b>{c.kit.map((k) => short(k.name)).join(', ')}</b>: it does not stand without
                        </span>
                      )}
                      {known(c.part).map((k) => (
                        <span key={k} className="part-known" data-testid={`known-${c.part.id}`}>
                          {k}
                        </span>
                      ))}

                      <span
                        className={`small mut ${on ? '' : 'clamp'}`}
                        style={{ display: on ? 'block' : undefined, marginTop: 4 }}
                      >
                        {on ? `${c.part.summary.replace(/^./, (x) => x.toUpperCase())}. ` : ''}
                        {c.costs}
                      </span>
                      {c.fouls.slice(0, on ? 4 : 1).map((f) => (
                        <span key={f} className="plate" style={{ marginTop: 5 }}>
                          <Glyph name={c.status === 'needs' ? 'unread' : 'clash'} size={14} /> {f}
                        </span>
                      ))}
                    </span>
                  </Bare>
                  {on && (
                    <div className="part-tools">
                      {c.status === 'fitted' && (
                        <Segment
                          label={`Which side ${short(c.part.name)} goes on`}
                          value={only[c.part.id] ?? 'both'}
                          choose={(s) => setOnly(c.part.id, s === 'both' ? undefined : s)}
                          choices={(['left', 'both', 'right'] as const).map((s) => ({
                            value: s,
                            label: { left: 'left only', both: 'both sides', right: 'right only' }[s],
                            testid: `side-${s}`,
                          }))}
                        />
                      )}
                      {c.sizes.map((id) => (
                        <ChipButton key={id} size="small" onClick={() => fit(id)} data-testid={`size-${id}`}>
                          fit {id.split('@')[1]}
                        </ChipButton>
                      ))}
                      <ChipButton
                        size="small"
                        onClick={() => {
                          setPins((p) => ({
                            pinned: [...new Set([...p.pinned, family(c.part.id)])].slice(-4),
                            excluded: p.excluded.filter((x) => x !== family(c.part.id)),
                          }));
                          setMode('sets');
                        }}
                        data-testid="pin"
                      >
                        Sets with it
                      </ChipButton>
                      <ChipButton
                        size="small"
                        onClick={() => {
                          setPins((p) => ({
                            excluded: [...new Set([...p.excluded, family(c.part.id)])],
                            pinned: p.pinned.filter((x) => x !== family(c.part.id)),
                          }));
                          setMode('sets');
                        }}
                      >
                        Sets without
                      </ChipButton>
                    </div>
                  )}
                </div>
              );
            })}
          </div>
          <div
            className="parts-foot"
            style={{
              padding: '10px 14px 12px',
              borderTop: '1px solid var(--line)',
              display: 'flex',
              gap: 10,
            }}
          >
            <MainAct
              of={{
                current,
                fitted: !!fitted,
                ready,
                fit: () => fit(),
                takeOff: () => current && takeOff(current.part.id),
              }}
              sx={{ flex: 1 }}
            />
            {ready && current && (
              <Button variant="outlined" onClick={fitted ? () => takeOff(current.part.id) : () => fit()}>
                {fitted ? 'Take off' : 'Fit'}
              </Button>
            )}
            {!ready && (
              <Button variant="outlined" onClick={() => navigate(`../compare${window.location.search}`)}>
                Compare
              </Button>
            )}
          </div>
        </>
      )}
      <AimDialog
        key={bench.plan?.id}
        draftKey={`aim.${bench.plan?.id ?? ''}`}
        open={aims}
        aim={draft.aim}
        tyreMm={bench.ticket.tyre_diameter_mm}
        levels={(bench.ticket.vehicle.facts.car?.levels ?? []).map((l) => l.name)}
        close={() => setAims(false)}
        keep={(aim) => change({ aim })}
      />
    </section>
  );
}
