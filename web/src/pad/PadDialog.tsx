// The pad alone, for a gate of the setting sheet: the reading is taken where it is asked for.
import { Pick } from '../ui/Pick';
import { Segment } from '../ui/Segment';
import { useState } from 'react';
import type { Ticket } from '../api/client';
import { methodsFor, useMethods, type Method, type Target, type Visit } from './readings';
import { Unkept } from '../shell/Unkept';
import { PadFacts } from './PadFacts';
import { PadKeys } from './PadKeys';
import { Meaning, Result } from './Result';
import { usePad } from './usePad';

interface Props {
  ticket: Ticket;
  visit: Visit;
  target: Target;
  kept: (t: Ticket) => void;
  /** Takes the value instead of keeping a reading. */
  use?: (value: number, sigma: number) => void;
}

export function PadDialog(p: Props) {
  const data = useMethods();
  const [picked, setPicked] = useState<string>();
  const list = methodsFor(data.data?.methods ?? [], p.target.quantity);
  const last = p.ticket.readings.findLast((r) => list.some((m) => m.id === r.method));
  const method = list.find((m) => m.id === (picked ?? last?.method)) ?? list[0];
  if (!method) return <p style={{ padding: 20 }}>Fetching the methods…</p>;
  return <One key={method.id} {...p} list={list} method={method} pick={setPicked} />;
}

function One({
  ticket,
  visit,
  target,
  kept,
  use,
  list,
  method,
  pick,
}: Props & { list: Method[]; method: Method; pick: (id: string) => void }) {
  const pad = usePad(ticket, visit, target, method, kept, use);
  return (
    <div>
      <Pick
        label="Read with"
        value={method.id}
        list={list.map((m) => ({ value: m.id, words: m.title }))}
        pick={pick}
        testid="dialog-method"
        style={{ padding: '14px 16px 0' }}
      />
      {pad.names.length > 1 && (
        <Segment
          value={pad.active}
          choose={pad.setActive}
          choices={pad.names.map((n) => ({
            value: n,
            label: `${pad.info(n)?.label} ${pad.now(n) || '—'}`,
            testid: `entry-${n}`,
          }))}
          style={{ margin: '10px 16px 0', width: 'calc(100% - 32px)', flexWrap: 'wrap' }}
          wide
          size={13}
        />
      )}
      <PadKeys pad={pad} compact />
      <div className="pad-under" style={{ padding: '0 16px 16px' }}>
        <Unkept typed={pad.typing} />
        <PadFacts pad={pad} />
        <Result pad={pad} />
        <Meaning pad={pad} />
      </div>
    </div>
  );
}
