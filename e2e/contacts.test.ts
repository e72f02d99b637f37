import { expect, test } from 'vitest';
import { faultsByDayAndNight } from './axe.ts';
import { desksAt } from './desks.ts';
import { fileToUpload } from './file-to-upload.ts';
import { sampleFor } from './servers.ts';

/** One green point. */
const PIXEL = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';

const home = await sampleFor('contacts');
const { open } = desksAt(home);

test('an assistant keeps her contacts: finds, adds, changes and takes back; what is private is hers alone', async () => {
  const tomas = await open('tomas', '/for/ines/contacts');
  await tomas.find('heading', 'Inés’s contacts');
  await tomas.find('button', 'Marta Quill');
  await tomas.gone('button', 'Dr. Amélia Serra');
  await tomas.says('9 contacts');
  await tomas.fill('Search these contacts', 'tide');
  await tomas.find('button', 'Henning Brandt');
  await tomas.gone('button', 'Marta Quill');
  await tomas.fill('Search these contacts', '');
  await tomas.press('button', 'New contact for Inés');
  await tomas.fill('Name', 'Nora Weir');
  await tomas.fill('Mail address 1', 'nora at weir');
  await tomas.press('button', 'Save for Inés');
  await tomas.says('This is no e-mail address.');
  await tomas.fill('Mail address 1', 'nora@weir-works.example');
  await tomas.fill('Number 1', '+351 900 000 777');
  await tomas.press('button', 'Save for Inés');
  await tomas.says('Added to Inés’s contacts.');
  await tomas.find('link', 'nora@weir-works.example');

  const ines = await open('ines', '/for/ines/contacts');
  await ines.find('heading', 'My contacts');
  await ines.find('button', 'Dr. Amélia Serra');
  await ines.press('button', 'Nora Weir');
  await ines.says('Changed by Tomas Lindqvist for Inés Varga');
  await ines.press('button', 'Change');
  await ines.fill('What they do', 'Engineer');
  await ines.press('button', 'Save');
  await ines.says('Saved.');
  // What she writes is on his screen within a second.
  await tomas.says('Engineer');
  // A picture is made small here and stands with her at once; what is none is said to be none.
  const choose = async (path: string) => (await ines.page.$('input[accept^="image/jpeg"]'))?.uploadFile(path);
  await choose(fileToUpload('nora.png', 'no picture'));
  await ines.says('This is no picture that is known: JPEG, PNG, GIF or WebP.');
  await choose(fileToUpload('nora.png', Buffer.from(PIXEL, 'base64')));
  for (const desk of [ines, tomas]) await desk.find('img', 'Picture of Nora Weir');
  await ines.press('button', 'Take the picture away');
  await tomas.gone('img', 'Picture of Nora Weir');
  await ines.press('button', 'Remove');
  await tomas.gone('button', 'Nora Weir');
  await ines.press('button', 'Undo');
  await tomas.find('button', 'Nora Weir');
  expect(await faultsByDayAndNight(ines)).toEqual([]);
  expect([...tomas.errors, ...ines.errors]).toEqual([]);
});

test('whoever reads only is told so before typing, and copies into their own; below full there is no more than that', async () => {
  const amara = await open('amara', '/for/amara/contacts');
  await amara.press('link', /^Contacts \d/);
  await amara.says('You read these contacts. Inés can let you add to them.');
  await amara.press('button', 'Marta Quill');
  await amara.says('This is all you see of it. Inés can show you more.');
  await amara.saysNot('marta@quill-audit.example');
  expect(amara.errors).toEqual([]);

  const tomas = await open('tomas', '/for/ines/contacts');
  await tomas.press('button', 'Henning Brandt');
  await tomas.press('button', 'Copy to my contacts');
  await tomas.says('Copied to your contacts.');
  await tomas.follow('/for/tomas/contacts');
  await tomas.press('button', 'Henning Brandt');
  await tomas.find('link', '+351 900 000 631');
  expect(tomas.errors).toEqual([]);
});

test('doubles are found, made one, and taken apart again; whom one knows is found where people are typed', async () => {
  const tomas = await open('tomas', '/for/ines/contacts');
  await tomas.press('button', 'Find duplicates');
  await tomas.press('button', 'Make one of them: Marta Quill');
  await tomas.says('2 became one: Marta Quill');
  await tomas.says('No two contacts here look like one and the same.');
  await tomas.press('button', 'Undo');
  await tomas.find('button', 'M. Quill (audit)');

  await tomas.follow('/for/ines/calendar?week=2027-03-01');
  await tomas.find('button', 'More acts');
  await tomas.page.keyboard.press('n');
  await tomas.fill('Title', 'Weir money');
  await tomas.fill('Who comes', 'uplands', 'combobox');
  await tomas.press('option', /^Solène Ferrand/);
  await tomas.says('s.ferrand@uplands-bank.example');
  await tomas.page.keyboard.press('Escape');
  expect(tomas.errors).toEqual([]);
});

test('contacts are given in Sightlines, with what is seen of them beside the choice', async () => {
  const ines = await open('ines', '/for/ines/contacts');
  await ines.press('link', 'Who sees this');
  await ines.find('heading', 'Who sees my contacts');
  await ines.press('button', /^Amara/);
  await ines.says('What Amara sees');
  await ines.says('Auditor');
  expect(await faultsByDayAndNight(ines)).toEqual([]);
  expect(ines.errors).toEqual([]);
});
