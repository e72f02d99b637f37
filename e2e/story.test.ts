import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { calendarFile, MARKS } from './calendar-file.ts';
import { Desk } from './desk.ts';
import { fileToUpload } from './file-to-upload.ts';
import { START_CODE, startServer } from './servers.ts';
import { takesAtMost } from './timed.ts';
import { until } from './until.ts';
import { startBrowser } from './windows.ts';

const PASSWORD = 'moor-mist-2027';
const PEOPLE = ['Tomas Lindqvist', 'Amara Reyes', 'Bruno Keane', 'Dario Venn', 'Wren Castellan'];
const address = (name: string) => `${name.split(' ')[0]?.toLowerCase()}@cloudmoor.example`;

let browser: Browser;
const server = await startServer('empty', { demo: true, env: { PARAMO_START_CODE: START_CODE } });
afterAll(server.stop);
const home = server.address;
beforeAll(async () => {
  browser = await startBrowser();
});
afterAll(() => browser?.close());

/** A window that keeps every byte the server sends to it. */
async function signedIn(name: string): Promise<{ desk: Desk; bytes: () => Promise<string> }> {
  const desk = await Desk.open(browser, 'about:blank');
  const traffic = await desk.hear();
  await desk.go(`${home}/sign-in`);
  await desk.signIn(address(name), PASSWORD);
  // Whoever has something to decide begins at their Desk.
  await desk.find('status', 'live');
  await desk.press('link', 'Calendar');
  await desk.find('heading', /March 2027/);
  const bytes = async () => {
    const bodies = traffic.requests().flatMap(({ url, answer }) => (url.startsWith(home) && answer ? [answer] : []));
    const read = (await Promise.all(bodies)).filter(Boolean);
    expect(read.length).toBeGreaterThan(10);
    return `${read.join('\n')}\n${await desk.page.content()}`;
  };
  return { desk, bytes };
}

async function give(ines: Desk, who: string, level: RegExp): Promise<void> {
  const first = who.split(' ')[0] ?? '';
  await ines.press('button', 'Give access');
  await ines.fill('Choose who', first, 'combobox');
  await ines.press('option', new RegExp(who));
  await ines.find('heading', who);
  await ines.press('button', level);
  await ines.press('button', `Save quietly for ${first}`);
  await ines.says(`Saved. ${who} now has`);
}

const item = (desk: Desk, title: RegExp) => desk.find('button', title);

