/** Every colour of the product, by day and by night: by these names in stylesheets (`var(--ink)`), through the theme in components. */
export const colours = {
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

export type Mode = keyof typeof colours;
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
