/** A part of a mail's text: what its writer wrote, or what it repeats of another. */
export interface Part {
  readonly quoted: boolean;
  readonly text: string;
}

/** Lines that say that what follows is repeated, in English and Portuguese, and the ones mail programs draw above it. */
const LEAD =
  /^(on\b.{4,200}\bwrote:|em\b.{4,200}\bescreveu:|a \d.{4,200}\bescreveu:|-{2,}\s*(original message|forwarded message|mensagem original|mensagem reencaminhada)\s*-{2,})\s*$/i;
const QUOTED = /^\s*>/;

/**
 * A mail's text in parts, in their order: whatever stands behind `>`, the line that leads to it, and all that follows an "original message" line
 * is quoted (RFC 3676, 4.5 names the mark). Nothing is left out: the parts joined by line breaks are the text.
 */
export function partsOf(text: string): Part[] {
  const lines = text.split('\n');
  const marks = lines.map((line) => QUOTED.test(line));
  for (const [i, line] of lines.entries()) {
    if (!LEAD.test(line.trim())) continue;
    if (line.trim().startsWith('--')) {
      marks.fill(true, i);
      break;
    }
    // A line that leads to nothing quoted is the writer's own.
    let next = i + 1;
    while (next < lines.length && lines[next]?.trim() === '') next++;
    if (marks[next] === true) marks.fill(true, i, next);
  }
  // Empty lines between two quoted ones belong to them.
  for (let i = 1; i < lines.length - 1; i++) {
    if (lines[i]?.trim() !== '' || marks[i - 1] !== true) continue;
    let next = i;
    while (next < lines.length && lines[next]?.trim() === '') next++;
    if (marks[next] === true) marks.fill(true, i, next);
  }
  const parts: { quoted: boolean; lines: string[] }[] = [];
  for (const [i, line] of lines.entries()) {
    const quoted = marks[i] === true;
    const last = parts.at(-1);
    if (last && last.quoted === quoted) last.lines.push(line);
    else parts.push({ quoted, lines: [line] });
  }
  return parts.map((part) => ({ quoted: part.quoted, text: part.lines.join('\n') }));
}

/** The first line of what its writer wrote, cut to a length in characters; of a mail that only repeats, the first line of that. */
export function firstLineOf(text: string, most = 160): string {
  const parts = partsOf(text.slice(0, 20_000));
  const lineOf = (quoted: boolean) =>
    parts
      .filter((part) => part.quoted === quoted)
      .flatMap((part) => part.text.split('\n'))
      .map((line) => line.replace(/^[\s>]+/, '').trim())
      .find((line) => line !== '');
  return [...(lineOf(false) ?? lineOf(true) ?? '')].slice(0, most).join('');
}
