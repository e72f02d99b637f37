'use client';
import { createTheme } from '@mui/material/styles';

/** Every colour of the product, by day and by night: by these names in stylesheets (`var(--ink)`), through the theme in components. */
const colours = {
  light: {
    mist: '#f3f2ec',
    paper: '#fbfaf6',
    white: '#ffffff',
    ink: '#1f2a26',
    soft: '#55625c',
    faint: '#636d67',
    line: '#dfddd2',
    hair: '#eae8de',
    moss: '#2e5e4b',
    straw: '#8a6512',
    clay: '#a3452f',
    lake: '#35607f',
    heather: '#77486f',
    slate: '#4d5a6e',
    bark: '#6d5548',
    off: '#d9d7cb',
    shade: '#ecebe3',
    'mist-a': '#e4e4dc',
    'mist-b': '#f0efe8',
  },
  dark: {
    mist: '#141a18',
    paper: '#1b2320',
    white: '#232d29',
    ink: '#e6eae3',
    soft: '#a9b5ae',
    faint: '#94a099',
    line: '#323c38',
    hair: '#28322e',
    moss: '#7fbba0',
    straw: '#d6ae55',
    clay: '#e58d74',
    lake: '#8db8d8',
    heather: '#c795bd',
    slate: '#a5b3c9',
    bark: '#cba993',
    off: '#3a4540',
    shade: '#18201d',
    'mist-a': '#2a3430',
    'mist-b': '#212a27',
  },
} as const;

/** People's six colours, each with a tint to lie under text and a shade to write on it. */
const people = [
  { name: 'heather', light: ['#e8dfe7', '#43213d'], dark: ['#3f3040', '#f0dcec'] },
  { name: 'lake', light: ['#dce5ec', '#17364c'], dark: ['#263a48', '#d6e7f4'] },
  { name: 'moss', light: ['#dbe6df', '#16382b'], dark: ['#24403a', '#d3ebdf'] },
  { name: 'straw', light: ['#ece4cf', '#46330a'], dark: ['#423820', '#f3e3b9'] },
  { name: 'slate', light: ['#e0e3ea', '#252f40'], dark: ['#303a49', '#dde4ef'] },
  { name: 'bark', light: ['#ebe2dc', '#3c2a20'], dark: ['#40342c', '#f0dfd3'] },
] as const;

type Mode = keyof typeof colours;
const DARK = '[data-theme="dark"]';
const named = (mode: Mode): Record<string, string> => ({
  ...Object.fromEntries(Object.entries(colours[mode]).map(([name, colour]) => [`--${name}`, colour])),
  '--who-tint': people[0][mode][0],
});
const ofPerson = ([tint, deep]: readonly [string, string], more = {}): Record<string, string> => ({
  ...more,
  '--who-tint': tint,
  '--who-deep': deep,
});

/** The variables stylesheets read, by day and by night; `.who-N` sets those of the person a part of the screen is about. */
export const variables: Record<string, Record<string, string>> = {
  ':root': { ...named('light'), '--who': 'var(--heather)', colorScheme: 'light' },
  [DARK]: { ...named('dark'), colorScheme: 'dark' },
  ...Object.fromEntries(
    people.flatMap(({ name, light, dark }, n) => [
      [`.who-${n}`, ofPerson(light, { '--who': `var(--${name})` })],
      [`${DARK} .who-${n}`, ofPerson(dark)],
    ]),
  ),
};

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
