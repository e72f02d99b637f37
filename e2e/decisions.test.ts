import { expect, test } from 'vitest';
import { Caller } from './caller.ts';
import type { Desk } from './desk.ts';
import { desksAt } from './desks.ts';
import { rights } from './exits.ts';
import { sampleFor } from './servers.ts';
import { until } from './until.ts';

const home = await sampleFor('decisions');
const { open } = desksAt(home);

/** The row that is chosen, as the screen has it: what it is called, and what its steps are. */
const chosen = (desk: Desk) =>
  desk.page.evaluate(() => {
    const row = document.querySelector('article[aria-current]');
    return (
      row && {
        id: row.id,
        title: row.getAttribute('aria-label') ?? '',
        steps: [...row.querySelectorAll('button')].slice(1).map((b) => b.firstChild?.textContent ?? ''),
      }
    );
  });
const press = async (desk: Desk, ...keys: string[]) => {
  for (const key of keys) await desk.page.keyboard.press(key as never);
};
/** The titles of all rows in order, and which of them is chosen. */
const listed = (desk: Desk) =>
  desk.page.evaluate(() => {
    const rows = [...document.querySelectorAll('article[id^="row-"]')];
    return {
      titles: rows.map((row) => row.getAttribute('aria-label') ?? ''),
      at: rows.findIndex((row) => row.hasAttribute('aria-current')),
    };
  });
/** Goes to a row by the keys: the first of a title, or the last row there is. */
async function goTo(desk: Desk, title: RegExp | 'last'): Promise<{ id: string; steps: string[] }> {
  const is = (text: string) => title === 'last' || title.test(text);
  return until(
    `the keys to reach a row called ${title}`,
    async () => {
      const { titles, at } = await listed(desk);
      const to = title === 'last' ? titles.length - 1 : titles.findIndex(is);
      if (to < 0 || at < 0) return null;
      // Rows come and go meanwhile: what is reached is looked at, and gone on from.
      for (let i = 0; i < Math.abs(to - at); i++) await press(desk, to < at ? 'ArrowUp' : 'ArrowDown');
      const row = await chosen(desk);
      return row && is(row.title) && (await listed(desk)).at === to ? row : null;
    },
    desk.page,
  );
}
const leaves = (desk: Desk, id: string) =>
  until('the row to leave', async () => ((await desk.page.$(`#${id}`)) ? null : true), desk.page);
const handle = (title: RegExp, ...keys: string[]) => ({ title, keys });

test('several rows of one kind are picked and answered at once, and one undo takes all of it back', async () => {
  const desk = await open('ines', '/for/ines/desk');
  await desk.find('status', 'live');
  const titles = await until('her clashes', async () => {
    const all = await desk.page.evaluate(() =>
      [...document.querySelectorAll('article[id^="row-"]')].map((row) => row.getAttribute('aria-label') ?? ''),
    );
    const list = all.filter((title) => title.startsWith('Uplands forum and'));
    const once = list.filter((title) => list.indexOf(title) === list.lastIndexOf(title));
    return once.length > 2 ? once : null;
  });
  for (const title of titles.slice(0, 3)) {
    await goTo(desk, new RegExp(`^${title.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}`));
    await press(desk, 'x');
  }
  await desk.says('3 picked');
  const steps = (await chosen(desk))?.steps ?? [];
  await press(desk, String(steps.indexOf('Leave it') + 1));
  for (const title of titles.slice(0, 3)) await desk.gone('article', title);
  await press(desk, 'u');
  for (const title of titles.slice(0, 3)) await desk.find('article', title);
  await press(desk, '?');
  await desk.find('complementary', 'Keys');
  expect(desk.errors).toEqual([]);
});

