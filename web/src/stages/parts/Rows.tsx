// One edit or adjuster of a part as fields; nothing typed is lost while it is wrong.
import { ChipButton } from '../../ui/Press';
import { TextField } from '@mui/material';
import { useState } from 'react';
import type { Problem } from '../../api/client';
import { readAngle, readLength, readNumber } from '../../units/notation';
import { readNumbers, type Field, type KindInfo } from './kinds';

type Entry = Record<string, unknown>;

interface Props {
  kinds: Record<string, KindInfo>;
  entry: Entry;
  at: string;
  problems: Problem[];
  change: (e: Entry) => void;
  remove: () => void;
  named?: boolean;
}

/** One number of a part: its file holds millimetres and degrees, whatever it was typed in. */
const read = (f: Field, t: string): number | undefined => {
  const unit = 'unit' in f ? f.unit : '';
  return unit.startsWith('mm') ? readLength(t, 'mm') : unit.startsWith('°') ? readAngle(t) : readNumber(t);
};

const shown = (f: Field, v: unknown) =>
  v === undefined || v === null ? '' : Array.isArray(v) ? v.join(f.type === 'list' ? ', ' : '  ') : String(v);

export function KindRow({ kinds, entry, at, problems, change, remove, named }: Props) {
  const info = kinds[String(entry.kind)];
  // Text that is no number yet stays as typed; the part keeps its last good value.
  const [text, setText] = useState<Record<string, string>>({});
  if (!info) return null;
  const problem = (key: string) =>
    problems.find((p) => p.field === `${at}.${key}` || p.field.startsWith(`${at}.${key}.`));
  const set = (f: Field, t: string) => {
    setText({ ...text, [f.key]: t });
    if (f.type === 'choice' && t === '')
      return change(Object.fromEntries(Object.entries(entry).filter(([k]) => k !== f.key)));
    if (f.type === 'text' || f.type === 'choice') return change({ ...entry, [f.key]: t });
    if (f.type === 'list') return change({ ...entry, [f.key]: t.split(/[,;\s]+/).filter(Boolean) });
    const v = f.type === 'number' ? read(f, t) : readNumbers(t, f.type === 'vector' ? 3 : 2);
    if (v !== undefined) change({ ...entry, [f.key]: v });
    else if (t.trim() === '') change(Object.fromEntries(Object.entries(entry).filter(([k]) => k !== f.key)));
  };
  const bad = (f: Field): string | undefined => {
    const t = text[f.key];
    if (t !== undefined && t.trim() !== '') {
      if (f.type === 'number' && read(f, t) === undefined) return 'a number, such as 1.5, or 1/2 in';
      if (f.type === 'vector' && !readNumbers(t, 3)) return 'three numbers, such as 0 2 0';
      if (f.type === 'pair' && !readNumbers(t, 2)) return 'two numbers, low then high';
    }
    const p = problem(f.key);
    return p && `${p.wrong}; ${p.right}`;
  };
  return (
    <div className="edit-row">
      <div className="edit-head">
        <b>{info.word}</b>
        <ChipButton size="small" onClick={remove}>
          Remove
        </ChipButton>
      </div>
      <div className="field-row">
        {named && (
          <TextField
            label="What it is called"
            value={String(entry.name ?? '')}
            onChange={(e) => change({ ...entry, name: e.target.value })}
            error={!!problem('name')}
            slotProps={{ htmlInput: { 'data-testid': `${at}.name` } }}
          />
        )}
        {info.fields.map((f) => (
          <TextField
            key={f.key}
            label={'unit' in f && f.unit ? `${f.label}, ${f.unit}` : f.label}
            select={f.type === 'choice'}
            value={text[f.key] ?? shown(f, entry[f.key])}
            onChange={(e) => set(f, e.target.value)}
            error={!!bad(f)}
            helperText={bad(f)}
            slotProps={{ select: { native: true }, htmlInput: { 'data-testid': `${at}.${f.key}` } }}
          >
            {f.type === 'choice' &&
              f.options.map((o) => (
                <option key={o} value={o}>
                  {f.words?.[o] ?? o}
                </option>
              ))}
          </TextField>
        ))}
      </div>
    </div>
  );
}
