import type { Browser } from 'puppeteer-core';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { calendarFile } from './calendar-file.ts';
import { Caller } from './caller.ts';
import { Desk } from './desk.ts';
import { fileToUpload } from './file-to-upload.ts';
import { sampleFor } from './servers.ts';
import { startBrowser } from './windows.ts';

const home = await sampleFor('bad-input');
let browser: Browser;
let desk: Desk;
beforeAll(async () => {
  browser = await startBrowser();
});
afterAll(() => browser?.close());
afterEach(() => desk?.close());

/** A sample person's window, on a week of its own. */
async function open(who: string, path: string): Promise<void> {
  desk = await Desk.as(browser, home, who, path);
}

const file = fileToUpload;

test('hours of work that are none: said at the field as it is left, and kept as they were typed', async () => {
  await open('wren', '/for/wren/settings');
  await desk.fill('Mon, from', 'soonish');
  await desk.page.keyboard.press('Tab');
  await desk.says('Write a time like 9:30, 930 or 2pm.');
  await desk.fill('Mon, from', '9');
  await desk.page.keyboard.press('Tab');
  await desk.saysNot('Write a time like 9:30, 930 or 2pm.');
  expect(desk.errors).toEqual([]);
});

describe('a file that can’t be taken', () => {
  beforeEach(async () => {
    await open('wren', '/for/wren/calendar');
    await desk.press('button', 'More acts');
    await desk.press('menuitem', 'Import…');
    await desk.find('complementary', 'Import a calendar file');
  });
  const choose = async (path: string) => {
    const input = await desk.page.waitForSelector('input[type="file"]');
    await input?.uploadFile(path);
  };

  test.each([
    ['is no calendar', () => file('letter.ics', 'Dear Wren,\nno calendar this.'), 'This is no calendar file'],
    [
      'is in another encoding',
      () => file('latin.ics', Buffer.from(calendarFile(), 'latin1')),
      'The text of this file isn’t UTF-8',
    ],
    ['is empty', () => file('empty.ics', ''), 'This is no calendar file'],
    ['has 50 MB', () => file('huge.ics', Buffer.alloc(50_000_000, 'X')), 'This is larger than 10 MB'],
  ])('because it %s: says so, and another can be chosen at once', async (_, make, sentence) => {
    await choose(make());
    await desk.says(sentence);
    await choose(file('good.ics', calendarFile()));
    await desk.says('41 new items');
    await desk.press('button', 'Cancel');
    await desk.gone('complementary', 'Import a calendar file');
    expect(desk.errors).toEqual([]);
  });

  test('truncated: what is whole can come in, and the rest is named', async () => {
    const whole = calendarFile();
    await choose(file('cut.ics', whole.slice(0, whole.indexOf('SUMMARY:Uplands forum'))));
    await desk.says('The file stops before its end');
    await desk.says('3 new items');
    await desk.says('breaks off before its end');
  });
});

describe('an item that can’t be kept', () => {
  beforeEach(async () => {
    await open('tomas', '/for/ines/calendar?week=2027-07-05');
    // The choice of calendar, which comes into the band with the board, has come: what is beside it stands still.
    await desk.find('button', 'More acts');
    await desk.press('link', /^New for Inés/);
    await desk.find('complementary', 'New item');
    await desk.fill('Title', 'Typed and not lost');
  });
  const value = async (label: string) => (await desk.any(label)).evaluate((el) => (el as HTMLInputElement).value);

  test('an end before its start is said at the field; what was typed stays', async () => {
    await desk.fill('From', '1500');
    await desk.fill('To', '14:00');
    await desk.press('button', 'Save to Inés’s calendar');
    await desk.says('The end isn’t after the start. Choose a later end.');
    expect(await value('Title')).toBe('Typed and not lost');
    expect(await value('To')).toBe('14:00');
    await desk.fill('To', '16');
    await desk.press('button', 'Save to Inés’s calendar');
    await desk.says('Saved to Inés’s calendar');
    await desk.press('button', 'Undo');
    await desk.says('As it was before');
  });

  test('a zone nobody knows, a time that is none, a link that is none', async () => {
    await desk.press('button', 'More');
    await desk.fill('Time zone', 'Mars/Olympus', 'combobox');
    await desk.fill('Joining link', 'javascript:alert(1)');
    await desk.fill('From', 'noon');
    await desk.press('button', 'Save to Inés’s calendar');
    await desk.says('No time zone has this name. Choose one from the list.');
    await desk.says('A link begins with https:// or http://.');
    await desk.says('Write a time like 9:30, 930 or 2pm.');
    expect(await value('Title')).toBe('Typed and not lost');
  });

  test('an hour that the clocks leave out', async () => {
    await desk.fillDate('Day', '2027-03-28');
    await desk.fill('From', '01:30');
    await desk.fill('To', '02:30');
    await desk.press('button', 'Save to Inés’s calendar');
    await desk.says('The clocks go forward then, so this time doesn’t exist.');
  });
});