test('later, passed on, filtered and weighed: each says what it did, stays in the address or is taken back', async () => {
  const desk = await open('ines', '/for/ines/desk');
  await desk.find('status', 'live');
  const { id } = await goTo(desk, /^Week ahead, then Volunteers’ thanks/);
  await press(desk, 'l');
  await desk.fill('A day', 'yesterday');
  await press(desk, 'Enter');
  await desk.says('This is no day to come.');
  await desk.fill('A day', 'friday');
  await press(desk, 'Enter');
  await leaves(desk, id);
  await desk.says('Put off until Fri 5, 08:00.');
  await desk.says('One put off');
  await desk.press('button', 'Undo');
  await desk.find('article', /^Week ahead, then Volunteers’ thanks/);

  await goTo(desk, /^Week ahead, then Volunteers’ thanks/);
  await press(desk, 'p');
  await desk.fill('With a line', 'You know the way');
  await press(desk, 'Enter');
  await desk.says('Passed to Tomas Lindqvist by Inés Varga');

  await desk.choose('Kind', 'Access asked for');
  await desk.find('heading', /^2 things to decide/);
  expect(new URL(desk.page.url()).searchParams.get('kind')).toBe('ask');
  await desk.page.reload();
  await desk.find('heading', /^2 things to decide/);
  await desk.choose('Kind', 'Everything');

  await desk.press('button', 'What counts more');
  const place = () =>
    desk.page.evaluate(() =>
      [...document.querySelectorAll('article[id^="row-"]')].findIndex((row) =>
        row.getAttribute('aria-label')?.startsWith('Maren Stoat asks'),
      ),
    );
  const before = await until('the ask', async () => ((await place()) > 0 ? place() : null), desk.page);
  await desk.find('button', 'Access asked for more');
  for (const said of ['+10', '+20', '+30']) {
    await desk.press('button', 'Access asked for more');
    await desk.says(said);
  }
  await until('the ask to stand higher', async () => ((await place()) < before ? true : null), desk.page);
  await desk.fill('E-mail address', 'nobody');
  await desk.press('button', 'Add');
  await desk.find('alert', /./);
  expect(desk.errors).toEqual([]);
});

