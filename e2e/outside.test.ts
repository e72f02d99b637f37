import { expect, test } from 'vitest';
import { Caller } from './caller.ts';
import { desksAt } from './desks.ts';
import { sampleFor } from './servers.ts';

/* Lucía's calendar, people outside and links; and what an administrator does on another's calendar. All of it is done by the keys alone. */
const home = await sampleFor('outside');
const { open, stranger } = desksAt(home, { byKeys: true });

test('somebody outside: barred with its rule and asked for, given after one confirmation, let in by letter, shut off at once', async () => {
  const lucia = await open('lucia', '/for/lucia/sightlines');
  await lucia.press('button', 'Give access');
  await lucia.fill('Choose who', 'nobody@cloudmoor.example', 'combobox');
  await lucia.press('option', /nobody@cloudmoor.example, outside/);
  await lucia.says('Nobody in the directory has this address.');
  await lucia.press('button', 'Give access');
  await lucia.fill('Choose who', 'Rosa Lind <rosa@river-board.example>', 'combobox');
  await lucia.press('option', /^Rosa Lind/);
  await lucia.press('button', /^Outline/);
  await lucia.says('Outline needs “People outside see at most” to be Outline.');
  await lucia.fill('A few words with it', 'She plans our visits.');
  await lucia.press('button', 'Ask an administrator for exactly this');
  await lucia.says('Asked. The answer will be in your messages.');
  await lucia.press('button', 'Save, and tell Rosa');
  await lucia.says(
    'This leaves the house: Rosa Lind (rosa@river-board.example), outside the organisation, gets Free/busy of Lucía Pardo’s calendar, and a letter with a way in.',
  );
  await lucia.press('button', 'Yes, give it');
  await lucia.find('button', /^Rosa Lind Free\/busy · since 2 Mar · outside/);

  const rosa = await stranger('/guest');
  await rosa.fill('E-mail address', 'not an address');
  await rosa.press('button', 'Send me a letter');
  await rosa.says('This is no e-mail address.');
  await rosa.fill('E-mail address', 'rosa@river-board.example');
  await rosa.press('button', 'Send me a letter');
  await rosa.says('If something was given to this address, a letter is on its way to it.');
  const token = await new Caller(home).letterFor('rosa@river-board.example');
  await rosa.go(`${home}/guest/${token}`);
  await rosa.press('button', 'Come in');
  await rosa.find('heading', 'What you were given');
  await rosa.press('link', 'Open: Lucía Pardo');
  await rosa.find('button', /^(Busy|Tentative)/);
  expect(await rosa.text()).not.toMatch(/People|House rules/);
  // The address is spent.
  const again = await stranger(`/guest/${token}`);
  await again.press('button', 'Come in');
  await again.says('This address was used already, or is more than a day old.');

  const noor = await open('noor', '/for/noor/messages');
  await noor.says('Lucía Pardo asks to set “People outside see at most” to Outline. It stands at Free/busy.');
  const wishes = await noor.find('region', 'Wishes for house rules');
  const lines = await wishes.$$(':scope > div');
  for (const line of lines)
    if ((await line.evaluate((el) => el.textContent))?.includes('Lucía')) {
      const field = await line.$('input');
      await field?.type('Free/busy will do for visits.');
      await noor.press('button', 'Keep the rule', line);
    }
  await noor.says('Left as it was; Lucía Pardo is told.');
  await lucia.press('link', /^Messages/);
  await lucia.says('Noor Ashby left it as it was. “Free/busy will do for visits.”');
  await lucia.press('link', 'Sightlines');
  await lucia.press('button', /^Rosa Lind/);
  await lucia.press('button', 'Take away…');
  await lucia.says('Afterwards Rosa sees nothing');
  await lucia.press('button', 'Take away quietly');
  await rosa.says('You may no longer see it.');
  await rosa.gone('button', /^(Busy|Tentative)/);
});

test('a link: named, confirmed, seen by a stranger, through its eyes too, and dead at once when withdrawn', async () => {
  const lucia = await open('lucia', '/for/lucia/sightlines');
  await lucia.press('button', 'Give access');
  await lucia.press('option', /^A link, for whoever holds its address/);
  await lucia.press('button', /^Free\/busy/);
  await lucia.press('button', 'Make the link');
  await lucia.press('button', 'Yes, give it');
  await lucia.says('Give the link a name, so that you know it again.');
  await lucia.fill('Name of the link', 'Notice board');
  await lucia.press('button', 'Make the link');
  await lucia.says(
    'whoever has the address of “Notice board” gets Free/busy of Lucía Pardo’s calendar, without an account.',
  );
  await lucia.press('button', 'Yes, give it');
  const field = await lucia.find('textbox', 'Its address');
  const address = await field.evaluate((el) => (el as HTMLInputElement).value);
  expect(address).toMatch(/\/see\/[\w-]{22}\.[\w-]{22}$/);

  const anybody = await stranger(new URL(address).pathname);
  await anybody.find('heading', 'Lucía Pardo’s calendar');
  await anybody.find('button', /^(Busy|Tentative)/);
  await anybody.says('This link shows when time is taken, and nothing else.');
  await lucia.press('link', 'See in the boards');
  await lucia.says('You see Lucía Pardo’s calendar as Notice board gets it.');
  await lucia.press('link', 'Back to your own eyes');
  await lucia.find('heading', 'Notice board');
  await lucia.press('button', 'Withdraw the link…');
  await lucia.says('Whoever has its address sees nothing from then on.');
  await lucia.press('button', 'Withdraw it');
  await anybody.find('heading', 'This address shows nothing');
  await anybody.gone('button', /^(Busy|Tentative)/);
  const late = await stranger(new URL(address).pathname);
  await late.find('heading', 'This address shows nothing');
});

