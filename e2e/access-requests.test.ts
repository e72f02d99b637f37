import { expect, test } from 'vitest';
import { desksAt } from './desks.ts';
import { sampleFor } from './servers.ts';

/** Access offered and asked for, in two windows at once, by the keys alone. */
const home = await sampleFor('asks');
const { open } = desksAt(home, { byKeys: true });

test('offered and kept as a lane, asked for in return, refused with a word, given after all, and taken away: each in the other’s window at once', async () => {
  const mateo = await open('mateo', '/for/mateo/sightlines');
  const nils = await open('nils', '/for/nils/messages');

  // Mateo offers: the message is read before it goes.
  await mateo.press('button', 'Give access');
  await mateo.fill('Choose who', 'nils', 'combobox');
  await mateo.press('option', /^Nils Farrow/);
  await mateo.press('button', /^Outline/);
  await mateo.fill('A few words with it', 'For the lease of the store.');
  await mateo.press('button', 'See the message Nils gets');
  await mateo.says('With it one sees times, titles and places.');
  await mateo.says('“For the lease of the store.”');
  await mateo.press('button', 'Save, and tell Nils');
  await mateo.says('Saved. Nils Farrow now has Outline.');

  // Nils hears of it at once, keeps the lane, and it is opened.
  await nils.says('Mateo Rincón gave you access to Mateo’s calendar.');
  await nils.press('button', 'Keep as a lane: Mateo Rincón’s calendar');
  await nils.says('Mateo Rincón’s calendar is among your lanes now.');
  await nils.press('link', 'Open the calendar');
  await nils.find('heading', /^Mateo Rincón’s calendar/);
  await mateo.go(`${mateo.page.url().split('/for/')[0]}/for/mateo/sightlines?who=person%3Anils`);
  await mateo.says(/opened 2 Mar/);

  // From the board he asks for more, and shows his own in return.
  await nils.press('button', 'Ask for more of Mateo Rincón');
  await nils.find('complementary', 'Ask Mateo Rincón for access');
  await nils.press('button', /^Full/);
  await nils.fill('Why', 'The notes hold the deeds.');
  await nils.press('switch', 'Show Mateo mine from now on');
  await nils.press('button', 'Ask Mateo');
  await nils.says('Asked. The answer will be in Messages.');

  // The same message says both, and is answered no with a word.
  await mateo.go(`${mateo.page.url().split('/for/')[0]}/for/mateo/messages`);
  const card = await mateo.find('article', 'Nils Farrow asks for access to Mateo Rincón’s calendar');
  await mateo.says('In return Nils shows Free/busy of theirs, and has given it already.');
  await mateo.says('As Nils would see');
  await mateo.press('button', 'No…', card);
  await mateo.says('Nils keeps what they have now: Outline.');
  await mateo.fill('A few words with it, or none', 'Ask me for the deed itself.');
  await mateo.press('button', 'Say no');
  await mateo.says('Said no; Nils is told.');
  await nils.go(`${nils.page.url().split('/for/')[0]}/for/nils/messages`);
  await nils.says('Mateo Rincón said no on 2 Mar.');
  await nils.says('“Ask me for the deed itself.”');

  // Later, from the same place, a yes after all; and that taken away again, said before.
  const answered = await mateo.find('article', 'Nils Farrow asks for access to Mateo Rincón’s calendar');
  await mateo.press('button', 'Give it after all…', answered);
  await mateo.press('button', 'Give Full');
  await mateo.says('Nils Farrow now has Full, and is told.');
  await nils.says('Mateo Rincón gave Full on 2 Mar.');
  await mateo.press('button', 'Say no after all…');
  await mateo.says('This takes away what Nils has by name:');
  await mateo.says('Full, given by your yes on 2 Mar');
  // What stood before the yes stands again.
  await mateo.says('Afterwards Nils has Outline.');
  await mateo.press('button', 'No, and take that away');
  await nils.says('Mateo Rincón changed your access to Mateo’s calendar.');

  // Theirs stays, and that is said where one ends one's own.
  await nils.go(`${nils.page.url().split('/for/')[0]}/for/nils/sightlines?who=person%3Amateo`);
  await nils.press('button', 'Take away…');
  await nils.says('What Mateo shows you of theirs stays as it is: titles and places.');
  for (const desk of [mateo, nils]) expect(desk.errors).toEqual([]);
});

test('where an address shows nothing, whom it named is asked; the ask waits, and is taken back', async () => {
  const dario = await open('dario', '/for/dario/calendar?of=ines');
  // What was asked elsewhere is taken back first.
  const { own } = JSON.parse((await dario.fetch('/api/asks')).text);
  for (const { key, state } of own) if (state === 'open') await dario.fetch(`/api/asks/${key}`, { method: 'DELETE' });
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

test('contacts are asked for and given by themselves; what arrived is asked for where the calendar was', async () => {
  const ines = await open('ines', '/for/ines/messages');
  const card = await ines.find('article', 'Nils Farrow asks for access to Inés Varga’s contacts');
  await ines.says('Perpetua Oduya Head of abstraction');
  await ines.press('button', 'Give Full', card);
  await ines.says('Nils Farrow now has Full, and is told.');

  const nils = await open('nils', '/for/nils/granted');
  await nils.press('link', 'Open: Contacts');
  await nils.find('heading', 'Inés’s contacts');
  await nils.go(`${home}/for/nils/everything?of=ines`);
  await nils.press('button', 'Ask for something else of Inés');
  await nils.choose('Of what', 'Messages that arrived');
  await nils.fill('Why', 'For the week you are on the moor.');
  await nils.press('button', 'Ask Inés');
  await nils.says('Asked. The answer will be in Messages.');
  const request = await ines.find('article', 'Nils Farrow asks for access to Inés Varga’s messages');
  await ines.says('asks for Titles of your messages “Arrived”.');
  await ines.press('button', 'Give Titles', request);
  await ines.says('Nils Farrow now has Titles, and is told.');
  await nils.find('link', 'Arrived');

  // What is taken away goes from the window that shows it.
  const takeAway = async (what: string) => {
    const given = await ines.find('article', `Nils Farrow asks for access to Inés Varga’s ${what}`);
    await ines.press('button', 'Say no after all…', given);
    await ines.press('button', 'No, and take that away');
  };
  await nils.press('link', 'Contacts', await nils.find('region', 'Contacts'));
  await nils.find('button', /^Perpetua Oduya/);
  await takeAway('contacts');
  await nils.gone('button', /^Perpetua Oduya/);
  await nils.go(`${home}/for/nils/everything?of=ines`);
  await nils.press('link', 'Arrived');
  await nils.says('The uplands loan');
  await takeAway('messages');
  await nils.saysNot('The uplands loan');
  expect(nils.errors).toEqual([]);
});
