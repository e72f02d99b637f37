import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { Desk } from './desk.ts';
import { sampleFor } from './servers.ts';
import { startBrowser } from './windows.ts';

const home = await sampleFor('picked');
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
  await desk.says('As it was before');
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
  // The panel goes, and the weeks are drawn wider.
  await desk.gone('button', 'Remove this one');
  await desk.press('button', /13 May 2027/);
  await desk.press('button', /^Ledger talks/);
  await desk.press('button', /^Bring back .*4 May 2027/);
  await desk.gone('button', /^Bring back/);
  expect(desk.errors).toEqual([]);
  await desk.close();
});

test('side by side is worked by the keys: along a row it is later, two that are picked go into another row together', async () => {
  const desk = await Desk.as(browser, home, 'tomas', '/for/ines/calendar?view=side&week=2027-08-02');
  const lane = await desk.page.evaluate(async () => {
    const body = JSON.stringify({ people: ['tomas'] });
    const headers = { 'content-type': 'application/json' };
    await fetch('/api/lanes', { method: 'POST', headers, body });
    const { lanes } = await (await fetch('/api/lanes')).json();
    return lanes.find((lane: { owner: { handle: string } }) => lane.owner.handle === 'tomas')?.key;
  });
  await desk.page.reload();
  for (const [title, from] of [
    ['Survey one', '10:00'],
    ['Survey two', '14:00'],
  ] as const) {
    await desk.find('button', 'More acts');
    await desk.page.keyboard.press('n');
    await desk.fill('Title', title);
    await desk.fill('From', from);
    await desk.press('button', 'Save to Inés’s calendar');
    await desk.find('button', new RegExp(`^${title}, .*Inés Varga, .*${from}`));
  }
  await desk.page.keyboard.press('Escape');
  // The first move is held back until all of the rest was pressed: what follows is about the item as that move leaves it.
  await desk.page.evaluate(() => {
    const fetched = window.fetch;
    const held = new Promise<void>((release) => {
      window.addEventListener('release', () => release(), { once: true });
    });
    window.fetch = async (...args) => {
      if (args[1]?.method === 'PATCH') await held;
      return fetched(...args);
    };
  });
  const first = await desk.find('button', /^Survey one/);
  await first.focus();
  await desk.page.keyboard.press('Space');
  await desk.says('Picked up Survey one.');
  // The keys that move it are listened to from the next turn on.
  await desk.page.evaluate(() => new Promise((turn) => setTimeout(turn)));
  for (const key of ['ArrowRight', 'ArrowRight', 'Space'] as const) await desk.page.keyboard.press(key);
  await desk.find('button', /^Survey one, Inés Varga, .*10:30/);
  for (const title of ['Survey one', 'Survey two']) {
    await (await desk.find('button', new RegExp(`^${title}`))).focus();
    await desk.page.keyboard.press('x');
  }
  await desk.says('2 picked, of Inés');
  await (await desk.find('button', /^Survey one/)).focus();
  await desk.page.keyboard.press('Space');
  await desk.says('Picked up Survey one.');
  // The keys that move it are listened to from the next turn on.
  await desk.page.evaluate(() => new Promise((turn) => setTimeout(turn)));
  await desk.page.keyboard.press('ArrowDown');
  await desk.says('into Tomas Lindqvist’s calendar');
  await desk.page.keyboard.press('Space');
  await desk.says('2 items go from Inés’s calendar into Tomas’s. Each keeps its time.');
  await desk.press('button', 'Move to my calendar');
  await desk.page.evaluate(() => window.dispatchEvent(new Event('release')));
  await desk.find('button', /^Survey one, Tomas Lindqvist, .*10:30/);
  await desk.find('button', /^Survey two, Tomas Lindqvist, .*14:00/);
  await desk.press('button', 'Undo');
  await desk.find('button', /^Survey one, Inés Varga, .*10:30/);
  await desk.find('button', /^Survey two, Inés Varga, .*14:00/);
  await desk.page.evaluate(async (lane) => {
    if (lane) await fetch(`/api/lanes/${lane}`, { method: 'DELETE' });
  }, lane);
  expect(desk.errors).toEqual([]);
  await desk.close();
});
