import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, expect, inject, test } from 'vitest';
import { Desk, startBrowser } from './desk.ts';

const home = inject('sample');
let browser: Browser;
beforeAll(async () => {
  browser = await startBrowser();
});
afterAll(() => browser?.close());

test('several are picked by the keys, moved together, taken back together, and removed', async () => {
  const desk = await Desk.as(browser, home, 'tomas', '/for/bruno/calendar?week=2027-04-12');
  await desk.find('button', /^Cash and cover/);
  for (const [title, from] of [
    ['Ledger one', '10:00'],
    ['Ledger two', '12:00'],
  ] as const) {
    await desk.page.keyboard.press('n');
    await desk.fill('Title', title);
    await desk.fill('From', from);
    await desk.press('button', 'Save to Bruno’s calendar');
    await desk.find('button', new RegExp(`^${title}, .*${from}`));
  }
  await desk.page.keyboard.press('Escape');
  for (const title of ['Ledger one', 'Ledger two']) {
    await (await desk.find('button', new RegExp(`^${title}`))).focus();
    await desk.page.keyboard.press('x');
  }
  await desk.says('2 picked, of Bruno');
  await desk.page.keyboard.down('Shift');
  await desk.page.keyboard.press('ArrowRight');
  await desk.page.keyboard.up('Shift');
  await desk.says('2 were moved.');
  await desk.find('button', /^Ledger one, .*13 Apr 2027, 10:00/);
  await desk.find('button', /^Ledger two, .*13 Apr 2027, 12:00/);
  await desk.press('button', '15 min later');
  await desk.find('button', /^Ledger two, .*13 Apr 2027, 12:15/);
  // One step back takes back what the one act did to both.
  await desk.page.keyboard.down('Control');
  await desk.page.keyboard.press('z');
  await desk.page.keyboard.up('Control');
  await desk.find('button', /^Ledger one, .*13 Apr 2027, 10:00/);
  await desk.find('button', /^Ledger two, .*13 Apr 2027, 12:00/);
  // They are picked still, as they are now.
  await desk.press('button', '15 min earlier');
  await desk.find('button', /^Ledger two, .*13 Apr 2027, 11:45/);
  await desk.page.keyboard.press('Escape');
  for (const title of ['Ledger one', 'Ledger two']) {
    await (await desk.find('button', new RegExp(`^${title}`))).focus();
    await desk.page.keyboard.press('x');
  }
  await desk.page.keyboard.press('Delete');
  await desk.says('2 were removed.');
  expect(desk.errors).toEqual([]);
  await desk.close();
});

test('days picked on the month sheet make one series; a day is added to it, one is left out and brought back', async () => {
  const desk = await Desk.as(browser, home, 'tomas', '/for/bruno/calendar?view=month&week=2027-05-01');
  for (const day of ['4 May 2027', '13 May 2027', '27 May 2027']) {
    await (await desk.find('button', new RegExp(`${day}`))).focus();
    await desk.page.keyboard.press('x');
  }
  await desk.says('3 days picked');
  await desk.press('button', 'New for Bruno on these 3 days');
  await desk.fill('Title', 'Ledger talks');
  await desk.press('button', 'Save to Bruno’s calendar');
  await desk.says('on 3 picked days');
  // One more day for the series that is selected.
  await (await desk.find('button', /21 May 2027/)).focus();
  await desk.page.keyboard.press('x');
  await desk.press('button', 'Add to the days of “Ledger talks”');
  await desk.says('on 4 picked days');
  await desk.press('button', 'Remove this one');
  await desk.says('Undo');
  await desk.press('button', /13 May 2027/);
  await desk.press('button', /^Ledger talks/);
  await desk.press('button', /^Bring back .*4 May 2027/);
  await desk.gone('button', /^Bring back/);
  expect(desk.errors).toEqual([]);
  await desk.close();
});
