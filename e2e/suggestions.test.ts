import { expect, test } from 'vitest';
import { desksAt } from './desks.ts';
import { sampleFor } from './servers.ts';
import { until } from './until.ts';

/* What somebody may not change they put forward; whoever may change it says yes or no. By the keys alone. */
const home = await sampleFor('suggestions');
const { open } = desksAt(home, { byKeys: true });
const WEEK = 'week=2027-03-01';

test('a change put forward comes to those who may make it, is made by a yes, and waits again once that is undone', async () => {
  const tomas = await open('tomas', '/for/tomas/messages');
  const pim = await open('pim', `/for/pim/calendar?of=ines&${WEEK}`);
  await pim.press('button', /^Lab walk-through/);
  await pim.says('You can’t change this yourself; you can put a change forward to Inés.');
  expect(await pim.look('button', 'Change')).toBe(null);
  expect(await pim.look('button', 'Remove')).toBe(null);
  await pim.press('button', 'Put a change forward');
  await pim.press('button', 'Put forward to Inés');
  await pim.says('Nothing is changed yet. Change something, then put it forward.');
  await pim.fill('To', '13:00');
  await pim.press('button', 'Put forward to Inés');
  await pim.says('The end isn’t after the start.');
  await pim.fill('To', '15:00');
  await pim.fill('Place', 'Seed Store');
  await pim.fill('Why', 'The lab floor is being mended.');
  await pim.press('button', 'Put forward to Inés');
  await pim.says('Put forward to Inés. You’ll find the answer in Messages.');
  // It comes to whoever may say yes without their doing anything; and nothing has changed yet.
  const card = await tomas.find('article', 'Lab walk-through');
  await tomas.says('Pim Adeyemi puts a change forward in Inés’s calendar.');
  await tomas.says('“The lab floor is being mended.”');
  await tomas.says('Marsh Lab Seed Store');
  await pim.find('button', /^Lab walk-through.*14:00–15:30.*Marsh Lab/);

  await tomas.press('link', 'Look at the day', card);
  await tomas.find('heading', 'Tue 2 Mar 2027');
  await tomas.find('link', /^New for Inés/);
  await tomas.page.goBack();

  await tomas.press('button', 'Yes, into Inés’s calendar', await tomas.find('article', 'Lab walk-through'));
  await tomas.says('Done in Inés’s calendar as Pim Adeyemi’s work.');
  await pim.find('button', /^Lab walk-through.*14:00–15:00.*Seed Store/);
  const ines = await open('ines', `/for/ines/calendar?${WEEK}`);
  await ines.press('button', /^Lab walk-through/);
  await ines.says('Changed: Pim Adeyemi for Inés Varga');

  await tomas.press('button', 'Undo');
  await tomas.find('article', 'Lab walk-through');
  await pim.find('button', /^Lab walk-through.*14:00–15:30.*Marsh Lab/);
});

test('something new is drawn on the other’s board, answered no with words, and read by its author', async () => {
  const ines = await open('ines', '/for/ines/messages');
  const pim = await open('pim', `/for/pim/calendar?of=ines&${WEEK}`);
  await pim.press('button', 'Put something forward');
  await pim.press('button', 'Put forward to Inés');
  await pim.says('Give it a title.');
  await pim.fill('Title', 'Walk the weir');
  await pim.press('button', 'Put forward to Inés');
  const card = await ines.find('article', 'Walk the weir');
  await ines.says('Pim Adeyemi puts something new forward for your calendar.');
  await ines.fill('A few words back', 'Not this week.', 'textbox', card);
  await ines.press('button', 'No', card);
  await ines.says('Left as it was; Pim Adeyemi is told.');
  await ines.gone('article', 'Walk the weir');
  await pim.go(`${home}/for/pim/messages`);
  await pim.says('Inés Varga said no. “Not this week.”');
});

test('a removal is put forward with its reason, and taken back by its author', async () => {
  const ines = await open('ines', '/for/ines/messages');
  const pim = await open('pim', `/for/pim/calendar?of=ines&${WEEK}`);
  await pim.press('button', /^Staff questions/);
  await pim.press('button', 'Put its removal forward');
  await pim.fill('Why', 'Hedda is away.');
  await pim.press('button', 'Put its removal forward to Inés');
  await pim.says('Put forward to Inés.');
  await ines.find('article', 'Staff questions');
  await ines.find('button', 'Yes, remove it');
  await pim.go(`${home}/for/pim/messages`);
  const [own] = [await pim.find('region', 'What you put forward')];
  await pim.press('button', 'Take it back', own);
  await pim.says('You took it back.');
  await ines.gone('article', 'Staff questions');
});

test('looking at the other’s board, New is still for oneself', async () => {
  const pim = await open('pim', `/for/pim/calendar?of=ines&${WEEK}`);
  await pim.find('button', 'Put something forward');
  await pim.page.keyboard.press('n');
  await pim.find('button', 'Save to my calendar');
});

test('where the head has no room for it, it is in the menu, and what is typed then is its title', async () => {
  const pim = await open('pim', `/for/pim/calendar?of=ines&${WEEK}`);
  await pim.page.setViewport({ width: 1000, height: 800 });
  await pim.gone('button', 'Put something forward');
  await pim.press('button', 'More acts');
  await pim.press('menuitem', 'Put something forward');
  await pim.find('textbox', 'Title');
  await until('the title to have the focus', async () =>
    pim.page.evaluate(() => document.activeElement?.matches('input[name="title"]') || undefined),
  );
  await pim.page.keyboard.type('Bog walk');
  expect(await pim.page.evaluate(() => (document.activeElement as HTMLInputElement).value)).toBe('Bog walk');
});
