import { gzipSync } from 'node:zlib';
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { Caller } from './caller.ts';
import { Desk } from './desk.ts';
import { rights } from './exits.ts';
import { sampleFor } from './servers.ts';
import { startBrowser } from './windows.ts';

const home = await sampleFor('boards');
let browser: Browser;
beforeAll(async () => {
  browser = await startBrowser();
});
afterAll(() => browser?.close());

test('lanes are kept by a name or a group, shown in every view, renamed, switched off, and there again in another window', async () => {
  const tomas = await Desk.as(browser, home, 'tomas', '/for/ines/calendar');
  await tomas.find('button', /^Board pre-read/);
  await tomas.press('button', /^Lanes/);
  await tomas.fill('Keep a lane', 'Keane', 'combobox');
  await tomas.press('option', /Bruno Keane/);
  // Whose each block is stands in its name, and what one sees of each lane in its head.
  await tomas.find('button', /^Forecast, build, Bruno Keane/);
  await tomas.fill('Keep a lane', 'Reyes', 'combobox');
  await tomas.press('option', /Amara Reyes/);
  await tomas.find('button', /^Busy, Amara Reyes/);
  await tomas.press('button', 'Side by side');
  await tomas.find('button', /^Busy, Amara Reyes/);
  await tomas.press('button', 'Month');
  await tomas.press('button', 'List');
  await tomas.find('button', /Forecast, build.*Bruno Keane/);
  const again = await Desk.as(browser, home, 'tomas', '/for/ines/calendar?view=day');
  await again.find('button', /Amara Reyes|^Away, Amara Reyes/);
  await again.press('button', /^Lanes \+2/);
  await again.press('checkbox', 'Show Amara Reyes');
  await again.find('button', /^Lanes \+1/);
  await again.press('checkbox', 'Show Bruno Keane');
  await again.find('button', 'Lanes');
  expect([...tomas.errors, ...again.errors]).toEqual([]);
  await again.close();
  await tomas.close();
});

test('several calendars come in one request, and what one may see nothing of is said, not shown as empty', async () => {
  const dario = await Caller.stepIn(home, 'dario');
  await dario.send('POST', '/api/lanes', { people: ['ines', 'bruno'], group: null, calendars: [] });
  const desk = await Desk.as(browser, home, 'dario', '/for/dario/calendar');
  await desk.find('button', /^Busy, Bruno Keane/);
  const traffic = await desk.hear();
  // Somewhere nothing was fetched for in advance.
  await desk.page.keyboard.press('g');
  await desk.page.keyboard.type('12 may');
  await desk.page.keyboard.press('Enter');
  await desk.find('heading', /May 2027/);
  await desk.press('button', 'Side by side');
  await desk.says('it isn’t empty');
  const requests = traffic.requests().filter(({ url }) => url.endsWith('/api/boards'));
  const bodies = requests.map(({ body }): { from: string; calendars: string[] } => JSON.parse(body));
  expect(bodies.find((one) => one.from === '2027-05-10')?.calendars).toHaveLength(2);
  // All under a heading are put away at once, and come back at once.
  await desk.press('button', /^Lanes/);
  await desk.press('button', 'Remove all under “I look at”');
  await desk.says('“I look at”: 2 lanes removed from the list.');
  await desk.gone('checkbox', 'Show Bruno Keane');
  await desk.press('button', 'Undo');
  await desk.find('checkbox', 'Show Bruno Keane');
  await desk.close();
});

test('a date is gone to as it is typed, by the keys alone', async () => {
  const tomas = await Desk.as(browser, home, 'tomas', '/for/ines/calendar?view=month');
  await tomas.find('button', /Leadership/);
  await tomas.page.keyboard.press('g');
  await tomas.page.keyboard.type('some day');
  await tomas.page.keyboard.press('Enter');
  await tomas.says('No date is read from this');
  await tomas.page.keyboard.press('Escape');
  await tomas.page.keyboard.press('g');
  await tomas.page.keyboard.type('12 may');
  await tomas.page.keyboard.press('Enter');
  await tomas.find('heading', 'May 2027');
  await tomas.close();
});

