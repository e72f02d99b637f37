import { expect, test } from 'vitest';
import { Caller } from './caller.ts';
import { desksAt } from './desks.ts';
import { sampleFor } from './servers.ts';

/** Accounts that aren't simply one person's: a desk that several people sit at, and somebody's second account. Worked by the keys alone. */
const home = await sampleFor('accounts');
const { arrive, open } = desksAt(home, { byKeys: true });

test('at a desk’s account it is said once a day who is there, nothing is done before, and it stands with what was done', async () => {
  const noor = await Caller.stepIn(home, 'noor');
  const { name, role, site, phone, administrator } = await noor.json<Record<string, unknown>>('/api/people/jonas');
  const desk = { name, role, site, phone, administrator, kind: 'role' };
  expect((await noor.send('PUT', '/api/people/jonas', desk)).status).toBe(200);
  // The page itself asks, before the window is live.
  const jonas = await arrive('jonas', '/for/jonas/calendar?week=2027-10-04');
  await jonas.find('heading', 'Who is here today?');
  // It isn't closed by going by, and nothing is done behind it.
  await jonas.page.keyboard.press('Escape');
  const frame = await jonas.fetch('/api/frame');
  const calendar = JSON.parse(frame.text).principals.find((p: { own: boolean }) => p.own).calendar;
  const when = { start: '2027-10-05T10:00', end: '2027-10-05T11:00', allDay: false, zone: 'Europe/Lisbon' };
  const body = { title: 'Boat keys', when };
  const early = await jonas.fetch(`/api/calendars/${calendar}/items`, { method: 'POST', body });
  expect([early.status, JSON.parse(early.text).code]).toEqual([403, 'handsFirst']);
  await jonas.press('button', 'It’s me');
  await jonas.says('Give a name.');
  await jonas.fill('Your name', 'Mirren Hale');
  await jonas.press('button', 'It’s me');
  await jonas.gone('heading', 'Who is here today?');
  expect((await jonas.fetch(`/api/calendars/${calendar}/items`, { method: 'POST', body })).status).toBe(200);
  await jonas.press('button', /^Boat keys/);
  await jonas.press('button', 'What happened here');
  await jonas.says(`${name} (Mirren Hale)`);
  // Somebody else takes over, in the same window.
  await jonas.press('button', 'Mirren Hale is here. Somebody else?');
  await jonas.fill('Your name', 'Jon Skerry');
  await jonas.press('button', 'It’s me');
  await jonas.find('button', 'Jon Skerry is here. Somebody else?');
  expect((await noor.send('PUT', '/api/people/jonas', { ...desk, kind: 'person' })).status).toBe(200);
});

test('two accounts are tied by a code that is made in one and given in the other, seen in both, and untied by either', async () => {
  const greta = await open('greta', '/for/greta/settings');
  const otto = await open('otto', '/for/otto/settings');
  await greta.press('button', 'Make a code here');
  await greta.says('Good once, until');
  const code = /[A-Z0-9]{5}-[A-Z0-9]{5}/.exec(await greta.text())?.[0] ?? '';
  await otto.fill('Code from my other account', 'WRONG-CODES');
  await otto.press('button', 'Tie them');
  await otto.says('This code isn’t one');
  await otto.fill('Code from my other account', code.toLowerCase());
  await otto.press('button', 'Tie them');
  await otto.says('The two accounts are tied.');
  await otto.find('button', /^Untie: g\.holm@/);
  await greta.page.reload();
  await greta.press('button', /^Untie: o\.linn@/);
  await greta.says('Untied.');
  expect(JSON.parse((await otto.fetch('/api/accounts')).text)).toEqual({ tied: [] });
});
