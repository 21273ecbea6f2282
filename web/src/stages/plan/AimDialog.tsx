// The aim: nine schools with their reasons, both sides of their disagreements, windows to edit, own aims to keep.
import { Tick } from '../../ui/Tick';
import { Segment } from '../../ui/Segment';
import { Pick } from '../../ui/Pick';
import { Bare, ChipButton } from '../../ui/Press';
import { listAims, keepAim, readAimWindow, removeAim } from '../../api/calls';
import { useSettings } from '../../ui/settings';
import { readAngle } from '../../units/notation';
import { Button, Dialog, TextField } from '@mui/material';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem, type Aim, type Schemas } from '../../api/client';
import { FieldError } from '../../shell/Fault';
import { Unkept, useTyped } from '../../shell/Unkept';
import { Glyph } from '../../ui/glyphs';
import { angle } from '../../units/print';

type WindowName = 'camber_deg' | 'caster_deg' | 'toe_total_deg' | 'rear_camber_deg' | 'rear_toe_total_deg';
type CrossName = 'cross_camber_deg' | 'cross_caster_deg';
const rows: [WindowName, string, number, number, number[]][] = [
  ['camber_deg', 'Front camber, each side', -12, 12, [0, 0]],
  ['caster_deg', 'Caster, each side', -10, 20, [0, 0]],
  ['toe_total_deg', 'Front toe, total, in positive', -6, 6, [0, 0]],
  ['rear_camber_deg', 'Rear camber, each side', -12, 12, [-1.5, 0]],
  ['rear_toe_total_deg', 'Rear toe, total, in positive', -6, 6, [0, 0.3]],
];
const crosses: [CrossName, string][] = [
  ['cross_camber_deg', 'Left to right camber, at most'],
  ['cross_caster_deg', 'Left to right caster, at most'],
];
const judged: [Schemas['JudgedAt'], string][] = [
  ['planned', 'as it leaves'],
  ['settled', 'settled'],
  ['loaded', 'loaded'],
];

/** Whether an aim follows a view: every window and limit the view names is the aim's. */
function holds(a: Aim, c: Schemas['Choice']): boolean {
  const alike = (x: readonly number[] | null | undefined, y: readonly number[]) =>
    !x || x.every((v, i) => Math.abs(v - y[i]!) < 1e-9);
  return (
    alike(c.camber_deg, a.camber_deg) &&
    alike(c.caster_deg, a.caster_deg) &&
    (c.cross_caster_deg == null || Math.abs(c.cross_caster_deg - a.cross_caster_deg) < 1e-9) &&
    (c.judged_at == null || c.judged_at === (a.judged_at ?? 'planned'))
  );
}

const onSheet: ['camber' | 'caster' | 'total_toe', WindowName, string][] = [
  ['camber', 'camber_deg', 'Front camber'],
  ['caster', 'caster_deg', 'Caster'],
  ['total_toe', 'toe_total_deg', 'Front toe'],
  ['camber', 'rear_camber_deg', 'Rear camber'],
  ['total_toe', 'rear_toe_total_deg', 'Rear toe'],
];

/** A window as the maker's sheet has it: inches over a rim, millimetres of toe, degrees and minutes. */
function AsOnSheet({ tyreMm, put }: { tyreMm: number; put: (w: WindowName, v: [number, number]) => void }) {
  const [which, setWhich] = useState<WindowName>('toe_total_deg');
  const [text, setText] = useState('');
  const quantity = onSheet.find(([, w]) => w === which)![0];
  const look = useMutation({
    mutationFn: () => readAimWindow({ quantity, text, tyre_diameter_mm: tyreMm }),
    onSuccess: (r) => {
      put(which, r.window_deg as [number, number]);
      setText('');
    },
  });
  const fault = look.error instanceof ApiProblem ? look.error.problems[0] : undefined;
  return (
    <div style={{ display: 'flex', gap: 8, alignItems: 'flex-start', flexWrap: 'wrap', flex: 1 }}>
      <Pick
        label="Maker's"
        value={which}
        pick={setWhich}
        list={onSheet.map(([, value, words]) => ({ value, words }))}
        testid="sheet-which"
      />
      <TextField
        label="As the maker's sheet has it"
        value={text}
        onChange={(e) => {
          look.reset();
          setText(e.target.value);
        }}
        error={!!fault}
        helperText={
          fault ? `${fault.wrong}; ${fault.right}` : "7/16 ± 1/4 in over 17 in · 1 to 3 mm · 0°30' ± 45'"
        }
        slotProps={{ htmlInput: { 'data-testid': 'sheet-window', maxLength: 60 } }}
        sx={{ minWidth: 270, flex: 1 }}
      />
      <Button
        variant="outlined"
        disabled={!text.trim() || look.isPending}
        onClick={() => look.mutate()}
        data-testid="sheet-use"
      >
        Put it in
      </Button>
    </div>
  );
}

