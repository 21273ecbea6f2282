// Depth at which a tyre is done: by region, or the shop's own.
import { MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import { useBench } from '../../shell/ticket';
import { MeasureField } from '../../input/Field';
import { readField } from '../../input/kinds';
import { useSettings } from '../../ui/settings';
import { fieldText, measure } from '../../units/measure';
import { useWearData } from '../../shell/tread';

export function Limit({ start }: { start: number | undefined }) {
  const { draft, change } = useBench();
  const [text, setText] = useState<string>();
  const { units } = useSettings();
  const data = useWearData();
  const now = draft!.limit_mm;
  const value = text === undefined ? now : (readField('tread', text, units) ?? NaN);
  const most = start ?? 20;
  const bad = !Number.isFinite(value) || value < 0.5 || value >= most;
  const options = (data.data?.limits ?? []).flatMap((l) => [
    { id: l.id, name: l.name, mm: l.limit_mm, law: `${l.law} ${l.advice}` },
    { id: `${l.id}-winter`, name: `${l.name}, winter`, mm: l.winter_mm, law: `${l.law} ${l.advice}` },
  ]);
  const chosen = options.find((o) => Math.abs(o.mm - now) < 1e-6);
  return (
    <div className="limit-row">
      <TextField
        select
        size="small"
        label="Whose limit"
        value={chosen?.id ?? 'own'}
        onChange={(e) => {
          const o = options.find((x) => x.id === e.target.value);
          if (o && o.mm < most) {
            change({ limit_mm: o.mm });
            setText(undefined);
          }
        }}
        slotProps={{ htmlInput: { 'data-testid': 'limit-whose' } }}
      >
        {!chosen && <MenuItem value="own">Own figure</MenuItem>}
        {options.map((o) => (
          <MenuItem key={o.id} value={o.id}>
            {o.name}, {measure('tread', o.mm, units)}
          </MenuItem>
        ))}
      </TextField>
      <MeasureField
        kind="tread"
        label="Limit"
        text={text ?? fieldText('tread', now, units)}
        onText={setText}
        onBlur={() => {
          if (!bad) {
            change({ limit_mm: value });
            setText(undefined);
          }
        }}
        fault={
          bad
            ? {
                wrong: Number.isFinite(value) ? measure('tread', value, units) : 'cannot be read',
                right: `${measure('tread', 0.5, units)} to below ${measure('tread', most, units)}`,
              }
            : undefined
        }
        testid="limit"
      />
      <p className="small">{chosen?.law} Check local law. Cords or belts visible: stop.</p>
    </div>
  );
}
