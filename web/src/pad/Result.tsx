// What the reading says: the angle with its doubt, what was taken out, what looks odd, what it means.
import { Glyph } from '../ui/glyphs';
import { useSettings } from '../ui/settings';
import { minutes, num } from '../units/print';
import { doubt, isAngle, placeWords, short, show } from './readings';
import { Odd } from './Odd';
import type { PadState } from './usePad';

export function Result({ pad }: { pad: PadState }) {
  const { form, units } = useSettings();
  const p = pad.preview.data;
  const q = pad.method.quantity;
  if (!p) {
    const n = pad.missing.length;
    return (
      <div className="result" data-testid="preview">
        <p className="lab">
          {short[q]}, {placeWords(pad.place)}
        </p>
        <p className="fig" style={{ fontSize: 64, color: 'var(--ink3)' }}>
          —
        </p>
        <p className="mut">
          {pad.preview.fault
            ? 'Not yet: see the entry.'
            : pad.preview.away
              ? 'No answer from the server. Keep it: it waits here as typed and is worked out later.'
              : n > 1
                ? `${n} more numbers`
                : n
                  ? 'One number to go'
                  : 'Working it out'}
        </p>
      </div>
    );
  }
  const t = p.taken;
  const total = t.doubt.reduce((a, d) => a + d.sigma * d.sigma, 0) || 1;
  const fills = ['var(--ink)', 'var(--edge)', 'var(--line)', 'var(--well)'];
  const parts = t.doubt.slice(0, 3);
  const rest = 1 - parts.reduce((a, d) => a + (d.sigma * d.sigma) / total, 0);
  return (
    <div
      className="result"
      data-testid="preview"
      aria-live="polite"
      style={{ opacity: pad.preview.fresh ? 1 : 0.35 }}
    >
      <p className="lab">
        {short[q]}, {placeWords(pad.place)}
      </p>
      <div style={{ display: 'flex', alignItems: 'baseline', gap: 10, flexWrap: 'wrap' }}>
        <span className="fig" style={{ fontSize: 62, fontWeight: 800 }} data-testid="result-value">
          {show(q, t.value, units, q !== 'caster')}
        </span>
        <span className="fig mut" style={{ fontSize: 30, fontWeight: 600 }} data-testid="result-sigma">
          {doubt(q, t.sigma, units)}
        </span>
      </div>
      <p style={{ fontWeight: 650 }}>
        {t.words}
        {isAngle(q) && (
          <span className="mut" style={{ fontWeight: 400 }}>
            {' · '}
            {form === 'minutes' ? `${num(t.value, 2)}°` : minutes(t.value)}
          </span>
        )}
      </p>
      <svg
        viewBox="0 0 300 12"
        width="100%"
        height="10"
        preserveAspectRatio="none"
        style={{ margin: '8px 0 4px' }}
        aria-hidden="true"
      >
        {
          [...parts.map((d) => (d.sigma * d.sigma) / total), rest].reduce<{
            x: number;
            out: React.ReactNode[];
          }>(
            (acc, share, i) => {
              acc.out.push(
                <rect
                  key={i}
                  x={acc.x}
                  y="0"
                  width={Math.max(0, share * 300 - 2)}
                  height="12"
                  fill={fills[i]}
                  stroke="var(--edge)"
                  strokeWidth=".8"
                />,
              );
              return { x: acc.x + share * 300, out: acc.out };
            },
            { x: 0, out: [] },
          ).out
        }
      </svg>
      <ol className="doubts">
        {parts.map((d, i) => (
          <li key={d.name} className="small">
            <i style={{ background: fills[i] }} aria-hidden="true" />
            {d.name} <b>{doubt(q, d.sigma, units)}</b>
          </li>
        ))}
      </ol>
    </div>
  );
}

/** The same in two lines under the number, where the rest is a pane away. */
export function ResultLine({ pad }: { pad: PadState }) {
  const { units } = useSettings();
  const p = pad.preview.data;
  const q = pad.method.quantity;
  // Nothing is said of what is still being typed.
  if (!p || !pad.preview.fresh) return null;
  const in_ = p.taken.corrections.filter((c) => c.applied);
  const odd = p.suspicions[0];
  return (
    <div className="result-line" data-testid="result-line">
      <p>
        <b className="fig">
          {show(q, p.taken.value, units, q !== 'caster')} {doubt(q, p.taken.sigma, units)}
        </b>{' '}
        <span className="small">
          {in_.length ? in_.map((c) => c.label.toLowerCase()).join(', ') : 'nothing taken out'}
        </span>
      </p>
      {odd && (
        <p className="small">
          <Glyph name="watch" size={15} /> {odd.says}
        </p>
      )}
    </div>
  );
}

/** What it means, what was corrected, what looks odd. */
export function Meaning({ pad }: { pad: PadState }) {
  const { units } = useSettings();
  const p = pad.preview.data;
  const q = pad.method.quantity;
  const shown = (v: number) => show(q, v, units, true);
  return (
    <div className="meaning">
      {p?.suspicions.map((s) => (
        <Odd key={s.rule} of={s} />
      ))}
      {p?.taken.against_aim && (
        <p data-testid="against-aim" style={{ display: 'flex', gap: 8 }}>
          <Glyph name={p.taken.against_aim.inside ? 'aim' : 'short'} size={18} />
          {p.taken.against_aim.says}
        </p>
      )}
      {p?.expected && (
        <p className="small mut">
          Model expects {show(q, p.expected.value, units)} {doubt(q, p.expected.sigma, units)}
          {p.expected.anchored ? ', from the visit before' : ', from the points'}.
        </p>
      )}
      {p?.taken.corrections.map((c) => (
        <details key={c.kind} className="corrected" data-testid={`correction-${c.kind}`}>
          <summary>
            <Glyph name={c.applied ? 'done' : 'none'} size={16} />
            <span>{c.label}</span>
            <b>{c.applied ? `${c.amount > 0 ? '+' : ''}${shown(c.amount)}` : 'not in'}</b>
          </summary>
          <p className="small">
            {c.why} <span className="mut">Arithmetic version {c.version}.</span>
          </p>
        </details>
      ))}
      {p?.taken.also.map((a) => (
        <p key={a.name} className="small">
          {a.label} <b>{show(a.name.endsWith('_deg') ? 'camber' : 'height', a.value, units, true)}</b>
        </p>
      ))}
      {p?.taken.notes
        .filter((n) => !p.taken.corrections.some((c) => c.label === n))
        .map((n) => (
          <p key={n} className="small mut">
            {n}
          </p>
        ))}
    </div>
  );
}