test('the usual three layers are given in one step, all of them or none', async () => {
  const salome = await open('salome', '/for/salome/sightlines');
  await salome.press('button', 'Begin with three layers');
  await salome.choose('Everyone inside gets', 'Titles');
  await salome.fill('A few who see more', 'Mateo', 'combobox');
  await salome.press('option', /^Mateo Rincón/);
  await salome.fill('Who acts for Salomé', 'Pim', 'combobox');
  await salome.press('option', /^Pim Adeyemi/);
  await salome.press('button', 'Give all of this, and tell them');
  await salome.says('people inside come to see more.');
  await salome.press('button', 'Yes, give it');
  await salome.says('Given. Three layers stand now.');
  await salome.find('button', /^Pim Adeyemi Delegate/);
  await salome.find('button', /^Mateo Rincón Outline/);
  const pim = await open('pim', '/for/pim/messages');
  await pim.says('Salomé Ibarra gave you access to Salomé’s calendar.');
});

test('an administrator gives access on another’s calendar, sees none of its items, and the owner is told and sees it marked', async () => {
  const noor = await open('noor', '/for/noor/people');
  await noor.press('button', 'Open Elin Garth');
  await noor.press('link', 'Sightlines of Elin Garth’s calendar');
  await noor.says(
    'You give and take here as an administrator. Elin Garth is told of what you do, and you see none of the items by it.',
  );
  await noor.says('You see no items here, so their view stays closed to you.');
  await noor.press('button', 'Give access');
  await noor.fill('Choose who', 'Kofi', 'combobox');
  await noor.press('option', /^Kofi Beck/);
  await noor.press('button', /^Delegate/);
  await noor.press('button', 'Save quietly for Kofi');
  await noor.says('Saved. Kofi Beck now has Delegate.');
  const elin = await open('elin', '/for/elin/messages');
  await elin.says('Noor Ashby gave Kofi Beck access to your calendar.');
  await elin.press('link', 'Look in Sightlines');
  await elin.says('given by an administrator, Noor Ashby');
});

test('an assistant outside is given as much as the house allows, acts in both names, and is cut where the rule is lowered', async () => {
  const noor = await Caller.stepIn(home, 'noor');
  const { rules } = await noor.json<{ rules: { main: object } }>('/api/house-rules');
  const allow = async (main: object) => {
    const set = await noor.send('PUT', '/api/house-rules', { ...rules, main: { ...rules.main, ...main } });
    expect(set.status).toBe(200);
  };
  await allow({ outsideSight: 'outline', outsideReach: 'own' });
  const salome = await open('salome', '/for/salome/sightlines');
  await salome.press('button', 'Give access');
  await salome.fill('Choose who', 'Vera Holt <vera@desk-service.example>', 'combobox');
  await salome.press('option', /^Vera Holt/);
  await salome.press('button', /^Arrange/);
  await salome.says('needs “People outside');
  await salome.press('button', /^Add and/);
  await salome.press('button', /^Outline/);
  await salome.press('button', 'Save, and tell Vera');
  await salome.says('This leaves the house: Vera Holt (vera@desk-service.example)');
  await salome.press('button', 'Yes, give it');
  await salome.find('button', /^Vera Holt .* outside/);

  const vera = await stranger('/guest');
  await vera.fill('E-mail address', 'vera@desk-service.example');
  await vera.press('button', 'Send me a letter');
  await vera.says('a letter is on its way to it');
  await vera.go(`${home}/guest/${await new Caller(home).letterFor('vera@desk-service.example')}`);
  await vera.press('button', 'Come in');
  await vera.find('heading', 'What you were given');
  // Whose calendar she works in stands in the band, and the window turns to them.
  await vera.press('link', /^Salomé Ibarra/);
  await vera.press('link', /^New for Salomé/);
  await vera.find('complementary', 'New item');
  await vera.fill('Title', 'Grant talk');
  await vera.fillDate('Day', '2027-03-04');
  await vera.fill('From', '0700');
  await vera.fill('To', '07:30');
  await vera.press('button', 'Save to Salomé’s calendar');
  await vera.says('Saved to Salomé’s calendar');
  await salome.press('link', 'Calendar');
  // Sightlines shows her week too: what is pressed is on the board.
  await salome.find('heading', '1–7 March 2027');
  await salome.press('button', /^Grant talk/);
  await salome.says('Made by Vera Holt for Salomé Ibarra');
  // What the house allows less from now on is less in her window at once.
  await allow({});
  await vera.says(/You now see free\/busy|You now see when/);
  await vera.gone('link', /^New for Salomé/);
});
