import puppeteer, { type Browser, type BrowserContext, type CDPSession, type Page } from 'puppeteer-core';
import { QUIETLY } from '../scripts/chromium.mjs';
import { installNames } from './names.ts';
import { hearNoMore } from './traffic.ts';

/** A window of the browser, as a test works in it. */
export interface Window {
  readonly page: Page;
  readonly context: BrowserContext;
  readonly session: CDPSession;
}

let running: Promise<Browser> | null = null;

/**
 * The Chromium of this worker, started once for all of its files: closing it closes the windows that were opened in it. Nothing in it reaches out
 * or slows a window that is not in front.
 */
export async function startBrowser(): Promise<Browser> {
  running ??= launch();
  return running;
}

async function launch(): Promise<Browser> {
  const browser = await puppeteer.launch({
    executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
    // The browser reports no requests and no audits; a test that needs requests listens to its window (`traffic.ts`).
    networkEnabled: false,
    issuesEnabled: false,
    args: [
      ...QUIETLY,
      // Several people's windows are open at once, and each must run as if it were in front.
      '--disable-background-timer-throttling',
      '--disable-backgrounding-occluded-windows',
      '--disable-renderer-backgrounding',
      // Of the browser's own interface, which nobody sees: each window would run pages of its own for the box of addresses.
      '--disable-features=WebUIOmniboxPopup,WebUIOmniboxAimPopup,WebUIOmniboxFullPopup',
    ],
  });
  // The process itself ends with the worker's, and so do the windows that wait for their next use.
  browser.close = async () => {
    const spareContexts = new Set(spare.map(({ context }) => context));
    const left = browser.browserContexts().filter((context) => context.id && !spareContexts.has(context));
    await Promise.all(left.map((context) => context.close()));
  };
  return browser;
}

/**
 * A window that is open and nobody's now. The next person's test goes on in it: loading a page where another was takes half the
 * work of doing so in a new window.
 */
interface Spare extends Window {
  /** Whose it was last, and at which address. */
  readonly whose: string;
}

const spare: Spare[] = [];

/** A spare window with nothing in it of who had it before, the same person's first. */
async function takeSpare(whose: string): Promise<Window | null> {
  const same = spare.findIndex((window) => window.whose === whose);
  const window = spare.splice(same === -1 ? spare.length - 1 : same, 1)[0];
  if (!window) return null;
  const { page, context, session } = window;
  await context.deleteCookie(...(await context.cookies()));
  const origin = window.whose.slice(window.whose.indexOf(' at ') + 4);
  const storageTypes = 'local_storage,indexeddb,cache_storage,service_workers';
  await session.send('Storage.clearDataForOrigin', { origin, storageTypes });
  await session.send('Page.resetNavigationHistory');
  return { page, context, session };
}

/** A window for a test: one that is spare, or a new one. */
export const windowFor = async (browser: Browser, whose: string): Promise<Window> =>
  (await takeSpare(whose)) ?? newWindow(await browser.createBrowserContext());

/** Leaves a window to the next test, with nothing going on in it. */
export async function leaveWindow(window: Window, whose: string): Promise<void> {
  const { page, session } = window;
  await page.evaluate(() => sessionStorage.clear());
  for (const heard of ['pageerror', 'console'] as const) page.removeAllListeners(heard);
  await hearNoMore(session);
  await page.goto('about:blank');
  spare.push({ ...window, whose });
}

/** A new window, which runs as if it were in front. */
export async function newWindow(context: BrowserContext): Promise<Window> {
  const page = await context.newPage({ type: 'window' } as never);
  const session = await page.createCDPSession();
  await session.send('Emulation.setFocusEmulationEnabled', { enabled: true });
  await page.evaluateOnNewDocument(installNames);
  return { page, context, session };
}
