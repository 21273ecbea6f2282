// Everything a plan turns on the car, in the order it is turned: rear before front, what is one for an axle once, what stays
// is said to stay, toe last of its axle.
import type { AxleName, Schemas, SideName } from '../../api/client';
import { Glyph, Half } from '../../ui/glyphs';

type Line = Schemas['SettingLine'];
type Ordered = Schemas['Order'];
const groups: (SideName | undefined)[] = [undefined, 'left', 'right'];

function Row({ line, test }: { line: Line; test: string }) {
  const leave = line.direction === 'leave';
  return (
    <li className="order-row" data-testid={test}>
      <span>
        {line.name}
        {line.sets_toe && <span className="small chalk"> · toe, last</span>}
      </span>
      <b className="fig">
        {line.words}
        {!leave && line.at_end && (
          <span className="word small">
            <Glyph name="watch" size={13} /> {line.is_cam && line.notch_deg ? 'last notch' : 'at its end'}
          </span>
        )}
      </b>
    </li>
  );
}

const slug = (name: string) => name.toLowerCase().replaceAll(' ', '-');

function AxleOrders({ axle, orders }: { axle: AxleName; orders: Ordered[] }) {
  return groups.flatMap((side) => {
    const of = orders.filter((o) => (o.side ?? undefined) === side);
    if (!of.length) return [];
    return [
      <section key={side ?? 'both'} className="state-block">
        <h3>
          {side ? (
            <span className="word">
              <Half side={side} size={16} /> {side === 'left' ? 'Left' : 'Right'} {axle}
            </span>
          ) : (
            `Both wheels, one for the ${axle} axle`
          )}
        </h3>
        <ul>
          {of.map(({ line }) => (
            <Row
              key={line.name}
              line={line}
              test={`order-${axle === 'rear' ? 'rear-' : ''}${side ?? 'axle'}-${slug(line.name)}`}
            />
          ))}
        </ul>
      </section>,
    ];
  });
}

/** The axle worked on stands first; its number says when it is turned. */
export function OrdersPanel({ orders, first }: { orders: Ordered[]; first: AxleName }) {
  const of = (a: AxleName) => orders.filter((o) => o.axle === a);
  const shown: AxleName[] = first === 'rear' ? ['rear', 'front'] : ['front', 'rear'];
  const both = of('front').length > 0 && of('rear').length > 0;
  return (
    <div className="panel-scroll" data-testid="orders-panel">
      {both && <p className="small">The rear is set before the front.</p>}
      {shown.map((a) =>
        of(a).length ? (
          <AxleOrders key={a} axle={a} orders={of(a)} />
        ) : (
          <p key={a} className="small">
            Nothing on the {a} axle is known to turn: as built, or not told yet.
          </p>
        ),
      )}
    </div>
  );
}
