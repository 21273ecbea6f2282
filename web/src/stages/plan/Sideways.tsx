// How hard a bend is taken, g.
import { Slider } from '@mui/material';
import { num } from '../../units/print';

export function Sideways({ g, set, testid }: { g: number; set: (g: number) => void; testid: string }) {
  return (
    <label className="corner-slide">
      <span>
        Sideways <b>{num(g, 2)} g</b>
      </span>
      <Slider
        track={false}
        min={0}
        max={1.2}
        step={0.05}
        value={g}
        onChange={(_, v) => set(v)}
        aria-label="Sideways"
        getAriaValueText={(v) => `${num(v, 2)} g`}
        data-testid={testid}
      />
    </label>
  );
}
