import { expect, inject, test } from 'vitest';
import { desksAt } from './desks.ts';

/** Access offered and asked for, in two windows at once, by the keys alone. */
const { open } = desksAt(inject('sample'), { byKeys: true });

test('offered and kept as a lane, asked for in return, refused with a word, given after all, and taken away: each in the other’s window at once', async () => {
  const felix = await open('felix', '/for/felix/sightlines');
  const nils = await open('nils', '/for/nils/messages');

  // Felix offers: the message is read before it goes.
  await felix.press('button', 'Give access');
  await felix.fill('Choose who', 'nils', 'combobox');
  await felix.press('option', /^Nils Farrow/);
  await felix.press('button', /^Outline/);
  await felix.fill('A few words with it', 'For the lease of the store.');
  await felix.press('button', 'See the message Nils gets');
  await felix.says('With it one sees times, titles and places.');
  await felix.says('“For the lease of the store.”');
  await felix.press('button', 'Save, and tell Nils');
  await felix.says('Saved. Nils Farrow now has Outline.');

  // Nils hears of it at once, keeps the lane, and it is opened.
  await nils.says('Felix Bray gave you access to Felix’s calendar.');
  await nils.press('button', 'Keep as a lane: Felix Bray’s calendar');
  await nils.says('Felix Bray’s calendar is among your lanes now.');
  await nils.press('link', 'Open the calendar');
  await nils.find('button', /^Felix Bray|Lanes/);
  await felix.go(`${felix.page.url().split('/for/')[0]}/for/felix/sightlines?who=person%3Anils`);
  await felix.says(/opened 2 Mar/);

  // From the board he asks for more, and shows his own in return.
  await nils.press('button', 'Ask for more of Felix Bray');
  await nils.find('complementary', 'Ask Felix Bray for access');
  await nils.press('button', /^Full/);
  await nils.fill('Why', 'The notes hold the deeds.');
  await nils.press('switch', 'Show Felix mine from now on');
  await nils.press('button', 'Ask Felix');
  await nils.says('Asked. The answer will be in Messages.');

  // The same message says both, and is answered no with a word.
  await felix.go(`${felix.page.url().split('/for/')[0]}/for/felix/messages`);
  const card = await felix.find('article', 'Nils Farrow asks for access to Felix Bray’s calendar');
  await felix.says('In return Nils shows Free/busy of theirs, and has given it already.');
  await felix.says('As Nils would see');
  await felix.press('button', 'No…', card);
  await felix.says('Nils keeps what they have now: Outline.');
  await felix.fill('A few words with it, or none', 'Ask me for the deed itself.');
  await felix.press('button', 'Say no');
  await felix.says('Said no; Nils is told.');
  await nils.go(`${nils.page.url().split('/for/')[0]}/for/nils/messages`);
  await nils.says('Felix Bray said no on 2 Mar.');
  await nils.says('“Ask me for the deed itself.”');

  // Later, from the same place, a yes after all; and that taken away again, said before.
  const answered = await felix.find('article', 'Nils Farrow asks for access to Felix Bray’s calendar');
  await felix.press('button', 'Give it after all…', answered);
  await felix.press('button', 'Give Full');
  await felix.says('Nils Farrow now has Full, and is told.');
  await nils.says('Felix Bray gave Full on 2 Mar.');
  await felix.press('button', 'Say no after all…');
  await felix.says('This takes away what Nils has by name:');
  await felix.says('Full, given by your yes on 2 Mar');
  await felix.says('Afterwards Nils has Free/busy.');
  await felix.press('button', 'No, and take that away');
  await nils.says('Your own access to Felix Bray’s calendar was taken away.');

  // Theirs stays, and that is said where one ends one's own.
  await nils.go(`${nils.page.url().split('/for/')[0]}/for/nils/sightlines?who=person%3Afelix`);
  await nils.press('button', 'Take away…');
  await nils.says('What Felix shows you of theirs stays as it is: free/busy.');
  for (const desk of [felix, nils]) expect(desk.errors).toEqual([]);
});

test('where an address shows nothing, whom it named is asked; the ask waits, and is taken back', async () => {
  const dario = await open('dario', '/for/dario/calendar?of=ines');
  await dario.find('heading', 'There is nothing here');
  await dario.press('button', 'Ask for more of Inés Varga');
  await dario.press('button', 'Ask Inés');
  await dario.says('Asked. The answer will be in Messages.');
  await dario.press('button', 'Ask for more of Inés Varga');
  await dario.says('No answer yet.');
  await dario.find('button', 'Remind them');
  await dario.says('From 3 Mar on you can remind them.');
  await dario.press('button', 'Take it back');
  await dario.says('Your ask is taken back.');
  await dario.find('button', 'Ask Inés');
  expect(dario.errors).toEqual([]);
});
