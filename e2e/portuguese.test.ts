import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { faultsByDayAndNight } from './axe.ts';
import { Caller } from './caller.ts';
import { Desk } from './desk.ts';
import { sampleFor } from './servers.ts';
import { startBrowser } from './windows.ts';

const home = await sampleFor('portuguese');
let browser: Browser;
beforeAll(async () => {
  browser = await startBrowser();
});
afterAll(() => browser?.close());

/** Views that are looked at in Portuguese, and what stands over each. */
const VIEWS: [string, string | RegExp][] = [
  ['/for/maren/calendar?of=ines&week=2027-03-02', /mar/],
  ['/for/maren/calendar?view=day&week=2027-03-02', /mar/],
  ['/for/maren/calendar?view=month&week=2027-03-02', /mar/],
  ['/for/maren/calendar?view=list&week=2027-03-02', /mar/],
  ['/for/maren/calendar?of=ines&view=side&week=2027-03-02', /mar/],
  ['/for/maren/calendar?new=1', 'Novo item'],
  ['/for/maren/calendar?find=peat', 'Procurar'],
  ['/for/maren/messages', /./],
  ['/for/maren/people', /./],
  ['/for/maren/sightlines', /./],
];

test('the window speaks the language one chose: its words, its days, a sentence typed in the one box, and what is refused; axe finds nothing serious', async () => {
  const desk = await Desk.as(browser, home, 'maren', '/for/maren/settings');
  await desk.find('status', 'live');
  await desk.press('button', 'Português');
  await desk.press('button', 'Save');
  await desk.find('heading', 'Definições');
  await desk.go(`${home}/for/maren/calendar`);
  await desk.find('button', 'Semana');
  expect(await desk.page.evaluate(() => document.documentElement.lang)).toBe('pt');
  await desk.says('hoje');
  await desk.page.keyboard.down('Control');
  await desk.page.keyboard.press('k');
  await desk.page.keyboard.up('Control');
  await desk.fill('Procurar ou fazer algo', 'reunião com a equipa quinta às 15h 90m', 'combobox');
  await desk.find('option', /^Novo para mim: reunião/);
  await desk.page.keyboard.press('Enter');
  await desk.find('button', 'Guardar no meu calendário');
  await desk.fill('Título', ' ');
  await desk.press('button', 'Guardar no meu calendário');
  await desk.says('Dê-lhe um título.');
  for (const [path, there] of VIEWS) {
    await desk.go(home + path);
    await desk.find('heading', there);
    expect([path, await faultsByDayAndNight(desk)]).toEqual([path, []]);
  }
  expect(desk.errors).toEqual([]);
  // What is refused is said in the same language, to whatever asks.
  const caller = await Caller.stepIn(home, 'maren');
  const refused = await caller.send('GET', '/api/items/none');
  expect(JSON.parse(refused.text).sentence).toContain('Não há tal coisa aqui');
  await caller.send('PUT', '/api/preferences', {
    zone: 'Europe/Lisbon',
    hours: '24',
    weekFirst: 1,
    dateOrder: 'dmy',
    language: 'en',
  });
  await desk.close();
});

test('who isn’t signed in reads what their browser prefers', async () => {
  const stranger = new Caller(home);
  const page = await stranger.send('GET', '/sign-in', undefined, { 'accept-language': 'pt-PT,pt;q=0.9' });
  expect(page.text).toContain('Palavra-passe');
  const refused = await stranger.send('GET', '/api/frame', undefined, { 'accept-language': 'pt' });
  expect(JSON.parse(refused.text).sentence).toContain('A sua sessão terminou');
});
