import { readFileSync } from 'node:fs';
import type { Desk } from './desk.ts';

const AXE = readFileSync('node_modules/axe-core/axe.min.js', 'utf8');

/** What axe finds serious or worse on the screen. */
async function faults(desk: Desk): Promise<string[]> {
  if (!(await desk.page.evaluate(() => 'axe' in window))) await desk.page.evaluate(AXE);
  return desk.page.evaluate(async () => {
    type Found = { violations: { id: string; impact: string; nodes: { html: string; failureSummary: string }[] }[] };
    const { axe } = window as unknown as { axe: { run: (options: object) => Promise<Found> } };
    const found = await axe.run({ resultTypes: ['violations'] });
    return found.violations
      .filter((v) => v.impact === 'serious' || v.impact === 'critical')
      .flatMap((v) => v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 160)} ${n.failureSummary.slice(0, 200)}`));
  });
}

/** The same in both themes, each fault with the theme it was found in. */
export async function faultsByDayAndNight(desk: Desk): Promise<string[]> {
  const all: string[] = [];
  for (const scheme of ['light', 'dark']) {
    await desk.page.emulateMediaFeatures([
      { name: 'prefers-color-scheme', value: scheme },
      { name: 'prefers-reduced-motion', value: 'reduce' },
    ]);
    await desk.page.waitForFunction((want) => document.documentElement.dataset.theme === want, {}, scheme);
    all.push(...(await faults(desk)).map((fault) => `${scheme}: ${fault}`));
  }
  return all;
}