test('the main job: a manager’s calendar, run by her assistant, seen by five colleagues each in another way', async () => {
  // An organisation begins with one person, who adds the others.
  const ines = await Desk.open(browser, home);
  await ines.fill('The code of this start', START_CODE);
  await ines.fill('Your name', 'Inés Varga');
  await ines.fill('E-mail address', 'ines@cloudmoor.example');
  await ines.fill('Your role', 'Director');
  await ines.fill('Your time zone', 'Europe/Lisbon', 'combobox');
  await ines.press('option', /Europe\/Lisbon/);
  await ines.fill('Password', PASSWORD);
  await ines.press('button', 'Begin with this account');
  await ines.find('heading', /1–7 March 2027/);
  await ines.press('link', 'People');
  await ines.press('button', 'Add a person');
  for (const name of PEOPLE) {
    await ines.fill('Name', name);
    await ines.fill('E-mail address', address(name));
    await ines.fill('Time zone', 'Europe/Lisbon', 'combobox');
    await ines.press('option', /Europe\/Lisbon/);
    await ines.fill('First password', PASSWORD);
    await ines.press('button', `Add ${name}`);
    await ines.says(`${name} can sign in now.`);
  }

  // She brings her calendar in from another program: a preview first, then one act.
  await ines.press('link', 'Calendar');
  await ines.press('button', 'More acts');
  await ines.press('menuitem', 'Import…');
  const file = fileToUpload('export.ics', calendarFile());
  const input = await ines.page.waitForSelector('input[type="file"]');
  await input?.uploadFile(file);
  await ines.says('41 new items');
  await ines.says('3 can’t be read');
  await ines.says('its time zone “Far/Away” is known nowhere');
  await ines.says('repeats more often than once an hour');
  await ines.says('A zone was recognised by its offsets: Own/Time = Europe/Lisbon');
  await ines.press('button', 'Import 41, leave out 3');
  await ines.says('41 items imported, 3 left out.');
  await item(ines, /^Zqtitle Weir talk, Thu 4 Mar 2027, 10:00–11:30/);
  await item(ines, /^Call to Bogotá, Fri 5 Mar 2027, 14:00–15:00/);
  await item(ines, /^Week with everyone, Mon 1 Mar 2027, 08:30–09:00/);
  await item(ines, /^Uplands forum/);
  const taken = await ines.fetch(`${new URL(await fileLink(ines)).pathname}`);
  expect(taken.status).toBe(200);
  expect(taken.text.match(/BEGIN:VEVENT/g)).toHaveLength(41);

  // Sightlines: everyone free/busy, some more, one nothing, one acting for her; each seen as they will get it.
  await ines.press('link', 'Sightlines');
  await ines.find('heading', 'Who sees what in my calendar');
  await ines.press('button', /^Titles/);
  await ines.press('button', 'Save for everyone inside');
  await ines.says('people inside come to see more.');
  await ines.press('button', 'Yes, give it');
  await ines.says('Saved. Everyone inside now has Titles.');
  await ines.press('button', /^Free\/busy/);
  await ines.press('button', 'Save for everyone inside');
  await ines.says('people see less.');
  await ines.press('button', 'Yes, give it');
  await ines.says('Saved. Everyone inside now has Free/busy.');
  const view = await ines.find('heading', 'Everyone’s view of this week');
  expect(view).toBeTruthy();
  await give(ines, 'Amara Reyes', /^Outline/);
  await give(ines, 'Bruno Keane', /^Full/);
  await ines.find('heading', 'Bruno’s view of this week');
  await give(ines, 'Dario Venn', /^Shut out/);
  await give(ines, 'Tomas Lindqvist', /^Delegate/);
  await ines.says('Tomas reads everything but what is private; adds items, changes and removes any item');
  // What was just saved has come back, and with it the view as it is now.
  await ines.says('Delegate · since');
  await ines.press('button', /^Zqsecret Clinic/);
  await ines.press('button', 'Private');
  await ines.says('1 withheld');

  // Tomas turns the window to Inés, makes a meeting for her, drags it to another day and changes its place.
  const tomas = (await signedIn('Tomas Lindqvist')).desk;
  await ines.press('link', 'Calendar');
  await item(ines, /^Zqtitle Weir talk/);
  await tomas.press('link', /^(IV )?Inés Varga/);
  await item(tomas, /^Zqtitle Weir talk/);
  await tomas.press('link', /^New for Inés/);
  await tomas.find('complementary', 'New item');
  await tomas.fill('Title', 'Landowners, first talk');
  await tomas.fillDate('Day', '2027-03-02');
  await tomas.fill('From', '1600');
  await tomas.fill('To', '17:00');
  await tomas.fill('Place', 'Ridge House');
  const shown = titleTurns(ines, 'Landowners, first talk', true);
  const saved = answered(tomas, 'POST', /\/items$/);
  await tomas.press('button', 'Save to Inés’s calendar');
  await tomas.says('Saved to Inés’s calendar');
  await item(ines, /^Landowners, first talk, Tue 2 Mar 2027, 16:00–17:00/);
  takesAtMost('saved to shown elsewhere', (await shown) - (await saved), 1000);
  await drag(tomas, /^Landowners, first talk/, /^Zqtitle Weir talk/);
  await item(tomas, /^Landowners, first talk, Thu 4 Mar 2027, 16:00–17:00/);
  await item(ines, /^Landowners, first talk, Thu 4 Mar 2027, 16:00–17:00/);
  await tomas.press('button', /^Landowners, first talk/);
  await tomas.press('button', 'Change');
  await tomas.fill('Place', 'Marsh Lab');
  await tomas.press('button', 'Save to Inés’s calendar');
  await tomas.says('Made by Tomas Lindqvist for Inés Varga');
  await ines.press('button', /^Landowners, first talk.*Marsh Lab/);
  await ines.says('Made by Tomas Lindqvist for Inés Varga');
  await tomas.press('link', /Myself/);
  await tomas.says('Nothing in this week.');

  // What each colleague gets, to the byte.
  const hidden = { ...MARKS };
  const look = async (name: string, path = '/for/me/calendar?of=ines') => {
    const window = await signedIn(name);
    await window.desk.go(`${home}${path.replace('me', address(name).split('@')[0] ?? '')}`);
    return window;
  };
  const absent = (bytes: string, names: readonly (keyof typeof hidden)[]) => {
    for (const name of names)
      expect([name, bytes.includes(hidden[name].replace('https://', '').slice(0, 6))]).toEqual([name, false]);
  };
  const amara = await look('Amara Reyes');
  await item(amara.desk, /^Zqtitle Weir talk.*Zqplace Hall Lane/);
  await amara.desk.says('You see titles and places');
  await item(amara.desk, /^Private, Wed 3 Mar 2027, 14:00–15:00/);
  absent(await amara.bytes(), ['notes', 'link', 'privateTitle', 'privatePlace']);

  const bruno = await look('Bruno Keane');
  await bruno.desk.press('button', /^Zqtitle Weir talk/);
  await bruno.desk.says(MARKS.notes);
  await item(bruno.desk, /^Private, Wed 3 Mar 2027, 14:00–15:00/);
  absent(await bruno.bytes(), ['privateTitle', 'privatePlace']);

  const wren = await look('Wren Castellan');
  await item(wren.desk, /^Busy, Thu 4 Mar 2027, 10:00–11:30/);
  await item(wren.desk, /^Busy, Wed 3 Mar 2027, 14:00–15:00/);
  absent(await wren.bytes(), ['title', 'place', 'notes', 'link', 'privateTitle', 'privatePlace']);

  const dario = await look('Dario Venn');
  await dario.desk.says('There is nothing here');
  const nobody = await look('Dario Venn', '/for/me/calendar?of=nobody-of-this-name');
  await nobody.desk.says('There is nothing here');
  const darios = await dario.bytes();
  absent(darios, ['title', 'place', 'notes', 'link', 'privateTitle', 'privatePlace']);

  const toms = await look('Tomas Lindqvist', '/for/ines/calendar');
  await item(toms.desk, /^Private, Wed 3 Mar 2027, 14:00–15:00/);
  absent(await toms.bytes(), ['privateTitle', 'privatePlace']);

  // Taken away: Amara's open window falls back to busy blocks at once, and says why.
  await ines.press('link', 'Sightlines');
  await ines.press('button', /^Amara Reyes/);
  await ines.press('button', 'Take away…');
  await ines.says('Afterwards Amara sees free/busy, as everyone inside does.');
  const gone = titleTurns(amara.desk, MARKS.title, false);
  const away = answered(ines, 'DELETE', /\/grants$/);
  await ines.press('button', 'Take away quietly');
  await amara.desk.says('Your access to Inés’s calendar has just changed. You now see free/busy.');
  await amara.desk.gone('button', /^Zqtitle/);
  takesAtMost('withdrawn to gone elsewhere', (await gone) - (await away), 1000);
  await item(amara.desk, /^Busy, Thu 4 Mar 2027, 10:00–11:30/);

  // A change Tomas is typing when his delegation ends is refused in a sentence; what he typed is kept.
  await tomas.press('link', /Inés Varga/);
  await tomas.press('button', /^Landowners, first talk/);
  await tomas.press('button', 'Change');
  await tomas.fill('Place', 'Seed Store, the long table');
  const { id, version } = await itemOf(tomas, 'Landowners, first talk');
  expect((await tomas.fetch(`/api/items/${id}`)).status).toBe(200);
  await ines.press('button', /^Tomas Lindqvist/);
  await ines.press('button', 'Take away…');
  await ines.press('button', 'Take away quietly');
  await tomas.says('You no longer act for Inés. What you were typing is kept below');
  const place = await tomas.any('Place');
  expect(await place.evaluate((el) => (el as HTMLInputElement).value)).toBe('Seed Store, the long table');
  // The very item he could change a moment ago is to him as if it weren't there.
  const body = { version, fields: { title: 'x' } };
  expect((await tomas.fetch(`/api/items/${id}`)).status).toBe(404);
  expect((await tomas.fetch(`/api/items/${id}`, { method: 'PATCH', body })).status).toBe(404);
  for (const window of [ines, tomas, amara.desk, bruno.desk, wren.desk, dario.desk]) expect(window.errors).toEqual([]);
});

