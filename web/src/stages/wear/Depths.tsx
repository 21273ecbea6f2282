// Depths: a tyre's log, what it taught, and a line to write.
import { HowTo } from '../../ui/HowTo';
import { ChipButton } from '../../ui/Press';
import { writeTread, strikeTread } from '../../api/calls';
import { Button, MenuItem, TextField } from '@mui/material';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem, type CarWear, type Schemas } from '../../api/client';
import { DepthPlot } from '../../figures/DepthPlot';
import { CsvTable } from '../../shell/CsvTable';
import { Refusal } from '../../shell/Fault';
import { Glyph, Half } from '../../ui/glyphs';
import { useBench } from '../../shell/ticket';
import { MeasureField } from '../../input/Field';
import { readField, rightOf, wrongOf } from '../../input/kinds';
import { useSettings } from '../../ui/settings';
import { bare, farUnit, fieldText, inUnits, unitName } from '../../units/measure';
import { num } from '../../units/print';
import {
  capital,
  leadOf,
  placeName,
  places,
  range,
  sideOf,
  treadKey,
  type Place,
  type TreadView,
} from '../../shell/tread';
import { FourTyres } from './FourTyres';

type Line = Schemas['StoredLine'];
const depths = ['inner', 'centre', 'outer'] as const;
const none = { mark: '', odometer: '', inner: '', centre: '', outer: '', place: '', fresh: '', note: '' };

interface Props {
  modes: React.ReactNode;
  wear: CarWear | undefined;
  view: TreadView | undefined;
  place: Place;
  pick: (p: Place) => void;
}

