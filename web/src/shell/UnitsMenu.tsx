// Every unit somebody works in: lengths and angles, and what goes with them unless it is chosen by itself.
import { Bare } from '../ui/Press';
import { Button, Popover, ToggleButton, ToggleButtonGroup } from '@mui/material';
import { useState } from 'react';
import type { Own } from '../units/measure';
import { useSettings } from '../ui/settings';
import { num } from '../units/print';

const own: [keyof Own, string, [string, string][]][] = [
  [
    'pressure',
    'Pressure',
    [
      ['kpa', 'kPa'],
      ['bar', 'bar'],
      ['psi', 'psi'],
    ],
  ],
  [
    'load',
    'Load',
    [
      ['n', 'N'],
      ['kg', 'kg'],
      ['lb', 'lb'],
    ],
  ],
  [
    'distance',
    'Distance',
    [
      ['km', 'km'],
      ['miles', 'miles'],
    ],
  ],
  [
    'tread',
    'Tread',
    [
      ['mm', 'mm'],
      ['in32', '1/32 in'],
    ],
  ],
  [
    'decimal',
    'Numbers',
    [
      ['point', '1.5'],
      ['comma', '1,5'],
    ],
  ],
];

/** A row for each unit. */
export function UnitRows() {
  const s = useSettings();
  const rows: [string, string, string, [string, string][], (v: string) => void][] = [
    [
      'length',
      'Length',
      s.unit,
      [
        ['mm', 'mm'],
        ['in', 'inches'],
      ],
      (v) => s.set({ unit: v as 'mm' | 'in' }),
    ],
    [
      'angle',
      'Angle',
      s.form,
      [
        ['decimal', `${num(0, 1)}°`],
        ['minutes', '0°0′'],
      ],
      (v) => s.set({ form: v as 'decimal' | 'minutes' }),
    ],
    ...own.map(([k, word, list]): (typeof rows)[number] => [
      k,
      word,
      s.units[k],
      list,
      (v) => s.set({ own: { ...s.own, [k]: v } }),
    ]),
  ];
  return (
    <div className="units-menu">
      {rows.map(([k, word, value, list, set]) => (
        <div key={k}>
          <span>{word}</span>
          <ToggleButtonGroup
            exclusive
            size="small"
            value={value}
            aria-label={word}
            onChange={(_, v: string | null) => v && set(v)}
          >
            {list.map(([v, w]) => (
              <ToggleButton key={v} value={v} data-testid={`units-${k}-${v}`}>
                {w}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        </div>
      ))}
      <p className="small">
        {Object.keys(s.own).length
          ? 'Pressure, load, distance, tread and numbers: as chosen.'
          : 'Pressure, load, distance and tread go with the length, numbers with this browser, until one is chosen.'}
      </p>
      {Object.keys(s.own).length > 0 && (
        <Button size="small" variant="outlined" onClick={() => s.set({ own: {} })} data-testid="units-follow">
          As usual again
        </Button>
      )}
    </div>
  );
}

export function UnitsMenu() {
  const [at, setAt] = useState<HTMLElement>();
  return (
    <>
      <Bare
        className="units-open"
        onClick={(e) => setAt(e.currentTarget)}
        aria-haspopup="dialog"
        aria-expanded={!!at}
        data-testid="units"
      >
        Units
      </Bare>
      <Popover
        open={!!at}
        anchorEl={at ?? null}
        onClose={() => setAt(undefined)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'right' }}
        transformOrigin={{ vertical: 'top', horizontal: 'right' }}
      >
        <div role="dialog" aria-label="Units">
          <UnitRows />
        </div>
      </Popover>
    </>
  );
}