describe('a way in that isn’t one', () => {
  test('a wrong password and an unknown address say the same; too many tries are stopped', async () => {
    desk = await Desk.open(browser, `${home}/sign-in`);
    await desk.signIn('f.bray@cloudmoor.example', 'not his at all');
    await desk.says('The address and the password don’t belong together.');
    const typed = await (await desk.any('E-mail address')).evaluate((el) => (el as HTMLInputElement).value);
    expect(typed).toBe('f.bray@cloudmoor.example');
    const caller = new Caller(home);
    const wrong = (address: string) => caller.send('POST', '/api/session', { address, password: 'not it either' });
    const unknown = await wrong('nobody@cloudmoor.example');
    const known = await wrong('f.bray@cloudmoor.example');
    expect([unknown.status, unknown.text]).toEqual([known.status, known.text]);
    for (let i = 0; i < 7; i++) await wrong('f.bray@cloudmoor.example');
    expect((await wrong('f.bray@cloudmoor.example')).status).toBe(429);
    // A forged network address opens no other door.
    const forged = await caller.send(
      'POST',
      '/api/session',
      { address: 'f.bray@cloudmoor.example', password: 'x' },
      { 'x-forwarded-for': '10.9.8.7' },
    );
    expect(forged.status).toBe(429);
  });

  test('a page asked for before signing in is where one lands after it', async () => {
    desk = await Desk.open(browser, `${home}/for/nils/people`);
    await desk.signIn('n.farrow@cloudmoor.example', 'cloudmoor-mist');
    await desk.find('heading', 'People');
    expect(new URL(desk.page.url()).pathname).toBe('/for/nils/people');
    await desk.go(`${home}/sign-in?to=https://elsewhere.example/`);
    expect(new URL(desk.page.url()).host).toBe(new URL(home).host);
  });

  test('somebody else’s window, item or calendar is answered like one that isn’t there', async () => {
    await open('dario', '/for/ines/calendar');
    await desk.says('There is nothing here');
    await desk.go(`${home}/for/ines/sightlines`);
    await desk.says('There is nothing here');
    await desk.go(`${home}/for/nobody/calendar`);
    await desk.says('There is nothing here');
    const bytes = await desk.page.content();
    expect(bytes).not.toContain('Varga');
  });

  test('a write from another site is refused', async () => {
    const caller = await Caller.stepIn(home, 'otto');
    for (const headers of [
      { origin: 'https://elsewhere.example' },
      { origin: 'null' },
      { 'sec-fetch-site': 'cross-site' },
    ])
      expect((await caller.send('DELETE', '/api/session', undefined, headers as Record<string, string>)).status).toBe(
        403,
      );
    expect((await caller.send('GET', '/api/frame')).status).toBe(200);
  });

  test('a session withdrawn in one window ends the other', async () => {
    const other = await Caller.stepIn(home, 'tobias');
    await open('tobias', '/for/tobias/settings');
    await desk.press('button', /^Sign out there/);
    await desk.says('Signed out there.');
    expect((await other.send('GET', '/api/frame')).status).toBe(401);
    expect((await desk.fetch('/api/frame')).status).toBe(200);
  });
});
