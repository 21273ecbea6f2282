// The aim while a wheel hangs on the jack: what it has to show there, so that it stands in its window once it is down.
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useId, useState } from 'react';
import { onJack } from '../api/calls';
import type { AxleName, Schemas, SideName } from '../api/client';
import { FieldError, Refusal } from '../shell/Fault';
import { Half } from '../ui/glyphs';
import { Segment } from '../ui/Segment';
import { useSettings } from '../ui/settings';
import { angle, angleChange, type AngleForm } from '../units/print';
import { problemsOf } from './acts';
import { sideWord } from './sheet';

type Aim = Schemas['JackAim'];

const span = (w: number[], form: AngleForm, digits: number) =>
  `${angle(w[0]!, form, digits)} to ${angle(w[1]!, form, digits)}`;

/** What is asked of one angle on the jack, and how far it goes as the wheel comes down. */
function Row({
  name,
  window,
  from,
  to,
  digits,
}: {
  name: string;
  window: number[];
  from: number;
  to: number;
  digits: number;
}) {
  const { form } = useSettings();
  return (
    <tr>
      <th scope="row">{name}</th>
      <td className="fig" data-testid={`jack-${name}`}>
        {span(window, form, digits)}
      </td>
      <td className="fig">{angleChange(to - from, form, digits)}</td>
    </tr>
  );
}

export function OnJack({ planId, axle }: { planId: string; axle: AxleName }) {
  const { unit } = useSettings();
  const [open, setOpen] = useState(false);
  const [side, setSide] = useState<SideName>('left');
  const [height, setHeight] = useState('');
  const [lean, setLean] = useState('');
  const ask = useMutation({
    mutationFn: (of: SideName) => onJack(planId, { axle, side: of, height, unit, lean }),
  });
  const problems = problemsOf(ask.error);
  const at = (f: string) => problems.find((p) => p.field === f);
  const id = useId();
  const answer: Aim | undefined = ask.data;
  const asked = ask.variables ?? side;
  if (!open)
    return (
      <div style={{ padding: '8px 18px' }}>
        <Button
          variant="outlined"
          sx={{ minHeight: 48 }}
          onClick={() => setOpen(true)}
          data-testid="jack-open"
        >
          Turned on the jack?
        </Button>
      </div>
    );
  return (
    <section className="jack-aim" data-testid="jack-aim" aria-label="Aim while jacked">
      <h2>On the jack</h2>
      <p className="small mut">
        What the {axle} wheel has to show while it hangs, so that it stands in its window once it is down and
        rolled. Stands under it, never a jack alone.
      </p>
      <form
        className="road-form"
        onSubmit={(e) => {
          e.preventDefault();
          ask.mutate(side);
        }}
      >
        <Segment
          label="Which wheel"
          value={side}
          choose={(s) => {
            setSide(s);
            ask.reset();
          }}
          choices={[
            { value: 'left', label: 'left', testid: 'jack-left' },
            { value: 'right', label: 'right', testid: 'jack-right' },
          ]}
        />
        <label>
          <span className="small">Hub to arch on the jack, {unit}</span>
          <input
            value={height}
            onChange={(e) => setHeight(e.target.value)}
            aria-invalid={!!at('height')}
            aria-describedby={at('height') ? `${id}h` : undefined}
            data-testid="jack-height"
          />
        </label>
        <label>
          <span className="small">Body leans, this side up, degrees; empty is level</span>
          <input
            value={lean}
            onChange={(e) => setLean(e.target.value)}
            aria-invalid={!!at('lean')}
            data-testid="jack-lean"
          />
        </label>
        <Button
          type="submit"
          variant="contained"
          sx={{ minHeight: 48 }}
          disabled={ask.isPending || !height.trim()}
          data-testid="jack-ask"
        >
          What to set
        </Button>
        <div id={`${id}h`}>
          {problems.map((p) => (
            <FieldError key={p.field} wrong={p.wrong} right={p.right} />
          ))}
        </div>
        {ask.error && !problems.length && <Refusal error={ask.error} />}
      </form>
      {answer && (
        <table className="jack-table" data-testid="jack-answer">
          <caption>
            <Half side={asked} size={18} /> {sideWord(asked)} {axle}, as long as it hangs there
          </caption>
          <thead>
            <tr>
              <th />
              <th>set it to</th>
              <th>goes, once down</th>
            </tr>
          </thead>
          <tbody>
            <Row
              name="camber"
              window={answer.camber_deg}
              from={answer.jack.camber_deg}
              to={answer.floor.camber_deg}
              digits={1}
            />
            {answer.caster_deg && (
              <Row
                name="caster"
                window={answer.caster_deg}
                from={answer.jack.caster_deg}
                to={answer.floor.caster_deg}
                digits={1}
              />
            )}
            <Row
              name="toe"
              window={answer.toe_deg}
              from={answer.jack.toe_deg}
              to={answer.floor.toe_deg}
              digits={2}
            />
          </tbody>
        </table>
      )}
    </section>
  );
}
