'use client';
import { createTheme } from '@mui/material/styles';
import { colours, type Mode } from './colours.ts';

const palette = (mode: Mode, onPrimary: string) => {
  const c = colours[mode];
  return {
    primary: { main: c.heather, contrastText: onPrimary },
    secondary: { main: c.moss },
    error: { main: c.clay },
    success: { main: c.moss },
    warning: { main: c.straw },
    info: { main: c.lake },
    background: { default: c.mist, paper: c.paper },
    text: { primary: c.ink, secondary: c.soft, disabled: c.faint },
    divider: c.line,
  };
};

/** Highland moor, by day and by night. Component defaults are the product's own: flat, dense, no shadows. */
export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data-theme' },
  colorSchemes: {
    light: { palette: palette('light', colours.light.white) },
    dark: { palette: palette('dark', '#1c151b') },
  },
  typography: {
    fontFamily: "'Hanken Grotesk Variable', system-ui, sans-serif",
    fontSize: 13,
    htmlFontSize: 16,
    body1: { fontSize: '0.8125rem', lineHeight: 1.45 },
    body2: { fontSize: '0.75rem', lineHeight: 1.4 },
    h1: { fontSize: '1.1875rem', fontWeight: 640, lineHeight: 1.25 },
    h2: { fontSize: '1rem', fontWeight: 640, lineHeight: 1.3 },
    h3: { fontSize: '0.8125rem', fontWeight: 640, lineHeight: 1.3 },
    button: { textTransform: 'none', fontWeight: 640, fontSize: '0.8125rem' },
  },
  shape: { borderRadius: 7 },
  // Nothing takes longer to arrive than is noticed.
  transitions: {
    duration: {
      shortest: 90,
      shorter: 100,
      short: 120,
      standard: 140,
      complex: 140,
      enteringScreen: 140,
      leavingScreen: 110,
    },
  },
  shadows: Array(25).fill('none') as never,
  components: {
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiButton: {
      defaultProps: { disableElevation: true, size: 'small' },
      styleOverrides: {
        root: {
          minHeight: 34,
          padding: '5px 14px',
          borderRadius: 7,
          variants: [
            {
              // Whom the window works for tints what is chiefly done there.
              props: { variant: 'contained', color: 'primary' },
              style: {
                '&:not(.Mui-disabled), &:not(.Mui-disabled):hover': { background: 'var(--who)', color: 'var(--paper)' },
              },
            },
          ],
        },
        outlined: { background: 'var(--white)', borderColor: 'var(--line)', color: 'var(--ink)' },
        text: { padding: '5px 8px', color: 'var(--lake)', fontWeight: 560 },
      },
    },
    MuiTextField: { defaultProps: { size: 'small', fullWidth: true, variant: 'outlined' } },
    MuiOutlinedInput: {
      styleOverrides: {
        root: { background: 'var(--white)', fontSize: '0.8125rem' },
        input: { padding: '7px 10px' },
        multiline: { padding: 0 },
        notchedOutline: { borderColor: 'var(--line)' },
      },
    },
    MuiSlider: { styleOverrides: { root: { color: 'var(--who)' } } },
    MuiInputLabel: { styleOverrides: { root: { fontSize: '0.8125rem' } } },
    MuiFormHelperText: { styleOverrides: { root: { marginLeft: 2, fontSize: '0.75rem' } } },
    MuiToggleButton: {
      styleOverrides: {
        root: {
          textTransform: 'none',
          flexDirection: 'column',
          padding: '6px 4px',
          lineHeight: 1.25,
          color: 'var(--ink)',
          background: 'var(--white)',
          borderColor: 'var(--line)',
          fontWeight: 600,
          fontSize: '0.8125rem',
          flex: 1,
        },
      },
    },
    MuiAlert: { styleOverrides: { root: { padding: '4px 12px', fontSize: '0.8125rem' } } },
  },
});
