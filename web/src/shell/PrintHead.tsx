// The head of a page that is printed: what it is, of which car, by which plan, when, in which units. Not on the screen.
import { useSettings } from '../ui/settings';
import { unitName } from '../units/measure';
import { when } from '../units/when';
import { useBench, useShop } from './ticket';

export function PrintHead({ title, plans }: { title: string; plans: string[] }) {
  const { ticket } = useBench();
  const { unit, form, units } = useSettings();
  const shop = useShop();
  const f = ticket.vehicle.facts;
  return (
    <header className="print-head">
      <h1>{title}</h1>
      <p>
        <b>{f.name}</b> · ticket {String(ticket.job.ticket).padStart(4, '0')}
        {ticket.job.plate && ` · ${ticket.job.plate}`} · tyres {f.tyre_size} · {shop.data?.name} ·{' '}
        {when(new Date().toISOString())}
      </p>
      <p>
        Plan{plans.length > 1 ? 's' : ''} {plans.map((p) => `“${p}”`).join(', ')} · lengths in{' '}
        {unit === 'mm' ? 'mm' : 'inches'}, angles in {form === 'minutes' ? 'degrees and minutes' : 'degrees'},
        tread in {unitName('tread', units)}, distance in {unitName('distance', units)}
      </p>
    </header>
  );
}