/** An item of Inés's week by its title, as a person's own requests name it. */
async function itemOf(desk: Desk, title: string): Promise<{ id: string; version: number }> {
  type Frame = { principals: { handle: string; calendar: string }[] };
  const frame: Frame = JSON.parse((await desk.fetch('/api/frame')).text);
  const key = frame.principals.find((p) => p.handle === 'ines')?.calendar ?? '';
  const week = 'from=2027-03-01&to=2027-03-08&zone=Europe%2FLisbon';
  type Listed = { items: { id: string; version: number; title: string }[] };
  const { items }: Listed = JSON.parse((await desk.fetch(`/api/calendars/${key}/items?${week}`)).text);
  const found = items.find((item) => item.title === title);
  if (!found) throw new Error(`no item called ${title}`);
  return found;
}

/** When a block with a title comes onto a person's screen, or leaves it, by the page's own clock. */
function titleTurns(desk: Desk, title: string, there: boolean): Promise<number> {
  return desk.page.evaluate(
    (title, there) =>
      new Promise<number>((done) => {
        const look = () => [...document.querySelectorAll('[data-block]')].some((el) => el.textContent?.includes(title));
        const watch = new MutationObserver(() => {
          if (look() !== there) return;
          watch.disconnect();
          done(Date.now());
        });
        watch.observe(document.body, { subtree: true, childList: true, characterData: true });
      }),
    title,
    there,
  );
}

