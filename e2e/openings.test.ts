import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, expect, inject, test } from 'vitest';
import { Caller } from './caller.ts';
import { Desk, startBrowser } from './desk.ts';

const home = inject('sample');
let browser: Browser;
beforeAll(async () => {
  browser = await startBrowser();
});
afterAll(() => browser?.close());

test('times are walked by the keys, two are held as a set, one is fixed and the other freed, and all of it taken back', async () => {
  const desk = await Desk.as(browser, home, 'tomas', '/for/ines/calendar?week=2027-09-06');
  await desk.press('button', 'Openings');
  await desk.find('button', /^Mon 6, 09:50|^Mon 6, /);
  const walk = async (key: 'h' | 'ArrowDown') => {
    await desk.page.keyboard.press(key);
  };
  await desk.page.evaluate(() => document.querySelector<HTMLElement>('aside ol button')?.focus());
  await walk('h');
  await desk.says('One time chosen');
  await walk('ArrowDown');
  await walk('h');
  await desk.says('2 times chosen');
  // As text, on another clock and in another language.
  await desk.fill('The reader’s time zone', 'America/Bogota', 'combobox');
  await desk.says(', Bogota');
  await desk.press('button', 'Hold these 2 for Inés');
  await desk.says('Give it a title.');
  await desk.fill('What it is for', 'Peat auditors');
  await desk.press('button', 'Hold these 2 for Inés');
  await desk.says('2 times are held.');
  await desk.press('button', /^A 1\/2 · Peat auditors/);
  await desk.find('heading', 'Held: A 1/2');
  await desk.press('button', 'Fix this one, free the other');
  await desk.says('It is fixed. The other time is free again.');
  await desk.find('button', /^Peat auditors,/);
  await desk.gone('button', /^A . · Peat auditors/);
  await desk.press('button', 'Undo');
  await desk.find('button', /^A 1\/2 · Peat auditors/);
  await desk.find('button', /^A 2\/2 · Peat auditors/);
  expect(desk.errors).toEqual([]);
  await desk.close();
});

test('nothing fits: what would have to move is shown, moved in one act, and the meeting begun there', async () => {
  const tomas = await Caller.stepIn(home, 'tomas');
  const frame = await tomas.json<{ principals: { handle: string; calendar: string }[] }>('/api/frame');
  const calendar = frame.principals.find((p) => p.handle === 'bruno')?.calendar ?? '';
  const full = async (day: number, from: string, to: string, title: string) => {
    const at = (time: string) => `2027-10-${String(day).padStart(2, '0')}T${time}`;
    const when = { start: at(from), end: at(to), allDay: false, zone: 'Europe/Lisbon' };
    const made = await tomas.send('POST', `/api/calendars/${calendar}/items`, { title, when });
    expect(made.status).toBe(200);
  };
  for (const day of [11, 12, 13]) await full(day, '08:00', '19:00', 'Close of the books');
  await full(14, '08:00', '17:30', 'Close of the books');
  await full(15, '08:00', '12:00', 'Close of the books');
  await full(15, '12:30', '13:00', 'Stamps');
  await full(15, '13:00', '19:00', 'Close of the books');
  const desk = await Desk.as(browser, home, 'tomas', '/for/bruno/calendar?week=2027-10-11');
  await desk.find('button', /^Stamps/);
  await desk.press('button', 'Openings');
  await desk.press('combobox', 'In the next');
  await desk.press('option', '5 days');
  await desk.says('Nothing fits.');
  await desk.press('button', 'Make room');
  await desk.says('It could begin Fri 15, 12:00 if this moves:');
  await desk.says('Fri 15, 12:30 → Thu 14, 17:30');
  await desk.says('nobody else is told');
  await desk.press('button', 'Move it and begin Fri 15, 12:00');
  await desk.find('button', /^Stamps, Thu 14 Oct 2027, 17:30/);
  await desk.fill('Title', 'Auditors, last talk');
  await desk.press('button', 'Save to Bruno’s calendar');
  await desk.find('button', /^Auditors, last talk, Fri 15 Oct 2027, 12:00/);
  expect(desk.errors).toEqual([]);
  await desk.close();
});
