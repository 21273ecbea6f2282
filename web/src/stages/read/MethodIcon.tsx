// A small sign for each kind of tool.
const paths: Record<string, string> = {
  gauge: 'M4 12H40V24H4ZM16 15H28V21H16ZM20 18a2.5 2.5 0 1 0 5 0a2.5 2.5 0 1 0 -5 0',
  bar: 'M8 3V33M14 10H34V26H14ZM20 13H28V23H20Z',
  plumb: 'M12 4H32M22 4V20M17 20H27L22 32Z',
  laser: 'M4 20H18V32H4ZM18 26H24M28 26H32M36 26H40M11 20V4',
  level: 'M12 3H20V33H12ZM14 14H18V22H14ZM24 8L36 6M24 30H36',
  form: 'M10 3H34V33H10ZM15 10H29M15 16H29M15 22H24',
  turn: 'M22 18m-13 0a13 13 0 1 0 13 -13M22 5L16 1M22 5L17 10',
  sweep: 'M22 32L10 8M22 32V4M22 32L34 8M8 12Q22 2 36 12',
  line: 'M14 32L30 4M11 26a4 4 0 1 0 6 3M27 8a4 4 0 1 0 6 -2',
  tape: 'M8 8H28V28H8ZM18 18m-6 0a6 6 0 1 0 12 0a6 6 0 1 0 -12 0M28 28H40V22',
  string: 'M8 4V32M20 8H32V16H20ZM20 20H32V28H20ZM8 12H20M8 24H20',
  bars: 'M10 3V33M34 3V33M10 8H34M10 28H34',
  dial: 'M22 14m-11 0a11 11 0 1 0 22 0a11 11 0 1 0 -22 0M22 14L28 9M22 25V33',
  tread: 'M4 12H14V24H18V12H26V24H30V12H40V30H4Z',
};
const kind: Record<string, keyof typeof paths> = {
  gauge_hub: 'gauge',
  gauge_bar: 'bar',
  plumb: 'plumb',
  laser: 'laser',
  gap: 'level',
  calliper: 'level',
  form: 'form',
  runout: 'turn',
  sweep: 'sweep',
  joint_line: 'line',
  toe_string: 'string',
  toe_bars: 'bars',
  toe_plates: 'bars',
  toe_gauge: 'gauge',
  toe_rim: 'bars',
  dial: 'dial',
  tread: 'tread',
  pressure: 'dial',
  centring: 'plumb',
};

export function MethodIcon({ drawing }: { drawing: string }) {
  return (
    <svg
      viewBox="0 0 44 36"
      width="40"
      height="33"
      fill="none"
      stroke="currentColor"
      strokeWidth="2.2"
      strokeLinejoin="round"
      aria-hidden="true"
      style={{ flex: 'none' }}
    >
      <path d={paths[kind[drawing] ?? 'tape']} />
    </svg>
  );
}
