// Every entry of the reading: what was typed, how repeats lie, which is out of the mean.
import { Bare, Plain } from '../../ui/Press';
import { Glyph } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { measure } from '../../units/measure';
import { MM_PER_INCH, num } from '../../units/print';
import type { Schemas } from '../../api/client';
import { HALF, mustType, type PadState } from '../../pad/usePad';

type Repeats = Schemas['Repeats'];

function Dots({ r }: { r: Repeats }) {
  const low = Math.min(...r.values);
  const high = Math.max(...r.values);
  const pad = Math.max((high - low) * 0.25, 0.25);
  const x = (v: number) => 14 + ((v - low + pad) / (high - low + 2 * pad)) * 192;
  const seen: number[] = [];
  return (
    <svg viewBox="0 0 220 44" width="100%" height="40" aria-hidden="true">
      <path d="M6 34H214" stroke="var(--edge)" strokeWidth="1.5" />
      <path d={`M${x(r.mean)} 28V40`} stroke="var(--ink)" strokeWidth="2" />
      {r.values.map((v, i) => {
        const stack = seen.filter((s) => Math.abs(x(s) - x(v)) < 11).length;
        seen.push(v);
        return (
          <circle
            key={i}
            cx={x(v)}
            cy={27 - 12 * stack}
            r="5.6"
            fill={r.counts[i] ? (i === r.values.length - 1 ? 'var(--do)' : 'var(--ink)') : 'none'}
            stroke="var(--ink)"
            strokeWidth="1.8"
            strokeDasharray={r.counts[i] ? undefined : '3 2'}
          />
        );
      })}
    </svg>
  );
}

export function Spread({ pad }: { pad: PadState }) {
  const { unit, units } = useSettings();
  const repeats = pad.preview.data?.taken.repeats ?? [];
  return (
    <div className="spread">
      {pad.names.map((n) => {
        const e = pad.info(n);
        if (!e) return null;
        const list = (pad.lists[n] ?? []).filter((x) => x.text.trim());
        const r = repeats.find((x) => x.name === n);
        const on = n === pad.active;
        // What the server filled in from the car, as it says.
        const filled = pad.preview.data?.taken.notes
          .find((x) => x.startsWith(`${e.label.toLowerCase()} `) && x.endsWith(', from the car'))
          ?.slice(e.label.length + 1)
          .replace(', from the car', '');
        return (
          <div key={n} className={`spread-cell ${on ? 'on' : ''} ${list.length > 1 ? 'many' : ''}`}>
            <Bare onClick={() => pad.setActive(n)} aria-pressed={on} data-testid={`entry-${n}`}>
              <b>
                {e.label}
                {n.endsWith(HALF) ? ', half a turn on' : ''}
              </b>
              <span className="fig" style={{ fontSize: 26 }}>
                {list.length
                  ? list.at(-1)!.text
                  : e.from_car
                    ? (filled ?? 'from the car')
                    : mustType(e)
                      ? '—'
                      : 'optional'}
              </span>
            </Bare>
            {r && list.length > 1 && (
              <>
                <Dots r={r} />
                <div className="chips">
                  {list.map((x, i) => (
                    <Plain
                      key={i}
                      className="repeat"
                      aria-pressed={x.dropped}
                      onClick={() => pad.drop(n, i)}
                      data-testid={`repeat-${n}-${i}`}
                      aria-label={x.dropped ? `Keep ${x.text} again` : `Drop ${x.text}`}
                    >
                      <Glyph name={x.dropped ? 'unread' : r.odd === i ? 'watch' : 'done'} size={13} />
                      <span style={{ textDecoration: x.dropped ? 'line-through' : 'none' }}>{x.text}</span>
                    </Plain>
                  ))}
                  <span className="small mut">
                    spread{' '}
                    {e.kind === 'length'
                      ? `${num(unit === 'mm' ? r.spread : r.spread / MM_PER_INCH, unit === 'mm' ? 2 : 3)} ${unit}`
                      : e.kind === 'pressure'
                        ? measure('pressure', r.spread, units)
                        : `${num(r.spread, 2)}°`}
                  </span>
                </div>
              </>
            )}
          </div>
        );
      })}
    </div>
  );
}