test('one box takes a sentence, read back before it is saved; it is undone and done again, found by its words, and tells what happened to it', async () => {
  const made = await (await Caller.stepIn(home, 'tomas')).send('POST', '/api/calendars', {
    of: 'tomas',
    name: 'Bog trips',
  });
  expect(made.status).toBe(200);
  const tomas = await Desk.as(browser, home, 'tomas', '/for/ines/calendar');
  await tomas.find('button', /^Board pre-read/);
  const { keyboard } = tomas.page;
  const chord = async (key: 'k' | 'z' | 'y') => {
    await keyboard.down('Control');
    await keyboard.press(key);
    await keyboard.up('Control');
  };
  await chord('k');
  await tomas.find('combobox', 'Find or do anything');
  await keyboard.type('Peat walk 20 may 3pm 45m at Marsh Lab, outline only');
  await tomas.find('option', /New for Inés: Peat walk · Thu 20 May 2027, 15:00–15:45, Marsh Lab/);
  await keyboard.press('Enter');
  await tomas.press('button', 'Save to Inés’s calendar');
  await tomas.find('button', /^Peat walk/);
  await tomas.press('button', 'What happened here');
  await tomas.says('Tomas Lindqvist for Inés Varga');
  await tomas.find('heading', 'Peat walk');
  await tomas.press('button', 'Close');
  await chord('z');
  await tomas.gone('button', /^Peat walk/);
  await chord('y');
  await tomas.find('button', /^Peat walk/);
  await chord('k');
  await tomas.find('combobox', 'Find or do anything');
  await keyboard.type('peat mars');
  await tomas.find('option', /^Peat walk · Thu 20 May 2027/);
  await keyboard.press('Escape');
  // A further calendar is named in the sentence, and saved into at once or through its form.
  await chord('k');
  await tomas.fill('Find or do anything', 'Moss count 21 may 9am 1h into bog trips', 'combobox');
  await tomas.find('option', /New for me, in “Bog trips”: Moss count · Fri 21 May 2027, 09:00–10:00/);
  await keyboard.down('Control');
  await keyboard.press('Enter');
  await keyboard.up('Control');
  await tomas.says('Saved to your calendar “Bog trips”: Moss count');
  await chord('k');
  await tomas.fill('Find or do anything', 'Moss talk 21 may 11am into bog trips', 'combobox');
  await tomas.press('option', /New for me, in “Bog trips”: Moss talk/);
  await tomas.find('button', 'Save to my calendar “Bog trips”');
  await tomas.find('button', /^Moss count/);
  expect(tomas.errors).toEqual([]);
  await tomas.close();
});

test('openings are found for whoever comes, with their reasons, and one fills the item in', async () => {
  const tomas = await Desk.as(browser, home, 'tomas', '/for/ines/calendar');
  await tomas.find('button', /^Board pre-read/);
  await tomas.press('button', 'Openings');
  await tomas.press('button', /^Who comes/);
  await tomas.fill('Who comes', 'Keane', 'combobox');
  await tomas.press('option', /Bruno Keane/);
  await tomas.page.keyboard.press('Escape');
  await tomas.says('nothing against it');
  const panel = await tomas.find('complementary', 'Openings');
  await tomas.press('button', /^(Tue|Wed|Thu|Fri|Mon) \d+, \d\d:\d\d/, panel);
  await tomas.find('complementary', 'New item');
  await tomas.find('button', /^Send for Inés to 1/);
  await tomas.saysNot('Clashes with');
  await tomas.close();
});

test('a time that clashes is said while it is typed, and one of the nearest that work is taken by one press', async () => {
  const tomas = await Desk.as(browser, home, 'tomas', '/for/ines/calendar?new=1');
  await tomas.fillDate('Day', '2027-03-02');
  await tomas.fill('From', '10:00');
  await tomas.fill('To', '11:00');
  await tomas.says('Clashes with Board pre-read');
  await tomas.press('button', /^Tue 2, 13:00/);
  await tomas.saysNot('Clashes with Board pre-read');
  await tomas.close();
});

