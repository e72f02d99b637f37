// @ts-check
import { mkdirSync } from 'node:fs';
import puppeteer from 'puppeteer-core';
import { findChromium, HOW_TO_GET_CHROMIUM } from './chromium.mjs';

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
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
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

/** Where the sample organisation's link leads. */
async function linkPath() {
  const context = await browser.createBrowserContext();
  const page = await context.newPage();
  await page.goto(`http://ines.localhost:${port}/sign-in`);
  const path = await page.evaluate(async () => {
    const json = async (/** @type {string} */ url) => (await fetch(url)).json();
    await fetch('/api/demo/step-in', {
      method: 'POST',
      body: JSON.stringify({ handle: 'ines' }),
      headers: { 'content-type': 'application/json' },
    });
    const frame = await json('/api/frame');
    const own = frame.principals.find((/** @type {{ own: boolean }} */ p) => p.own).calendar;
    const lines = await json(`/api/calendars/${own}/sightlines`);
    const further = await json(`/api/calendars/${lines.others[0].key}/sightlines`);
    return further.rows.find((/** @type {{ link: string | null }} */ r) => r.link).link;
  });
  await context.close();
  return path;
}

const press = (/** @type {string} */ name) => async (/** @type {import('puppeteer-core').Page} */ page) => {
  const found = await page.waitForSelector(`::-p-text(${name})`);
  await found?.click();
};
await picture('week-board', 'tomas', '/for/ines/calendar', { steps: press('Heron: terms') });
await picture('form', 'tomas', '/for/ines/calendar?new=1', {
  steps: (page) => page.waitForSelector('::-p-aria(Title)'),
});
await picture('free-busy', 'kofi', '/for/kofi/calendar?of=ines');
await picture('sightlines', 'ines', '/for/ines/sightlines', { steps: press('Tomas Lindqvist') });
await picture('seen-as', 'ines', '/for/ines/calendar?as=person%3Aamara');
await picture('ask', 'ines', '/for/ines/sightlines', {
  steps: async (page) => {
    await press('Tomas Lindqvist')(page);
    await page.waitForNetworkIdle({ idleTime: 400, concurrency: 1 });
    const blocks = await page.$$('[class*="_mini"] button[data-block]');
    for (const block of blocks)
      if ((await block.evaluate((el) => el.textContent)) === 'Private') {
        await block.click();
        break;
      }
    await page.waitForSelector('::-p-text(As it stood on)');
    await page.evaluate(() => {
      for (const column of document.querySelectorAll('[class*="_sightlines"] [class*="_col"]')) column.scrollTop = 260;
    });
  },
});
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
await picture('outside', 'bruno', '/for/bruno/sightlines', {
  steps: async (page) => {
    await press('Perpetua Oduya')(page);
    await page.waitForNetworkIdle({ idleTime: 400, concurrency: 1 });
    await page.evaluate(() => {
      for (const button of document.querySelectorAll('[class*="_seg"][class*="_sight"] button'))
        if (button.textContent?.startsWith('Titles')) /** @type {HTMLElement} */ (button).click();
    });
    await page.waitForSelector('::-p-text(Ask an administrator)');
  },
});
await picture('stranger', '', await linkPath());
await picture('asks', 'bruno', '/for/bruno/messages', {
  steps: async (page) => {
    const head = await page.waitForSelector('::-p-text(Access asked for)');
    await head?.evaluate((el) => el.scrollIntoView());
  },
});
await picture('messages', 'tomas', '/for/ines/messages');
await picture('house-rules', 'ines', '/for/ines/house-rules');
await picture('people', 'oona', '/for/oona/people');
await picture('night', 'bruno', '/for/bruno/calendar', { dark: true });
await picture('phone', 'tomas', '/for/ines/calendar', { size: [390, 844] });
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
