// Measure it moving: one wheel at three to seven heights on a jack, and what that makes of the points.
import { Button, Dialog, TextField } from '@mui/material';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { keepShape, lookAtMoving } from '../../api/calls';
import { ApiProblem, type Geometry, type Schemas, type Ticket } from '../../api/client';
import { useLive } from '../../api/live';
import { MovingFigure, type Which } from '../../figures/MovingFigure';
import { PadDialog } from '../../pad/PadDialog';
import { FieldError } from '../../shell/Fault';
import { ChipButton } from '../../ui/Press';
import { Segment } from '../../ui/Segment';
import { Glyph, Half } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { angle, length, num } from '../../units/print';
import { FEWEST, more, MOST, movingOf, noRows, typed, type Column, type MovingTexts } from './moving';

interface Props {
  axle: 'front' | 'rear';
  geometry: Geometry;
  knowledge: Schemas['Knowledge'];
  designHeight: number;
  texts: MovingTexts;
  change: (t: MovingTexts) => void;
  /** The open job, whose pad reads an angle by any method; none before the car is taken in. */
  ticket?: Ticket | undefined;
  /** Whether what is typed is what is saved: only that is kept as a shape. */
  saved: boolean;
}

const columns: [Column, string][] = [
  ['height', 'Hub to arch'],
  ['camber', 'Camber'],
  ['toe', 'Toe, this wheel'],
  ['caster', 'Caster, where swept'],
];

