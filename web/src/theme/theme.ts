// MUI in our colours. Success, warning and error stay ink, so that no stray default shows red or green.
import { createTheme } from '@mui/material/styles';

export type ThemeName = 'day' | 'night';

const tokens = {
  day: { sheet: '#F7F6FA', ink: '#1C1528', ink2: '#463D56', edge: '#8B839C', line: '#CBC7D6' },
  night: { sheet: '#171122', ink: '#F4F0E8', ink2: '#CFC6DD', edge: '#77698F', line: '#352A49' },
} as const;

export function themeOf(name: ThemeName) {
  const t = tokens[name];
  const ink = { main: t.ink, contrastText: t.sheet };
  return createTheme({
    palette: {
      mode: name === 'day' ? 'light' : 'dark',
      primary: { main: '#F6C81E', dark: '#D8AC00', contrastText: '#1C1528' },
      secondary: ink,
      error: ink,
      success: ink,
      warning: ink,
      info: ink,
      background: { default: t.sheet, paper: t.sheet },
      text: { primary: t.ink, secondary: t.ink2 },
      divider: t.line,
    },
    shape: { borderRadius: 6 },
    shadows: Array(25).fill('none') as never,
    typography: {
      fontFamily: "'Atkinson Hyperlegible Next Variable',sans-serif",
      button: { textTransform: 'none', fontWeight: 700, fontSize: 17 },
    },
    components: {
      MuiButton: {
        defaultProps: { disableRipple: true, disableElevation: true },
        styleOverrides: {
          root: {
            minHeight: 52,
            padding: '0 18px',
            '&.MuiButton-contained': {
              border: '2px solid #1C1528',
              '&.Mui-disabled': { borderStyle: 'dashed', borderColor: t.edge, background: 'transparent' },
            },
            '&.MuiButton-outlined': { border: `1.5px solid ${t.edge}`, color: t.ink },
            '&.Mui-disabled': { borderStyle: 'dashed', color: t.ink2 },
          },
        },
      },
      // Where somebody types is ink, never the yellow of what is to do, which nobody reads on chalk.
      MuiOutlinedInput: {
        styleOverrides: {
          notchedOutline: { borderColor: t.edge, borderWidth: 1.5 },
          root: { '&.Mui-focused .MuiOutlinedInput-notchedOutline': { borderColor: t.ink } },
        },
      },
      MuiInputLabel: { styleOverrides: { root: { '&.Mui-focused': { color: t.ink } } } },
      MuiInputBase: { styleOverrides: { root: { minHeight: 48, fontSize: 16 } } },
      MuiFormHelperText: { styleOverrides: { root: { fontSize: 14, fontWeight: 600, color: t.ink } } },
      MuiToggleButton: {
        defaultProps: { disableRipple: true },
        styleOverrides: {
          root: {
            minHeight: 44,
            minWidth: 64,
            color: t.ink2,
            borderColor: t.edge,
            fontWeight: 600,
            // Never by colour alone: what is chosen is underlined and heavy.
            '&.Mui-selected': { color: t.ink, fontWeight: 800, textDecoration: 'underline' },
          },
        },
      },
      MuiPopover: { styleOverrides: { paper: { border: `1.5px solid ${t.edge}`, backgroundImage: 'none' } } },
      MuiDialog: { styleOverrides: { paper: { border: `1.5px solid ${t.edge}`, backgroundImage: 'none' } } },
    },
  });
}
