// @ts-check
import { mkdirSync } from 'node:fs';
import puppeteer from 'puppeteer-core';
import { findChromium, HOW_TO_GET_CHROMIUM, QUIETLY } from './chromium.mjs';

/* `node scripts/pictures.mjs [PORT]`: the pictures of docs/screenshots, taken from a running demo. */
const port = process.argv[2] ?? '3000';
const only = process.argv[3];
const executablePath = findChromium();
if (!executablePath) {
  console.error(HOW_TO_GET_CHROMIUM);
  process.exit(1);
}
const out = 'docs/screenshots';
mkdirSync(out, { recursive: true });
const browser = await puppeteer.launch({
  executablePath,
  args: QUIETLY,
});

/**
 * @param {string} name @param {string} who @param {string} path
 * @param {{ dark?: boolean, size?: [number, number], steps?: (page: import('puppeteer-core').Page) => Promise<unknown> }} [more]
 */
async function picture(name, who, path, more = {}) {
  if (only && only !== name) return;
  const context = await browser.createBrowserContext();
  const page = await context.newPage();
  const [width, height] = more.size ?? [1280, 800];
  await page.setViewport({ width, height });
  await page.emulateMediaFeatures([
    { name: 'prefers-color-scheme', value: more.dark ? 'dark' : 'light' },
    { name: 'prefers-reduced-motion', value: 'reduce' },
  ]);
  const home = `http://${who ? `${who}.` : ''}localhost:${port}`;
  if (who) {
    await page.goto(`${home}/sign-in`);
    await page.evaluate(
      (handle) =>
        fetch('/api/demo/step-in', {
          method: 'POST',
          body: JSON.stringify({ handle }),
          headers: { 'content-type': 'application/json' },
        }),
      who,
    );
  }
  await page.goto(home + path, { waitUntil: 'networkidle2' });
  await more.steps?.(page);
  await page.waitForNetworkIdle({ idleTime: 400, concurrency: 1 }).catch(() => {});
  await page.screenshot({ path: `${out}/${name}.png` });
  await context.close();
  console.log(`${out}/${name}.png`);
}

const press = (/** @type {string} */ name) => async (/** @type {import('puppeteer-core').Page} */ page) => {
  const found = await page.waitForSelector(`::-p-text(${name})`);
  await found?.click();
};
await picture('desk', 'tomas', '/for/tomas/desk', { steps: (page) => page.keyboard.press('ArrowDown') });
await picture('evening', 'tomas', '/for/tomas/day?of=evening');
await picture('trail', 'ines', '/for/ines/trail');
await picture('time-use', 'ines', '/for/ines/time-use');
await picture('contacts', 'tomas', '/for/ines/contacts', { steps: press('Marta Quill') });
await picture('week-board', 'tomas', '/for/ines/calendar', { steps: press('Heron: terms') });
await picture('free-busy', 'kofi', '/for/kofi/calendar?of=ines');
await picture('sightlines', 'ines', '/for/ines/sightlines', { steps: press('Tomas Lindqvist') });
await picture('seen-as', 'ines', '/for/ines/calendar?as=person%3Aamara');
await picture('findings', 'ines', '/for/ines/sightlines', {
  steps: async (page) => {
    await page.waitForSelector('[class*="_seg"][class*="_sight"] button');
    await page.waitForNetworkIdle({ idleTime: 400, concurrency: 1 });
    await page.evaluate(() => {
      for (const button of document.querySelectorAll('[class*="_seg"][class*="_sight"] button'))
        if (button.textContent?.startsWith('Titles')) /** @type {HTMLElement} */ (button).click();
    });
    await page.waitForSelector('::-p-text(become readable)');
  },
});
await picture('messages', 'tomas', '/for/ines/messages', { steps: press('Volunteers’ thanks') });
await picture('house-rules', 'ines', '/for/ines/house-rules');
await picture('people', 'oona', '/for/oona/people');
await picture('phone', 'tomas', '/for/ines/calendar', { size: [390, 844], dark: true });
await picture('tasks', 'tomas', '/for/ines/tasks', { steps: press('Sign the lease of the Seed Store') });
await picture('month', 'tomas', '/for/ines/calendar?view=month');
await picture(
  'openings',
  'tomas',
  '/for/ines/openings?with=b.keane%40cloudmoor.example&with=a.reyes%40cloudmoor.example',
);
await picture('day-sheet', 'tomas', '/for/ines/day-sheet');
// Last, since what is kept stays on every board after it.
await picture('lanes', 'tomas', '/for/ines/calendar', {
  steps: async (page) => {
    await page.evaluate(() =>
      fetch('/api/lanes', {
        method: 'POST',
        body: JSON.stringify({ people: ['bruno', 'amara'], group: null, calendars: [] }),
        headers: { 'content-type': 'application/json' },
      }),
    );
    await page.reload({ waitUntil: 'networkidle2' });
  },
});
await browser.close();
