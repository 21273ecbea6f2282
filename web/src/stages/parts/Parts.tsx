// The shop's parts: shipped ones, own ones, what each moves, in and out as CSV and JSON.
import { LineInput } from '../../ui/LineInput';
import { Bare } from '../../ui/Press';
import { listParts, sendTable } from '../../api/calls';
import { Button } from '@mui/material';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { ApiProblem, type Schemas } from '../../api/client';
import { FieldError } from '../../shell/Fault';
import { ShopFrame } from '../../shell/ShopFrame';
import { useTitle } from '../../shell/title';
import { Glyph } from '../../ui/glyphs';
import type { Part } from './kinds';
import { PartForm } from './PartForm';

type Shelf = Schemas['ShelfPart'];
const origins: Record<Shelf['origin'], string> = { shipped: 'shipped', shop: 'own', changed: 'changed' };

const blank: Part = {
  id: '',
  name: '',
  summary: '',
  group: 'upper_arm',
  purposes: [],
  fits: { layouts: ['double_wishbone'], axles: ['front'], replaces: '' },
  edits: [],
  adjusters: [],
  limits: { upper_joint_deg: null, lower_joint_deg: null, shaft_deg: null, bucket_mm: null, droop_mm: null },
  requires: [],
  provides: [],
  conflicts: [],
  side_effect: '',
  labour_minutes: 60,
  cost: 0,
  rules: [],
  access: '',
  sockets: '',
  order_number: '',
  torque: '',
  cautions: [],
};

export default function Parts() {
  useTitle('Parts');
  const queries = useQueryClient();
  const shelf = useQuery({ queryKey: ['parts'], queryFn: listParts });
  const [open, setOpen] = useState<{
    key: string;
    part: Part;
    version: number;
    retired: boolean;
    fresh: boolean;
  }>();
  const [find, setFind] = useState('');
  const file = useRef<HTMLInputElement>(null);
  const [said, setSaid] = useState('');
  const bring = useMutation({
    mutationFn: (f: File) => sendTable<Schemas['PartsTaken']>('/api/v1/parts/import', f),
    onSuccess: (d) => {
      setSaid(`${d.rows} parts in the table, ${d.new} of them new.`);
      void queries.invalidateQueries({ queryKey: ['parts'] });
    },
  });
  const fault = bring.error instanceof ApiProblem ? bring.error : undefined;
  const list = (shelf.data ?? []).filter((s) =>
    `${s.part.name} ${s.part.summary} ${s.part.group} ${s.part.fits.layouts.join(' ')}`
      .toLowerCase()
      .includes(find.toLowerCase()),
  );
  const take1 = (s: Shelf) =>
    setOpen({ key: s.part.id, part: s.part as Part, version: s.version, retired: s.retired, fresh: false });
  return (
    <ShopFrame
      title="Parts"
      here={{ to: '/parts', name: 'Parts' }}
      deed={
        <Button
          variant="contained"
          sx={{ mr: 2, minHeight: 56, flex: 'none' }}
          onClick={() => setOpen({ key: 'new', part: blank, version: 0, retired: false, fresh: true })}
          data-testid="new-part"
        >
          New part
        </Button>
      }
    >
      <main className="parts-page">
        <section aria-label="Parts">
          <div style={{ padding: '12px 16px' }}>
            <div className="parts-tables">
              <Button variant="outlined" onClick={() => file.current?.click()}>
                Table in
              </Button>
              {(['csv', 'xlsx', 'json'] as const).map((kind) => (
                <Button key={kind} variant="outlined" component="a" href={`/api/v1/parts.${kind}`} download>
                  {kind.toUpperCase()} out
                </Button>
              ))}
              <input
                ref={file}
                type="file"
                accept=".csv,.xlsx,.json"
                hidden
                data-testid="parts-file"
                onChange={(e) => {
                  const f = e.target.files?.[0];
                  if (f) bring.mutate(f);
                  e.target.value = '';
                }}
              />
            </div>
            <LineInput
              placeholder="Find a part"
              aria-label="Find a part"
              value={find}
              onChange={(e) => setFind(e.target.value)}
            />
            {said && !fault && (
              <p className="small" role="status" style={{ marginTop: 8 }} data-testid="parts-said">
                {said}
              </p>
            )}
            {fault && (
              <div data-testid="parts-fault">
                {fault.problems.slice(0, 5).map((p) => (
                  <FieldError key={p.field + p.wrong} wrong={`${p.field}: ${p.wrong}`} right={p.right} />
                ))}
                {!fault.problems.length && <FieldError wrong={fault.message} right="a table of up to 8 MB" />}
                <p className="small">Nothing of it was taken in.</p>
              </div>
            )}
          </div>
          {list.map((s) => (
            <Bare
              key={s.part.id}
              className={`shelf-row ${open?.key === s.part.id ? 'on' : ''}`}
              onClick={() => take1(s)}
              data-testid={`shelf-${s.part.id}`}
            >
              <span style={{ flex: 1 }}>
                <b>{s.part.name}</b>
                <span className="small mut" style={{ display: 'block' }}>
                  {s.part.summary}
                </span>
              </span>
              <span className="word small">
                <Glyph name={s.retired ? 'none' : s.origin === 'shipped' ? 'done' : 'now'} size={14} />
                {s.retired ? 'retired' : origins[s.origin]}
              </span>
            </Bare>
          ))}
        </section>
        {open ? (
          <PartForm
            key={`${open.key}${open.version}${open.fresh}`}
            part={open.part}
            version={open.version}
            retired={open.retired}
            fresh={open.fresh}
            copy={(p) =>
              setOpen({
                key: 'new',
                part: { ...p, id: `${p.id}-copy`, name: `${p.name} (copy)` },
                version: 0,
                retired: false,
                fresh: true,
              })
            }
            kept={(now) => {
              void queries.invalidateQueries({ queryKey: ['parts'] });
              take1(now);
            }}
          />
        ) : (
          <section style={{ padding: 24, gridColumn: '2 / -1' }}>
            <h2>Pick a part, or make one of your own</h2>
            <p style={{ marginTop: 10, maxWidth: 520 }}>
              A part is what it moves: a joint set rearward, a pivot on shims, a link on a thread. The drawing
              shows it as you type, and every plan and every search of sets uses it from then on.
            </p>
          </section>
        )}
      </main>
    </ShopFrame>
  );
}
