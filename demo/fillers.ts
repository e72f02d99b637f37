import { FILLERS, type Sample } from './weeks.ts';

/** What fills one week of somebody of the sample who has no weeks of their own. */
export function fillerWeek(random: () => number, week: number): Sample[] {
  const list: Sample[] = [];
  const count = 4 + Math.floor(random() * 6);
  for (let i = 0; i < count; i++) {
    const [title, minutes, place] = FILLERS[Math.floor(random() * FILLERS.length)] ?? ['Letters', 45, null];
    const start = 8 * 60 + Math.floor(random() * 18) * 30;
    const clock = (m: number) => `${String(Math.floor(m / 60)).padStart(2, '0')}:${String(m % 60).padStart(2, '0')}`;
    const tentative = random() < 0.15;
    list.push({
      week,
      day: Math.floor(random() * 5),
      at: clock(start),
      to: clock(start + minutes),
      title,
      ...(place ? { place } : {}),
      ...(tentative ? { shows: 'tentative' as const } : {}),
    });
  }
  return list;
}

/** A small seeded generator (mulberry32): the same organisation every time. */
export function seededRandom(seedNumber: number): () => number {
  let a = seedNumber;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}
