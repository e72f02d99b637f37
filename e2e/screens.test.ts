import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { faultsByDayAndNight } from './axe.ts';
import { lostFocus, smallTargets, spilling, wideAt400 } from './beyond-axe.ts';
import { Caller } from './caller.ts';
import { Desk } from './desk.ts';
import { sampleFor } from './servers.ts';
import { startBrowser } from './windows.ts';

const home = await sampleFor('screens');
let browser: Browser;
beforeAll(async () => {
  browser = await startBrowser();
});
afterAll(() => browser?.close());

const open = (who: string, path: string, size?: { width: number; height: number }): Promise<Desk> =>
  Desk.as(browser, home, who, path, size);

const SCREENS: [string, string, string, (desk: Desk) => Promise<unknown>][] = [
  ['the Desk', 'tomas', '/for/tomas/desk', (d) => d.find('complementary', 'The chosen row')],
  ['the Desk, with nothing on it', 'dario', '/for/dario/desk', (d) => d.find('heading', 'Nothing to decide')],
  ['the Desk, with one thing on it', 'noor', '/for/noor/desk', (d) => d.find('heading', 'One thing to decide')],
  ['the morning', 'tomas', '/for/tomas/day?of=morning', (d) => d.find('heading', 'Since yesterday')],
  ['the evening', 'ines', '/for/ines/day?of=evening', (d) => d.find('heading', 'Done in your name today')],
  ['the trail', 'ines', '/for/ines/trail', (d) => d.find('button', 'Take this back')],
  ['time use', 'tomas', '/for/ines/time-use', (d) => d.find('heading', 'Week by week')],
  ['the away notice', 'ines', '/for/ines/calendar?away=1', (d) => d.find('complementary', 'Away notice')],
  ['the week board of a principal', 'tomas', '/for/ines/calendar', (d) => d.find('button', /^Board pre-read/)],
  ['an item in the panel', 'tomas', '/for/ines/calendar', (d) => d.press('button', /^Call, ministry/)],
  ['the form', 'tomas', '/for/ines/calendar?new=1', (d) => d.press('button', 'More')],
  ['a calendar seen free/busy', 'kofi', '/for/kofi/calendar?of=ines', (d) => d.find('button', /^Busy/)],
  ['the month sheet', 'tomas', '/for/ines/calendar?view=month', (d) => d.find('button', /Leadership/)],
  ['the list', 'tomas', '/for/ines/calendar?view=list', (d) => d.find('button', /Board pre-read/)],
  ['side by side, with the kept lanes', 'tomas', '/for/ines/calendar?view=side', (d) => d.press('button', /^Lanes/)],
  [
    'the search for openings',
    'tomas',
    '/for/ines/calendar',
    // What stood beside the board takes of the room its head has.
    async (d) => {
      await d.press('button', 'Close');
      await d.press('button', 'Openings');
    },
  ],
  ['Openings, on their own screen', 'tomas', '/for/ines/openings', (d) => d.find('region', /can come/)],
  ['a round', 'tomas', '/for/ines/openings/round', (d) => d.find('button', /^Hold these 2/)],
  ['the search, with the days it marks', 'tomas', '/for/ines/calendar?find=heron', (d) => d.says('are found')],
  ['a day sheet', 'tomas', '/for/ines/day-sheet?day=2027-03-03', (d) => d.find('heading', 'Leadership')],
  ['Sightlines', 'ines', '/for/ines/sightlines', (d) => d.press('button', /^Tomas Lindqvist/)],
  ['Messages', 'tomas', '/for/tomas/messages', (d) => d.says('gave you access')],
  ['Messages, with what waits for a yes', 'ines', '/for/ines/messages', (d) => d.find('article', 'Seed Store roof')],
  ['what one put forward', 'pim', '/for/pim/messages', (d) => d.find('region', 'What you put forward')],
  ['a change put forward', 'pim', '/for/pim/calendar?of=ines', forward],
  ['House rules', 'ines', '/for/ines/house-rules', (d) => d.find('button', 'Save the house rules')],
  ['seen as another', 'ines', '/for/ines/calendar?as=person%3Aamara', (d) => d.says('as Amara Reyes gets it')],
  ['People, to an administrator', 'ines', '/for/ines/people', (d) => d.find('button', 'Make a group')],
  ['People', 'noor', '/for/noor/people', (d) => d.find('row', /Amara Reyes/)],
  ['what one may see and do', 'tomas', '/for/tomas/granted', (d) => d.find('article', 'Inés Varga')],
  ['access asked for, to be answered', 'bruno', '/for/bruno/messages', (d) => d.says('As Amara would see')],
  [
    'asking for access',
    'kofi',
    '/for/kofi/people?ask=somebody',
    (d) => d.find('complementary', 'Ask somebody for access'),
  ],
  ['Settings', 'ines', '/for/ines/settings', (d) => d.find('heading', 'Where I am signed in')],
  ['nothing here', 'dario', '/for/dario/calendar?of=ines', (d) => d.find('heading', 'There is nothing here')],
  ['the sign-in page', '', '/sign-in', (d) => d.find('heading', 'Sign in')],
  ['a link in Sightlines', 'ines', `/for/ines/sightlines?c=VISITS`, (d) => d.press('button', /^Visitors’ page/)],
  ['a house rule that stands against a choice', 'ines', '/for/ines/sightlines?who=person%3Amarta', barred],
  ['the three layers', 'ayesha', '/for/ayesha/sightlines', layers],
  ['Sightlines, to an administrator', 'noor', '/for/noor/sightlines?of=bruno', (d) => d.says('as an administrator')],
  ['Messages, with wishes', 'noor', '/for/noor/messages', (d) => d.find('button', 'Change the rule')],
  ['a person, to an administrator', 'noor', '/for/noor/people', (d) => d.press('button', 'Open Amara Reyes')],
  ['the directory as a file', 'noor', '/for/noor/people', (d) => d.press('button', 'As a file')],
  ['a guest’s way in', '', '/guest', (d) => d.find('heading', 'Come in as a guest')],
  ['a letter’s address', '', '/guest/none', (d) => d.find('button', 'Come in')],
  ['a way in', '', '/way-in/none', (d) => d.find('heading', 'Choose a password')],
  ['the letterbox', '', '/letterbox', (d) => d.find('heading', 'Letters to people outside')],
  ['a link, to a stranger', '', '/see/LINK', (d) => d.find('heading', /^Visits to the moor/)],
  ['a link that shows nothing', '', '/see/none', (d) => d.find('heading', 'This address shows nothing')],
];

