'use client';
import { createTheme } from '@mui/material/styles';

const ink = { light: '#1F2A26', dark: '#E6EAE3' };

/** Highland moor, by day and by night. Component defaults are the product's own: flat, dense, no shadows. */
export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data-theme' },
  colorSchemes: {
    light: {
      palette: {
        primary: { main: '#77486F', contrastText: '#FFFFFF' },
        secondary: { main: '#2E5E4B' },
        error: { main: '#A3452F' },
        success: { main: '#2E5E4B' },
        warning: { main: '#8A6512' },
        info: { main: '#3B6686' },
        background: { default: '#F3F2EC', paper: '#FBFAF6' },
        text: { primary: ink.light, secondary: '#55625C', disabled: '#68726C' },
        divider: '#DFDDD2',
      },
    },
    dark: {
      palette: {
        primary: { main: '#C795BD', contrastText: '#1C151B' },
        secondary: { main: '#7FBBA0' },
        error: { main: '#E58D74' },
        success: { main: '#7FBBA0' },
        warning: { main: '#D6AE55' },
        info: { main: '#8DB8D8' },
        background: { default: '#141A18', paper: '#1B2320' },
        text: { primary: ink.dark, secondary: '#A9B5AE', disabled: '#8B968F' },
        divider: '#323C38',
      },
    },
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
  shadows: Array(25).fill('none') as never,
  components: {
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiButton: {
      defaultProps: { disableElevation: true, size: 'small' },
      styleOverrides: {
        root: { minHeight: 34, padding: '5px 14px', borderRadius: 7 },
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
