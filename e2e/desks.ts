import type { Browser } from 'puppeteer-core';
import { afterAll, afterEach, beforeAll, expect } from 'vitest';
import { Desk } from './desk.ts';
import { startBrowser } from './windows.ts';

/**
 * Windows for a file's tests: one browser, each test's windows closed after it, with nothing broken in any. `open` is a sample
 * person's, live already; `arrive` the same without waiting for that; `stranger` that of somebody who isn't signed in. With `byKeys`, the keys alone
 * do what a hand would press.
 */
export function desksAt(home: string, { byKeys = false } = {}) {
  const desks: Desk[] = [];
  let browser: Browser;
  beforeAll(async () => {
    browser = await startBrowser();
  });
  afterAll(() => browser?.close());
  afterEach(async () => {
    for (const desk of desks.splice(0)) {
      expect(desk.errors).toEqual([]);
      await desk.close();
    }
  });
  const arrive = async (who: string, path: string): Promise<Desk> => {
    const desk = await Desk.as(browser, home, who, path);
    desks.push(desk);
    desk.byKeys = byKeys;
    return desk;
  };
  return {
    arrive,
    open: async (who: string, path: string): Promise<Desk> => {
      const desk = await arrive(who, path);
      await desk.find('status', 'live');
      return desk;
    },
    stranger: async (path: string): Promise<Desk> => {
      const desk = await Desk.open(browser, home + path);
      desks.push(desk);
      desk.byKeys = byKeys;
      return desk;
    },
  };
}