async function barred(desk: Desk): Promise<void> {
  await desk.press('button', /^Full/);
  await desk.says('Full needs “People outside see at most” to be Full.');
}
async function forward(desk: Desk): Promise<void> {
  await desk.press('button', /^Board pre-read/);
  await desk.press('button', 'Put a change forward');
  await desk.find('textbox', 'Why');
}
async function layers(desk: Desk): Promise<void> {
  await desk.press('button', 'The calendar as a whole');
  await desk.press('menuitem', 'Begin with three layers');
  await desk.find('button', 'Give all of this, and tell them');
}

/** Where the sample organisation's further calendar and its link are. */
const places = { calendar: '', link: '' };
beforeAll(async () => {
  const ines = await Caller.stepIn(home, 'ines');
  const frame = await ines.json<{ principals: { own: boolean; calendar: string }[] }>('/api/frame');
  const main = frame.principals.find((p) => p.own)?.calendar ?? '';
  const lines = await ines.json<{ others: { key: string; name: string }[] }>(`/api/calendars/${main}/sightlines`);
  places.calendar = lines.others.find((c) => c.name === 'Visits to the moor')?.key ?? '';
  const further = await ines.json<{ rows: { link: string | null }[] }>(`/api/calendars/${places.calendar}/sightlines`);
  places.link = further.rows.find((r) => r.link)?.link?.slice('/see/'.length) ?? '';
});
const placed = (path: string): string => path.replace('VISITS', places.calendar).replace('LINK', places.link);

