// The turns of a collar or bolt that bring one corner back, what comes of them, and what was really turned.
import { Button, ToggleButton, ToggleButtonGroup } from '@mui/material';
import { useState } from 'react';
import type { Schemas } from '../api/client';
import { CollarFigure } from '../figures/CollarFigure';
import { MeasureField } from '../input/Field';
import { readField } from '../input/kinds';
import { FieldError } from '../shell/Fault';
import { couldNot, couldNotWord } from './couldNot';
import { sideWord } from './sheet';
import { Glyph, Half } from '../ui/glyphs';
import { Segment } from '../ui/Segment';
import { useSettings } from '../ui/settings';
import { angleChange, length, lengthChange } from '../units/print';
import type { Act, Corner } from './after';

type Turned = Schemas['Turned'];

interface Props {
  corner: Corner | undefined;
  turned: Turned | undefined;
  cautions: string[];
  busy: boolean;
  problems: { field: string; wrong: string; right: string }[];
  act: (a: Act) => void;
  tape: () => void;
}

export function TrimPane({ corner: c, turned, cautions, busy, problems, act, tape }: Props) {
  const { unit, form } = useSettings();
  if (!c) return <section className="pane return-trim" data-pane="Trim" aria-label="Trim" />;
  const name = `${sideWord(c.side)} ${c.axle}`;
  const order = c.trim;
  const kind = order?.by.kind === 'torsion_bolt' ? 'bolt' : 'collar';
  return (
    <section className="pane return-trim" data-pane="Trim" aria-label="Trim" data-testid="trim">
      {order ? (
        <>
          <div className="slate return-order">
            <CollarFigure
              what={kind}
              turns={order.turns}
              clockwise={order.clockwise}
              words={order.words}
              to={order.to}
            />
            <div>
              <p style={{ display: 'flex', gap: 8, alignItems: 'center' }}>
                <Half side={c.side} size={18} /> {name} {kind}
              </p>
              <p className="fig return-turns" data-testid="trim-words">
                {order.words}
              </p>
              <p>{order.clockwise ? 'clockwise' : 'counter-clockwise'} on a right-hand thread</p>
              <p className="mark-old">□ {order.from}</p>
              <p className="mark-new">▼ {order.to}</p>
              <p className="small">{order.why}</p>
            </div>
          </div>
          <Really key={c.trims.length} order={order} busy={busy} problems={problems} corner={c} act={act} />
          <p className="return-then">
            <span>
              {length(c.now_mm ?? 0, unit)} → <b className="fig">{length(order.to_mm, unit)}</b>
              <small> ±{length(order.band_mm, unit)}</small>
              <br />
              <span className="small">{name}, hub to arch</span>
            </span>
            <span>
              <b className="fig">{angleChange(order.moves_deg[0]!, form, 2)}</b>
              <br />
              <span className="small">camber moves</span>
            </span>
            <span>
              <b className="fig">{angleChange(order.moves_deg[2]!, form, 2)}</b>
              <br />
              <span className="small">toe moves, read it</span>
            </span>
          </p>
          {cautions.map((t) => (
            <p key={t} className="return-caution">
              <Glyph name="watch" size={20} /> {t}
            </p>
          ))}
        </>
      ) : (
        <div style={{ padding: '16px 18px' }}>
          <h2 style={{ display: 'flex', gap: 9, alignItems: 'center' }}>
            <Half side={c.side} size={22} /> {name}
          </h2>
          <p style={{ margin: '8px 0 14px', fontWeight: 600 }} data-testid="trim-none">
            {c.off_mm !== 0 && !c.turned_by
              ? `${lengthChange(c.off_mm, unit)} against what was said. Say what is turned for height here.`
              : c.off_mm !== 0
                ? 'Nearer than a quarter of a turn tells. Leave it.'
                : c.rest === 'as_said'
                  ? 'In the ring: leave it.'
                  : c.rest === 'stale'
                    ? 'Trimmed. Roll it, bounce it, tape it again.'
                    : 'Roll it, then tape it: hub centre to arch.'}
          </p>
          {(c.rest === 'not_read' || c.rest === 'stale') && (
            <Button variant="contained" onClick={tape} data-testid="tape">
              Tape it
            </Button>
          )}
        </div>
      )}
      <TrimsDone trims={c.trims} />
      <TurnsBy key={c.axle} corner={c} turned={turned} busy={busy} problems={problems} act={act} />
    </section>
  );
}