test('twenty-five decisions from the Desk by the keys alone, two assistants at once, while she looks at hers; each reaches whom it is for', async () => {
  // Wren acts for her too, as Tomas does.
  const owner = await Caller.stepIn(home, 'ines');
  const { principals } = await owner.json<{ principals: { own: boolean; calendar: string }[] }>('/api/frame');
  const calendar = principals.find((p) => p.own)?.calendar ?? '';
  const given = await owner.send('PUT', `/api/calendars/${calendar}/grants`, {
    audience: { kind: 'person', id: 'wren' },
    rights: { ...rights, add: true, change: 'all', remove: 'all', speaks: true },
    seen: null,
  });
  expect(given.status).toBe(200);
  const began = await sentOf('ines');
  const tomas = await open('tomas', '/for/tomas/desk');
  const wren = await open('wren', '/for/ines/desk');
  const ines = await open('ines', '/for/ines/desk');
  // What the sample’s people said to each other has arrived.
  await tomas.find('article', /^Week ahead$/);
  await ines.find('article', /^Panel: who owns the mist/);
  for (const desk of [tomas, ines]) await desk.find('status', 'live');

  // She has a row open that he decides: hers says by whom, and she can’t do it twice.
  await goTo(ines, /^Panel: who owns the mist/);
  await until(
    'her to be seen there',
    async () => ((await tomas.text()).includes('Inés Varga has it open') ? true : null),
    tomas.page,
  );
  const panel = await goTo(tomas, /^Panel: who owns the mist/);
  expect(panel.steps.slice(0, 3)).toEqual(['Coming', 'Perhaps', 'Can’t']);
  await press(tomas, '1');
  await leaves(tomas, panel.id);
  await leaves(ines, panel.id);
  await ines.says('Tomas Lindqvist decided this: Coming');

  const decide = async (desk: Desk, { title, keys }: ReturnType<typeof handle>) => {
    const { id } = await goTo(desk, title);
    for (const key of keys) {
      if (key.length === 1 || key === 'Enter') await press(desk, key);
      else {
        await desk.find('textbox', /^(Place|Link)$/);
        await desk.page.keyboard.sendCharacter(key);
      }
    }
    await leaves(desk, id);
  };
  await decide(tomas, handle(/^Not delivered/, '1'));
  await decide(tomas, handle(/^Payroll system, prices/, '1', 'Well Room', 'Enter'));
  await decide(tomas, handle(/^Train Pim: holds/, '2', 'https://meet.example/holds', 'Enter'));
  // Moved where Pim suggested it, it overlaps nothing any more, and whoever couldn’t come is asked anew.
  const overlap = await goTo(tomas, /^Leadership and Seed Store roof/);
  await decide(tomas, handle(/^Pim Adeyemi suggests: Seed Store roof/, '1'));
  await leaves(tomas, overlap.id);
  // Whatever else there is, by what its steps are called: he from the top, she from the end, both at once.
  const decideOne = async (desk: Desk, title: RegExp | 'last') => {
    const { id, steps } = await goTo(desk, title);
    const wanted = ['Leave it', 'Keep ours', 'Without them', 'Can’t', 'No', 'Add place', 'Done'].find((name) =>
      steps.includes(name),
    );
    if (!wanted) throw new Error(`nothing to do with ${steps}`);
    await press(desk, String(steps.indexOf(wanted) + 1));
    if (wanted === 'Add place') {
      await desk.find('textbox', 'Place');
      await desk.page.keyboard.sendCharacter('Well Room');
      await press(desk, 'Enter');
    }
    await leaves(desk, id);
  };
  for (let decided = 5; decided < 25; decided += 2)
    await Promise.all([decideOne(tomas, /^(?!Not delivered)/), decideOne(wren, 'last')]);
  expect(new URL(wren.page.url()).pathname).toBe('/for/ines/desk');
  expect(wren.errors).toEqual([]);
  expect(new URL(tomas.page.url()).pathname).toBe('/for/tomas/desk');
  expect(tomas.errors).toEqual([]);

  // The last of them is taken back by one key, for her too.
  const { rows: left } = JSON.parse((await tomas.fetch('/api/desk')).text) as { rows: unknown[] };
  // What she decided meanwhile has left his list too.
  await tomas.find('heading', new RegExp(`^${left.length} things to decide`));
  await press(tomas, 'u');
  await tomas.find('heading', new RegExp(`^${left.length + 1} things to decide`));

  // Whatever was sent in her name meanwhile has arrived at everybody it was for, from her and by whoever decided it.
  const calls = (address: string) => people.find((one) => one.address === address)?.handle;
  const { people } = await owner.json<{ people: { handle: string; address: string }[] }>('/api/people');
  const sent = (await sentOf('ines')).filter(({ key }) => !began.some((one) => one.key === key));
  expect(sent.length).toBeGreaterThan(2);
  expect(sent.map(({ title }) => title)).toContain('Panel: who owns the mist?');
  for (const one of sent)
    for (const { address } of one.to)
      await until(`${one.kind} of ${one.title} to arrive at ${address}`, async () => {
        const handle = calls(address);
        // What went to people outside is shown as their mail service got it.
        if (!handle) return (await owner.send('GET', '/correspondents')).text.includes(address) ? true : null;
        const all = (await messagesOf(handle)).filter(({ sent }) => !sent);
        const said = ({ title, from, by }: Said) => JSON.stringify([title, from.address, by?.address ?? null]);
        return all.some((other) => said(other) === said(one) && other.at >= one.at) ? true : null;
      });
});

interface Said {
  readonly key: string;
  readonly at: string;
  readonly kind: string;
  readonly sent: boolean;
  readonly title: string | null;
  readonly from: { readonly address: string };
  readonly by: { readonly address: string } | null;
  readonly to: readonly { readonly address: string }[];
}

/** All of somebody's messages, with the titles of what they are about. */
async function messagesOf(handle: string): Promise<Said[]> {
  const who = await Caller.stepIn(home, handle);
  const { threads } = await who.json<{ threads: { title: string | null; messages: Said[] }[] }>(
    `/api/people/${handle}/messages`,
  );
  return threads.flatMap(({ title, messages }) => messages.map((one) => ({ ...one, title })));
}
const sentOf = async (handle: string): Promise<Said[]> => (await messagesOf(handle)).filter(({ sent }) => sent);