/** Whose window each screen is looked at in: one load, and from there on as the links go. Without anybody each is loaded by itself. */
const WINDOWS = [...new Set(SCREENS.map(([name, who]) => who || name))].map((window): [string, typeof SCREENS] => [
  window,
  SCREENS.filter(([name, who]) => (who || name) === window),
]);

// They only look: two at once.
test.concurrent.each(WINDOWS)(
  '%s: axe finds nothing serious by day or by night, nothing breaks',
  { timeout: 600_000 },
  async (_, screens) => {
    const [, who, first] = screens[0] as (typeof SCREENS)[number];
    const desk = who ? await open(who, placed(first)) : await Desk.open(browser, home + placed(first));
    for (const [name, , path, shown] of screens) {
      await desk.follow(placed(path));
      await shown(desk);
      expect([name, await faultsByDayAndNight(desk)]).toEqual([name, []]);
      expect([name, await smallTargets(desk)]).toEqual([name, []]);
      expect([name, await spilling(desk)]).toEqual([name, []]);
      expect([name, await wideAt400(desk)]).toEqual([name, []]);
      expect([name, desk.errors]).toEqual([name, []]);
    }
    await desk.close();
  },
);

test.each([
  ['tomas', '/for/tomas/desk'],
  ['tomas', '/for/ines/calendar?new=1'],
  ['ines', '/for/ines/sightlines'],
  ['ines', '/for/ines/messages'],
  ['ines', '/for/ines/settings'],
])('for %s, on the way of Tab through %s, what has the focus is seen and shows it', async (who, path) => {
  const desk = await open(who, path);
  await desk.find('status', 'live');
  expect(await lostFocus(desk, 60)).toEqual([]);
  await desk.close();
});

test('what somebody else moves glides to where it went, and nothing moves where less is asked for', async () => {
  const caller = await Caller.stepIn(home, 'tomas');
  const frame = await caller.json<{ principals: { own: boolean; calendar: string }[] }>('/api/frame');
  const calendar = frame.principals.find((p) => p.own)?.calendar ?? '';
  const at = (hour: number) => ({
    start: `2027-09-07T${hour}:00`,
    end: `2027-09-07T${hour}:30`,
    allDay: false,
    zone: 'Europe/Lisbon',
  });
  const made = await caller.send('POST', `/api/calendars/${calendar}/items`, { title: 'Glides', when: at(10) });
  const { id } = JSON.parse(made.text).item as { id: string };
  const desk = await open('tomas', '/for/tomas/calendar?week=2027-09-06');
  await desk.find('status', 'live');
  await desk.page.evaluate(() => {
    const { animate } = Element.prototype;
    Element.prototype.animate = function (frames, options) {
      document.body.dataset.glides = `${document.body.dataset.glides ?? ''}${(options as KeyframeAnimationOptions).duration} `;
      return animate.call(this, frames, options);
    };
  });
  const glides = () => desk.page.evaluate(() => document.body.dataset.glides ?? '');
  let version = 1;
  const move = async (hour: number) => {
    const moved = await caller.send('PATCH', `/api/items/${id}`, { version, when: at(hour) });
    expect([moved.status, moved.text]).toEqual([200, moved.text]);
    version++;
    await desk.find('button', new RegExp(`^Glides, Tue 7 Sept? 2027, ${hour}:00`));
  };
  await desk.find('button', /^Glides/);
  await move(12);
  expect(await glides()).toBe('');
  await desk.page.emulateMediaFeatures([{ name: 'prefers-reduced-motion', value: 'no-preference' }]);
  await move(14);
  expect(await glides()).toBe('140 ');
  await desk.close();
});

