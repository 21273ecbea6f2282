// Every colour and face of the program, once: style sheets and MUI take them from here, as CSS variables.

export type ThemeName = 'day' | 'night';

const day = {
  ground: '#d9d7e0',
  sheet: '#f7f6fa',
  well: '#e9e7ef',
  ink: '#1c1528',
  ink2: '#463d56',
  ink3: '#635b73',
  line: '#cbc7d6',
  edge: '#8b839c',
  slate: '#231a33',
  slate2: '#2f2444',
  chalk: '#f4f0e8',
  chalk2: '#beb4cf',
  ghost: '#8f83a8',
  slateline: '#463a5e',
  steel: '#54466f',
  left: '#5b2aa0',
  right: '#9e4700',
  aim: '#005e68',
  leftS: '#c5abff',
  rightS: '#f07840',
  aimS: '#6adada',
  do: '#f6c81e',
  doink: '#1c1528',
  plate: '#1c1528',
  plateink: '#f7f6fa',
  shade: 'rgba(91, 42, 160, 0.1)',
  shadeR: 'rgba(158, 71, 0, 0.1)',
} as const;

export type Token = keyof typeof day;

const night: Partial<Record<Token, string>> = {
  ground: '#0a0711',
  sheet: '#171122',
  well: '#221a31',
  ink: '#f4f0e8',
  ink2: '#cfc6dd',
  ink3: '#a79dbb',
  line: '#352a49',
  edge: '#77698f',
  slate: '#0c0815',
  slate2: '#1a1328',
  ghost: '#84789c',
  slateline: '#352a49',
  steel: '#3a2e54',
  left: '#c5abff',
  right: '#f07840',
  aim: '#6adada',
  plate: '#f4f0e8',
  plateink: '#171122',
  shade: 'rgba(197, 171, 255, 0.13)',
  shadeR: 'rgba(240, 120, 64, 0.14)',
};

export const tokens: Record<ThemeName, Record<Token, string>> = { day, night: { ...day, ...night } };

/** Narrow figures, and what is read. */
export const faces = {
  figure: "'Sofia Sans Extra Condensed Variable', sans-serif",
  read: "'Atkinson Hyperlegible Next Variable', sans-serif",
};

const vars = (list: Record<string, string>) =>
  Object.fromEntries(Object.entries(list).map(([k, v]) => [`--${k}`, v]));

/** Paper is white and printed in ink, what is slate on the screen too, whatever the light of the bay. */
const paper: Record<Token, string> = {
  ...day,
  ground: '#fff',
  sheet: '#fff',
  well: '#f1f0f4',
  ink3: day.ink2,
  slate: '#fff',
  slate2: '#fff',
  chalk: day.ink,
  chalk2: day.ink2,
  ghost: day.edge,
  slateline: day.line,
  steel: day.well,
  leftS: day.left,
  rightS: day.right,
  aimS: day.aim,
  do: '#7a5c00',
  doink: '#fff',
  plate: '#fff',
  plateink: day.ink,
};

/** The variables of both themes and of paper, as MUI's global styles take them. */
export const variables = {
  ":root, [data-theme='day']": { ...vars(tokens.day), colorScheme: 'light' },
  "[data-theme='night']": { ...vars(tokens.night), colorScheme: 'dark' },
  // After those: what both have.
  ':root': vars(faces),
  '@media print': {
    ":root, [data-theme='day'], [data-theme='night']": { ...vars(paper), colorScheme: 'light' },
  },
} as const;
