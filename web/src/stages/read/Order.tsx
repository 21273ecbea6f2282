// The proposed order: prepare, heights, rear, front, toe last. Anything can be read at any time.
import { Fold } from '../../ui/Fold';
import { Bare } from '../../ui/Press';
import { Glyph, Half } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import type { Schemas } from '../../api/client';
import {
  keyOf,
  placeWords,
  short,
  show,
  sideOf,
  type OrderItem,
  type Target,
  type VisitView,
} from '../../pad/readings';

const groups: [Schemas['Group'], string][] = [
  ['first', 'First, for this ticket'],
  ['heights', 'Heights'],
  ['rear', 'Rear'],
  ['front', 'Front'],
];

export function Order({
  view,
  methods,
  open,
  prepare,
  on,
}: {
  view: VisitView;
  methods: Schemas['ReadingData'];
  open: (t: Target) => void;
  prepare: () => void;
  on: string;
}) {
  const { units } = useSettings();
  const asked = methods.prepare.filter((i) => i.only !== 'air');
  // What holds from earlier today is known too.
  const answered = asked.filter((i) => (view.answers[i.id] ?? view.holding?.[i.id] ?? '').trim()).length;
  const next = view.picture.next == null ? '' : keyOf(view.picture.order[view.picture.next]!);
  const row = (i: OrderItem) => {
    const f = i.figure;
    const key = keyOf(i);
    return (
      <Bare
        key={key}
        className={`reading ${key === next ? 'next' : ''}`}
        onClick={() => open(i)}
        data-testid={`read-${i.quantity}-${i.place.axle}-${i.place.side}`}
        title={f?.stale ?? undefined}
      >
        {i.place.side === 'both' ? (
          <span style={{ width: 12 }} />
        ) : (
          <Half side={sideOf(i.place)} size={19} hollow={!f} />
        )}
        <span className="what">
          {short[i.quantity]}{' '}
          <span className="mut">
            {i.group === 'more' || i.group === 'first'
              ? placeWords(i.place)
              : i.place.side === 'both'
                ? ''
                : i.place.side}
          </span>
        </span>
        {f ? (
          <span className="word fig" style={{ fontSize: 21 }}>
            {f.stale && <Glyph name="stale" size={14} />}
            {show(i.quantity, f.value, units)}
            {f.stale && <span className="vh">stale: {f.stale}</span>}
          </span>
        ) : (
          <span className="word small">
            <Glyph name={key === next ? 'now' : 'unread'} size={14} />{' '}
            {key === next ? 'next' : i.needed ? 'needed' : ''}
          </span>
        )}
      </Bare>
    );
  };
  return (
    <div className="order-list">
      <Bare className={`reading ${on === 'prepare' ? 'on' : ''}`} onClick={prepare} data-testid="prepare">
        <Glyph name={answered === asked.length ? 'done' : 'watch'} size={18} />
        <span className="what">
          <b>Prepare</b>
        </span>
        <span className="small">
          {answered} of {asked.length} known
        </span>
      </Bare>
      {groups.map(([g, name]) => {
        const items = view.picture.order.filter((i) => i.group === g);
        if (!items.length) return null;
        // What a ticket is for may belong to a side or the whole car.
        if (g === 'first')
          return (
            <div key={g}>
              <h3 className="group">{name}</h3>
              {items.map(row)}
            </div>
          );
        const axles = g === 'heights' ? (['front', 'rear'] as const) : ([g] as const);
        return (
          <div key={g}>
            <h3 className="group">{name}</h3>
            {axles.map((axle) => (
              <div key={axle}>
                {g === 'heights' && <p className="axle small">{axle}</p>}
                {items.filter((i) => i.place.axle === axle).map(row)}
              </div>
            ))}
          </div>
        );
      })}
      <Fold
        className="more"
        words={
          <>
            Anything else{' '}
            <span className="small">
              {view.picture.order.filter((i) => i.group === 'more' && i.figure).length} read
            </span>
          </>
        }
      >
        {view.picture.order.filter((i) => i.group === 'more').map(row)}
      </Fold>
    </div>
  );
}
