import { expect, test } from 'vitest';
import { faultsByDayAndNight } from './axe.ts';
import { deliver } from './caller.ts';
import type { Desk } from './desk.ts';
import { desksAt } from './desks.ts';
import { sampleFor } from './servers.ts';
import { until } from './until.ts';

const home = await sampleFor('messages');
const { open } = desksAt(home);
const INES = 'i.varga@cloudmoor.example';
/** Goes into a folder, and waits until that is what the list shows. */
async function into(desk: Desk, name: RegExp): Promise<void> {
  await desk.press('link', name);
  // Until then what is listed is of the folder before.
  const current = async () => (await desk.find('link', name)).evaluate((el) => el.getAttribute('aria-current'));
  await until('the folder to be open', async () => (await current()) === 'page', desk.page);
  await desk.find('button', 'Removed, last 30 days');
}
const mail = (id: string, from: string, subject: string, text: string) =>
  deliver(
    home,
    [
      `From: ${from}`,
      `To: ${INES}`,
      `Subject: ${subject}`,
      `Message-ID: <${id}@quill-audit.example>`,
      'Content-Type: text/plain; charset=utf-8',
      '',
      text,
    ].join('\r\n'),
    INES,
  );

test('a mail that asks for a meeting is made one in a press, and nothing leaves before it is sent', async () => {
  const tomas = await open('tomas', '/for/ines/messages');
  await into(tomas, /^Arrived/);
  await tomas.press('button', /The uplands loan/);
  const panel = await tomas.find('complementary', 'The uplands loan');
  const offer = await tomas.find('region', 'Solène Ferrand asks for a meeting.', panel);
  await tomas.says('Could we meet on Thursday at three for half an hour?');
  // What it repeats of the mail before is folded away.
  await tomas.saysNot('What is left on your side?');
  await tomas.press('button', '4 lines repeated …', panel);
  await tomas.says('What is left on your side?');
  expect(await faultsByDayAndNight(tomas)).toEqual([]);
  await tomas.press('button', /^Make a meeting of it/, offer);
  const form = await tomas.find('complementary', 'New item');
  await tomas.find('button', 'Remove Solène Ferrand', form);
  await tomas.find('button', /^Send for Inés to 1/, form);
  expect(tomas.errors).toEqual([]);
});

test('what is typed is kept as a draft, gone on with elsewhere, and sent in her name', async () => {
  const tomas = await open('tomas', '/for/ines/messages');
  await tomas.find('status', 'live');
  await tomas.press('button', /^Write for Inés/);
  // Whom one knows is found by a word of theirs, in the house and among the contacts one sees.
  await tomas.fill('To', 'Ferrand', 'combobox');
  await tomas.press('option', /^Solène Ferrand/);
  await tomas.fill('Subject', 'The papers');
  await tomas.fill('What you write', 'They are on their');
  await tomas.says('saved in Drafts');
  await tomas.press('button', 'Close');

  const ines = await open('ines', '/for/ines/messages');
  await into(ines, /^Drafts 2/);
  await ines.press('button', /^The papers/);
  await ines.fill('What you write', 'They are on their way.');
  await ines.says('saved in Drafts');
  await ines.press('button', 'Send to 1');
  await ines.says('Sent to 1 person.');
  await into(ines, /^Sent/);
  await ines.press('button', /^The papers/);
  await ines.says('They are on their way.');
  await into(tomas, /^Drafts 1/);
  await tomas.gone('button', /^The papers/);
  expect([...tomas.errors, ...ines.errors]).toEqual([]);
});

test('a message is filed, flagged, removed and brought back, each with its way back', async () => {
  expect((await mail('file-1', 'Marta Quill <marta@quill-audit.example>', 'Ledger pages', 'As asked.')).status).toBe(
    202,
  );
  const tomas = await open('tomas', '/for/ines/messages');
  await into(tomas, /^Arrived/);
  await tomas.press('button', /Ledger pages/);
  await tomas.press('button', 'Flag');
  await tomas.says('“Ledger pages” is flagged.');
  await tomas.find('button', 'Remove the flag');
  await tomas.choose('File into', 'Filed');
  await tomas.says('“Ledger pages” is in Filed.');
  await tomas.gone('button', /Ledger pages/);
  await tomas.press('button', 'Undo');
  await tomas.press('button', /Ledger pages/);
  await tomas.press('button', 'Remove');
  await tomas.says('“Ledger pages” is removed.');
  await tomas.press('button', 'Removed, last 30 days');
  await tomas.press('button', /Ledger pages/);
  await tomas.press('button', 'Bring back');
  await tomas.says('“Ledger pages” is back.');
  await tomas.press('button', 'Back to what is there');
  await tomas.find('button', /Ledger pages/);
  expect(tomas.errors).toEqual([]);
});