test('what is looked for is found beside the board, marked on the weeks, and gone to; it goes on when one goes elsewhere', async () => {
  const desk = await Desk.as(browser, home, 'tomas', '/for/ines/calendar');
  await desk.find('status', 'live');
  await desk.page.keyboard.down('Control');
  await desk.page.keyboard.press('k');
  await desk.page.keyboard.up('Control');
  await desk.fill('Find or do anything', 'heron', 'combobox');
  await desk.press('option', 'Look for “heron” in Inés’s weeks');
  await desk.find('button', /^Week of 1 Mar.*one found/);
  await desk.find('link', /^Heron: after the board/);
  await desk.fill('Words, people or a place', 'heron board');
  await desk.find('button', /^Week of 8 Mar.*one found/);
  await desk.gone('button', /^Week of 1 Mar.*found/);
  await desk.press('link', /^Heron: after the board.*Inés/);
  await desk.find('heading', 'Heron: after the board');
  await desk.press('button', 'Close');
  await desk.find('button', /^Week of 8 Mar.*one found/);
  expect(desk.errors).toEqual([]);
  // A way to what is gone, or was never there, says so.
  await desk.follow('/for/ines/calendar?item=nowhere');
  await desk.says('What this leads to isn’t here any more, or isn’t yours to see.');
  await desk.close();
});

test('once the right is gone an open form says so and saves nothing; what was typed goes into one’s own calendar, for oneself', async () => {
  const ines = await Caller.stepIn(home, 'ines');
  const { calendar, grant, rights } = await given(ines, 'wren');
  const audience = { kind: 'person', id: 'wren' };
  const give = async (more: object, seen: string | null) =>
    expect(
      (await ines.send('PUT', `/api/calendars/${calendar}/grants`, { audience, rights: { ...rights, ...more }, seen }))
        .status,
    ).toBe(200);
  await give({ sight: 'full', add: true }, grant);
  const desk = await Desk.as(browser, home, 'wren', '/for/ines/calendar?week=2027-03-01');
  await desk.press('link', /^New for Inés/);
  await desk.fill('Title', 'Weir keys');
  // What is typed so far goes along into another calendar, and back.
  await desk.choose('Goes into', 'my own calendar');
  await desk.find('button', 'Save to my calendar');
  await desk.choose('Goes into', 'Inés’s calendar');
  await desk.find('button', 'Save to Inés’s calendar');
  await give({ sight: 'busy' }, (await given(ines, 'wren')).grant);
  await desk.says('This can’t be saved for Inés any more.');
  expect(await desk.look('button', /^Save to Inés/)).toBe(null);
  await desk.says('Inés Varga’s calendar, 1–7 March 2027');
  await desk.press('button', 'Keep a copy in my calendar');
  await desk.press('button', 'Save to my calendar');
  await desk.find('button', /^Weir keys \(copy, from Inés’s calendar\)/);
  expect(desk.errors).toEqual([]);
  await desk.close();
});

/** What somebody was given on her calendar: the key of it as it stands, and rights to change. */
async function given(ines: Caller, handle: string) {
  const { principals } = await ines.json<{ principals: { own: boolean; calendar: string }[] }>('/api/frame');
  const calendar = principals.find((p) => p.own)?.calendar ?? '';
  const { rows } = await ines.json<{
    rows: { audience: { id?: string }; grants: { key: string; rights: object }[] }[];
  }>(`/api/calendars/${calendar}/sightlines`);
  const grant = rows.find((row) => row.audience.id === handle)?.grants[0];
  return { calendar, grant: grant?.key ?? null, rights };
}

test('the first board stands on less than 300 KB of script; the rest comes after it', async () => {
  const caller = await Caller.stepIn(home, 'tomas');
  const page = await caller.send('GET', '/for/ines/calendar');
  const named = (tags: RegExp) => new Set([...page.text.matchAll(tags)].map(([, src = '']) => src));
  const weigh = async (all: ReadonlySet<string>) => {
    const sizes = await Promise.all([...all].map(async (src) => gzipSync((await caller.send('GET', src)).text).length));
    return sizes.reduce((a, b) => a + b, 0) / 1024;
  };
  const scripts = named(/<script(?![^>]*nomodule)[^>]* src="([^"]+)"/gi);
  expect(scripts.size).toBeGreaterThan(5);
  expect(await weigh(scripts)).toBeLessThan(300);
  // Beside it, and kept: the texts of one language, which no page carries.
  const texts = new Set([...named(/<link rel="preload"[^>]* href="([^"]+\.js)"/gi)].filter((src) => !scripts.has(src)));
  expect(texts.size).toBeGreaterThan(0);
  const textBytes = await weigh(texts);
  expect(textBytes).toBeGreaterThan(20);
  expect(textBytes).toBeLessThan(60);
  expect(page.text).not.toContain('Ceilings for the whole organisation');
});
