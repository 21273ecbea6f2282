// How it was read: choices of the method, half a turn, how the wheel stood. The same at every pad, gates too.
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
        <label className="tick">
          <input
            type="checkbox"
            checked={pad.half}
            onChange={(e) => pad.setHalf(e.target.checked)}
            data-testid="half-turn"
          />
          Half a turn on, too
        </label>
      )}
      {wheel && angles && method.quantity !== 'height' && (
        <label className="pick">
          <span className="small">Stands</span>
          <select
            value={pad.jack}
            onChange={(e) => pad.setJack(e.target.value as typeof pad.jack)}
            data-testid="jack"
          >
            <option value="rolled">on its wheels, rolled</option>
            <option value="jacked">jacked, not rolled since</option>
            <option value="one_side">a jack under the other side</option>
          </select>
        </label>
      )}
      {pad.jack === 'jacked' && (
        <label className="pick">
          <span className="small">Hub to arch on the jack, {unit}</span>
          <input
            className="field-in fig"
            value={pad.jackedHeight}
            onChange={(e) => pad.setJackedHeight(e.target.value)}
            placeholder={method.quantity === 'camber' ? 'kept beside it' : "gives this car's own figure"}
            data-testid="jacked-height"
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
      <label className="tick">
        <input
          type="checkbox"
          checked={now === 'true'}
          onChange={(e) => pad.setChoice(name, String(e.target.checked))}
          data-testid={`choice-${name}`}
        />
        {label}
      </label>
    );
  return (
    <label className="pick">
      <span className="small">{label}</span>
      <select
        value={now}
        onChange={(e) => pad.setChoice(name, e.target.value)}
        data-testid={`choice-${name}`}
      >
        {words.map((w) => (
          <option key={w} value={w}>
            {w.replace('-', ' ')}
          </option>
        ))}
      </select>
    </label>
  );
}