/** The right front where it is aimed otherwise than the left: by how much. */
function RightApart({ aim, change }: { aim: Aim; change: (right: Schemas['RightAim'] | null) => void }) {
  const { form } = useSettings();
  const written = (deg: number) => angle(deg, form, 2).replace('−', '-').replace(/°$/, '');
  const less = (k: 'camber_deg' | 'caster_deg') => (aim.right?.[k] ? aim.right[k][0]! - aim[k][0]! : 0);
  const [text, setText] = useState<Record<string, string>>({});
  const set = (k: 'camber_deg' | 'caster_deg', t: string) => {
    setText({ ...text, [k]: t });
    const v = readAngle(t);
    if (v === undefined || Math.abs(v) > 3) return;
    const of = (w: 'camber_deg' | 'caster_deg') => (w === k ? v : less(w));
    const own = (w: 'camber_deg' | 'caster_deg') =>
      Math.abs(of(w)) > 1e-9 ? aim[w].map((x) => x + of(w)) : null;
    const right = { camber_deg: own('camber_deg'), caster_deg: own('caster_deg') };
    change(right.camber_deg || right.caster_deg ? right : null);
  };
  return (
    <>
      {(['camber_deg', 'caster_deg'] as const).map((k) => {
        const t = text[k] ?? written(less(k));
        const v = readAngle(t);
        const bad = v === undefined || Math.abs(v) > 3;
        return (
          <TextField
            key={k}
            label={`Right ${k === 'camber_deg' ? 'camber' : 'caster'} over left, °`}
            value={t}
            error={bad}
            helperText={bad ? 'up to 3° either way' : 'road crown: a little less caster'}
            onChange={(e) => set(k, e.target.value)}
            slotProps={{ htmlInput: { inputMode: 'decimal', 'data-testid': `right-${k}` } }}
            sx={{ width: 190 }}
          />
        );
      })}
    </>
  );
}

