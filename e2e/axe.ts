import { readFileSync } from 'node:fs';
import type { Desk } from './desk.ts';

const AXE = readFileSync('node_modules/axe-core/axe.min.js', 'utf8');

/** What axe finds serious or worse on the screen; of the rules, all or those named. */
async function faults(desk: Desk, rules: readonly string[] | null): Promise<string[]> {
  if (!(await desk.page.evaluate(() => 'axe' in window))) await desk.page.evaluate(AXE);
  return desk.page.evaluate(async (rules) => {
    type Found = { violations: { id: string; impact: string; nodes: { html: string; failureSummary: string }[] }[] };
    const { axe } = window as unknown as { axe: { run: (options: object) => Promise<Found> } };
    const found = await axe.run({ resultTypes: ['violations'], ...(rules ? { runOnly: rules } : {}) });
    return found.violations
      .filter((v) => v.impact === 'serious' || v.impact === 'critical')
      .flatMap((v) => v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 160)} ${n.failureSummary.slice(0, 200)}`));
  }, rules);
}

/** The rules that look at colours; what the others read is the same in both themes. */
const COLOURS = ['color-contrast', 'link-in-text-block'];

/** What axe finds serious or worse in both themes, each fault with the theme it was found in. */
export async function faultsByDayAndNight(desk: Desk): Promise<string[]> {
  // A screen one goes to within the window gets its title a moment after it stands.
  await desk.page.waitForFunction(() => document.title !== '');
  const all: string[] = [];
  for (const scheme of ['light', 'dark']) {
    await desk.page.emulateMediaFeatures([
      { name: 'prefers-color-scheme', value: scheme },
      { name: 'prefers-reduced-motion', value: 'reduce' },
    ]);
    await desk.page.waitForFunction((want) => document.documentElement.dataset.theme === want, {}, scheme);
    all.push(...(await faults(desk, scheme === 'light' ? null : COLOURS)).map((fault) => `${scheme}: ${fault}`));
  }
  return all;
}
