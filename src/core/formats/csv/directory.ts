import Papa from 'papaparse';
import { isPhone } from '../../calendar/index.ts';

/**
 * One line of a directory file: who it is, and the names of the groups they are in. `line` counts from 1, the head included.
 * What the file has no column for is `null`, and so are a kind and a zone that are left empty: they stay as they are.
 */
export interface DirectoryRow {
  readonly line: number;
  readonly name: string;
  readonly address: string;
  readonly role: string | null;
  readonly site: string | null;
  readonly phone: string | null;
  readonly kind: 'person' | 'role' | null;
  readonly zone: string | null;
  readonly groups: readonly string[];
}

const COLUMNS = ['name', 'address', 'role', 'site', 'phone', 'kind', 'zone', 'groups'] as const;

/** Writes a directory as text with commas (RFC 4180); what a spreadsheet would take for a formula is defused. */
export function writeDirectory(rows: readonly Omit<DirectoryRow, 'line'>[]): string {
  return Papa.unparse(
    {
      fields: [...COLUMNS],
      data: rows.map((r) =>
        [r.name, r.address, r.role, r.site, r.phone, r.kind, r.zone, r.groups.join('; ')].map(
          (cell) => cell && defused(cell),
        ),
      ),
    },
    { newline: '\r\n' },
  );
}

/** A cell that a spreadsheet would work out gets an apostrophe before it, and so does one that looks as if it had got one. */
const defused = (cell: string): string => (/^'?[=+\-@\t\r]|^''/.test(cell) ? `'${cell}` : cell);

/** A line that can't be taken, with why: a code, or the column that is missing. */
export interface WrongRow {
  readonly line: number;
  readonly text: string;
  readonly reason: 'noHead' | 'name' | 'kind' | 'quotes' | 'phone' | 'tooLong';
}

/**
 * Reads a directory: a head that names `name` and `address` at least, then a line a person, in any order of columns and with
 * commas or semicolons. Lines that can't be read are answered beside the others; nothing throws.
 */
export function readDirectory(text: string): { rows: DirectoryRow[]; wrong: WrongRow[] } {
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), { skipEmptyLines: 'greedy' });
  const head = (data[0] ?? []).map((cell) => cell.trim().toLowerCase());
  if (!head.includes('name') || !head.includes('address'))
    return { rows: [], wrong: [{ line: 1, text: (data[0] ?? []).join(', ').slice(0, 120), reason: 'noHead' }] };
  const broken = new Set(errors.filter((e) => e.type === 'Quotes').map((e) => e.row));
  const rows: DirectoryRow[] = [];
  const wrong: WrongRow[] = [];
  for (const [i, cells] of data.entries()) {
    if (i === 0) continue;
    const at = (column: (typeof COLUMNS)[number]): string => {
      const cell = (cells[head.indexOf(column)] ?? '').trim();
      // What was defused when written is read back as it was.
      return (/^'['=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell).trim();
    };
    const line = i + 1;
    const refused = (reason: WrongRow['reason']) => wrong.push({ line, text: cells.join(', ').slice(0, 120), reason });
    const has = (column: (typeof COLUMNS)[number]) => (head.includes(column) ? at(column) : null);
    const kind = at('kind').toLowerCase();
    if (broken.has(i)) refused('quotes');
    else if (at('name') === '') refused('name');
    else if (kind !== '' && kind !== 'person' && kind !== 'role') refused('kind');
    else if (at('phone') !== '' && !isPhone(at('phone'))) refused('phone');
    else if ([at('name'), at('role'), at('site')].some((cell) => cell.length > 120)) refused('tooLong');
    else
      rows.push({
        line,
        name: at('name'),
        address: at('address').toLowerCase(),
        role: has('role'),
        site: has('site'),
        phone: has('phone'),
        kind: kind || null,
        zone: at('zone') || null,
        groups: at('groups')
          .split(';')
          .map((g) => g.trim())
          .filter(Boolean),
      });
  }
  return { rows, wrong };
}
