import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { faultsByDayAndNight } from './axe.ts';
import { Caller } from './caller.ts';
import { Desk } from './desk.ts';
import { sampleFor } from './servers.ts';
import { startBrowser } from './windows.ts';

const home = await sampleFor('openings');
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
  await desk.press('button', /^[A-Z] 1\/2 · Peat auditors/);
  await desk.find('heading', /^Held: [A-Z] 1.2/);
  await desk.press('button', 'Fix this one, free the other');
  await desk.says('It is fixed. The other time is free again.');
  await desk.find('button', /^Peat auditors,/);
  await desk.gone('button', /^[A-Z] .\/. · Peat auditors/);
  await desk.press('button', 'Undo');
  await desk.find('button', /^[A-Z] 1\/2 · Peat auditors/);
  await desk.find('button', /^[A-Z] 2\/2 · Peat auditors/);
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
  await desk.press('button', /^In the next/);
  await desk.press('combobox', 'In the next');
  await desk.press('option', '5 days');
  await desk.page.keyboard.press('Escape');
  await desk.says('Nothing fits.');
  // What would have to give is given by a press, and taken back in the line.
  await desk.press('button', /^Half as long/);
  await desk.find('button', /^Thu 14, 17:30/);
  await desk.press('button', /^How long/);
  await desk.press('combobox', 'How long');
  await desk.press('option', '1 hour');
  await desk.page.keyboard.press('Escape');
  await desk.says('Nothing fits.');
  await desk.press('button', 'Make room');
  await desk.says('It could begin Fri 15, 12:00 if this moves:');
  await desk.says('Fri 15, 12:30 → Thu 14, 17:30');
  await desk.says('nobody else is told');
  // Before and after stand on the board itself.
  await desk.press('button', 'After');
  await desk.find('button', /^Stamps, Thu 14 Oct 2027, 17:30/);
  await desk.press('button', 'Both');
  await desk.find('button', /^→ Stamps, Thu 14 Oct 2027, 17:30/);
  await desk.find('button', /^Stamps, Fri 15 Oct 2027, 12:30/);
  await desk.press('button', 'Before');
  await desk.find('button', /^Stamps, Fri 15 Oct 2027, 12:30/);
  await desk.press('button', 'Move it and begin Fri 15, 12:00');
  await desk.find('button', /^Stamps, Thu 14 Oct 2027, 17:30/);
  await desk.fill('Title', 'Auditors, last talk');
  await desk.press('button', 'Save to Bruno’s calendar');
  await desk.find('button', /^Auditors, last talk, Fri 15 Oct 2027, 12:00/);
  expect(desk.errors).toEqual([]);
  await desk.close();
});

