import Papa from 'papaparse';

/** A journey between two places, in minutes. */
export type JourneyLine = readonly [a: string, b: string, minutes: number];

const MOST_LINES = 2000;

/** Lines of a table of journeys that can't be read, with what is wrong with each. */
export interface WrongLine {
  readonly line: number;
  readonly why: 'columns' | 'place' | 'minutes' | 'tooMany';
}

/** Reads a table of journeys: two places and minutes a line, by comma, semicolon or tab; a heading may stand first. */
export function readJourneys(text: string): { readonly journeys: JourneyLine[]; readonly wrong: WrongLine[] } {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, '').trim(), { skipEmptyLines: 'greedy' });
  const journeys: JourneyLine[] = [];
  const wrong: WrongLine[] = [];
  for (const [i, row] of data.entries()) {
    const [a = '', b = '', minutes = ''] = row.map((cell) => cell.trim().replace(/^'(?=[=+\-@])/, ''));
    if (i === 0 && !/\d/.test(minutes)) continue;
    const line = i + 1;
    if (journeys.length >= MOST_LINES) {
      wrong.push({ line, why: 'tooMany' });
      break;
    }
    if (row.length < 3) wrong.push({ line, why: 'columns' });
    else if (a === '' || b === '' || a.length > 200 || b.length > 200 || a.toLowerCase() === b.toLowerCase())
      wrong.push({ line, why: 'place' });
    else if (!/^\d{1,4}$/.test(minutes) || Number(minutes) > 2880) wrong.push({ line, why: 'minutes' });
    else journeys.push([a, b, Number(minutes)]);
  }
  return { journeys, wrong };
}

/** Writes a table of journeys as it is read; a cell that a spreadsheet would take for a formula is kept from being one. */
export const writeJourneys = (journeys: readonly JourneyLine[]): string =>
  `${Papa.unparse({ fields: ['from', 'to', 'minutes'], data: journeys.map((row) => [...row]) }, { escapeFormulae: true })}\r\n`;
