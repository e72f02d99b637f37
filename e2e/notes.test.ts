import type { Browser, ElementHandle } from 'puppeteer-core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { Caller } from './caller.ts';
import { Desk } from './desk.ts';
import { fileToUpload } from './file-to-upload.ts';
import { sampleFor } from './servers.ts';
import { startBrowser } from './windows.ts';

const home = await sampleFor('notes');
let browser: Browser;
beforeAll(async () => {
  browser = await startBrowser();
});
afterAll(() => browser?.close());

/** Something of Bruno’s, made over the API; answers its id. */
async function make(title: string, day: string, notes: string): Promise<string> {
  const bruno = await Caller.stepIn(home, 'bruno');
  const frame = await bruno.json<{ principals: { handle: string; calendar: string }[] }>('/api/frame');
  const calendar = frame.principals.find((p) => p.handle === 'bruno')?.calendar;
  const made = await bruno.send('POST', `/api/calendars/${calendar}/items`, {
    when: { start: `${day}T11:00`, end: `${day}T12:00`, allDay: false, zone: 'Europe/Lisbon' },
    title,
    notes,
  });
  return JSON.parse(made.text).item.id;
}

test('notes show their bold words, lists and links, and nothing of HTML, pictures or scripts in them', async () => {
  const notes =
    '**Bring** the map\n\n- one\n- two\n\n[the plan](https://plan.example/) [bad](javascript:alert(1))\n\n<img src=x onerror="document.title=1"> ![](https://spy.example/dot.png)';
  await make('Weir notes', '2027-06-15', notes);
  const desk = await Desk.as(browser, home, 'tomas', '/for/bruno/calendar?week=2027-06-14');
  const traffic = await desk.hear();
  await desk.press('button', /^Weir notes/);
  await desk.find('link', 'the plan');
  const seen = await desk.page.$eval('aside', (panel) => ({
    strong: panel.querySelector('dd strong')?.textContent,
    items: panel.querySelectorAll('dd li').length,
    pictures: panel.querySelectorAll('img').length,
    links: [...panel.querySelectorAll('dd a')].map((a) => a.getAttribute('href')),
  }));
  expect(seen).toEqual({ strong: 'Bring', items: 2, pictures: 0, links: ['https://plan.example/'] });
  const requests = traffic.requests().map(({ url }) => url);
  expect(requests.length).toBeGreaterThan(0);
  expect(requests.filter((url) => url.includes('spy.example'))).toEqual([]);
  expect(desk.errors).toEqual([]);
  await desk.close();
});

test('notes are typed with their marks and kept as Markdown; what wasn’t touched stays as it was written', async () => {
  const id = await make('Weir draft', '2027-06-16', 'First line\nSecond line');
  const desk = await Desk.as(browser, home, 'tomas', '/for/bruno/calendar?week=2027-06-14');
  await desk.press('button', /^Weir draft/);
  await desk.press('button', 'Change');
  const editor = await desk.find('textbox', 'Notes');
  await desk.find('toolbar', 'How it is written');
  await desk.fill('Title', 'Weir, second draft');
  await desk.press('button', 'Save to Bruno’s calendar');
  await desk.find('button', /^Weir, second draft/);
  const bruno = await Caller.stepIn(home, 'bruno');
  const read = async () => (await bruno.json<{ notes: string }>(`/api/items/${id}`)).notes;
  expect(await read()).toBe('First line\nSecond line');
  await desk.press('button', 'Change');
  await (await desk.find('textbox', 'Notes')).click();
  await desk.page.keyboard.down('Control');
  await desk.page.keyboard.press('End');
  await desk.page.keyboard.up('Control');
  await desk.press('button', 'Bold');
  await desk.page.waitForSelector('[role="toolbar"] [aria-pressed="true"]');
  await desk.page.keyboard.type(' and bold');
  await desk.press('button', 'Save to Bruno’s calendar');
  await desk.find('button', 'Change');
  await desk.says('and bold');
  expect(await read()).toContain('**');
  expect(await read()).toContain('First line\nSecond line');
  expect(editor).toBeTruthy();
  expect(desk.errors).toEqual([]);
  await desk.close();
});

test('a file is added to an item, saved by whoever sees it in full, taken away and brought back', async () => {
  await make('Weir files', '2027-06-17', '');
  const file = fileToUpload('paramo-map.txt', 'a map of the weir');
  const desk = await Desk.as(browser, home, 'tomas', '/for/bruno/calendar?week=2027-06-14');
  await desk.press('button', /^Weir files/);
  await desk.find('heading', 'Files');
  const input = (await desk.page.$('input[type="file"][multiple]')) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(file);
  const link = await desk.find('link', /^paramo-map/);
  const href = (await link.evaluate((a) => a.getAttribute('href'))) ?? '';
  const bruno = await Caller.stepIn(home, 'bruno');
  const saved = await bruno.send('GET', href);
  expect([saved.status, saved.text]).toEqual([200, 'a map of the weir']);
  expect(saved.headers.get('content-disposition')).toContain('attachment;');
  // However its address is written, it is a sandbox.
  const written = await bruno.send('GET', href.replace('/attachments/', '/%61ttachments/'));
  expect(written.text).toBe(saved.text);
  for (const { headers } of [saved, written])
    expect(headers.get('content-security-policy')).toBe("default-src 'none'; sandbox");
  expect((await (await Caller.stepIn(home, 'dario')).send('GET', href)).status).toBe(404);
  await desk.press('button', /^Take away paramo-map/);
  await desk.gone('link', /^paramo-map/);
  await desk.press('button', 'Undo');
  await desk.find('link', /^paramo-map/);
  expect(desk.errors).toEqual([]);
  await desk.close();
});

test('two who may change an item see that the other has it open', async () => {
  await make('Weir both', '2027-06-18', '');
  const tomas = await Desk.as(browser, home, 'tomas', '/for/bruno/calendar?week=2027-06-14');
  await tomas.press('button', /^Weir both/);
  const bruno = await Desk.as(browser, home, 'bruno', '/for/bruno/calendar?week=2027-06-14');
  await bruno.press('button', /^Weir both/);
  await bruno.says('Tomas is looking at this too.');
  await tomas.says('Bruno is looking at this too.');
  await bruno.press('button', 'Change');
  await tomas.says('Bruno is changing this just now.');
  await bruno.close();
  await tomas.close();
});

test('what is saved while there is no connection is kept, and goes when it is back', async () => {
  const desk = await Desk.as(browser, home, 'bruno', '/for/bruno/calendar?week=2027-06-21');
  await desk.says('live');
  await desk.find('button', /^Cash and cover/);
  await desk.page.keyboard.press('n');
  await desk.fill('Title', 'Typed on the train');
  await desk.offline(true);
  await desk.says('offline since');
  await desk.press('button', 'Save to my calendar');
  await desk.says('goes as soon as there is one');
  await desk.offline(false);
  await desk.find('button', /^Typed on the train/);
  await desk.saysNot('goes as soon as there is one');
  await desk.close();
});
