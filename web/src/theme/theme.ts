// MUI in our colours. Success, warning and error stay ink, so that no stray default shows red or green.
import { createTheme, type CSSObject } from '@mui/material/styles';
import { faces, tokens, type ThemeName } from './tokens';

declare module '@mui/material/Button' {
  interface ButtonPropsVariantOverrides {
    chip: true;
  }
}

// What is chosen is dark on light, or light on slate: never by colour alone, so it is heavy as well.
const chosen: CSSObject = {
  background: 'var(--ink)',
  color: 'var(--sheet)',
  '&:hover': { background: 'var(--ink)' },
  '.slate &': { background: 'var(--chalk)', color: tokens.day.ink },
};

export function themeOf(name: ThemeName) {
  const t = tokens[name];
  const ink = { main: t.ink, contrastText: t.sheet };
  return createTheme({
    palette: {
      mode: name === 'day' ? 'light' : 'dark',
      primary: { main: t.do, dark: '#d8ac00', contrastText: t.doink },
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
      fontFamily: faces.read,
      button: { textTransform: 'none', fontWeight: 700, fontSize: 17 },
    },
    components: {
      MuiButtonBase: { defaultProps: { disableRipple: true } },
      MuiButton: {
        defaultProps: { disableRipple: true, disableElevation: true },
        styleOverrides: {
          root: {
            minHeight: 52,
            padding: '0 18px',
            '&.MuiButton-contained': {
              border: `2px solid ${t.doink}`,
              '&.Mui-disabled': { borderStyle: 'dashed', borderColor: t.edge, background: 'transparent' },
            },
            '&.MuiButton-outlined': { border: `1.5px solid ${t.edge}`, color: t.ink },
            '&.Mui-disabled': { borderStyle: 'dashed', color: t.ink2 },
          },
        },
        variants: [
          {
            props: { variant: 'chip' },
            style: {
              gap: 7,
              minHeight: 44,
              minWidth: 44,
              padding: '0 16px',
              border: '1px solid var(--edge)',
              background: 'var(--well)',
              color: 'var(--ink)',
              font: `700 15px/1 ${faces.read}`,
              '&:hover': { background: 'var(--line)' },
              "&[aria-pressed='true']": chosen,
            },
          },
          { props: { variant: 'chip', size: 'small' }, style: { padding: '0 11px', fontSize: 14 } },
        ],
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
      MuiNativeSelect: { styleOverrides: { select: { fontWeight: 600, fontSize: 15 } } },
      MuiFormHelperText: { styleOverrides: { root: { fontSize: 14, fontWeight: 600, color: t.ink } } },
      MuiToggleButtonGroup: {
        styleOverrides: {
          root: {
            minHeight: 44,
            border: '1.5px solid var(--edge)',
            borderRadius: 6,
            overflow: 'hidden',
            color: 'inherit',
          },
        },
      },
      MuiToggleButton: {
        defaultProps: { disableRipple: true },
        styleOverrides: {
          root: {
            minWidth: 44,
            minHeight: 44,
            padding: '0 13px',
            gap: 6,
            border: 0,
            borderLeft: '1px solid var(--line)',
            borderRadius: 0,
            margin: 0,
            color: 'inherit',
            font: `650 15px ${faces.read}`,
            '&:first-of-type': { borderLeft: 0 },
            '&.Mui-selected': chosen,
          },
        },
      },
      MuiTabs: {
        styleOverrides: {
          root: { minHeight: 48, background: 'var(--well)', flex: 'none' },
          indicator: { height: 3, background: 'var(--ink)' },
        },
      },
      MuiTab: {
        styleOverrides: {
          root: {
            flex: 1,
            minHeight: 48,
            minWidth: 0,
            maxWidth: 'none',
            overflow: 'visible',
            padding: '4px 6px',
            color: 'var(--ink2)',
            font: `700 15px/1.1 ${faces.read}`,
            '&.Mui-selected': { background: 'var(--sheet)', color: 'var(--ink)' },
            '&.Mui-disabled': { color: 'var(--ink3)', opacity: 1 },
          },
        },
      },
      MuiAccordion: {
        defaultProps: { disableGutters: true, square: true, elevation: 0 },
        styleOverrides: { root: { background: 'none', color: 'inherit', '&::before': { display: 'none' } } },
      },
      MuiAccordionSummary: {
        styleOverrides: {
          root: { minHeight: 44, padding: 0, fontWeight: 700 },
          content: { margin: 0, alignItems: 'center', gap: 8 },
        },
      },
      MuiAccordionDetails: { styleOverrides: { root: { padding: 0 } } },
      MuiPopover: { styleOverrides: { paper: { border: `1.5px solid ${t.edge}`, backgroundImage: 'none' } } },
      MuiDialog: { styleOverrides: { paper: { border: `1.5px solid ${t.edge}`, backgroundImage: 'none' } } },
    },
  });
}
