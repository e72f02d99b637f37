import { expect, test } from 'vitest';
import { desksAt } from './desks.ts';
import { sampleFor } from './servers.ts';

/* The directory as an administrator keeps it. Lars leaves here, Nils gets a new password: nobody else's test touches them. By the keys alone. */
const home = await sampleFor('directory');
const { open, stranger } = desksAt(home, { byKeys: true });

test('groups stand in groups; one that would come to stand in itself is refused with a sentence', async () => {
  const noor = await open('noor', '/for/noor/people');
  await noor.find('heading', /^Field programme 12 people/);
  await noor.fill('Put a group into Rangers', 'Field', 'combobox');
  await noor.press('option', 'Field programme');
  await noor.says('That would put the group inside itself. Choose another.');
  await noor.fill('Put a group into Field programme', 'Finance', 'combobox');
  await noor.press('option', 'Finance');
  await noor.says('Everybody in Finance is in Field programme now.');
  await noor.find('heading', /^Field programme 15 people/);
  await noor.press('button', 'Remove the group Finance from Field programme');
  await noor.says('Finance is no longer in Field programme.');
  await noor.find('heading', /^Field programme 12 people/);
});

test('a directory comes in as a file: said line by line first, then brought in; the way in of somebody new is handed over', async () => {
  const noor = await open('noor', '/for/noor/people');
  await noor.press('button', 'As a file');
  await noor.fill('Paste it here, or choose a file', 'who,where\nx,y');
  await noor.press('button', 'Read it');
  await noor.says('The first line must name the columns name and address.');
  await noor.fill(
    'Paste it here, or choose a file',
    'name,address,role,kind,groups\nUna Reed,una@cloudmoor.example,Bees,person,Rangers; Bee keepers\nX,x@elsewhere.example,,,\nNils Farrow,n.farrow@cloudmoor.example,Seed bank,person,',
  );
  await noor.press('button', 'Read it');
  await noor.says('1 new person, nobody changed, 1 as they are.');
  await noor.says('New groups: Bee keepers.');
  await noor.says('Line 3: X, x@elsewhere.example This address is of no domain of the organisation.');
  await noor.press('button', 'Import 1, leave out 1');
  await noor.says('1 added, 0 changed. Make a way in for those who are new.');
  await noor.find('heading', /^Bee keepers 1 person/);
  await noor.press('button', 'Open Una Reed');
  await noor.says('No password yet.');
  await noor.press('button', 'Make a way in');
  const field = await noor.find('textbox', 'Hand this over');
  const path = new URL(await field.evaluate((el) => (el as HTMLInputElement).value)).pathname;
  const una = await stranger(path);
  await una.fill('New password', 'short');
  await una.press('button', 'Choose this password');
  await una.says('At least 10 characters.');
  await una.fill('New password', 'bees in the heather');
  await una.press('button', 'Choose this password');
  await una.press('link', 'Sign in');
  await una.signIn('una@cloudmoor.example', 'bees in the heather');
  await una.find('button', 'More acts');
  await una.go(home + path);
  await una.fill('New password', 'bees in the heather');
  await una.press('button', 'Choose this password');
  await una.says('This address was used already, or is more than a day old.');
});

test('a number one says in Settings stands in the directory and on the day sheet', async () => {
  const ines = await open('ines', '/for/ines/settings');
  await ines.fill('My phone number', 'after lunch');
  await ines.press('button', 'Save');
  await ines.says('Write a number one can call: digits');
  await ines.fill('My phone number', '+351 210 000 777');
  await ines.press('button', 'Save');
  await ines.says('Saved.');
  const tomas = await open('tomas', '/for/tomas/people');
  await tomas.find('link', '+351 210 000 777');
  await tomas.go(`${home}/for/ines/day-sheet?day=2027-03-03`);
  await tomas.find('heading', 'Leadership');
  await tomas.says('+351 210 000 777');
});

test('somebody leaves: reviewed, confirmed by name, signed out everywhere, and what they own handed on', async () => {
  const lars = await open('lars', '/for/lars/calendar');
  const noor = await open('noor', '/for/noor/people');
  await noor.press('button', 'Open Lars Pike');
  await noor.press('button', 'Leaves the organisation');
  await noor.says('In one step: sign-in and every session end');
  await noor.press('button', 'Let Lars leave');
  await noor.says('Choose who takes over what they own.');
  await noor.fill('Handed on to', 'Greta', 'combobox');
  await noor.press('option', /^Greta Holm/);
  await noor.press('button', 'Let Lars leave');
  await noor.says('Lars Pike is signed out everywhere and can’t come back in. Greta Holm owns what was theirs.');
  await noor.press('button', 'Yes, all of it');
  await noor.says('Lars Pike has left.');
  await noor.gone('button', 'Open Lars Pike');
  await lars.page.reload({ waitUntil: 'domcontentloaded' });
  await lars.find('heading', 'Sign in');
  const greta = await open('greta', '/for/greta/calendar');
  await greta.choose('Calendar', 'Lars Pike');
  await greta.says('Lars Pike');
  await greta.find('button', /Mar 2027, \d\d:\d\d–/);
});

test('a further calendar has an access of its own, and is chosen where calendars are looked at', async () => {
  const otto = await open('otto', '/for/otto/sightlines');
  await otto.press('button', 'The calendar as a whole');
  await otto.press('menuitem', 'Make a further calendar');
  await otto.press('button', 'Create');
  await otto.says('Give a name.');
  await otto.fill('Name of the calendar', 'Peat walks');
  await otto.press('button', 'Create');
  await otto.says('“Peat walks” is there now.');
  await expect.poll(() => otto.page.url()).toContain('c=');
  await otto.find('heading', 'Everyone inside');
  await otto.press('button', /^Nothing/);
  await otto.press('button', 'Save for everyone inside');
  await otto.press('button', 'Yes, give it');
  await otto.says('Saved. Everyone inside now has Nothing.');
  await otto.press('link', 'Calendar');
  await otto.find('button', 'More acts');
  await otto.choose('Calendar', 'Peat walks');
  await otto.says('Nothing in this week.');
  // What is made here goes here, and the button says so.
  await otto.press('link', /^New for me/);
  await otto.fill('Title', 'Walk to the hags');
  await otto.press('button', 'Save to my calendar “Peat walks”');
  await otto.find('button', /^Walk to the hags/);
  expect(otto.page.url()).toContain('c=');
});

test('domains: one that people have stays, nonsense is refused at the field', async () => {
  const noor = await open('noor', '/for/noor/house-rules');
  await noor.fill('Another domain', 'not a domain');
  await noor.press('button', 'Add the domain');
  await noor.says('Write a domain like cloudmoor.example.');
  await noor.fill('Another domain', 'moor-lab.example');
  await noor.press('button', 'Add the domain');
  await noor.find('button', 'Remove moor-lab.example');
  await noor.press('button', 'Remove cloudmoor.example');
  await noor.says('People of the directory have addresses of a domain that is missing here.');
});
