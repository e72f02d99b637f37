/** A component cut out of calendar text, with the line it began on, its own lines unfolded. */
export interface Block {
  readonly name: string;
  readonly line: number;
  readonly text: string;
}

/** What a walk over calendar text found. `unended` names the component that was still open at the end. */
export interface Blocks {
  readonly blocks: readonly Block[];
  readonly header: readonly string[];
  readonly isCalendar: boolean;
  readonly ended: boolean;
  readonly unended: Block | null;
  readonly cut: boolean;
}

/**
 * Cuts calendar text (RFC 5545 3.1) into its outermost components in one pass, so that one broken component doesn't
 * spoil the others. At most `budget` components; `cut` says that there were more.
 */
export function cutIntoBlocks(text: string, budget: number): Blocks {
  const blocks: Block[] = [];
  const header: string[] = [];
  let isCalendar = false;
  let ended = false;
  let cut = false;
  let open: { name: string; line: number; lines: string[]; depth: number } | null = null;
  const lines = text.split(/\r\n|\n|\r/);
  for (let i = 0; i < lines.length; i++) {
    let line = lines[i] as string;
    while (i + 1 < lines.length && /^[ \t]/.test(lines[i + 1] as string) && line.length < 200_000)
      line += (lines[++i] as string).slice(1);
    const begin = /^BEGIN:\s*([A-Za-z0-9-]+)\s*$/i.exec(line)?.[1]?.toUpperCase();
    const end = /^END:\s*([A-Za-z0-9-]+)\s*$/i.exec(line)?.[1]?.toUpperCase();
    if (!open) {
      if (begin === 'VCALENDAR') isCalendar = true;
      else if (end === 'VCALENDAR') ended = true;
      else if (begin && isCalendar) open = { name: begin, line: i + 1, lines: [line], depth: 1 };
      else if (line.trim() !== '') header.push(line);
      continue;
    }
    if (begin === open.name && begin === 'VEVENT') {
      // An item that never ended before the next began: what there is of it can't be trusted.
      blocks.push({ name: 'UNENDED', line: open.line, text: open.lines.join('\r\n') });
      open = { name: begin, line: i + 1, lines: [line], depth: 1 };
      continue;
    }
    if (end === 'VCALENDAR') {
      blocks.push({ name: 'UNENDED', line: open.line, text: open.lines.join('\r\n') });
      open = null;
      ended = true;
      continue;
    }
    open.lines.push(line);
    if (begin) open.depth++;
    if (end && --open.depth === 0) {
      if (blocks.length >= budget) {
        cut = true;
        break;
      }
      blocks.push({ name: open.name, line: open.line, text: open.lines.join('\r\n') });
      open = null;
    }
  }
  const unended = open && !cut ? { name: open.name, line: open.line, text: open.lines.join('\r\n') } : null;
  return { blocks, header, isCalendar, ended, unended, cut };
}
