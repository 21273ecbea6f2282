// A form for the floor: printed with blanks, and typed in again from paper in the same order.
import { addForm } from '../../api/calls';
import { newId } from '../../api/keys';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { ApiProblem, type TypedReading } from '../../api/client';
import { FieldError, Refusal } from '../../shell/Fault';
import { Half } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { useBench } from '../../shell/ticket';
import {
  keyOf,
  methodsFor,
  placeFor,
  placeWords,
  short,
  sideOf,
  useMethods,
  visitOf,
  type Method,
  type OrderItem,
  type Visit,
} from '../../pad/readings';
import { mustType, numbers } from '../../pad/usePad';

const groups = {
  heights: 'Heights, hub to arch',
  rear: 'Rear axle',
  front: 'Front axle',
  more: 'Treads and pressures',
} as const;

export default function PaperForm() {
  const { ticket, setTicket } = useBench();
  const { unit } = useSettings();
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const visit = (params.get('visit') ?? 'found') as Visit;
  const view = visitOf(ticket, visit) ?? ticket.visits[0];
  const data = useMethods();
  const [texts, setTexts] = useState<Record<string, string>>({});
  const [ids] = useState<Record<string, string>>({});
  const items = (view?.picture.order ?? []).filter(
    (i) => i.group !== 'more' || i.quantity === 'tread_depth' || i.quantity === 'pressure',
  );
  const methodOf = (i: OrderItem): Method | undefined => {
    const list = methodsFor(data.data?.methods ?? [], i.quantity);
    if (i.quantity === 'caster') return list.find((m) => m.id === 'caster-sweep');
    if (i.quantity === 'toe') return list.find((m) => m.id === 'toe-string') ?? list[0];
    return list[0];
  };
  const fieldsOf = (m: Method) => numbers(m).filter((e) => mustType(e));
  const filled = items.filter((i) => {
    const m = methodOf(i);
    return m && fieldsOf(m).some((e) => !e.swing && (texts[`${keyOf(i)}:${e.name}`] ?? '').trim());
  });
  const keep = useMutation({
    mutationFn: () => {
      const body = filled.map((i): TypedReading => {
        const m = methodOf(i)!;
        const key = keyOf(i);
        const left = sideOf(i.place) === 'left';
        const content: Omit<TypedReading, 'id'> = {
          visit,
          ...placeFor(m, i),
          method: m.id,
          entries: [
            ...fieldsOf(m).map((e) => ({
              name: e.name,
              text: texts[`${key}:${e.name}`] ?? (e.swing ? (left === (e.swing === 1) ? '20' : '-20') : ''),
              dropped: false,
            })),
            ...(m.id === 'toe-string' ? [{ name: 'reference', text: 'outside', dropped: false }] : []),
          ].filter((e) => e.text.trim()),
          unit,
          jack: 'rolled',
          jacked_height: '',
        };
        // Sent twice it is stored once; changed after a lost answer it is a reading of its own.
        const id = (ids[JSON.stringify(content)] ??= newId());
        return { ...content, id };
      });
      return addForm(ticket.job.id, body);
    },
    onSuccess: (t) => {
      setTicket(t);
      navigate(`../read?visit=${visit}`);
    },
  });
  const fault = keep.error instanceof ApiProblem ? keep.error : undefined;
  const faultOf = (i: OrderItem, name: string) => {
    const n = filled.indexOf(i);
    return fault?.problems.find((p) => p.field === (filled.length > 1 ? `${n}.${name}` : name));
  };
  if (!view || !data.data) return <p style={{ padding: 24 }}>Fetching the methods…</p>;
  return (
    <main className="main paper-main">
      <section className="pane paper" aria-label="Reading form">
        <div className="paper-head">
          <div>
            <h1>
              {ticket.vehicle.facts.name}, ticket {String(ticket.job.ticket).padStart(4, '0')}
            </h1>
            <p>
              {view.title} · bare lengths in {unit === 'in' ? 'inches' : 'mm'}, angles in degrees · top out,
              top back and toe-in are plus
            </p>
          </div>
          <div className="no-print" style={{ display: 'flex', gap: 8 }}>
            <Button variant="outlined" onClick={() => window.print()}>
              Print
            </Button>
            <Button
              variant="contained"
              disabled={!filled.length || keep.isPending}
              onClick={() => keep.mutate()}
              data-testid="form-keep"
            >
              {filled.length
                ? `Keep ${filled.length} reading${filled.length > 1 ? 's' : ''}`
                : 'Type from the paper'}
            </Button>
          </div>
        </div>
        {fault && !fault.problems.length && <Refusal error={fault} />}
        <div className="paper-prepare">
          {data.data.prepare
            .filter((p) => p.only !== 'air')
            .map((p) => (
              <span key={p.id}>
                {p.ask} <i>{p.kind === 'yes_no' ? 'yes ▢ no ▢' : '________'}</i>
              </span>
            ))}
        </div>
        <p className="caution" role="note" style={{ margin: '10px 0' }}>
          Chock the wheels. Stands on hard points, never a jack alone.
        </p>
        <div className="paper-groups">
          {(Object.keys(groups) as (keyof typeof groups)[]).map((g) => (
            <div key={g} className="paper-group">
              <h2>{groups[g]}</h2>
              {items
                .filter((i) => i.group === g)
                .map((i) => {
                  const m = methodOf(i);
                  if (!m) return null;
                  return (
                    <div key={keyOf(i)} className="paper-row">
                      <span className="what">
                        <Half side={sideOf(i.place)} size={18} /> <b>{short[i.quantity]}</b>{' '}
                        {placeWords(i.place)}
                      </span>
                      <span className="cells">
                        {fieldsOf(m).map((e) => {
                          const name = `${keyOf(i)}:${e.name}`;
                          const wrong = faultOf(i, e.name);
                          const left = sideOf(i.place) === 'left';
                          return (
                            <label key={e.name}>
                              {fieldsOf(m).length > 1 && <span className="small">{e.label}</span>}
                              <input
                                className={`field-in fig ${wrong ? 'bad' : ''}`}
                                aria-label={`${short[i.quantity]}, ${placeWords(i.place)}, ${e.label}`}
                                value={
                                  texts[name] ?? (e.swing ? (left === (e.swing === 1) ? '20' : '-20') : '')
                                }
                                onChange={(x) => setTexts((t) => ({ ...t, [name]: x.target.value }))}
                                data-testid={`form-${keyOf(i)}-${e.name}`}
                              />
                              {wrong && <FieldError wrong={wrong.wrong} right={wrong.right} />}
                            </label>
                          );
                        })}
                      </span>
                    </div>
                  );
                })}
            </div>
          ))}
        </div>
        <p className="small mut" style={{ marginTop: 12 }}>
          Read by ______________ on ______________. Camber by gauge on the hub; caster by sweep; toe by string
          outside the car, lip to lip from the stamped size. Other methods: the pad.
        </p>
      </section>
    </main>
  );
}