export function MoveIt(p: Props) {
  const { unit, form } = useSettings();
  const steers = p.axle === 'front';
  const { moving, bad } = movingOf(p.texts, unit, steers);
  const ready = moving && !Object.keys(bad).length && moving.rows.length >= FEWEST;
  const live = useLive(
    'moving',
    ready
      ? { geometry: p.geometry, knowledge: p.knowledge, design_height_mm: p.designHeight, moving }
      : undefined,
    lookAtMoving,
  );
  const said = ready ? live.data : undefined;
  const [pad, setPad] = useState<{ row: number; column: 'camber' | 'toe' | 'caster' }>();
  const shown = columns.filter(([c]) => steers || c !== 'caster');
  const fault = (i: number, c: Column) => {
    const field = c === 'height' ? 'height_mm' : `${c}_deg`;
    return (
      bad[`${i}.${c}`] ?? live.fault?.problems.find((q) => q.field === `moving.rows.${i}.${field}`)?.wrong
    );
  };
  const left = live.fault?.problems.find((q) => !/rows\.\d/.test(q.field));
  return (
    <>
      <h2>Measure it moving</h2>
      <p className="small mut" style={{ margin: '4px 0 8px' }}>
        One wheel, body still, at {FEWEST} to {MOST} heights on a jack under its arm, ride height among them.
        The readings bring the points to this car. Stands under the frame at its hard points, springs kept in
        hand.
      </p>
      <Segment
        label="Which wheel"
        value={p.texts.side}
        choose={(side) => p.change({ ...p.texts, side })}
        choices={(['left', 'right'] as const).map((s) => ({
          value: s,
          label: (
            <span className="word">
              <Half side={s} size={15} /> {s}
            </span>
          ),
          testid: `moving-${s}`,
        }))}
      />
      <table className="moving-table">
        <thead>
          <tr>
            {shown.map(([c, l]) => (
              <th key={c} scope="col">
                {l}
                {c === 'height' ? `, ${unit}` : ', °'}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {p.texts.rows.map((r, i) => (
            <tr key={i}>
              {shown.map(([c, l]) => {
                const wrong = fault(i, c);
                return (
                  <td key={c}>
                    <span className="moving-cell">
                      <input
                        className={`fig ${wrong ? 'bad' : ''}`}
                        inputMode="decimal"
                        aria-label={`${l}, height ${i + 1}`}
                        aria-invalid={!!wrong}
                        value={r[c]}
                        onChange={(e) => p.change(typed(p.texts, i, c, e.target.value))}
                        data-testid={`moving-${i}-${c}`}
                      />
                      {p.ticket && c !== 'height' && (
                        <ChipButton
                          size="small"
                          aria-label={`${l} at height ${i + 1} by another method`}
                          onClick={() => setPad({ row: i, column: c })}
                          data-testid={`moving-pad-${i}-${c}`}
                        >
                          ⋯
                        </ChipButton>
                      )}
                    </span>
                    {wrong && <span className="small field-wrong">{wrong}</span>}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <div style={{ display: 'flex', gap: 10, margin: '8px 0 12px', flexWrap: 'wrap' }}>
        <ChipButton
          onClick={() => p.change(more(p.texts))}
          disabled={p.texts.rows.length >= MOST}
          data-testid="moving-more"
        >
          Another height
        </ChipButton>
        {moving && (
          <ChipButton onClick={() => p.change(noRows())} data-testid="moving-none">
            Not measured after all
          </ChipButton>
        )}
      </div>
      {left && <FieldError wrong={left.wrong} right={left.right} />}
      {said && (
        <div className={live.stale ? 'stale-block' : ''} data-testid="moving-said">
          <div className="slate moving-plots">
            {(['camber', 'toe', ...(steers ? ['caster'] : [])] as Which[])
              .filter((w) => moving?.rows.some((r) => r[`${w}_deg`] != null))
              .map((w) => (
                <MovingFigure key={w} which={w} rows={moving!.rows} said={said} unit={unit} form={form} />
              ))}
          </div>
          {said.says.map((s, i) => (
            <p
              key={s}
              className={i === 0 && !said.fits ? 'plate' : 'moving-line small'}
              style={{ marginTop: 8 }}
            >
              <Glyph name={i === 0 ? (said.fits ? 'done' : 'clash') : 'watch'} size={17} /> <span>{s}</span>
            </p>
          ))}
          {said.narrower.length > 0 && (
            <p className="small" data-testid="moving-narrower">
              At {length(said.narrower[0]!.height_mm, unit)}, nine in ten:{' '}
              {said.narrower
                .map((n) => `${n.angle} ±${angle(n.now_deg, form, 2)} (was ±${angle(n.before_deg, form, 2)})`)
                .join(', ')}
              . Points moved up to{' '}
              {unit === 'mm' ? `${num(said.moved_mm, 1)} mm` : length(said.moved_mm, unit)}.
            </p>
          )}
          {said.unknown.length > 0 && (
            <>
              <h3 style={{ marginTop: 8 }}>Stays unknown</h3>
              {said.unknown.map((s) => (
                <p key={s} className="small moving-line">
                  <Glyph name="unread" size={15} /> <span>{s}</span>
                </p>
              ))}
            </>
          )}
        </div>
      )}
      {p.ticket && <KeepShape axle={p.axle} job={p.ticket.job.id} saved={p.saved} />}
      <Dialog open={!!pad} onClose={() => setPad(undefined)} maxWidth={false}>
        {pad && p.ticket && (
          <div style={{ width: 'min(440px, 92vw)' }}>
            <PadDialog
              key={`${pad.row}${pad.column}`}
              ticket={p.ticket}
              visit="found"
              target={{ quantity: pad.column, place: { axle: p.axle, side: p.texts.side } }}
              kept={() => setPad(undefined)}
              use={(value, sigma) => {
                p.change(typed(p.texts, pad.row, pad.column, String(Math.round(value * 1000) / 1000), sigma));
                setPad(undefined);
              }}
            />
          </div>
        )}
      </Dialog>
    </>
  );
}

/** This axle as a shape of the shop, for the next car of its kind. */
function KeepShape({ axle, job, saved }: { axle: 'front' | 'rear'; job: string; saved: boolean }) {
  const queries = useQueryClient();
  const [name, setName] = useState('');
  const keep = useMutation({
    mutationFn: () => keepShape(job, { axle, name }),
    onSuccess: () => {
      setName('');
      void queries.invalidateQueries({ queryKey: ['archetypes'] });
    },
  });
  const fault = keep.error instanceof ApiProblem ? keep.error : undefined;
  return (
    <div style={{ display: 'flex', gap: 10, alignItems: 'flex-start', marginTop: 14, flexWrap: 'wrap' }}>
      <TextField
        label="Keep this axle as a shape of the shop"
        size="small"
        value={name}
        onChange={(e) => {
          keep.reset();
          setName(e.target.value);
        }}
        error={!!fault}
        helperText={
          fault
            ? `${fault.problems[0]?.wrong ?? fault.message}; ${fault.problems[0]?.right ?? 'try again'}`
            : saved
              ? keep.isSuccess
                ? 'kept: it stands first under “Under it”'
                : 'a name for it'
              : 'keep the car first: only what is kept becomes a shape'
        }
        slotProps={{ htmlInput: { maxLength: 60, 'data-testid': 'shape-name' } }}
        sx={{ flex: 1, minWidth: 220 }}
      />
      <Button
        variant="outlined"
        disabled={!saved || !name.trim() || keep.isPending}
        onClick={() => keep.mutate()}
        data-testid="shape-keep"
      >
        Keep the shape
      </Button>
    </div>
  );
}