test('a folder shows whoever was given its outline that much, and what is private is nowhere', async () => {
  expect((await mail('out-1', 'Marta Quill <marta@quill-audit.example>', 'For her alone', 'Hush.')).status).toBe(202);
  const oona = await open('oona', '/for/oona/messages');
  await oona.press('button', /^Filed/);
  await oona.press('menuitem', /^Arrived/);
  await oona.find('button', 'Removed, last 30 days');
  await oona.press('button', /Papers before the visit/);
  const panel = await oona.find('complementary', 'Papers before the visit');
  await oona.says('the rest isn’t yours to read');
  await oona.saysNot('last two minutes of the board');
  expect(await oona.look('button', 'Flag', panel)).toBe(null);
  await oona.find('button', /For her alone/);

  const ines = await open('ines', '/for/ines/messages');
  await into(ines, /^Arrived/);
  await ines.press('button', /For her alone/);
  await ines.press('button', 'Make private');
  await ines.says('nobody you gave this folder to can tell it is there');
  await oona.gone('button', /For her alone/);
  expect([...oona.errors, ...ines.errors]).toEqual([]);
});

test('a folder is made inside another, filed into by a rule, and said who sees it', async () => {
  const ines = await open('ines', '/for/ines/messages');
  await ines.press('button', /^Filed/);
  await ines.press('menuitem', 'New folder …');
  await ines.press('button', 'Create');
  await ines.says('Give a name.');
  await ines.fill('Name of the folder', 'Audit');
  await ines.press('button', 'Create');
  await ines.says('Nothing here.');
  await ines.press('button', /^Audit/);
  await ines.press('menuitem', 'Filing rules');
  await ines.press('button', 'Add a rule');
  await ines.press('button', 'Save the rules');
  await ines.says('Say by whom, with which words, or that it is about a meeting.');
  const rule = await ines.page.waitForSelector('li[aria-label="Rule 2"]');
  if (!rule) throw new Error('no second rule');
  await ines.fill('With these words', 'ledger sheet', 'textbox', rule);
  await ines.press('combobox', 'goes into', rule);
  await ines.press('option', 'Audit');
  await ines.press('button', 'Save the rules');
  await ines.says('The rules are saved');
  expect((await mail('rule-1', 'Marta Quill <marta@quill-audit.example>', 'A ledger sheet', 'One.')).status).toBe(202);
  await ines.find('button', /A ledger sheet/);
  await ines.press('link', 'Who sees it');
  await ines.find('heading', 'Who sees my messages in “Audit”');
  await ines.press('button', /^Tomas Lindqvist/);
  await ines.says('writes mail from here; both names show');
  expect(await faultsByDayAndNight(ines)).toEqual([]);
  expect(ines.errors).toEqual([]);
});

test('the one box finds a mail and opens it where it is', async () => {
  const tomas = await open('tomas', '/for/ines/calendar');
  await tomas.find('status', 'live');
  await tomas.page.keyboard.down('Control');
  await tomas.page.keyboard.press('k');
  await tomas.page.keyboard.up('Control');
  await tomas.fill('Find or do anything', 'grant register', 'combobox');
  await tomas.press('option', /^Papers before the visit/);
  await tomas.find('complementary', 'Papers before the visit');
  await tomas.says('last two minutes of the board');
  expect(tomas.errors).toEqual([]);
});

test('several things of hers are given in one act, each named first, for some days', async () => {
  const ines = await open('ines', '/for/ines/calendar');
  await ines.press('link', 'Everything');
  await ines.find('heading', 'All that is mine');
  for (const name of ['Tasks', 'Filed']) await ines.press('checkbox', `Choose ${name}`);
  await ines.press('button', 'See what it comes to');
  await ines.says('Choose somebody first.');
  await ines.fill('To whom', 'Pim', 'combobox');
  await ines.press('option', /^Pim Adeyemi/);
  await ines.fillDate('Until, that day included', '2027-03-09');
  await ines.press('button', 'See what it comes to');
  await ines.says('Nothing is given to them by name now.');
  expect(await faultsByDayAndNight(ines)).toEqual([]);
  const pim = await open('pim', '/for/pim/messages');
  await ines.press('button', 'Give these 2, and tell Pim');
  await ines.says('2 are given to Pim Adeyemi, and said to them.');
  await pim.says('Inés Varga gave you access to a folder of Inés’s messages.');
  await pim.press('button', /^Filed/);
  await pim.find('menuitem', /^Filed/);
  // What others see of hers is hers to know.
  const tomas = await open('tomas', '/for/ines/everything');
  await tomas.find('heading', 'Everything of Inés');
  expect(await tomas.look('checkbox', 'Choose Tasks')).toBe(null);
  expect([...ines.errors, ...pim.errors, ...tomas.errors]).toEqual([]);
});