export function Depths({ modes, wear, view, place, pick }: Props) {
  const { ticket, draft } = useBench();
  const { units } = useSettings();
  const km = unitName('distance', units);
  const mm = unitName('tread', units).replace(/^\//, '1/');
  const far = (v: number) => num(inUnits('distance', v, units)).replace(/\B(?=(\d{3})+$)/g, ' ');
  const queries = useQueryClient();
  const job = ticket.job.id;
  const at = (p: Place) => view?.tyres.find((t) => t.lines.at(-1)?.entry.place === p);
  const tyre = at(place);
  const forecast = wear?.tyres.find((t) => t.place === place);
  const learned = forecast?.learned;
  const [form, setForm] = useState({ ...none });
  const [flipped, setFlipped] = useState(false);
  const [mends, setMends] = useState<Line>();
  const [faults, setFaults] = useState<Record<string, string>>({});
  const put = (v: TreadView) => {
    queries.setQueryData(treadKey(job), v);
  };
  const write = useMutation({
    mutationFn: (body: Schemas['NewLine']) => writeTread(job, body),
    onSuccess: (v) => {
      put(v);
      setForm((f) => ({ ...none, odometer: f.odometer }));
      setFlipped(false);
      setMends(undefined);
    },
  });
  const strike = useMutation({
    mutationFn: (id: string) => strikeTread(job, id),
    onSuccess: put,
  });
  const mark = form.mark || mends?.id ? form.mark : (tyre?.mark ?? '');
  const read = (t: string, kind: 'tread' | 'distance' = 'tread') => {
    const v = readField(kind, t, units);
    return v !== undefined && v >= 0 ? v : undefined;
  };
  const submit = () => {
    const wrong: Record<string, string> = {};
    // A correction that leaves a figure as it was shown keeps its last digit.
    const was = mends && form.odometer === fieldText('distance', mends.entry.odometer_km, units);
    const odometer = was ? mends.entry.odometer_km : read(form.odometer, 'distance');
    if (odometer === undefined) wrong.odometer = `The odometer, ${rightOf('distance', units)}`;
    const d = depths.map((k, i) => {
      const had = mends?.entry.depths_mm?.[i];
      if (had !== undefined && form[k] === fieldText('tread', had, units)) return had;
      return form[k].trim() ? (read(form[k]) ?? NaN) : undefined;
    });
    depths.forEach((k, i) => {
      if (Number.isNaN(d[i])) wrong[k] = rightOf('tread', units);
      else if (d[i] === undefined && d.some((x) => x !== undefined)) wrong[k] = 'All three, or none';
    });
    if (!mark.trim()) wrong.mark = 'A serial or chalk mark';
    const fresh = form.fresh.trim() ? read(form.fresh) : null;
    if (fresh === undefined) wrong.fresh = rightOf('tread', units);
    setFaults(wrong);
    if (Object.keys(wrong).length) return;
    const to = form.place || (mends ? (mends.entry.place ?? 'off') : place);
    write.mutate({
      mark: mark.trim(),
      new_depth_mm: fresh ?? null,
      replaces: mends?.id ?? null,
      entry: {
        odometer_km: odometer!,
        place: to === 'off' ? null : (to as Place),
        flipped,
        depths_mm: d[0] === undefined ? null : (d as [number, number, number]),
        day: mends?.entry.day || new Date().toISOString().slice(0, 10),
        note: form.note,
      },
    });
  };
  const fault = write.error instanceof ApiProblem ? write.error : undefined;
  const words = (k: string) =>
    faults[k] ??
    fault?.at(k === 'odometer' ? 'odometer_km' : k === 'fresh' ? 'new_depth_mm' : k)?.right ??
    (depths.includes(k as (typeof depths)[number])
      ? fault?.at(`depths_mm.${depths.indexOf(k as (typeof depths)[number])}`)?.right
      : undefined);
  const warnings = (wear ?? view)?.warnings ?? [];
  const field = (k: keyof typeof none, label: string, more?: object) => (
    <TextField
      size="small"
      label={label}
      value={k === 'mark' ? mark : form[k]}
      onChange={(e) => setForm({ ...form, [k]: e.target.value })}
      error={!!words(k)}
      helperText={words(k)}
      slotProps={{
        htmlInput: {
          'data-testid': `tread-${k}`,
          inputMode: k === 'mark' || k === 'note' ? 'text' : 'decimal',
        },
      }}
      {...more}
    />
  );
  const measured = (
    k: 'odometer' | 'inner' | 'centre' | 'outer' | 'fresh',
    label: string,
    kind: 'distance' | 'tread',
  ) => (
    <MeasureField
      kind={kind}
      label={label}
      text={form[k]}
      onText={(t) => setForm({ ...form, [k]: t })}
      fault={words(k) && !wrongOf(kind, form[k], units) ? { wrong: words(k)!, right: '' } : undefined}
      testid={`tread-${k}`}
    />
  );
  return (
    <main className="main wear-main">
      <section
        className="pane"
        data-pane="Depths"
        style={{ display: 'flex', flexDirection: 'column', minWidth: 0, overflowY: 'auto' }}
      >
        <div style={{ padding: '12px 20px 10px' }}>
          <h1 className="wear-head" data-testid="depths-statement">
            {learned && learned.points.length > 0 ? (
              <>
                Lasts {farUnit(learned.after.median, units)} in all{' '}
                <span className="band">{range(learned.after, units)}</span>
              </>
            ) : tyre ? (
              'No depth read on this tyre yet'
            ) : (
              `No tyre is written down ${placeName(place)}`
            )}
          </h1>
          <p className="mut" style={{ marginTop: 6 }}>
            {capital(placeName(place))}
            {tyre && `, tyre ${tyre.mark}`}.{' '}
            {learned ? (
              <>
                Model alone: {farUnit(learned.before.median, units)} {range(learned.before, units)}.{' '}
                {learned.words}
                {learned.carried && ' The setup changed since: carried over.'}
              </>
            ) : tyre ? (
              'Draw depths at the outer main grooves and the centre.'
            ) : (
              'Write its mark and where it runs; then depths.'
            )}
          </p>
        </div>
        <div className="slate" style={{ padding: '8px 4px' }} data-testid="depth-plot">
          {learned && forecast ? (
            <div className="drawn">
              <HowTo of="depths" />
              <DepthPlot
                side={sideOf(place)}
                learned={learned}
                depthNow={forecast.depth_now_mm}
                rate={leadOf(forecast).rate_mm_per_1000km}
                limit={draft?.limit_mm ?? 1.6}
                fresh={learned.from_mm}
                units={units}
              />
            </div>
          ) : (
            <p className="empty-slate">Depth over distance is drawn here.</p>
          )}
        </div>
        {warnings.length > 0 && (
          <ul className="log-warnings" data-testid="log-warnings">
            {warnings.map((w, i) => (
              <li key={i}>
                <Glyph name="watch" size={20} />
                <span>
                  <b>
                    {w.mark}: {w.wrong}.
                  </b>{' '}
                  {capital(w.right)}.
                </span>
              </li>
            ))}
          </ul>
        )}
        {tyre && (
          <table className="figures log-table" data-testid="log-table">
            <thead>
              <tr>
                <th scope="col">Odometer, {km}</th>
                <th scope="col">inner / centre / outer, {mm}</th>
                <th scope="col">off by, {mm}</th>
                <th scope="col">runs from here</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {tyre.lines.map((l, i) => {
                const e = l.entry;
                const p = learned?.points.find((x) => x.entry === i);
                return (
                  <tr key={l.id}>
                    <th scope="row" className="fig">
                      {far(e.odometer_km)}
                    </th>
                    <td>{e.depths_mm ? e.depths_mm.map((d) => bare('tread', d, units)).join(' / ') : '–'}</td>
                    <td>
                      {p
                        ? p.read_mm.map((d, k) => bare('tread', d - p.after_mm[k]!, units)).join(' / ')
                        : '–'}
                    </td>
                    <td className="small">
                      {e.place ? placeName(e.place) : 'off the car'}
                      {e.flipped && ', turned on the rim'}
                    </td>
                    <td style={{ whiteSpace: 'nowrap' }}>
                      <ChipButton
                        size="small"
                        onClick={() => {
                          setMends(l);
                          setFlipped(!!e.flipped);
                          setForm({
                            ...none,
                            mark: tyre.mark,
                            odometer: fieldText('distance', e.odometer_km, units),
                            inner: fieldText('tread', e.depths_mm?.[0], units),
                            centre: fieldText('tread', e.depths_mm?.[1], units),
                            outer: fieldText('tread', e.depths_mm?.[2], units),
                            place: e.place ?? 'off',
                            note: e.note ?? '',
                          });
                        }}
                      >
                        Correct
                      </ChipButton>{' '}
                      <ChipButton
                        size="small"
                        onClick={() => strike.mutate(l.id)}
                        disabled={strike.isPending}
                      >
                        Strike
                      </ChipButton>
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        )}
        <div style={{ marginTop: 'auto' }}>
          <FourTyres wear={wear} place={place} pick={pick} km={0} />
        </div>
      </section>
      <section className="pane wear-side" data-pane="Write a line" aria-label="Write a line">
        {modes}
        <h3 style={{ display: 'flex', gap: 8, alignItems: 'center' }}>
          <Half side={sideOf(place)} size={18} />
          {mends ? `Correct ${far(mends.entry.odometer_km)} ${km}` : `Read ${placeName(place)}`}
        </h3>
        {field('mark', 'Tyre, serial or mark')}
        {measured('odometer', 'Odometer', 'distance')}
        <div className="three">
          {measured('inner', 'Inner', 'tread')}
          {measured('centre', 'Centre', 'tread')}
          {measured('outer', 'Outer', 'tread')}
        </div>
        <TextField
          select
          size="small"
          label="Runs from here"
          value={form.place || (mends ? (mends.entry.place ?? 'off') : place)}
          onChange={(e) => setForm({ ...form, place: e.target.value })}
          slotProps={{ htmlInput: { 'data-testid': 'tread-place' } }}
        >
          {places.map((p) => (
            <MenuItem key={p} value={p}>
              {capital(placeName(p))}
            </MenuItem>
          ))}
          <MenuItem value="off">Off the car</MenuItem>
        </TextField>
        <ChipButton aria-pressed={flipped} onClick={() => setFlipped(!flipped)} data-testid="tread-flipped">
          Turned on its rim here
        </ChipButton>
        {measured('fresh', 'New, once', 'tread')}
        {field('note', 'Remark')}
        {fault && !fault.problems.length && <Refusal error={fault} />}
        <p className="small">
          Inner is the side of the car. Depths as it came, before it is moved. A correction is a line of its
          own; the old one is kept.
        </p>
        <CsvTable<TreadView>
          path={`/api/v1/jobs/${job}/tread.csv`}
          out="Log as CSV"
          what="tread depths"
          testid="tread-csv"
          taken={put}
        />
        <div className="side-foot">
          <Button
            variant="contained"
            sx={{ flex: 1 }}
            onClick={submit}
            disabled={write.isPending}
            data-testid="tread-keep"
          >
            {mends ? 'Keep the correction' : 'Keep these depths'}
          </Button>
          {mends && (
            <Button
              variant="outlined"
              onClick={() => {
                setMends(undefined);
                setForm({ ...none });
              }}
            >
              Leave it
            </Button>
          )}
        </div>
      </section>
    </main>
  );
}
