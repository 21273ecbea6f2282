// Below everything while the server does not answer, or while readings wait for it: since when, which, and what came of them.
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { awaySince, onAway } from '../api/away';
import { getShop } from '../api/calls';
import { outbox, type Waits } from '../api/outbox';
import { ChipButton } from '../ui/Press';
import { Glyph } from '../ui/glyphs';
import { ticketKey } from './ticket';

/** How often it is asked again while something waits, ms. */
const AGAIN_MS = 4000;

const clock = (ms: number) => {
  const d = new Date(ms);
  return `${String(d.getHours()).padStart(2, '0')}:${String(d.getMinutes()).padStart(2, '0')}`;
};

const typedAs = ({ typed: t }: Waits) => t.entries.map((e) => e.text).join(', ');

export function Waiting() {
  const queries = useQueryClient();
  const away = useSyncExternalStore(onAway, awaySince);
  const list = useSyncExternalStore(outbox.listen, outbox.waiting);
  const [open, setOpen] = useState(false);
  const why = useSyncExternalStore(outbox.listen, outbox.why);
  const unsent = list.filter((w) => !w.refused);
  const refused = list.filter((w) => w.refused);
  const busy = away !== undefined || unsent.length > 0;
  useEffect(() => {
    void outbox.load();
  }, []);
  useEffect(() => {
    if (!busy) return undefined;
    const again = async () => {
      // Its own answer says that the server is back; then everything is asked for anew.
      const was = awaySince() !== undefined;
      if (outbox.waiting().some((w) => !w.refused))
        await outbox.send((t) => queries.setQueryData(ticketKey(t.job.id), t));
      else await getShop().catch(() => {});
      if (was && awaySince() === undefined) void queries.invalidateQueries();
    };
    void again();
    const timer = setInterval(() => void again(), AGAIN_MS);
    const online = () => void again();
    window.addEventListener('online', online);
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', online);
    };
  }, [busy, queries]);
  if (!busy && !refused.length) return null;
  const n = (k: number, one: string, many: string) => `${k} ${k === 1 ? one : many}`;
  return (
    <aside className="waiting no-print" role="status" data-testid="waiting">
      <p>
        <Glyph name={away === undefined && refused.length ? 'clash' : 'stale'} size={18} />
        <span>
          {away !== undefined && (
            <>
              <b>No answer from the server since {clock(away)}.</b> Shown is what it said last.{' '}
            </>
          )}
          {away === undefined && why && unsent.length > 0 && <b>{why}. </b>}
          {unsent.length > 0 &&
            `${n(unsent.length, 'reading waits', 'readings wait')} here and ${unsent.length === 1 ? 'goes' : 'go'} out once ${away === undefined && why ? 'that has passed' : 'it answers'}. `}
          {refused.length > 0 && <b>{n(refused.length, 'reading was', 'readings were')} not taken.</b>}
        </span>
        {list.length > 0 && (
          <ChipButton
            size="small"
            onClick={() => setOpen(!open)}
            aria-expanded={open}
            data-testid="waiting-show"
          >
            {open ? 'Fold' : 'Show'}
          </ChipButton>
        )}
      </p>
      {open && (
        <ul>
          {list.map((w) => (
            <li key={w.typed.id} data-testid="waits">
              <span>
                <b>{typedAs(w)}</b> {w.what}, typed {clock(w.at)}
                {w.refused?.map((p) => (
                  <span key={p.field + p.wrong} className="waits-why">
                    {p.wrong}
                    {p.right && `. Right would be: ${p.right}`}
                  </span>
                ))}
              </span>
              <ChipButton size="small" onClick={() => void outbox.drop(w.typed.id)} data-testid="waits-drop">
                Drop it
              </ChipButton>
            </li>
          ))}
        </ul>
      )}
    </aside>
  );
}
