// The reading pad: methods at the left, what to measure in the middle, the number at the right.
import { Fold } from '../../ui/Fold';
import { Bare } from '../../ui/Press';
import { useState } from 'react';
import type { Ticket } from '../../api/client';
import { MeasureDrawing, type Shown } from '../../figures/measure';
import { Glyph, Half } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import {
  keyOf,
  methodsFor,
  placeWords,
  short,
  show,
  sideOf,
  visitOf,
  type Method,
  type Target,
  type Visit,
} from '../../pad/readings';
import { MethodIcon } from './MethodIcon';
import { Unkept } from '../../shell/Unkept';
import { PadFacts } from '../../pad/PadFacts';
import { PadKeys } from '../../pad/PadKeys';
import { Meaning, Result } from '../../pad/Result';
import { Spread } from './Spread';
import { HALF, usePad, type PadState } from '../../pad/usePad';

interface Props {
  ticket: Ticket;
  visit: Visit;
  target: Target;
  methods: Method[];
  kept: (t: Ticket) => void;
  open: (t: Target) => void;
  back: () => void;
}

export function shownOf(pad: PadState): Shown {
  const typed: Record<string, string> = {};
  for (const n of pad.names) {
    const t = pad.now(n).trim();
    const e = pad.info(n);
    if (t && e) {
      const bare = /^[-−+\d.,/ ]+$/.test(t);
      const unit = e.kind === 'length' ? ` ${pad.unit}` : e.kind === 'angle' && !e.swing ? '°' : '';
      typed[n.replace(HALF, '')] = t.replace('-', '−') + (bare ? unit : '');
    }
  }
  for (const e of pad.method.entries) {
    if (e.kind === 'choice') typed[e.name] = pad.choices[e.name] ?? e.usual ?? e.choices?.[0] ?? '';
  }
  return {
    side: sideOf(pad.place),
    active: pad.active.replace(HALF, ''),
    typed,
    value: pad.preview.data?.taken.value,
    drawing: pad.method.drawing,
  };
}

export function Pad(props: Props) {
  const list = methodsFor(props.methods, props.target.quantity);
  const standing = props.ticket.readings.findLast(
    (r) =>
      r.visit === props.visit &&
      r.quantity === props.target.quantity &&
      r.axle === props.target.place.axle &&
      r.side === props.target.place.side,
  );
  // What this shop used last for the quantity comes first to hand.
  const last = props.ticket.readings.findLast((r) =>
    list.some((m) => m.id === r.method && m.quantity === r.quantity),
  );
  const [picked, setPicked] = useState<string>();
  const method =
    list.find((m) => m.id === (picked ?? standing?.method ?? last?.method)) ??
    list.find((m) => m.id === picked) ??
    list[0];
  if (!method) return <p style={{ padding: 20 }}>No method reads this.</p>;
  return (
    <PadOf
      key={method.id + props.visit + keyOf(props.target)}
      {...props}
      list={list}
      method={method}
      pick={setPicked}
    />
  );
}

function PadOf({
  ticket,
  visit,
  target,
  kept,
  open,
  back,
  list,
  method,
  pick,
}: Props & { list: Method[]; method: Method; pick: (id: string) => void }) {
  const { units } = useSettings();
  const pad = usePad(ticket, visit, target, method, kept);
  const picture = visitOf(ticket, visit)?.picture;
  const upcoming = (picture?.order ?? [])
    .filter((i) => i.group !== 'more' && !i.figure && keyOf(i) !== keyOf(target))
    .toSorted((a, b) => Number(b.needed) - Number(a.needed))
    .slice(0, 3);
  const history = ticket.readings
    .filter(
      (r) =>
        r.visit === visit &&
        r.quantity === method.quantity &&
        r.axle === pad.place.axle &&
        r.side === pad.place.side,
    )
    .reverse();
  return (
    <main className="main pad-main">
      <section className="pane methods" data-pane="Methods" aria-label="Methods">
        <Bare className="back" onClick={back} data-testid="pad-back">
          ◂ All readings
        </Bare>
        <div style={{ padding: '4px 14px 10px' }}>
          <h2 style={{ display: 'flex', gap: 8, alignItems: 'center' }} data-testid="pad-what">
            {target.place.side !== 'both' && <Half side={sideOf(target.place)} size={24} />}
            {short[target.quantity]}, {placeWords(target.place)}
          </h2>
          <p className="small mut" style={{ marginTop: 5 }}>
            Pick what is in your hand.
          </p>
        </div>
        <div className="method-list">
          {list.map((m) => (
            <Bare
              key={m.id}
              className={`method ${m.id === method.id ? 'on' : ''}`}
              aria-pressed={m.id === method.id}
              onClick={() => pick(m.id)}
              data-testid={`method-${m.id}`}
            >
              <MethodIcon drawing={m.drawing} />
              <span>
                <b>{m.title}</b>
                {m.quantity !== target.quantity && <span className="small">both wheels at once</span>}
              </span>
            </Bare>
          ))}
        </div>
        <div className="next-up">
          <p className="lab">Next up</p>
          {upcoming.map((i) => (
            <Bare key={keyOf(i)} onClick={() => open(i)}>
              {i.place.side !== 'both' && <Half side={sideOf(i.place)} size={18} />}
              <b>{short[i.quantity]}</b> {placeWords(i.place)}
            </Bare>
          ))}
          {!upcoming.length && <p className="small">Nothing. This visit is complete.</p>}
        </div>
      </section>
      <section className="pane slate pad-view" data-pane="Picture, result" aria-label="What to measure">
        <div className="pad-slate">
          <p className="pad-how">{method.how}</p>
          <div style={{ flex: 1, minHeight: 0 }}>
            <MeasureDrawing shown={shownOf(pad)} label={`${method.how} ${placeWords(pad.place)}.`} />
          </div>
        </div>
        <div className="pane pad-under">
          <Spread pad={pad} />
          <div className="pad-result">
            <Result pad={pad} />
            <Meaning pad={pad} />
          </div>
          <Unkept typed={pad.typing} />
          <PadFacts pad={pad} />
          {history.length > 0 && (
            <Fold className="history" open={history.length < 3} words={<>On record: {history.length}</>}>
              {history.map((r, i) => (
                <div key={r.id} className="history-row" data-testid="history-row">
                  <span className="fig" style={{ fontSize: 24, textDecoration: i ? 'line-through' : 'none' }}>
                    {show(r.quantity, r.value, units)}
                  </span>
                  <span className="small">
                    typed {r.raw.map((e) => `“${e.text}”`).join(', ')} ·{' '}
                    {list.find((m) => m.id === r.method)?.title ?? r.method} · {r.author} ·{' '}
                    {new Date(r.taken_at).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })}
                  </span>
                  <span className="word small">
                    <Glyph name={i ? 'stale' : 'done'} size={14} /> {i ? 'replaced' : 'stands'}
                  </span>
                </div>
              ))}
            </Fold>
          )}
        </div>
      </section>
      <PadKeys pad={pad} back={back} />
    </main>
  );
}
