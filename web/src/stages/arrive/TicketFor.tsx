// What a ticket is for: it picks the order of the work and what is waited for.
import type { Schemas } from '../../api/client';
import { useShop } from '../../shell/ticket';
import { Pick } from '../../ui/Pick';

export type TicketKind = Schemas['TicketKind'];

export function TicketFor({ kind, pick }: { kind: TicketKind; pick: (k: TicketKind) => void }) {
  const shop = useShop();
  const list = shop.data?.tickets ?? [];
  const how = list.find((t) => t.kind === kind)?.how;
  return (
    <div>
      <Pick
        label="Job"
        value={kind}
        pick={pick}
        list={list.map((t) => ({ value: t.kind, words: t.title }))}
        testid="ticket-kind"
      />
      <p className="small mut" style={{ margin: '4px 2px 0' }} data-testid="ticket-how">
        {how}
      </p>
    </div>
  );
}