test('three times are offered to somebody outside, who takes the second on a page of their own', async () => {
  const desk = await Desk.as(browser, home, 'tomas', '/for/ines/calendar?week=2027-11-08');
  await desk.press('button', 'Openings');
  await desk.find('button', /^Mon 8, /);
  await desk.page.evaluate(() => document.querySelector<HTMLElement>('aside ol button')?.focus());
  for (const [key, says] of [
    ['h', 'One time chosen'],
    ['ArrowDown', ''],
    ['h', '2 times chosen'],
    ['ArrowDown', ''],
    ['h', '3 times chosen'],
  ] as const) {
    await desk.page.keyboard.press(key);
    if (says) await desk.says(says);
  }
  await desk.fill('What it is for', 'Peat: the buyers, first talk');
  await desk.press('button', 'Hold these 3 for Inés');
  await desk.says('3 times are held.');
  await desk.press('button', /^[A-Z] 1\/3 · Peat: the buyers/);
  await desk.fill('What whoever chooses reads', 'A talk with Inés Varga');
  await desk.press('button', 'Offer these on a page');
  const link = await desk.find('link', /\/offer\//);
  const address = await link.evaluate((a) => (a as HTMLAnchorElement).href);
  // On a phone, without an account.
  const visitor = await Desk.open(browser, address, { width: 390, height: 844 });
  await visitor.find('heading', 'A talk with Inés Varga');
  await visitor.saysNot('Peat');
  const times = await visitor.page.$$eval('main li button', (list) => list.map((b) => b.textContent ?? ''));
  expect(times).toHaveLength(3);
  await visitor.press('button', times[1] ?? '');
  await visitor.press('button', 'Choose this time');
  await visitor.says('Give a name.');
  await visitor.fill('Your name', 'Marta Quill');
  await visitor.fill('Your address', 'marta@quill-audit.example');
  await visitor.press('button', 'Choose this time');
  await visitor.find('heading', 'It is yours');
  expect(await faultsByDayAndNight(visitor)).toEqual([]);
  const late = await Desk.open(browser, address);
  await late.says('This offer has ended, or was withdrawn.');
  // In the assistant's window the one is the meeting, with whoever chose it, and the others are free.
  await desk.find('button', /^Peat: the buyers, first talk,/);
  await desk.gone('button', /^[A-Z] .\/. · Peat: the buyers/);
  await desk.press('button', /^Peat: the buyers, first talk,/);
  await desk.says('Marta Quill');
  await desk.go(`${home}/for/ines/messages`);
  await desk.says('Marta Quill chose this time among those offered as “A talk with Inés Varga”.');
  expect([...desk.errors, ...visitor.errors]).toEqual([]);
  for (const one of [late, visitor, desk]) await one.close();
});

test('a lunch is wished for whom one arranges: seen on the board, warned of, and held to by the search', async () => {
  const desk = await Desk.as(browser, home, 'tomas', '/for/bruno/calendar?week=2027-12-06');
  await desk.press('button', 'More acts');
  await desk.press('menuitem', 'Wishes for the days');
  await desk.press('button', 'A late start');
  await desk.find('region', 'Nothing in these hours');
  await desk.press('button', 'Save for Bruno');
  await desk.says('The wishes are saved.');
  const bands = (count: number) =>
    desk.page.waitForFunction(
      (count) => document.querySelectorAll('[title="Nothing in these hours"]').length === count,
      {},
      count,
    );
  await bands(5);
  await desk.press('button', 'Close');
  await desk.page.keyboard.press('n');
  await desk.fill('From', '09:00');
  await desk.says('Against Bruno’s wish for these hours');
  await desk.press('button', 'Cancel');
  await desk.press('button', 'More acts');
  await desk.press('menuitem', 'Wishes for the days');
  await desk.press('button', 'Remove');
  await desk.press('button', 'Save for Bruno');
  await desk.says('Nothing is wished yet.');
  await bands(0);
  expect(desk.errors).toEqual([]);
  await desk.close();
});

test('on their own screen: five people in three zones and a room, walked and sent by the keys, each day and bar as one sees it', async () => {
  // Somebody on a third clock, who works till late on it.
  const otto = await Caller.stepIn(home, 'otto');
  const clock = { zone: 'America/New_York', hours: '24', weekFirst: 1, dateOrder: 'dmy', workHours: null };
  expect((await otto.send('PUT', '/api/preferences', clock)).status).toBe(200);
  const desk = await Desk.as(browser, home, 'tomas', '/for/ines/calendar?week=2027-09-20');
  await desk.go(`${home}/for/ines/openings?from=2027-09-20`);
  const phrase = (name: RegExp) => desk.find('button', name);
  await (await phrase(/^Who comes/)).press('Enter');
  for (const [typed, whole] of [
    ['Bruno', 'Bruno Keane'],
    ['Amara', 'Amara Reyes'],
    ['Luc', 'Lucía Pardo'],
    ['Otto', 'Otto Linn'],
  ] as const) {
    await desk.fill('Who comes', typed, 'combobox');
    await desk.press('option', new RegExp(`^${whole}`));
  }
  await desk.page.keyboard.press('Escape');
  await desk.find('button', /Who comes: with Bruno, Amara, Lucía, and Otto/);
  await (await phrase(/^Where/)).press('Enter');
  await desk.press('checkbox', 'Any room that is free');
  await desk.page.keyboard.press('Escape');
  await desk.find('button', /Where: in any room for 5/);
  await desk.find('region', /^How many of 5 can come/);
  await desk.find('button', /North room/);
  // A lane for everybody, their own time where it is another, and nothing of what isn’t seen.
  await desk.says('in Bogota');
  await desk.says('in New York');
  await desk.says('Lucía Pardo');
  await desk.fill('What it is for', 'Uplands, the plan for spring');
  await desk.says('S sends it');
  await desk.page.evaluate(() => document.querySelector<HTMLElement>('aside ol button')?.focus());
  await desk.page.keyboard.press('ArrowDown');
  await desk.page.keyboard.press('s');
  await desk.says('Bruno Keane');
  await desk.says('it leaves in ten seconds');
  expect(desk.errors).toEqual([]);
  await desk.close();
});

test('another time is looked for something that stands, and what is walked and taken moves it', async () => {
  const tomas = await Caller.stepIn(home, 'tomas');
  const frame = await tomas.json<{ principals: { handle: string; calendar: string }[] }>('/api/frame');
  const calendar = frame.principals.find((p) => p.handle === 'bruno')?.calendar ?? '';
  const when = { start: '2027-09-27T10:00', end: '2027-09-27T10:30', allDay: false, zone: 'Europe/Lisbon' };
  await tomas.send('POST', `/api/calendars/${calendar}/items`, { title: 'Ledger talk', when });
  const desk = await Desk.as(browser, home, 'tomas', '/for/bruno/calendar?week=2027-09-27');
  await desk.press('button', /^Ledger talk/);
  await desk.press('button', 'Another time…');
  // As long as it is; its own time is free for it.
  await desk.says('30 minutes');
  await desk.press('button', /^Tue 28, 09:00/);
  await desk.press('button', /^Save to Bruno/);
  await desk.find('button', /^Ledger talk, Tue 28 Sept 2027, 09:00/);
  // And from an address, on the screen of its own.
  const listed = await tomas.json<{ items: { id: string; title?: string }[] }>(
    `/api/calendars/${calendar}/items?from=2027-09-28&to=2027-09-29&zone=Europe/Lisbon`,
  );
  const item = listed.items.find((one) => one.title === 'Ledger talk')?.id ?? '';
  await desk.go(`${home}/for/bruno/openings?from=2027-09-27&item=${item}`);
  await desk.says('Another time for “Ledger talk”, which is Tue 28 Sept 2027, 09:00–09:30.');
  await desk.find('button', /How long: 30 minutes/);
  expect(desk.errors).toEqual([]);
  await desk.close();
});

test('a time for a series is offered by how often it works, and begins the form with its repeat', async () => {
  const desk = await Desk.as(browser, home, 'tomas', '/for/bruno/openings?from=2027-08-02&length=30');
  await (await desk.find('button', /^In the next/)).press('Enter');
  await desk.press('combobox', 'How often');
  await desk.press('option', 'Every week');
  await desk.page.keyboard.press('Escape');
  await desk.press('button', /works 6 of 6 times/);
  await desk.find('textbox', 'Title');
  await desk.says('6 times');
  expect(desk.errors).toEqual([]);
  await desk.close();
});

test('the next half hour with her where she is, is answered in the one box, and Enter begins it there', async () => {
  const desk = await Desk.as(browser, home, 'tomas', '/for/ines/calendar');
  await desk.find('button', /^Board pre-read/);
  await desk.press('button', /^Find or do anything/);
  await desk.fill('Find or do anything', 'next 30 minutes with her at Ridge House', 'combobox');
  await desk.find('option', /^The next 30 minutes with Inés at Ridge House: .*\(Enter fills it in\)/);
  await desk.page.keyboard.press('Enter');
  await desk.find('textbox', 'Title');
  const place = await desk.find('textbox', 'Place');
  expect(await place.evaluate((el) => (el as HTMLInputElement).value)).toBe('Ridge House');
  expect(desk.errors).toEqual([]);
  await desk.close();
});

test('who shows nothing is named as not known, and asked in one press to show it', async () => {
  const dario = await Desk.as(browser, home, 'dario', '/for/dario/openings');
  await (await dario.find('button', /^Who comes/)).press('Enter');
  await dario.fill('Who comes', 'Inés', 'combobox');
  await dario.press('option', /^Inés Varga/);
  await dario.page.keyboard.press('Escape');
  await dario.find('button', /Who comes: with Inés \(not known\)/);
  await dario.press('button', 'Ask them to show when they are free or busy');
  await dario.says('Asked, no answer yet: Inés Varga.');
  const ines = await Desk.as(browser, home, 'ines', '/for/ines/messages');
  await ines.find('article', 'Dario Venn asks for access to Inés Varga’s calendar');
  await ines.says('So that times can be found that suit you too.');
  expect([...dario.errors, ...ines.errors]).toEqual([]);
  for (const one of [dario, ines]) await one.close();
});

test('a round of three talks with a candidate is placed, held in one act for whom one works, and taken back in one', async () => {
  const desk = await Desk.as(browser, home, 'tomas', '/for/ines/openings?from=2027-08-23');
  await desk.press('link', 'A round');
  await desk.find('heading', 'A round for Inés');
  await desk.press('button', 'One meeting more');
  const everyone = await desk.find('region', 'For all of them');
  await desk.fill('Who comes', 'marta@quill-audit.example', 'combobox', everyone);
  await desk.page.keyboard.press('Enter');
  const third = await desk.find('region', 'Meeting 3');
  await desk.fill('Who comes', 'Bruno', 'combobox', third);
  await desk.press('option', /^Bruno Keane/);
  await desk.says('Not known, and counted nowhere: marta@quill-audit.example');
  await desk.says('3 of them have no title yet: say what each is for.');
  for (const [n, title] of [
    'Peat warden, first talk',
    'Peat warden, second talk',
    'Peat warden, the figures',
  ].entries()) {
    const meeting = await desk.find('region', `Meeting ${n + 1}`);
    await desk.fill('What it is for', title, 'textbox', meeting);
  }
  await desk.find('button', /^Peat warden, the figures/);
  await desk.press('button', 'Hold these 3 for Inés');
  await desk.says('They stand in Inés’s calendar so.');
  await desk.press('button', 'Undo');
  await desk.says('As it was before');
  await desk.press('button', 'Place these again');
  await desk.press('button', /^Send these 3 for Inés, ask 2/);
  // One of them is outside: it is asked first, whichever screen sends.
  await desk.find('dialog', 'This leaves the house');
  await desk.press('button', 'Send it');
  await desk.says('3 meetings are called.');
  await desk.press('link', 'See them there');
  await desk.find('button', /Peat warden, first talk/);
  expect(desk.errors).toEqual([]);
  await desk.close();
});

test('from a clash in the form all times that work are a press away, and one that is taken fills it', async () => {
  const desk = await Desk.as(browser, home, 'tomas', '/for/bruno/calendar?week=2027-03-15');
  await desk.find('button', 'Openings');
  await desk.page.keyboard.press('n');
  await desk.fill('Title', 'Ledger, a word');
  await desk.fill('From', '06:00');
  await desk.says('Outside Bruno’s hours');
  await desk.press('button', 'More times…');
  const times = await desk.find('region', 'Openings');
  const first = await desk.find('button', /nothing against it|leaves a gap/, times);
  const words = (await first.evaluate((el) => el.textContent)) ?? '';
  await first.press('Enter');
  const from = await desk.find('textbox', 'From');
  expect(words).toContain(await from.evaluate((el) => (el as HTMLInputElement).value));
  expect(desk.errors).toEqual([]);
  await desk.close();
});
