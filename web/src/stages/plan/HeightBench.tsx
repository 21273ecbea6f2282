// The height change: by number, by steps, by dragging a curve; mm or inches as typed.
import { Segment } from '../../ui/Segment';
import { Bare, ChipButton, Plain } from '../../ui/Press';
import { readLength } from '../../units/notation';
import { useEffect, useState, type ReactNode } from 'react';
import { FieldError } from '../../shell/Fault';
import { Inches } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import type { PlanResult } from '../../api/client';
import type { AxleName } from '../../api/client';
import type { Bench } from '../../shell/ticket';
import { MM_PER_INCH, signed } from '../../units/print';
import { HeightDialog } from './HeightDialog';

export function HeightBench({
  bench,
  axle,
  setAxle,
  result,
  mm,
  onHeight,
  children,
}: {
  bench: Bench;
  axle: AxleName;
  setAxle: (a: AxleName) => void;
  result: PlanResult;
  mm: number;
  onHeight: (mm: number) => void;
  children: ReactNode;
}) {
  const { unit } = useSettings();
  const [ways, setWays] = useState(false);
  const [typed, setTyped] = useState<string>();
  useEffect(() => setTyped(undefined), [mm, unit]);
  const value = typed === undefined ? undefined : readLength(typed, unit);
  const wrong = typed !== undefined && typed.trim() !== '' && typed.trim() !== '-' && value === undefined;
  const wild = value !== undefined && Math.abs(value) > 300;
  const keep = () => {
    if (value !== undefined && !wild) {
      onHeight(value);
      setTyped(undefined);
    }
  };
  const step = unit === 'mm' ? 5 : MM_PER_INCH / 4;
  const stop = result.stop;
  return (
    <div className="height-bench">
      <div style={{ width: 160, flex: 'none' }}>
        <Segment
          label="Axle"
          className="axle-seg"
          value={axle}
          choose={setAxle}
          choices={(['front', 'rear'] as const).map((a) => ({
            value: a,
            label: a === 'front' ? 'Front' : 'Rear',
            testid: `axle-${a}`,
          }))}
        />
        <label>
          <span className="vh">Height change in {unit}</span>
          <span
            style={{ display: 'flex', alignItems: 'baseline', gap: 6, borderBottom: '3px solid var(--ink)' }}
          >
            <input
              className="fig"
              inputMode="text"
              data-testid="height-input"
              value={
                typed ??
                (unit === 'mm'
                  ? signed(mm)
                  : `${mm > 0 ? '+' : ''}${(Math.round((mm / MM_PER_INCH) * 16) / 16).toString().replace('-', '−')}`)
              }
              onChange={(e) => setTyped(e.target.value)}
              onFocus={(e) => e.target.select()}
              onBlur={keep}
              onKeyDown={(e) => e.key === 'Enter' && keep()}
              aria-invalid={wrong || wild}
              style={{
                fontSize: 52,
                fontWeight: 800,
                width: 116,
                border: 0,
                background: 'transparent',
                color: 'var(--ink)',
                padding: 0,
              }}
            />
            <span className="fig" style={{ fontSize: 24, fontWeight: 650, color: 'var(--ink2)' }}>
              {unit}
            </span>
          </span>
        </label>
        <div
          className="fig mut"
          style={{
            fontSize: 22,
            fontWeight: 600,
            display: 'flex',
            justifyContent: 'space-between',
            alignItems: 'center',
            gap: 8,
          }}
        >
          {unit === 'mm' ? (
            <span>
              <Inches mm={mm} sign /> in
            </span>
          ) : (
            <span>{signed(mm)} mm</span>
          )}
          <Bare className="ways-link" onClick={() => setWays(true)} data-testid="height-ways">
            Ways…
          </Bare>
        </div>
        <div style={{ display: 'flex', gap: 8 }}>
          {[-1, 1].map((d) => (
            <Plain
              key={d}
              className="fig"
              data-testid={d < 0 ? 'height-down' : 'height-up'}
              onClick={() => onHeight(mm + d * step)}
              style={{
                width: 72,
                height: 52,
                border: '1.5px solid var(--edge)',
                borderRadius: 6,
                background: 'transparent',
                fontSize: 27,
                cursor: 'pointer',
              }}
            >
              {d < 0 ? '−' : '+'}
              {unit === 'mm' ? 5 : <span className="frac">1/4</span>}
            </Plain>
          ))}
        </div>
        {bench.undo && (
          <ChipButton size="small" onClick={bench.undo} data-testid="plan-undo">
            Undo the last change
          </ChipButton>
        )}
      </div>
      {children}
      {ways && <HeightDialog bench={bench} axle={axle} close={() => setWays(false)} />}
      {(wrong || wild || stop) && (
        <div
          style={{
            position: 'absolute',
            left: 184,
            bottom: 6,
            right: 16,
            background: 'var(--sheet)',
            zIndex: 1,
          }}
          data-testid="height-error"
        >
          {wrong && (
            <FieldError wrong={`“${typed}” is no height`} right="a change such as +65, −40 mm or 2 9/16 in" />
          )}
          {wild && <FieldError wrong="No suspension moves that far" right="a change from −300 to +300 mm" />}
          {!wrong && !wild && stop && (
            <span className="plate">
              {stop.words} Shown at {signed(stop.used_mm)} mm.
            </span>
          )}
        </div>
      )}
    </div>
  );
}
