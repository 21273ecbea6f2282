// How it was read: choices of the method, half a turn, how the wheel stood. The same at every pad, gates too.
import { LineInput } from '../ui/LineInput';
import { Pick } from '../ui/Pick';
import { Tick } from '../ui/Tick';
import { useSettings } from '../ui/settings';
import type { PadState } from './usePad';

export function PadFacts({ pad }: { pad: PadState }) {
  const { unit } = useSettings();
  const { method } = pad;
  const wheel = pad.place.side !== 'both' && pad.place.axle !== 'both';
  const angles = ['camber', 'caster', 'toe', 'height'].includes(method.quantity);
  return (
    <div className="pad-facts">
      {method.entries
        .filter((e) => e.kind === 'choice' && !e.hidden)
        .map((e) => (
          <Choice
            key={e.name}
            pad={pad}
            name={e.name}
            label={e.label}
            words={e.choices ?? []}
            usual={e.usual ?? e.choices?.[0] ?? ''}
          />
        ))}
      {method.half_turn && (
        <Tick on={pad.half} set={pad.setHalf} testid="half-turn">
          Half a turn on, too
        </Tick>
      )}
      {wheel && angles && method.quantity !== 'height' && (
        <Pick
          label="Stands"
          value={pad.jack}
          pick={pad.setJack}
          testid="jack"
          list={[
            { value: 'rolled', words: 'on its wheels, rolled' },
            { value: 'jacked', words: 'jacked, not rolled since' },
            { value: 'one_side', words: 'a jack under the other side' },
            { value: 'wheel_off', words: 'wheel off, hub held up' },
          ]}
        />
      )}
      {(pad.jack === 'jacked' || pad.jack === 'wheel_off') && (
        <label className="pick">
          <span className="small">
            {pad.jack === 'jacked' ? 'Hub to arch on the jack' : 'Hub to arch as it is held'}, {unit}
          </span>
          <LineInput
            value={pad.jackedHeight}
            onChange={(e) => pad.setJackedHeight(e.target.value)}
            placeholder={
              method.quantity === 'camber' && pad.jack === 'jacked'
                ? 'kept beside it'
                : "gives this car's own figure"
            }
            testid="jacked-height"
          />
        </label>
      )}
    </div>
  );
}

function Choice({
  pad,
  name,
  label,
  words,
  usual,
}: {
  pad: PadState;
  name: string;
  label: string;
  words: string[];
  usual: string;
}) {
  const now = pad.choices[name] ?? usual;
  if (words.join() === 'false,true')
    return (
      <Tick on={now === 'true'} set={(on) => pad.setChoice(name, String(on))} testid={`choice-${name}`}>
        {label}
      </Tick>
    );
  return (
    <Pick
      label={label}
      value={now}
      pick={(v) => pad.setChoice(name, v)}
      testid={`choice-${name}`}
      list={words.map((w) => ({ value: w, words: w.replace('-', ' ') }))}
    />
  );
}