/** What was trimmed, as ordered and really. */
export function TrimsDone({ trims }: { trims: Schemas['Trim'][] }) {
  if (!trims.length) return null;
  return (
    <ul className="return-done" data-testid="trims">
      {trims.map((t) => (
        <li key={t.at}>
          <Glyph name={t.could_not ? 'short' : 'done'} size={16} /> {sideWord(t.side)} {t.axle}: {t.words}
          {t.typed ? `, really ${t.typed}` : t.could_not ? ', not turned' : ''}
          {t.could_not ? ` (${couldNotWord(t.could_not)})` : ''}
        </li>
      ))}
    </ul>
  );
}

interface ReallyProps {
  order: NonNullable<Corner['trim']>;
  corner: Corner;
  busy: boolean;
  problems: Props['problems'];
  act: (a: Act) => void;
}

function Really({ order, corner, busy, problems, act }: ReallyProps) {
  const [amount, setAmount] = useState('');
  const [could, setCould] = useState<Schemas['CouldNot']>();
  const fault = problems.find((p) => p.field === 'amount' || p.field === 'side');
  return (
    <div className="return-really">
      <Button
        variant="contained"
        sx={{ minHeight: 56, fontSize: 18, flex: '1 1 180px' }}
        disabled={busy}
        onClick={() =>
          act({
            act: 'trimmed',
            axle: corner.axle,
            side: corner.side,
            amount: amount.trim(),
            could_not: could ?? null,
          })
        }
        data-testid="trimmed"
      >
        {amount.trim() || could ? 'Turned as typed' : `As ordered: ${order.words}`}
      </Button>
      <label>
        <span className="small">really, turns</span>
        <input
          value={amount}
          onChange={(e) => setAmount(e.target.value)}
          aria-invalid={!!fault}
          placeholder={order.amount}
          data-testid="trim-really"
        />
      </label>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={could ?? null}
        onChange={(_, v: Schemas['CouldNot'] | null) => setCould(v ?? undefined)}
        aria-label="Could not"
      >
        {couldNot.map(([w, label]) => (
          <ToggleButton key={w} value={w} sx={{ minHeight: 44 }} data-testid={`trim-${w}`}>
            {label}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {fault && <FieldError wrong={fault.wrong} right={fault.right} />}
    </div>
  );
}

interface ByProps {
  corner: Corner;
  turned: Turned | undefined;
  busy: boolean;
  problems: Props['problems'];
  act: (a: Act) => void;
}

/** What is turned for height on this axle, and what a turn of it is usually worth. */
function TurnsBy({ corner, turned, busy, problems, act }: ByProps) {
  const { units } = useSettings();
  const collar = turned?.kind === 'collar' ? turned : undefined;
  const [pitch, setPitch] = useState(collar?.pitch_mm ? String(collar.pitch_mm) : '');
  const [ratio, setRatio] = useState(collar?.motion_ratio ? String(collar.motion_ratio) : '');
  const at = (f: string) => problems.find((p) => p.field === `turned.${f}`);
  const put = (kind: 'collar' | 'torsion_bolt' | undefined) =>
    act({
      act: 'turns_by',
      axle: corner.axle,
      turned:
        kind === 'collar'
          ? {
              kind,
              pitch_mm: pitch.trim() ? (readField('length', pitch, units) ?? null) : null,
              motion_ratio: ratio.trim() ? (readField('number', ratio, units) ?? null) : null,
            }
          : kind && { kind },
    });
  return (
    <div className="return-by">
      <span className="small">For height the {corner.axle} turns a</span>
      <Segment
        label="What is turned for height"
        value={(turned ?? corner.turned_by)?.kind}
        choices={[
          { value: 'collar', label: 'Collar', testid: 'by-collar' },
          { value: 'torsion_bolt', label: 'Torsion bolt', testid: 'by-bolt' },
        ]}
        choose={put}
        clear={() => put(undefined)}
      />
      {turned?.kind === 'collar' && (
        <form
          className="return-pitch"
          onSubmit={(e) => {
            e.preventDefault();
            put('collar');
          }}
        >
          <MeasureField
            kind="length"
            label="Thread a turn"
            text={pitch}
            onText={setPitch}
            testid="by-pitch"
            fault={at('pitch_mm')}
            placeholder="2"
          />
          <MeasureField
            kind="number"
            label="Spring over wheel"
            text={ratio}
            onText={setRatio}
            testid="by-ratio"
            fault={at('motion_ratio')}
            placeholder="1"
          />
          <Button type="submit" variant="outlined" disabled={busy}>
            Take it
          </Button>
        </form>
      )}
    </div>
  );
}
