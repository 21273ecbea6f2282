// Orders of a step, each with its drawing; what is one for both wheels stands once.
import { CamFigure, TieRodFigure } from '../../figures/CamFigure';
import { Half } from '../../ui/glyphs';
import type { Schemas, SideName } from '../../api/client';
import { sides, sideWord } from '../../sheet/sheet';

type Line = Schemas['SettingLine'];
type Ordered = Schemas['Order'];

const end = (l: Line) => (l.at_end ? (l.is_cam && l.notch_deg ? ' · last notch' : ' · at its end') : '');
const slug = (name: string) => name.toLowerCase().replaceAll(' ', '-');

function Order({ line, side, fs }: { line: Line; side: SideName | undefined; fs: number }) {
  const leave = line.direction === 'leave';
  return (
    <div style={{ minWidth: 0 }}>
      {line.is_cam && <CamFigure line={line} side={side ?? 'left'} />}
      {['longer', 'shorter'].includes(line.direction) && <TieRodFigure line={line} />}
      <span className="lab">{line.name}</span>
      <div
        className="fig"
        style={{ fontSize: 29 * fs, fontWeight: 800, marginTop: 3 }}
        data-testid={`set-${side ?? 'axle'}-${slug(line.name)}`}
      >
        {leave ? line.words : line.amount}
      </div>
      <div className="fig mut" style={{ fontSize: 20 * fs, fontWeight: 650, marginTop: 3 }}>
        {line.way}
        {leave ? '' : end(line)}
      </div>
    </div>
  );
}

const of = (orders: Ordered[], side: SideName | undefined) =>
  orders.filter((o) => (o.side ?? undefined) === side);

/** Everything but toe. */
export function Orders({ orders, veiled, fs }: { orders: Ordered[]; veiled: boolean; fs: number }) {
  const shared = of(orders, undefined);
  const own = sides.some((s) => of(orders, s).length > 0);
  if (!orders.length) return null;
  return (
    <>
      {shared.length > 0 && (
        <div className={`set-row one ${veiled ? 'veiled' : ''}`}>
          <div className="set-card">
            <h2>Both wheels, one for the axle</h2>
            <div className="set-orders">
              {shared.map((o) => (
                <Order key={o.line.name} line={o.line} side={undefined} fs={fs} />
              ))}
            </div>
          </div>
        </div>
      )}
      {own && (
        <div className={`set-row ${veiled ? 'veiled' : ''}`}>
          {sides.map((s) => (
            <div key={s} className="set-card">
              <h2 style={{ display: 'flex', gap: 10, alignItems: 'center' }}>
                <Half side={s} size={26} /> {sideWord(s)}
              </h2>
              <div className="set-orders">
                {of(orders, s).map((o) => (
                  <Order key={o.line.name} line={o.line} side={s} fs={fs} />
                ))}
              </div>
            </div>
          ))}
        </div>
      )}
    </>
  );
}

interface ToeProps {
  orders: Ordered[];
  veiled: boolean;
  fs: number;
  toe: (s: SideName) => string;
}

/** Toe, last of its axle; the angle beside it is the one that is expected after it. */
export function ToeOrders({ orders, veiled, fs, toe }: ToeProps) {
  if (!orders.length) return null;
  const one = orders.every((o) => !o.side);
  const shown = one ? orders : sides.flatMap((s) => of(orders, s));
  return (
    <div className={`set-row ${one ? 'one' : ''} ${veiled ? 'veiled' : ''}`}>
      {shown.map((o) => {
        const l = o.line;
        const side = o.side ?? undefined;
        return (
          <div
            key={`${side ?? 'axle'}${l.name}`}
            className="set-card"
            style={{ display: 'flex', gap: 14, alignItems: 'center' }}
          >
            {l.is_cam ? <CamFigure line={l} side={side ?? 'left'} /> : <TieRodFigure line={l} />}
            <div>
              <span className="lab">
                {side ? `${sideWord(side)} ${l.name.toLowerCase()}` : l.name} {veiled ? '· waits' : ''}
              </span>
              <div
                className="fig"
                style={{ fontSize: 31 * fs, fontWeight: 800, marginTop: 3 }}
                data-testid={`set-${side ?? 'axle'}-${slug(l.name)}`}
              >
                {l.words}
              </div>
              <div className="fig mut" style={{ fontSize: 20 * fs, fontWeight: 650 }}>
                toe to {toe(side ?? 'left')}
              </div>
            </div>
          </div>
        );
      })}
    </div>
  );
}
