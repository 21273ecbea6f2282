// Depth at which a tyre is done: by region, or the shop's own.
import { toNumber } from '../../units/number';
import { MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import { useBench } from '../../shell/ticket';
import { num } from '../../units/print';
import { useWearData } from './data';

export function Limit({ start }: { start: number | undefined }) {
  const { draft, change } = useBench();
  const [text, setText] = useState<string>();
  const data = useWearData();
  const now = draft!.limit_mm;
  const value = text === undefined ? now : toNumber(text);
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
            {o.name}, {num(o.mm, 1)} mm
          </MenuItem>
        ))}
      </TextField>
      <TextField
        label="Limit, mm"
        size="small"
        value={text ?? String(now)}
        onChange={(e) => setText(e.target.value)}
        onBlur={() => {
          if (!bad) {
            change({ limit_mm: value });
            setText(undefined);
          }
        }}
        error={bad}
        helperText={bad ? `0.5 mm to below ${num(most, 1)} mm` : undefined}
        slotProps={{ htmlInput: { 'data-testid': 'limit' } }}
      />
      <p className="small">{chosen?.law} Check local law. Cords or belts visible: stop.</p>
    </div>
  );
}
