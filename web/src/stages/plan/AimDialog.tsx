// The aim: three schools with their reasons, and windows to edit.
import { Button, Dialog, TextField } from '@mui/material';
import { useState } from 'react';
import type { Aim } from '../../api/client';
import { Glyph } from '../../shell/glyphs';
import { useShop } from '../../shell/ticket';
import { num } from '../../units/print';

type WindowName = 'camber_deg' | 'caster_deg' | 'toe_total_deg';
const rows: [WindowName, string, number, number][] = [
  ['camber_deg', 'Camber, each side', -12, 12],
  ['caster_deg', 'Caster, each side', -10, 20],
  ['toe_total_deg', 'Toe, total, in positive', -6, 6],
];

const plain = (t: string) =>
  /^[+-]?\d{1,3}([.,]\d{1,4})?$/.test(t.trim().replace('−', '-'))
    ? Number(t.trim().replace('−', '-').replace(',', '.'))
    : undefined;

export function AimDialog({
  open,
  aim,
  close,
  keep,
}: {
  open: boolean;
  aim: Aim;
  close: () => void;
  keep: (a: Aim) => void;
}) {
  const shop = useShop();
  const [edit, setEdit] = useState<{ from: Aim; text: Record<string, string> }>();
  const now = edit ?? { from: aim, text: {} };
  const text = (w: WindowName, i: number) =>
    now.text[`${w}.${i}`] ?? num(now.from[w][i] ?? 0, 2).replace('−', '-');
  const set = (w: WindowName, i: number, t: string) =>
    setEdit({ from: now.from, text: { ...now.text, [`${w}.${i}`]: t } });
  const fault = (w: WindowName, low: number, high: number): string | undefined => {
    const v = [0, 1].map((i) => plain(text(w, i)));
    if (v.some((x) => x === undefined)) return 'Not a number: degrees such as -0.3';
    if (v.some((x) => x! < low || x! > high)) return `Outside ${low} to ${high}°`;
    if (v[0]! > v[1]!) return 'Runs backwards: low end first';
    return undefined;
  };
  const bad = rows.some(([w, , l, h]) => fault(w, l, h));
  const done = () => {
    const out: Aim = { ...now.from };
    for (const [w] of rows) out[w] = [plain(text(w, 0)) ?? 0, plain(text(w, 1)) ?? 0];
    keep(out);
    setEdit(undefined);
    close();
  };
  return (
    <Dialog open={open} onClose={close} maxWidth="md" aria-labelledby="aim-title">
      <div style={{ padding: 22 }}>
        <h2 id="aim-title">What is wanted</h2>
        <div
          style={{
            display: 'grid',
            gridTemplateColumns: 'repeat(auto-fit,minmax(200px,1fr))',
            gap: 10,
            margin: '14px 0 18px',
          }}
        >
          {(shop.data?.aims ?? []).map((a) => {
            const on = now.from.id === a.id;
            return (
              <button
                key={a.id}
                type="button"
                className="bare"
                aria-pressed={on}
                data-testid={`aim-${a.id}`}
                onClick={() => setEdit({ from: a, text: {} })}
                style={{
                  border: on ? '3px solid var(--ink)' : '1.5px solid var(--edge)',
                  borderRadius: 6,
                  padding: 12,
                }}
              >
                <span className="word">
                  <Glyph name={on ? 'aim' : 'unread'} size={18} /> {a.name}
                </span>
                <span className="small mut" style={{ display: 'block', marginTop: 6 }}>
                  {a.reason}
                </span>
              </button>
            );
          })}
        </div>
        <div
          style={{
            display: 'grid',
            gridTemplateColumns: '1fr 130px 130px',
            gap: '10px 12px',
            alignItems: 'center',
          }}
        >
          {rows.map(([w, label, l, h]) => {
            const f = fault(w, l, h);
            return (
              <div key={w} style={{ display: 'contents' }}>
                <span>
                  <b>{label}</b>
                  {f && (
                    <span className="small" role="alert" style={{ display: 'block' }}>
                      {f}
                    </span>
                  )}
                </span>
                {[0, 1].map((i) => (
                  <TextField
                    key={i}
                    value={text(w, i)}
                    onChange={(e) => set(w, i, e.target.value)}
                    error={!!f}
                    label={i ? 'to, °' : 'from, °'}
                    slotProps={{ htmlInput: { inputMode: 'decimal', 'data-testid': `${w}-${i}` } }}
                  />
                ))}
              </div>
            );
          })}
        </div>
        <p className="small mut" style={{ margin: '12px 0' }}>
          Left to right at most: camber {num(now.from.cross_camber_deg, 1)}°, caster{' '}
          {num(now.from.cross_caster_deg, 1)}°.
        </p>
        <div style={{ display: 'flex', gap: 10, justifyContent: 'flex-end' }}>
          <Button
            variant="outlined"
            onClick={() => {
              setEdit(undefined);
              close();
            }}
          >
            Leave
          </Button>
          <Button variant="contained" disabled={bad} onClick={done} data-testid="aim-keep">
            Use this aim
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
