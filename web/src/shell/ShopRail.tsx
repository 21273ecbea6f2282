// The rail of the shop's own pages: the same places wherever one stands.
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { Glyph } from '../ui/glyphs';

export interface ShopPlace {
  to: string;
  name: string;
}

const places: readonly ShopPlace[] = [
  { to: '/', name: 'Jobs' },
  { to: '/parts', name: 'Parts' },
  { to: '/memory', name: 'Memory' },
  { to: '/jig', name: 'Jig' },
];

export function ShopRail({ here, more, foot }: { here: ShopPlace; more?: ReactNode; foot: ReactNode }) {
  const all = places.some((p) => p.to === here.to) ? places : [...places, here];
  return (
    <nav className="rail rail-shop" aria-label="Shop">
      {all.map((p) => (
        <Link
          key={p.to}
          to={p.to}
          data-testid={`to-${p.name.toLowerCase()}`}
          {...(p.to === here.to && { className: 'now', 'aria-current': 'page' as const })}
        >
          <Glyph name={p.to === here.to ? 'now' : 'none'} size={24} />
          {p.name}
        </Link>
      ))}
      {more}
      <div className="foot">{foot}</div>
    </nav>
  );
}
