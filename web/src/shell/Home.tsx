// Way home, on the strip.
import { Link } from 'react-router';
import { Logo } from '../ui/glyphs';

export function Home() {
  return (
    <Link
      to="/"
      aria-label="Bold Stance, all jobs"
      style={{ width: 84, flex: 'none', display: 'flex', alignItems: 'center', justifyContent: 'center' }}
    >
      <Logo />
    </Link>
  );
}
