import type { Page } from 'puppeteer-core';

/** Long enough for a machine that is busy with something else; what is met goes on at once. */
const PATIENCE = 120_000;

/** A press reached something else than what was meant: it moved away in between. */
export class MissedPress extends Error {}

/** Of a long screen its two ends: a panel stands behind what it is opened from. */
const excerpt = (screen: string): string =>
  screen.length > 3000 ? `${screen.slice(0, 1500)}\n[…]\n${screen.slice(-1500)}` : screen;

/** Waits for a condition to be met, where it is much work for a longer time than usual; says what was waited for, and what the screen showed instead. */
export async function until<T>(
  what: string,
  look: (say: (why: string) => null) => Promise<T | null | undefined | false>,
  page?: Page,
  patience = PATIENCE,
): Promise<T> {
  const end = Date.now() + patience;
  let last: unknown = null;
  let looks = 0;
  let longest = 0;
  const say = (why: string): null => {
    last = why;
    return null;
  };
  while (Date.now() < end) {
    const began = Date.now();
    try {
      const found = await look(say);
      if (found !== null && found !== undefined && found !== false) return found;
    } catch (error) {
      if (error instanceof MissedPress) throw error;
      // The page was leaving for another; the next look finds that one.
      last = error;
    }
    looks++;
    longest = Math.max(longest, Date.now() - began);
    await new Promise((done) => setTimeout(done, 60));
  }
  const screen = page ? await page.evaluate(() => `${location.href}\n${document.body.innerText}`).catch(() => '') : '';
  throw new Error(
    `waited in vain for ${what}\n${last ? `${String(last)}\n` : ''}looked ${looks} times, once for ${longest} ms\n${excerpt(screen)}`,
  );
}
