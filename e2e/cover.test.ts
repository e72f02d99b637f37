import { afterAll, expect, test } from 'vitest';
import { Caller } from './caller.ts';
import { desksAt } from './desks.ts';
import { startServer } from './servers.ts';

/** Oona covers for Tomas for a week, with his calendar, what arrived for him to read, and his tasks; then the week is over. */
const first = await startServer('cover', { demo: true, sample: true });
let running = first;
afterAll(() => running.stop());
const during = desksAt(first.address);

test('a cover is given in one press, works, ends by itself, and leaves nothing but the trail', async () => {
  const tomas = await during.open('tomas', '/for/tomas/calendar');
  await tomas.press('button', 'More acts');
  await tomas.press('menuitem', 'Away notice');
  await tomas.find('complementary', 'Away notice');
  await tomas.fillDate('First day away', '2027-03-02');
  await tomas.fillDate('Last day away', '2027-03-08');
  await tomas.fill('Who covers', 'oona', 'combobox');
  await tomas.press('option', /^Oona Marsh/);
  await tomas.press('button', 'Save my notice');
  await tomas.press('checkbox', 'messages that arrived, to read');
  await tomas.press('checkbox', 'the tasks, to work on');
  await tomas.press('button', 'Give Oona a delegate’s access for these days');
  await tomas.says('Oona may act for you on these days.');
  await tomas.says('For these days Oona also has the tasks, to work on and messages that arrived, to read.');

  const wren = await Caller.stepIn(first.address, 'wren');
  const mail = {
    to: [{ address: 't.lindqvist@cloudmoor.example', name: null }],
    subject: 'The lamps',
    text: 'Ordered?',
  };
  expect((await wren.send('POST', '/api/people/wren/mail', { ...mail, answers: null })).status).toBe(200);

  const oona = await during.open('oona', '/for/tomas/everything');
  await oona.find('link', 'Arrived');
  await oona.gone('link', 'Sent');
  await oona.gone('link', 'Contacts');
  await oona.press('link', 'Arrived');
  await oona.press('button', /^.*The lamps/);
  await oona.says('Ordered?');
  await oona.gone('button', 'Remove');
  await oona.follow('/for/tomas/tasks');
  await oona.fill('What is to be done for Tomas?', 'Answer Wren about the lamps');
  await oona.press('button', 'Add');
  await oona.find('button', /^Answer Wren about the lamps/);
  await tomas.follow('/for/tomas/tasks');
  await tomas.find('button', /^Answer Wren about the lamps/);
  expect([...tomas.errors, ...oona.errors]).toEqual([]);
});

test('when the week is over, she finds none of it, and he reads in the trail who had what and did what', async () => {
  await first.stop();
  running = await startServer('cover', { demo: true, later: '2027-03-09T09:10:00Z' });
  const oona = await Caller.stepIn(running.address, 'oona');
  // Free and busy is what everybody in the house is shown of his calendar.
  const left = JSON.parse((await oona.send('GET', '/api/people/tomas/everything')).text);
  expect(left.all).toMatchObject([{ kind: 'calendar', main: true, rights: { sight: 'busy' } }]);
  for (const path of ['lists', 'books', 'folders', 'messages'])
    expect([path, (await oona.send('GET', `/api/people/tomas/${path}`)).status]).toEqual([path, 404]);
  const found = await oona.send('GET', `/api/search?${new URLSearchParams({ words: 'lamps' })}`);
  expect(found).toMatchObject({ status: 200, text: expect.not.stringContaining('he lamps') });

  const tomas = await Caller.stepIn(running.address, 'tomas');
  const trail = await tomas.send('GET', '/api/trail?of=name');
  for (const verb of ['absence.set', 'access.given', 'task.added']) expect(trail.text).toContain(verb);
  expect(trail.text).toContain('Oona Marsh');
});
