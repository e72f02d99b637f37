/**
 * Reads a time of day as people type it: `9`, `9:30`, `9.30`, `930`, `14`, `2pm`, `2:15 pm`. Answers `HH:MM`, or `null` for
 * what is no time.
 */
export function readTime(text: string): string | null {
  const m = /^\s*(\d{1,2})(?:[:.h ]?(\d{2}))?\s*(am|pm|a|p)?\s*$/i.exec(text);
  if (!m) return null;
  let hour = Number(m[1]);
  const minute = Number(m[2] ?? 0);
  const half = m[3]?.[0]?.toLowerCase();
  if (half && (hour < 1 || hour > 12)) return null;
  if (half === 'p' && hour < 12) hour += 12;
  if (half === 'a' && hour === 12) hour = 0;
  if (hour > 23 || minute > 59) return null;
  return `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`;
}
