// The number being typed, large, with keys for greasy hands; a ruler for inches, the gauge for angles.
import { usePhone } from '../ui/phone';
import { ResultLine } from './Result';
import { Plain } from '../ui/Press';
import { Button } from '@mui/material';
import { useEffect, useRef } from 'react';
import { ApiProblem } from '../api/client';
import { FieldError, Refusal } from '../shell/Fault';
import { Half, Inches } from '../ui/glyphs';
import { MM_PER_INCH, num } from '../units/print';
import { isAngle, placeWords, positive, short, show, sideOf } from './readings';
import { GaugeBar } from './GaugeBar';
import { useSettings } from '../ui/settings';
import { readLength } from '../units/notation';
import { Ruler, inchText } from './Ruler';
import { HALF, type PadState } from './usePad';

interface Props {
  pad: PadState;
  compact?: boolean;
  /** Back to the order of the visit, where the list beside the pad is a pane away. */
  back?: () => void;
}

export function PadKeys({ pad, compact, back }: Props) {
  const phone = usePhone();
  const { active, unit, method, target, preview } = pad;
  const { units } = useSettings();
  const input = useRef<HTMLInputElement>(null);
  const e = pad.info(active);
  const length = e?.kind === 'length';
  const angleLike = e?.kind === 'angle' || e?.kind === 'toe';
  const text = pad.now(active);
  useEffect(() => input.current?.focus(), [active, method.id]);
  const press = (k: string) => {
    if (k === '⌫') pad.set((t) => t.slice(0, -1));
    else if (k === '±') pad.set((t) => (/^[-−]/.test(t) ? t.slice(1) : `-${t}`));
    else if (k === '+1/16' || k === '−1/16')
      pad.set((t) => inchText((readLength(t, unit) ?? 0) + ((k === '+1/16' ? 1 : -1) * MM_PER_INCH) / 16));
    else if (k === '+½ mm' || k === '−½ mm')
      pad.set((t) =>
        String(Math.round(((readLength(t, 'mm') ?? 0) + (k === '+½ mm' ? 0.5 : -0.5)) * 10) / 10),
      );
    else pad.set((t) => t + k);
    input.current?.focus();
  };
  const right = length
    ? unit === 'in'
      ? ['/', ' ', '+1/16', '−1/16']
      : ['+½ mm', '−½ mm', ' ', '/']
    : angleLike
      ? ['°', "'", '±', ' ']
      : ['/', ' ', ' in', '±'];
  const keys = [
    '7',
    '8',
    '9',
    right[0]!,
    '4',
    '5',
    '6',
    right[1]!,
    '1',
    '2',
    '3',
    right[2]!,
    '.',
    '0',
    '⌫',
    length ? '±' : right[3]!,
  ];
  const mm = length ? readLength(text, unit) : undefined;
  const fault = preview.fault?.problems.find((p) => p.field === active) ?? preview.fault?.problems[0];
  const saveFault = pad.keep.error instanceof ApiProblem ? pad.keep.error : undefined;
  const repeat = (pad.lists[active] ?? []).filter((x) => x.text.trim()).length;
  // Enter counts at once: the server looks at what is kept anyway.
  const go = () => {
    if (pad.keep.isPending) return;
    if (pad.next && pad.missing.length) pad.setActive(pad.next);
    else if (pad.ready) pad.keep.mutate();
  };
  const latest = useRef({ press, go });
  latest.current = { press, go };
  useEffect(() => {
    // Typed with the focus anywhere but in a field, it is meant for the pad; no digit opens another stage here.
    const on = (x: KeyboardEvent) => {
      const t = x.target as HTMLElement;
      const elsewhere = /^(INPUT|TEXTAREA|SELECT)$/.test(t.tagName) || x.ctrlKey || x.metaKey || x.altKey;
      const button = /^(BUTTON|A)$/.test(t.tagName) && t.tabIndex !== -1;
      if (elsewhere || (button && (x.key === 'Enter' || x.key === ' '))) return;
      if (x.key === 'Enter') latest.current.go();
      else if (x.key === 'Backspace') latest.current.press('⌫');
      else if (/^[\d.,/+°'-]$/.test(x.key)) latest.current.press(x.key);
      else return;
      x.preventDefault();
      x.stopImmediatePropagation();
    };
    window.addEventListener('keydown', on, true);
    return () => window.removeEventListener('keydown', on, true);
  }, []);
  const value = preview.data?.taken;
  const q = method.quantity;
  return (
    <section className="pane pad" data-pane="Pad" aria-label="Reading pad">
      <div className="pad-head">
        {phone && back && (
          <Button
            variant="outlined"
            onClick={back}
            aria-label="All readings"
            data-testid="pad-back-here"
            sx={{ flex: 'none', minWidth: 48, px: 0 }}
          >
            ◂
          </Button>
        )}
        <div style={{ minWidth: 0, flex: 1 }}>
          <h2 data-testid="pad-title">
            {compact && <Half side={sideOf(target.place)} size={24} />}
            {e?.label ?? short[q]}
            {active.endsWith(HALF) ? ', half a turn on' : ''}
          </h2>
          <p className="small mut" style={{ marginTop: 4 }}>
            {short[q]}, {placeWords(pad.place)}
            {repeat > 1 ? ` · reading ${repeat}` : ''}
            {isAngle(q) && positive[q] && numbersAreValue(active) ? ` · ${positive[q]}` : ''}
          </p>
        </div>
        <Button
          variant="outlined"
          onClick={pad.again}
          disabled={!text.trim()}
          data-testid="again"
          sx={{ flex: 'none' }}
        >
          Once more
        </Button>
      </div>
      <div className="number">
        <input
          ref={input}
          className="fig entry"
          data-testid="entry"
          aria-label={e?.label}
          value={text}
          placeholder="—"
          autoComplete="off"
          inputMode="none"
          onChange={(x) => pad.set(() => x.target.value)}
          onKeyDown={(x) => {
            if (x.key === 'Enter') go();
          }}
        />
        <span className="fig" style={{ fontSize: 32, fontWeight: 650 }}>
          {length ? unit : e?.kind === 'nominal' ? 'in' : e?.kind === 'pressure' ? '' : '°'}
        </span>
        {mm !== undefined && (
          <span className="fig other">
            {unit === 'mm' ? (
              <>
                <Inches mm={mm} /> in
              </>
            ) : (
              `${num(mm, 1)} mm`
            )}
          </span>
        )}
      </div>
      {!compact && length && unit === 'in' && mm !== undefined && Math.abs(mm) < 3000 && (
        <Ruler mm={mm} change={(v) => pad.set(() => inchText(v))} />
      )}
      {!compact && e?.live && <GaugeBar pad={pad} />}
      {/* Its room is always there, so that no key moves when something is said. */}
      <div className="pad-says" data-testid="pad-fault" aria-live="polite">
        {saveFault?.problems[0] ? (
          <FieldError wrong={saveFault.problems[0].wrong} right={saveFault.problems[0].right} />
        ) : saveFault ? (
          <Refusal error={saveFault} />
        ) : fault ? (
          <FieldError wrong={fault.wrong} right={fault.right} />
        ) : (
          phone && <ResultLine pad={pad} />
        )}
      </div>
      <div className="keys">
        {keys.map((k, i) => (
          <Plain key={`${k}${i}`} tabIndex={-1} className="fig" aria-label={name(k)} onClick={() => press(k)}>
            {k === ' ' ? '␣' : k === "'" ? '′' : k}
          </Plain>
        ))}
      </div>
      <div style={{ display: 'flex', gap: 10, marginTop: 'auto', paddingTop: 12 }}>
        <Button
          variant="contained"
          fullWidth
          sx={{ minHeight: 64, fontSize: 19 }}
          disabled={pad.keep.isPending || (pad.missing.length ? !text.trim() : !pad.ready || !!preview.fault)}
          onClick={go}
          data-testid="keep"
        >
          {pad.missing.length
            ? text.trim() && pad.next
              ? `Next: ${(pad.info(pad.next)?.label ?? '').toLowerCase()}${pad.next.endsWith(HALF) ? ', half a turn on' : ''}`
              : 'Type the reading'
            : value && preview.fresh
              ? `Keep ${show(q, value.value, units, true)}`
              : 'Keep it'}
        </Button>
      </div>
    </section>
  );
}

/** Whether the entry is the value itself, so that its sign means something. */
const numbersAreValue = (name: string) =>
  ['angle', 'value', 'first', 'second'].includes(name.replace(HALF, ''));

const names: Record<string, string> = {
  '⌫': 'delete',
  '±': 'change sign',
  ' ': 'space',
  "'": 'minutes',
  '°': 'degrees',
};
const name = (k: string) => names[k] ?? k;
