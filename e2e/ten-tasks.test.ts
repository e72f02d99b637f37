import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { Caller } from './caller.ts';
import { Desk } from './desk.ts';
import { sampleFor, tenSecondsPass } from './servers.ts';
import { until } from './until.ts';
import { startBrowser } from './windows.ts';

/*
 * Ten tasks of every day, each by its shortest way on the screen, counted: a key or a press of the pointer is one press, and so are the
 * words typed into one field. docs/ten-tasks.md holds the counts; no task may take more.
 */
const home = await sampleFor('ten-tasks');
let browser: Browser;
beforeAll(async () => {
  browser = await startBrowser();
});
afterAll(() => browser?.close());

/** One person at one window, whose presses are counted. */
class Counted {
  presses = 0;
  private constructor(readonly desk: Desk) {}
  static async at(who: string, path: string): Promise<Counted> {
    const desk = await Desk.as(browser, home, who, path);
    await desk.find('status', 'live');
    return new Counted(desk);
  }
  async press(role: string, name: string | RegExp): Promise<void> {
    this.presses++;
    await this.desk.press(role, name);
  }
  async key(...keys: string[]): Promise<void> {
    this.presses++;
    for (const key of keys) await this.desk.page.keyboard.down(key as never);
    for (const key of keys.reverse()) await this.desk.page.keyboard.up(key as never);
  }
  async type(words: string): Promise<void> {
    this.presses++;
    await this.desk.page.keyboard.sendCharacter(words);
  }
  async fill(label: string, words: string): Promise<void> {
    this.presses++;
    await this.desk.fill(label, words);
  }
  /** The one box, asked for something: it is opened, told, and the first answer taken. */
  async box(words: string, answer: string | RegExp): Promise<void> {
    await this.key('Control', 'k');
    await this.desk.find('combobox', 'Find or do anything');
    await this.type(words);
    await this.desk.find('option', answer);
    await this.key('Enter');
  }
}

const MEETING = 'Weir plans Thu 11 Nov 14:00 for 45 minutes with Bruno, Hedda, p.oduya@water-ministry.example';

test('1, 9 and 2: a meeting of four is called, one of them outside; taken back as it was sent; moved by a day, all told', async () => {
  const tomas = await Counted.at('tomas', '/for/ines/calendar?week=2027-11-08');
  const call = async () => {
    await tomas.box(MEETING, /^New for Inés: Weir plans/);
    await tomas.desk.find('button', 'Send for Inés to 3, 1 of them outside');
    await tomas.press('button', 'Send for Inés to 3, 1 of them outside');
    await tomas.press('button', 'Send it');
    await tomas.desk.says('it leaves in ten seconds');
  };
  await call();
  expect(tomas.presses).toBe(5);

  tomas.presses = 0;
  await tomas.press('button', 'Take it back');
  await tomas.desk.gone('button', /^Weir plans/);
  expect(tomas.presses).toBe(1);

  await call();
  tomas.presses = 0;
  await (await tomas.desk.find('button', /^Weir plans/)).focus();
  await tomas.key('Space');
  await tomas.desk.says('Picked up Weir plans.');
  // The next key is heard from the turn after the pick-up on.
  await tomas.desk.page.evaluate(() => new Promise((done) => setTimeout(done)));
  await tomas.key('ArrowRight');
  await tomas.desk.says('Weir plans at Fri 12, 14:00.');
  await tomas.key('Enter');
  await tomas.desk.find('button', /^Weir plans, .*Fri 12 Nov/);
  await tomas.desk.says('to 3, 1 of them outside');
  expect(tomas.presses).toBe(3);
  await tomas.desk.close();
});

test('3: five invitations are answered', async () => {
  const hedda = await Caller.stepIn(home, 'hedda');
  const frame = await hedda.json<{ principals: { own: boolean; calendar: string }[] }>('/api/frame');
  const calendar = frame.principals.find((p) => p.own)?.calendar ?? '';
  for (const hour of [10, 11, 12]) {
    const made = await hedda.send('POST', `/api/calendars/${calendar}/items`, {
      title: `Review ${hour}`,
      when: { start: `2027-03-03T${hour}:00`, end: `2027-03-03T${hour}:30`, allDay: false, zone: 'Europe/Lisbon' },
      people: [{ address: 'j.heath@cloudmoor.example', name: null, role: 'must' }],
    });
    expect(made.status).toBe(200);
  }
  tenSecondsPass(home);
  // Two were there before.
  const jonas = await Counted.at('jonas', '/for/jonas/desk');
  for (const hour of [10, 11, 12]) await jonas.desk.find('article', `Review ${hour}`);
  await jonas.press('article', 'Review 10');
  await jonas.key('a');
  await jonas.desk.says('5 picked');
  await jonas.key('1');
  for (const hour of [10, 11, 12]) await jonas.desk.gone('article', `Review ${hour}`);
  await jonas.desk.gone('button', /^Coming/);
  expect(jonas.presses).toBe(3);
  await jonas.desk.close();
});

