import { expect, test } from 'vitest';
import { Caller } from './caller.ts';
import { desksAt } from './desks.ts';
import { sampleFor } from './servers.ts';

const home = await sampleFor('away');
const { open } = desksAt(home);

test('an assistant sets her away notice: boards show it, who writes is answered, her evening and the trail say who did', async () => {
  const tomas = await open('tomas', '/for/ines/calendar');
  await tomas.press('button', 'More acts');
  await tomas.press('menuitem', 'Away notice');
  await tomas.find('complementary', 'Away notice');
  await tomas.press('button', 'Another absence');
  await tomas.fillDate('First day away', '2027-03-02');
  await tomas.fillDate('Last day away', '2027-03-03');
  await tomas.fill('Answer to people inside', 'On the moor until Thursday.');
  await tomas.press('button', 'Save Inés’s notice');
  await tomas.says('Nobody covers');
  await tomas.find('button', /^Away/);
  // A day that has passed is refused at its field, and what was typed stays.
  await tomas.press('button', 'Another absence');
  await tomas.fillDate('First day away', '2027-02-01');
  await tomas.fillDate('Last day away', '2027-02-02');
  await tomas.fill('Answer to people outside', 'Away.');
  await tomas.press('button', 'Save Inés’s notice');
  await tomas.says('This day has passed. Choose today or a later one.');
  const typed = await tomas.any('Answer to people outside');
  expect(await typed.evaluate((el) => (el as HTMLTextAreaElement).value)).toBe('Away.');

  const wren = await Caller.stepIn(home, 'wren');
  const mail = { to: [{ address: 'i.varga@cloudmoor.example', name: null }], subject: 'The weir', text: 'When?' };
  expect((await wren.send('POST', '/api/people/wren/mail', { ...mail, answers: null })).status).toBe(200);
  const wrens = await open('wren', '/for/wren/messages');
  await wrens.says('On the moor until Thursday.');

  const ines = await open('ines', '/for/ines/day?of=evening');
  await ines.find('heading', 'Done in your name today');
  await ines.says('set the away notice');
  await ines.follow('/for/ines/trail?of=name&kind=away');
  await ines.says('On the moor until Thursday.');
  await ines.gone('button', 'Take this back');
  await ines.follow('/for/ines/time-use');
  await ines.says('Hours, 11 Jan');
  await ines.choose('Beside', 'Nothing');
  await ines.saysNot('Hours, 11 Jan');
  expect([...tomas.errors, ...ines.errors, ...wrens.errors]).toEqual([]);
});
