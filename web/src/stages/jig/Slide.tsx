// One thing to turn, with what it is at.
import { Slider } from '@mui/material';

interface Props {
  label: string;
  value: number;
  says: string;
  low: number;
  high: number;
  step: number;
  set: (v: number) => void;
  testid: string;
}

export function Slide({ label, value, says, low, high, step, set, testid }: Props) {
  return (
    <label className="jig-slide">
      <span>
        {label} <b className="fig">{says}</b>
      </span>
      <Slider
        track={false}
        min={low}
        max={high}
        step={step}
        value={value}
        onChange={(_, v) => set(v)}
        aria-label={label}
        getAriaValueText={() => says}
        data-testid={testid}
      />
    </label>
  );
}