test('4: 45 minutes for three next week are found', async () => {
  const tomas = await Counted.at('tomas', '/for/ines/calendar');
  await tomas.box('find 45 minutes with Bruno and Hedda next week', /^All times for 45 minutes with Inés/);
  await tomas.desk.says('from Mon 8 on');
  await tomas.desk.find('button', /^Mon 8|^Tue 9|^Wed 10|^Thu 11|^Fri 12/);
  expect(tomas.presses).toBe(3);
  await tomas.desk.close();
});

test('5 and 6: Outline is given until Friday; why somebody sees an item is asked', async () => {
  const hedda = await Counted.at('hedda', '/for/hedda/calendar');
  await hedda.box('give yusuf', 'Give Yusuf Tarn access to my calendar');
  await hedda.press('button', /^Outline/);
  await hedda.fill('Until, that day included', 'fri');
  await hedda.press('button', 'Save, and tell Yusuf');
  await hedda.desk.says('Saved. Yusuf Tarn now has Outline');
  expect(hedda.presses).toBe(6);

  await hedda.desk.follow('/for/hedda/calendar');
  hedda.presses = 0;
  await hedda.press('button', /^Catchment model review/);
  await hedda.press('link', 'Yusuf Tarn');
  await hedda.desk.says('Yusuf Tarn is named: Outline');
  expect(hedda.presses).toBe(2);
  await hedda.desk.close();
});

test('7 and 8: tomorrow is printed; where she is stands there without a press', async () => {
  const tomas = await Counted.at('tomas', '/for/ines/calendar');
  await tomas.desk.says('Inés now: Ridge House, until 13:00.');
  expect(tomas.presses).toBe(0);
  await tomas.desk.page.evaluate(() => {
    window.print = () => {
      document.documentElement.dataset.printed = document.querySelector('article h1')?.textContent ?? '';
    };
  });
  await tomas.box('print', 'Print tomorrow for Inés Varga');
  await until('the sheet to be printed', () =>
    tomas.desk.page.evaluate(() => document.documentElement.dataset.printed?.startsWith('Wed 3 Mar 2027')),
  );
  expect(tomas.presses).toBe(3);
  await tomas.desk.close();
});

test('10: room is made for a call where nothing fits', async () => {
  const caller = await Caller.stepIn(home, 'tomas');
  const frame = await caller.json<{ principals: { handle: string; calendar: string }[] }>('/api/frame');
  const calendar = frame.principals.find((p) => p.handle === 'bruno')?.calendar ?? '';
  for (const [title, from, to] of [
    ['Close of the books', '08:00', '12:00'],
    ['Stamps', '12:30', '13:00'],
    ['Close of the books', '13:00', '19:00'],
  ] as const) {
    const made = await caller.send('POST', `/api/calendars/${calendar}/items`, {
      title,
      when: { start: `2027-10-15T${from}`, end: `2027-10-15T${to}`, allDay: false, zone: 'Europe/Lisbon' },
    });
    expect([made.status, made.text]).toEqual([200, made.text]);
  }
  const tomas = await Counted.at('tomas', '/for/bruno/calendar?week=2027-10-11');
  await tomas.box('find an hour on 15 Oct', /^All times for 60 minutes with Bruno: none works/);
  await tomas.desk.says('Nothing fits.');
  await tomas.press('button', 'Make room');
  await tomas.press('button', /^Move it and begin Fri 15/);
  await tomas.fill('Title', 'Auditors, a call');
  await tomas.press('button', 'Save to Bruno’s calendar');
  await tomas.desk.find('button', /^Auditors, a call, Fri 15 Oct 2027/);
  expect(tomas.presses).toBe(7);
  await tomas.desk.close();
});