describe('by keyboard alone', () => {
  const press = async (desk: Desk, ...keys: string[]) => {
    for (const key of keys) await desk.page.keyboard.press(key as never);
  };

  test('an item is made, moved by a day, opened and removed', async () => {
    const desk = await open('tomas', '/for/ines/calendar?week=2027-08-02');
    await desk.find('status', 'live');
    await desk.find('button', /^Leadership, Wed 4 Aug/);
    await press(desk, 'n');
    await desk.find('complementary', 'New item');
    await desk.page.keyboard.type('Made by keys');
    await press(desk, 'Enter');
    const block = await desk.find('button', /^Made by keys, Mon 2 Aug 2027, 09:00–10:00/);
    await block.focus();
    await press(desk, 'Space');
    await desk.says('Picked up Made by keys.');
    // The next key is heard from the turn after the pick-up on.
    await desk.page.evaluate(() => new Promise((done) => setTimeout(done)));
    await press(desk, 'ArrowRight');
    await desk.says('Made by keys at Tue 3, 09:00.');
    await press(desk, 'ArrowDown', 'ArrowDown');
    await desk.says('09:30–10:30 Made by keys');
    await press(desk, 'Space');
    const moved = await desk.find('button', /^Made by keys, Tue 3 Aug 2027, 09:30–10:30/);
    await moved.focus();
    await press(desk, 'Enter');
    const remove = await desk.find('button', 'Remove');
    await remove.focus();
    await press(desk, 'Enter');
    await desk.gone('button', /^Made by keys/);
    const undo = await desk.find('button', 'Undo');
    await undo.focus();
    await press(desk, 'Enter');
    await desk.find('button', /^Made by keys, Tue 3 Aug/);
    await desk.close();
  });

  test('the palette goes where one types', async () => {
    const desk = await open('tomas', '/for/tomas/calendar');
    await desk.find('status', 'live');
    await desk.page.keyboard.down('Control');
    await press(desk, 'k');
    await desk.page.keyboard.up('Control');
    await desk.find('combobox', 'Find or do anything');
    await desk.page.keyboard.type('work for in');
    await desk.find('option', 'Work for Inés Varga');
    await press(desk, 'Enter');
    await desk.find('button', /^Board pre-read/);
    expect(new URL(desk.page.url()).pathname).toBe('/for/ines/calendar');
    await desk.close();
  });
});

describe('what is typed is kept when its form is left', () => {
  const value = async (desk: Desk, label: string) =>
    (await desk.any(label)).evaluate((el) => (el as HTMLInputElement).value);

  test('for another block, for N, for a link and for the back key, and gone on with in one press', async () => {
    const desk = await open('tomas', '/for/tomas/calendar?week=2027-09-06');
    await desk.find('status', 'live');
    await desk.page.keyboard.press('n');
    await desk.fill('Title', 'Half a thought');
    await desk.press('link', 'People');
    await desk.says('Not saved yet: Half a thought');
    await desk.press('link', 'Go on with it');
    await desk.find('button', 'Save to my calendar');
    expect(await value(desk, 'Title')).toBe('Half a thought');
    await desk.fill('Place', 'Marsh Lab');
    await desk.press('button', 'More acts');
    await desk.press('menuitem', 'Import…');
    await desk.says('Not saved yet: Half a thought');
    await desk.press('link', 'Go on with it');
    await desk.find('button', 'Save to my calendar');
    expect([await value(desk, 'Title'), await value(desk, 'Place')]).toEqual(['Half a thought', 'Marsh Lab']);
    await desk.press('button', 'Cancel without saving');
    await desk.gone('button', 'Save to my calendar');
    await desk.saysNot('Not saved yet');
    // The back key.
    await desk.press('link', 'People');
    await desk.find('heading', 'People');
    await desk.press('link', 'Calendar');
    await desk.find('button', /^Ridge|^More acts/);
    await desk.page.keyboard.press('n');
    await desk.fill('Title', 'Another half');
    await desk.page.goBack();
    await desk.says('Not saved yet: Another half');
    await desk.press('button', 'Throw it away');
    await desk.saysNot('Not saved yet');
    await desk.close();
  });

  test('in Sightlines, for another row', async () => {
    const desk = await open('hedda', '/for/hedda/sightlines');
    await desk.press('button', /^Everyone inside/);
    await desk.press('button', /^Outline/);
    await desk.press('button', 'Give access');
    await desk.fill('Choose who', 'Wren', 'combobox');
    await desk.press('option', /^Wren Castellan/);
    await desk.says('Not saved yet: access for Everyone inside');
    await desk.press('link', 'Go on with it');
    await desk.saysNot('Not saved yet: access for Everyone inside');
    const outline = await desk.find('button', /^Outline/);
    expect(await outline.evaluate((el) => el.getAttribute('aria-pressed'))).toBe('true');
    await desk.close();
  });
});

