import { expect, test } from 'vitest';
import { faultsByDayAndNight } from './axe.ts';
import { desksAt } from './desks.ts';
import { sampleFor } from './servers.ts';

const home = await sampleFor('tasks');
const { open } = desksAt(home);

test('an assistant keeps her list: adds, does and takes back; what is private is hers alone; who is given a task says yes', async () => {
  const tomas = await open('tomas', '/for/ines/tasks');
  await tomas.find('heading', 'Inés’s tasks');
  await tomas.find('button', /^Sign the lease of the Seed Store/);
  await tomas.gone('button', /^Half-year talk with Wren/);
  await tomas.fill('What is to be done for Inés?', 'Order the cake for Friday');
  await tomas.press('button', 'Add');
  await tomas.find('button', /^Order the cake for Friday/);
  // Nothing is no task, and what was typed of it stays.
  await tomas.press('button', 'Add');
  await tomas.says('Give it a title.');

  const ines = await open('ines', '/for/ines/tasks');
  await ines.find('heading', 'My tasks');
  await ines.find('button', /^Half-year talk with Wren.*private/);
  await ines.press('checkbox', 'Done: Order the cake for Friday');
  await ines.says('Done: Order the cake for Friday');
  await tomas.gone('button', /^Order the cake for Friday/);
  await ines.press('button', 'Undo');
  await tomas.find('button', /^Order the cake for Friday/);

  // Whoever sees titles is shown no more, and can’t tell that something is private.
  const amara = await open('amara', '/for/amara/tasks');
  await amara.press('link', /^Tasks 9/);
  await amara.says('You read this list. Inés can let you add to it.');
  await amara.press('button', /^Sign the lease of the Seed Store/);
  await amara.says('This is all you see of it.');
  await amara.saysNot('Two copies, both on the blue tray.');
  await amara.saysNot('Half-year talk');

  const bruno = await open('bruno', '/for/bruno/tasks');
  await bruno.press('button', 'Yes: Ask the mill for its old flood marks');
  await bruno.gone('button', 'Yes: Ask the mill for its old flood marks');
  await ines.find('button', /^Ask the mill.*Bruno Keane does it/);
  expect(await faultsByDayAndNight(ines)).toEqual([]);
  expect([...tomas.errors, ...ines.errors, ...amara.errors, ...bruno.errors]).toEqual([]);
});

test('a task is opened by the keys, changed, and given a time beside the board; its list is given in Sightlines', async () => {
  const ines = await open('ines', '/for/ines/tasks');
  await ines.press('button', /^Choose the cover of the yearbook/);
  await ines.fill('Notes', 'The heron, not the hide.');
  await ines.fillDate('Due', '2027-03-09');
  await ines.press('button', 'Save');
  await ines.says('Saved.');
  await ines.follow('/for/ines/calendar');
  await ines.press('button', 'More acts');
  await ines.press('menuitem', 'Tasks');
  await ines.press('button', 'Set a time for Find a name for the new hide');
  await ines.fillDate('Day', '2027-03-03');
  await ines.fill('From', '07:00');
  await ines.press('button', 'Set a time');
  await ines.says('Time set aside: Find a name for the new hide');
  const placed = await ines.find('button', /^Find a name for the new hide, Wed 3 Mar 2027, 07:00/);
  await placed.scrollIntoView();
  const hours = await placed.boundingBox();
  await ines.press('button', 'Back to a task: Find a name for the new hide');
  await ines.gone('button', /^Find a name for the new hide, Wed 3 Mar 2027, 07:00/);
  // The same with the mouse: its card is let go over the hours.
  const card = await (await ines.find('region', 'Find a name for the new hide')).boundingBox();
  if (!card || !hours) throw new Error('nothing to drag');
  const { mouse } = ines.page;
  await mouse.move(card.x + 20, card.y + 12);
  await mouse.down();
  await mouse.move(card.x + 40, card.y + 20, { steps: 4 });
  await mouse.move(hours.x + 20, hours.y + 4, { steps: 12 });
  await mouse.up();
  await ines.find('button', /^Find a name for the new hide, Wed 3 Mar 2027, 07:/);

  await ines.follow('/for/ines/tasks');
  await ines.press('link', 'Who sees this');
  await ines.find('heading', 'Who sees my tasks');
  await ines.press('button', /^Amara Reyes/);
  await ines.says('sees what is to be done, by when, and what is done.');
  expect(await faultsByDayAndNight(ines)).toEqual([]);
  expect(ines.errors).toEqual([]);
});

test('a task is tied to an item where that is read, moves with it, and leads back to it; what is typed goes with whatever is pressed', async () => {
  const tomas = await open('tomas', '/for/ines/calendar?week=2027-03-01');
  await tomas.press('button', /^Sensor trial/);
  const panel = await tomas.find('region', 'Tasks for this');
  await tomas.press('button', 'Add a task', panel);
  await tomas.press('button', 'Add', panel);
  await tomas.says('Give it a title.');
  await tomas.fill('What is to be done for Inés?', 'Charge the sensors');
  await tomas.fill('Days before', 'two');
  await tomas.press('button', 'Add', panel);
  await tomas.says('A whole number of days; 0 is the day itself.');
  await tomas.fill('Days before', '1');
  await tomas.press('button', 'Add', panel);
  await tomas.find('checkbox', 'Done: Charge the sensors');
  await tomas.press('link', 'Charge the sensors');
  await tomas.find('button', /^Charge the sensors.*prepares Sensor trial/);

  // What is typed and not saved yet is written with what is done beside it.
  await tomas.fill('Notes', 'All nine of them.');
  await tomas.fill('Give it to somebody to do', 'Bruno', 'combobox');
  await tomas.press('option', /^Bruno Keane/);
  await tomas.says('Bruno Keane is asked.');
  const { text } = await tomas.fetch('/api/search?words=charge&everywhere=1');
  expect(JSON.parse(text).tasks).toMatchObject([{ task: { notes: 'All nine of them.', given: { state: 'asked' } } }]);
  await tomas.press('link', 'Sensor trial');
  await tomas.find('heading', 'Sensor trial');
  expect(await faultsByDayAndNight(tomas)).toEqual([]);
  expect(tomas.errors).toEqual([]);
});
