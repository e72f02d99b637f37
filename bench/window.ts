import puppeteer, { type Browser, type Page } from 'puppeteer-core';
import { at } from './measure.ts';
import { Client, serveProduct } from './served.ts';

/*
 * What a window feels like, in Chromium on the sample organisation: the script of the first board, a week switched and painted from what
 * is there already, and the frames while something is dragged over a packed week and side by side.
 */
const WEEK = '2027-03-01';
const PACKED = '2027-06-07';

const served = await serveProduct();
const browser = await puppeteer.launch({
  executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--no-first-run', '--disable-background-networking'],
});
try {
  const priya = await Client.stepIn(served.address, 'priya');
  await firstScript(browser, priya);
  await weeks(await windowOf(browser, priya, `/for/ines/calendar?week=${WEEK}`));
  await packed(priya);
  await drag('a week of 300 items', await windowOf(browser, priya, `/for/priya/calendar?week=${PACKED}`), 'y');
  await lanes(priya);
  await drag(
    'side by side of 30, the first with 300 items',
    await windowOf(browser, priya, `/for/priya/calendar?week=${PACKED}&view=side`),
    'x',
  );
} finally {
  await browser.close();
  served.stop();
}

async function windowOf(browser: Browser, who: Client, path: string): Promise<Page> {
  const context = await browser.createBrowserContext();
  for (const one of who.cookie.split('; ')) {
    const [name = '', value = ''] = one.split(/=(.*)/s);
    await context.setCookie({ name, value, domain: 'localhost', path: '/' } as never);
  }
  const page = await context.newPage();
  // What runs these files keeps the names of functions by a function of its own, which a page doesn't have.
  await page.evaluateOnNewDocument('globalThis.__name = (f) => f');
  await page.setViewport({ width: 1280, height: 800 });
  await page.goto(served.address + path, { waitUntil: 'load' });
  await page.waitForSelector('[data-block]');
  // What is fetched while the window has nothing to do has come.
  await page.waitForNetworkIdle({ idleTime: 1_500, concurrency: 1 });
  return page;
}

async function firstScript(browser: Browser, who: Client): Promise<void> {
  const page = await windowOf(browser, who, '/for/ines/calendar');
  const [here, all] = await page.evaluate(async () => {
    // What the page itself asks for; what comes after it is asked for by what has come.
    const text = await (await fetch(location.href)).text();
    const first = [...text.matchAll(/<script(?![^>]*nomodule)[^>]* src="([^"]+)"/gi)].map(([, src = '']) => src);
    const sent = performance.getEntriesByType('resource').filter((e) => e.name.endsWith('.js'));
    const sum = (list: PerformanceEntry[]) =>
      list.reduce((n, e) => n + (e as PerformanceResourceTiming).encodedBodySize, 0) / 1024;
    return [sum(sent.filter((e) => first.includes(new URL(e.name).pathname))), sum(sent)];
  });
  console.log(
    `the first board's script: ${here?.toFixed(0)} KB compressed; with what comes after it ${all?.toFixed(0)}`,
  );
  await page.close();
}

async function weeks(page: Page): Promise<void> {
  const times = await page.evaluate(async () => {
    const times: number[] = [];
    for (const arrow of '→←←→→→←←→←→←←→→→←←→←') {
      const button = [...document.querySelectorAll('button')].find((b) => b.textContent?.trim() === arrow);
      const head = document.querySelector('main h1');
      const was = head?.textContent;
      const began = performance.now();
      button?.click();
      await new Promise<void>((done) => {
        // The frame after the one that drew it: it is painted then.
        const look = () =>
          head?.textContent === was ? requestAnimationFrame(look) : requestAnimationFrame(() => setTimeout(done));
        look();
      });
      times.push(performance.now() - began);
      await new Promise((done) => setTimeout(done, 800));
    }
    return times;
  });
  console.log(
    `a week switched and painted: p50 ${at(times, 0.5).toFixed(0)} ms, p95 ${at(times, 0.95).toFixed(0)}, most ${Math.max(...times).toFixed(0)}`,
  );
  await page.close();
}

/** Three hundred items in one week of one's own. */
async function packed(who: Client): Promise<void> {
  const frame = await who.json<{ principals: { own: boolean; calendar: string }[] }>('/api/frame');
  const own = frame.principals.find((p) => p.own)?.calendar ?? '';
  const monday = Date.parse(`${PACKED}T07:00:00Z`);
  for (let i = 0; i < 300; i++) {
    const start = monday + (i % 7) * 86_400_000 + Math.floor(i / 7) * 900_000;
    const text = (ms: number) => new Date(ms).toISOString().slice(0, 16);
    const when = { allDay: false, start: text(start), end: text(start + 1_800_000), zone: 'Europe/Lisbon' };
    const answer = await who.fetch(`/api/calendars/${own}/items`, {
      method: 'POST',
      body: JSON.stringify({ title: `Piece ${i}`, when }),
    });
    if (!answer.ok) throw new Error(`an item was refused: ${answer.status} ${await answer.text()}`);
  }
}

async function lanes(who: Client): Promise<void> {
  const { people } = await who.json<{ people: { handle: string; rights: { sight: string } }[] }>('/api/people');
  const seen = people.filter((p) => p.handle !== who.handle).slice(0, 29);
  const answer = await who.fetch('/api/lanes', {
    method: 'POST',
    body: JSON.stringify({ people: seen.map((p) => p.handle) }),
  });
  if (!answer.ok) throw new Error(`lanes were refused: ${answer.status} ${await answer.text()}`);
}

/** Drags the first block there is to and fro for some seconds; tells the time between frames. */
async function drag(what: string, page: Page, axis: 'x' | 'y'): Promise<void> {
  const block = await page.evaluateHandle(
    () => [...document.querySelectorAll('[data-block]')].find((b) => b.textContent?.includes('Piece 90')) ?? null,
  );
  const element = block.asElement() as Awaited<ReturnType<Page['$']>>;
  await element?.scrollIntoView();
  const box = await element?.boundingBox();
  if (!box) throw new Error('nothing to drag');
  const [x, y] = [box.x + 6, box.y + 6];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.evaluate(() => {
    const frames: number[] = [];
    let last = performance.now();
    const tick = () => {
      const now = performance.now();
      frames.push(now - last);
      last = now;
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
    (window as unknown as { frames: number[] }).frames = frames;
  });
  const began = Date.now();
  while (Date.now() - began < 4_000) {
    const way = 130 * Math.sin((Date.now() - began) / 300);
    await page.mouse.move(axis === 'x' ? x + way : x, axis === 'y' ? y + way : y);
  }
  const frames = (await page.evaluate(() => (window as unknown as { frames: number[] }).frames)).slice(2);
  const late = frames.filter((ms) => ms > 1000 / 50).length / frames.length;
  console.log(
    `a drag over ${what}: a frame each ${at(frames, 0.5).toFixed(1)} ms in the middle, p95 ${at(frames, 0.95).toFixed(1)}, ${(late * 100).toFixed(0)} % over 20 ms`,
  );
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await page.close();
}