/** When the server answered a person's write. */
async function answered(desk: Desk, method: string, path: RegExp): Promise<number> {
  const traffic = await desk.hear();
  return traffic.answered(method, path);
}

async function fileLink(desk: Desk): Promise<string> {
  await desk.press('button', 'More acts');
  const link = await desk.find('menuitem', 'Export');
  const href = await link.evaluate((el) => (el as HTMLAnchorElement).href);
  await desk.page.keyboard.press('Escape');
  await desk.gone('menuitem', 'Export');
  return href;
}

/** Drags an item sideways onto the day of another, with the mouse, at its own hour. */
async function drag(desk: Desk, what: RegExp, onto: RegExp): Promise<void> {
  const [from, to] = [await (await item(desk, what)).boundingBox(), await (await item(desk, onto)).boundingBox()];
  if (!from || !to) throw new Error('nothing to drag');
  const { mouse } = desk.page;
  const y = from.y + from.height / 2;
  await mouse.move(from.x + 20, y);
  await mouse.down();
  await mouse.move(from.x + 40, y, { steps: 4 });
  await mouse.move(to.x + 20, y, { steps: 12 });
  await until(
    'the ghost to follow',
    async () => ((await desk.text()).includes('16:00–17:00 Landowners') ? true : null),
    desk.page,
  );
  await mouse.up();
}