export function AimDialog({
  open,
  aim,
  draftKey,
  tyreMm,
  levels,
  close,
  keep,
}: {
  open: boolean;
  aim: Aim;
  /** Under which name windows typed and not kept are held. */
  draftKey: string;
  /** Tyre across, mm: the circle toe is told over where a sheet names none. */
  tyreMm: number;
  /** Names of the car's air levels. */
  levels: string[];
  close: () => void;
  keep: (a: Aim) => void;
}) {
  const queries = useQueryClient();
  const aims = useQuery({ queryKey: ['aims'], queryFn: listAims, enabled: open });
  const typing = useTyped<{ edit?: { from: Aim; text: Record<string, string> } }>(draftKey, () => ({}));
  const edit = typing.value.edit;
  const setEdit = (e: typeof edit) => typing.setValue(e ? { edit: e } : {});
  const [own, setOwn] = useState('');
  const [before, setBefore] = useState<{ from: Aim; text: Record<string, string> }>();
  const { form } = useSettings();
  const written = (deg: number) => angle(deg, form, 2).replace('−', '-').replace(/°$/, '');
  const now = edit ?? { from: aim, text: {} };
  const windowOf = (w: WindowName, usual: number[]) => now.from[w] ?? usual;
  const text = (w: WindowName, i: number, usual: number[]) =>
    now.text[`${w}.${i}`] ?? written(windowOf(w, usual)[i] ?? 0);
  // As the sheet has it, to the minute and finer.
  const fine = (deg: number) => String(Math.round(deg * 1000) / 1000);
  const cross = (w: CrossName) => now.text[w] ?? written(now.from[w]);
  const set = (k: string, t: string) => setEdit({ from: now.from, text: { ...now.text, [k]: t } });
  const fault = (w: WindowName, low: number, high: number, usual: number[]): string | undefined => {
    const v = [0, 1].map((i) => readAngle(text(w, i, usual)));
    if (v.some((x) => x === undefined)) return "No angle: degrees such as -0.3, or 0°18'";
    if (v.some((x) => x! < low || x! > high)) return `Outside ${low} to ${high}°`;
    if (v[0]! > v[1]!) return 'Runs backwards: low end first';
    return undefined;
  };
  const crossFault = (w: CrossName) => {
    const v = readAngle(cross(w));
    return v === undefined || v < 0.05 || v > 10 ? '0.05 to 10°' : undefined;
  };
  const bad = rows.some(([w, , l, h, u]) => fault(w, l, h, u)) || crosses.some(([w]) => crossFault(w));
  const typed = (): Aim => {
    const out: Aim = { ...now.from };
    for (const [w, , , , u] of rows) {
      const was = windowOf(w, u);
      // What nobody typed keeps its last digit.
      const v = [0, 1].map((i) =>
        now.text[`${w}.${i}`] === undefined ? (was[i] ?? 0) : (readAngle(text(w, i, u)) ?? 0),
      );
      if (now.from[w] || now.text[`${w}.0`] !== undefined || now.text[`${w}.1`] !== undefined) out[w] = v;
    }
    // The right goes with the left by as much as it is told apart.
    const apart = (w: 'camber_deg' | 'caster_deg') => {
      const own = now.from.right?.[w];
      return own ? out[w].map((v) => v + own[0]! - now.from[w][0]!) : null;
    };
    if (now.from.right) out.right = { camber_deg: apart('camber_deg'), caster_deg: apart('caster_deg') };
    for (const [w] of crosses) if (now.text[w] !== undefined) out[w] = readAngle(cross(w)) ?? now.from[w];
    return out;
  };
  const done = () => {
    keep(typed());
    typing.drop();
    close();
  };
  const keepOwn = useMutation({
    mutationFn: () => {
      const id = `own-${own
        .trim()
        .toLowerCase()
        .replaceAll(/[^a-z0-9]+/g, '-')}`.slice(0, 60);
      const version = aims.data?.find((a) => a.aim.id === id)?.version ?? 0;
      const kept: Aim = { ...typed(), id, name: own.trim(), reason: now.from.reason || 'The shop’s own.' };
      return keepAim(id, { version, aim: kept });
    },
    onSuccess: (mine) => {
      void queries.invalidateQueries({ queryKey: ['aims'] });
      setEdit({ from: mine.aim, text: {} });
      setOwn('');
    },
  });
  const remove = useMutation({
    mutationFn: removeAim,
    onSuccess: () => queries.invalidateQueries({ queryKey: ['aims'] }),
  });
  // A plan made before its school had questions shows the school's.
  const views = now.from.views?.length
    ? now.from.views
    : (aims.data?.find((a) => a.aim.id === now.from.id)?.aim.views ?? []);
  const refused = keepOwn.error instanceof ApiProblem ? keepOwn.error : undefined;
  return (
    <Dialog open={open} onClose={close} maxWidth="lg" fullWidth aria-labelledby="aim-title">
      <div style={{ padding: 22 }}>
        <div style={{ display: 'flex', justifyContent: 'space-between', gap: 12 }}>
          <h2 id="aim-title">What is wanted</h2>
          {before && (
            <ChipButton
              size="small"
              onClick={() => {
                setEdit(before);
                setBefore(undefined);
              }}
              data-testid="aim-back"
            >
              Back to what was typed
            </ChipButton>
          )}
        </div>
        {edit && <Unkept typed={typing} />}
        <div className="aim-grid">
          {(aims.data ?? []).map(({ aim: a, own: mine }) => {
            const on = now.from.id === a.id;
            return (
              <Bare
                key={a.id}
                className={`aim-card ${on ? 'on' : ''}`}
                aria-pressed={on}
                data-testid={`aim-${a.id}`}
                onClick={() => {
                  // Windows typed by hand are not thrown away: one press brings them back.
                  if (!on && (Object.keys(now.text).length || now.from.id === aim.id)) setBefore(now);
                  setEdit({ from: a, text: {} });
                }}
              >
                <span className="word">
                  <Glyph name={on ? 'aim' : 'unread'} size={17} /> {a.name}
                  {mine && <small className="mut">own</small>}
                </span>
                <span className="small mut">{a.reason}</span>
              </Bare>
            );
          })}
        </div>
        {views.map((v) => (
          <section key={v.about} className="aim-view" data-testid="aim-view">
            <h3>{v.about}</h3>
            <div>
              {v.choices.map((c) => (
                <Bare
                  key={c.name}
                  className={`${holds(now.from, c) ? 'on' : ''}`}
                  aria-pressed={holds(now.from, c)}
                  onClick={() =>
                    setEdit({
                      from: {
                        ...now.from,
                        ...(c.camber_deg ? { camber_deg: c.camber_deg } : {}),
                        ...(c.caster_deg ? { caster_deg: c.caster_deg } : {}),
                        ...(c.cross_caster_deg ? { cross_caster_deg: c.cross_caster_deg } : {}),
                        ...(c.judged_at ? { judged_at: c.judged_at } : {}),
                      },
                      text: {},
                    })
                  }
                >
                  <b className="word">
                    <Glyph name={holds(now.from, c) ? 'aim' : 'unread'} size={17} /> {c.name}
                  </b>
                  <span className="small">{c.argument}</span>
                </Bare>
              ))}
            </div>
          </section>
        ))}
        <div className="aim-rows">
          {rows.map(([w, label, l, h, u]) => {
            const f = fault(w, l, h, u);
            return (
              <div key={w} style={{ display: 'contents' }}>
                <span>
                  <b>
                    {now.from.right && (w === 'camber_deg' || w === 'caster_deg')
                      ? label.replace('each side', 'left')
                      : label}
                  </b>
                  {f && (
                    <span className="small" role="alert" style={{ display: 'block' }}>
                      {f}
                    </span>
                  )}
                </span>
                {[0, 1].map((i) => (
                  <TextField
                    key={i}
                    value={text(w, i, u)}
                    onChange={(e) => set(`${w}.${i}`, e.target.value)}
                    error={!!f}
                    label={i ? 'to, °' : 'from, °'}
                    slotProps={{ htmlInput: { inputMode: 'decimal', 'data-testid': `${w}-${i}` } }}
                  />
                ))}
              </div>
            );
          })}
        </div>
        <div className="aim-foot" style={{ alignItems: 'flex-start' }}>
          <AsOnSheet
            tyreMm={tyreMm}
            put={(w, [low, high]) =>
              setEdit({
                from: now.from,
                text: { ...now.text, [`${w}.0`]: fine(low), [`${w}.1`]: fine(high) },
              })
            }
          />
          <RightApart
            aim={now.from}
            change={(right) => setEdit({ from: { ...now.from, right }, text: now.text })}
          />
        </div>
        <div className="aim-foot">
          {crosses.map(([w, label]) => (
            <TextField
              key={w}
              label={`${label}, °`}
              value={cross(w)}
              error={!!crossFault(w)}
              helperText={crossFault(w)}
              onChange={(e) => set(w, e.target.value)}
              slotProps={{ htmlInput: { inputMode: 'decimal', 'data-testid': w } }}
            />
          ))}
          <Tick
            on={now.from.caster_most ?? false}
            set={(caster_most) => setEdit({ from: { ...now.from, caster_most }, text: now.text })}
            testid="caster-most"
          >
            As much caster as its window lets
          </Tick>
          <Segment
            label="Judged"
            value={
              now.from.level && levels.includes(now.from.level)
                ? `at ${now.from.level}`
                : (now.from.judged_at ?? 'planned')
            }
            choose={(k) => {
              const level = levels.find((l) => `at ${l}` === k) ?? null;
              const at = judged.find(([j]) => j === k)?.[0] ?? now.from.judged_at;
              setEdit({ from: { ...now.from, level, ...(at && { judged_at: at }) }, text: now.text });
            }}
            choices={[
              ...judged.map(([value, label]) => ({
                value: value as string,
                label,
                testid: `judged-${value}`,
              })),
              ...levels.map((l) => ({ value: `at ${l}`, label: `at ${l}`, testid: `judged-at-${l}` })),
            ]}
          />
        </div>
        <div className="aim-foot">
          <TextField
            label="Name it to keep it in this shop"
            value={own}
            onChange={(e) => setOwn(e.target.value)}
            slotProps={{ htmlInput: { 'data-testid': 'aim-own-name', maxLength: 50 } }}
          />
          <Button
            variant="outlined"
            disabled={!own.trim() || bad || keepOwn.isPending}
            onClick={() => keepOwn.mutate()}
            data-testid="aim-own-keep"
          >
            Keep as own aim
          </Button>
          {aims.data?.some((a) => a.own && a.aim.id === now.from.id) && (
            <Button
              variant="outlined"
              onClick={() => remove.mutate(now.from.id)}
              data-testid="aim-own-remove"
            >
              Remove from the shop
            </Button>
          )}
          <span style={{ flex: 1 }} />
          <Button
            variant="outlined"
            onClick={() => {
              typing.drop();
              close();
            }}
          >
            Leave
          </Button>
          <Button variant="contained" disabled={bad} onClick={done} data-testid="aim-keep">
            Use this aim
          </Button>
        </div>
        {refused && (
          <FieldError
            wrong={refused.problems[0]?.wrong ?? refused.message}
            right={refused.problems[0]?.right ?? 'another name'}
          />
        )}
      </div>
    </Dialog>
  );
}