test('dates and times are typed as one likes, shown in one’s own order, and picked', async () => {
  const desk = await open('brigid', '/for/brigid/settings');
  // The page is there before it listens: what is live does.
  await desk.find('status', 'live');
  await desk.press('button', 'Tue Mar 2, 2027');
  await desk.press('button', '12 hours');
  await desk.press('button', 'Save');
  await desk.says('Saved.');
  await desk.press('link', 'Calendar');
  await desk.press('link', /^New for me/);
  const value = async (label: string) => (await desk.any(label)).evaluate((el) => (el as HTMLInputElement).value);
  for (const [typed, shown] of [
    ['3/4', 'Thu Mar 4, 2027'],
    ['fri', 'Fri Mar 5, 2027'],
    ['11 march', 'Thu Mar 11, 2027'],
  ] as const) {
    await desk.fill('Day', typed);
    await desk.fill('Title', 'Well sounding');
    expect(await value('Day')).toBe(shown);
  }
  await desk.fill('From', '930');
  await desk.fill('To', '2pm');
  await desk.fill('Title', 'Well sounding');
  expect([await value('From'), await value('To')]).toEqual(['9:30 am', '2:00 pm']);
  await desk.press('button', 'Day: choose a day');
  await desk.press('gridcell', '12');
  await desk.press('button', 'From: choose a time');
  await desk.press('option', '10:15 AM');
  expect([await value('Day'), await value('From')]).toEqual(['Fri Mar 12, 2027', '10:15 am']);
  await desk.press('button', 'More');
  expect(await value('Until')).toBe('Fri Mar 12, 2027');
  await desk.fill('Until', '3/14');
  await desk.fill('Day', '3/8');
  await desk.fill('Title', 'Well sounding');
  // Three days are three days when the first of them is moved.
  expect([await value('Day'), await value('Until')]).toEqual(['Mon Mar 8, 2027', 'Wed Mar 10, 2027']);
  await desk.fill('Until', '3/8');
  await desk.fill('Day', 'some day');
  await desk.press('button', 'Save to my calendar');
  await desk.says('This is no date');
  await desk.fill('Day', '3/5');
  await desk.press('button', 'Save to my calendar');
  await desk.find('button', /^Well sounding, Fri 5 Mar 2027, 10:15 am/);
  expect(desk.errors).toEqual([]);
  await desk.close();
});

describe('in a hand', () => {
  test('390 pixels wide: the day is seen, an item opened and moved by its form, nothing lies beyond the edge', async () => {
    const desk = await open('tomas', '/for/ines/calendar', { width: 390, height: 844 });
    await desk.find('button', /^Board pre-read/);
    const wide = await desk.page.evaluate(() => document.documentElement.scrollWidth);
    expect(wide).toBeLessThanOrEqual(390);
    await desk.press('button', /^Press line/);
    await desk.press('button', 'Change');
    await desk.fill('From', '1915');
    await desk.press('button', 'Send for Inés to 1');
    await desk.press('button', 'Close');
    await desk.find('button', /^Press line, Tue 2 Mar 2027, 19:15–/);
    await desk.press('button', 'Take it back');
    await desk.gone('button', /^Press line, Tue 2 Mar 2027, 19:15–/);
    expect(desk.errors).toEqual([]);
    await desk.close();
  });
});
