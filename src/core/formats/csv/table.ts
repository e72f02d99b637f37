import Papa from 'papaparse';

/** Writes rows of texts and numbers under their names (RFC 4180); a cell that a spreadsheet would take for a formula is kept from being one. */
export const writeTable = (fields: readonly string[], rows: readonly (readonly (string | number)[])[]): string =>
  `${Papa.unparse({ fields: [...fields], data: rows.map((row) => [...row]) }, { escapeFormulae: true, newline: '\r\n' })}\r\n`;
