import type { Browser, BrowserContext, CDPSession, ElementHandle, JSHandle, Page } from 'puppeteer-core';
import { Caller } from './caller.ts';
import { CANDIDATES, type Names, type Wanted } from './names.ts';
import { reach } from './reach.ts';
import { readyToPress } from './ready-to-press.ts';
import { hearTraffic, type Traffic } from './traffic.ts';
import { MissedPress, until } from './until.ts';
import { leaveWindow, newWindow, type Window, windowFor } from './windows.ts';

type Name = string | RegExp;

const SIZE = { width: 1280, height: 800 };

/** One window of one person's: everything is found by role and name, and waited for, never timed. */
export class Desk {
  private closed = false;
  private traffic: Promise<Traffic> | null = null;
  /** Whether this window is worked by the keys alone. */
  byKeys = false;
  private constructor(
    readonly page: Page,
    readonly context: BrowserContext,
    readonly errors: string[],
    private readonly session: CDPSession,
    private readonly whose: string | null,
  ) {}

  static async open(browser: Browser, address: string, size = SIZE): Promise<Desk> {
    const context = await browser.createBrowserContext();
    return Desk.window(context, address, size);
  }

  /** A sample person's window, signed in already. */
  static async as(browser: Browser, address: string, handle: string, path: string, size = SIZE) {
    const caller = await Caller.stepIn(address, handle);
    const whose = `${handle} at ${address}`;
    const window = await windowFor(browser, whose);
    await window.context.setCookie(...caller.cookies());
    return Desk.in(window, address + path, size, whose);
  }

  /** Another window of the same person. */
  static async window(context: BrowserContext, address: string, size = SIZE): Promise<Desk> {
    return Desk.in(await newWindow(context), address, size, null);
  }

  private static async in(
    { page, context, session }: Window,
    address: string,
    size: typeof SIZE,
    whose: string | null,
  ): Promise<Desk> {
    await page.setViewport(size);
    await page.emulateMediaFeatures([{ name: 'prefers-reduced-motion', value: 'reduce' }]);
    const errors: string[] = [];
    page.on('pageerror', (error) => errors.push(String(error)));
    page.on('console', (message) => {
      // What a refused request says on the console is the browser's own line; the tests look at the screen instead.
      if (message.type() === 'error' && !/Failed to load resource/.test(message.text())) errors.push(message.text());
    });
    const desk = new Desk(page, context, errors, session, whose);
    await desk.go(address);
    return desk;
  }

  async go(address: string): Promise<void> {
    await this.page.goto(address, { waitUntil: 'domcontentloaded' });
  }

  /** Goes to another screen of the same window as a link does, without loading the page anew. */
  async follow(path: string): Promise<void> {
    const before = this.page.url();
    const there = new URL(path, before).href;
    if (before === there) return;
    // A screen may take out of its address what it has read of it, at once: that it was gone to is heard, not looked for.
    let gone = false;
    const hear = () => {
      gone = true;
    };
    this.page.on('framenavigated', hear);
    await until(
      'the page to listen',
      () =>
        this.page.evaluate((to) => {
          const { next } = window as unknown as { next?: { router?: { push(to: string): void } } };
          next?.router?.push(to);
          return next?.router ? true : null;
        }, there),
      this.page,
    );
    await until(`the screen at ${path}`, async () => (gone || this.page.url() !== before ? true : null), this.page);
    this.page.off('framenavigated', hear);
  }

  /** Waits for something of a role and a name to be on the screen. */
  async find(role: string, name: Name = /.*/, within?: ElementHandle<Element>): Promise<ElementHandle<Element>> {
    return until(`a ${role} called ${String(name)}`, () => this.waitFor(role, name, within), this.page);
  }

  /** The same, without waiting; `null` where there is none. */
  async look(role: string, name: Name, within?: ElementHandle<Element>): Promise<ElementHandle<Element> | null> {
    const handle = await this.page.evaluateHandle(
      (role, css, wanted, root) =>
        (window as unknown as { paramoNames: Names }).paramoNames.look(role, css, wanted, root),
      role,
      CANDIDATES[role] ?? '*',
      wantedBy(name),
      within ?? null,
    );
    return elementOf(handle);
  }

  /** The same, waiting up to two seconds; `null` where it hasn't come by then. */
  private async waitFor(role: string, name: Name, within?: ElementHandle<Element>) {
    const handle = await this.page.evaluateHandle(
      (role, css, wanted, root) => {
        const { look, wait } = (window as unknown as { paramoNames: Names }).paramoNames;
        return wait(() => look(role, css, wanted, root));
      },
      role,
      CANDIDATES[role] ?? '*',
      wantedBy(name),
      within ?? null,
    );
    return elementOf(handle);
  }

  async press(role: string, name: Name, within?: ElementHandle<Element>): Promise<void> {
    if (this.byKeys) await this.pressByKeys(role, name, within);
    else await this.click(role, name, within);
  }

  /** Presses with the pointer, or, to type into it, goes to a field that could be pressed: what moves meanwhile then takes no press meant for another. */
  private async click(role: string, name: Name, within?: ElementHandle<Element>, toType = false): Promise<void> {
    await until(
      `to press the ${role} called ${String(name)}`,
      async (say) => {
        const element = await this.waitFor(role, name, within);
        if (!element) return say('it isn’t there');
        const wanted = wantedBy(name);
        const inTheWay = await element.evaluate(readyToPress, toType, role, wanted);
        if (inTheWay) return say(inTheWay);
        if (toType)
          return (await element.evaluate((el) => {
            (el as HTMLElement).focus();
            return document.activeElement === el;
          }))
            ? true
            : say('it takes no focus');
        const pressed = await element.click().then(
          () => true,
          (error) => say(String(error)),
        );
        const hitInstead =
          pressed &&
          (await this.page.evaluate(() => document.documentElement.dataset.beside ?? null).catch(() => null));
        // On nothing that does anything it is pressed again, as a person would; on something else it has done what wasn't meant.
        if (hitInstead === '') return say('it moved away');
        // What was drawn anew under the finger hears no click; a person presses it again.
        if (
          pressed &&
          (await this.page.evaluate(() => document.documentElement.dataset.pressed).catch(() => '')) === 'down'
        )
          return say('it was drawn anew meanwhile');
        if (hitInstead) throw new MissedPress(`the press on the ${role} called ${String(name)} fell on ${hitInstead}`);
        return pressed;
      },
      this.page,
    );
  }

  /** The same with the keys alone: what can't be reached by Tab, or by the arrows of an open list, can't be pressed. */
  private async pressByKeys(role: string, name: Name, within?: ElementHandle<Element>): Promise<void> {
    await until(
      `to press the ${role} called ${String(name)} by keys`,
      async () => {
        const element = await this.waitFor(role, name, within);
        if (!element) return null;
        const off = await element.evaluate(
          (el) =>
            (el as HTMLButtonElement).disabled ||
            el.getAttribute('aria-disabled') === 'true' ||
            // The page is there before its script.
            (el.tagName !== 'A' && !Object.keys(el).some((key) => key.startsWith('__react'))),
        );
        if (off) return null;
        const inList = role === 'option' || role === 'menuitem';
        if (!(await reach(this.page, element, inList ? 'ArrowDown' : 'Tab'))) return null;
        const typed = await element.evaluate(
          (el) => el instanceof HTMLInputElement || el instanceof HTMLTextAreaElement,
        );
        if (role === 'checkbox' || role === 'switch') await this.page.keyboard.press('Space');
        else if (!typed) await this.page.keyboard.press('Enter');
        return true;
      },
      this.page,
    );
  }

  /** Types into a field, in place of what it held. */
  async fill(label: Name, text: string, role = 'textbox', within?: ElementHandle<Element>): Promise<void> {
    if (this.byKeys) await this.pressByKeys(role, label, within);
    else await this.click(role, label, within, true);
    await this.page.keyboard.down('Control');
    await this.page.keyboard.press('a');
    await this.page.keyboard.up('Control');
    await this.page.keyboard.press('Backspace');
    await this.page.keyboard.sendCharacter(text);
  }

  /** Types a date into its field, as it is written everywhere: year, month, day. */
  async fillDate(label: Name, date: string): Promise<void> {
    await this.fill(label, date);
  }

  /** A field by its label, whatever its role. */
  async any(label: Name): Promise<ElementHandle<Element>> {
    return until(
      `a field called ${String(label)}`,
      async () => {
        const handle = await this.page.evaluateHandle((wanted) => {
          const { fits, nameOf, wait } = (window as unknown as { paramoNames: Names }).paramoNames;
          const fields = () => [...document.querySelectorAll('input, textarea, select')];
          return wait(() => fields().find((el) => fits(wanted, nameOf(el))) ?? null);
        }, wantedBy(label));
        return elementOf(handle);
      },
      this.page,
    );
  }

  /** Chooses from a list that opens. */
  async choose(label: Name, option: Name): Promise<void> {
    await this.press('combobox', label);
    await this.press('option', option);
    await this.gone('option', option);
  }

  async text(): Promise<string> {
    return this.page.evaluate(() => document.body.innerText);
  }

  /** Waits until the screen says something. */
  async says(text: Name): Promise<void> {
    await until(`the screen to say ${String(text)}`, () => this.saying(text, true), this.page);
  }

  /** Waits up to two seconds for the screen to say something, or no longer to. */
  private saying(text: Name, says: boolean): Promise<true | null> {
    return this.page.evaluate(
      (wanted, wants) => {
        const names = (window as unknown as { paramoNames: Names }).paramoNames;
        return names.wait(() => (names.says(wanted) === wants ? true : null));
      },
      wantedBy(text),
      says,
    );
  }

  /** Waits until the screen no longer says something. */
  async saysNot(text: Name): Promise<void> {
    await until(`the screen not to say ${String(text)}`, () => this.saying(text, false), this.page);
  }

  async gone(role: string, name: Name): Promise<void> {
    await until(
      `no ${role} called ${String(name)}`,
      () =>
        this.page.evaluate(
          (role, css, wanted) => {
            const { look, wait } = (window as unknown as { paramoNames: Names }).paramoNames;
            return wait(() => (look(role, css, wanted, null) ? null : true));
          },
          role,
          CANDIDATES[role] ?? '*',
          wantedBy(name),
        ),
      this.page,
    );
  }

  /** Listens to what the window asks the server and is answered, from the first call on. */
  hear(): Promise<Traffic> {
    this.traffic ??= hearTraffic(this.session);
    return this.traffic;
  }

  /** Without a connection, or with one again. */
  async offline(offline: boolean): Promise<void> {
    await this.session.send('Network.enable');
    const conditions = { latency: 0, downloadThroughput: -1, uploadThroughput: -1 };
    await this.session.send('Network.emulateNetworkConditions', { offline, ...conditions });
  }

  /** Calls the API as this person, as a script of theirs would; answers status and text. */
  async fetch(path: string, init: { method?: string; body?: unknown } = {}): Promise<{ status: number; text: string }> {
    return this.page.evaluate(
      async (path, method, body) => {
        const answer = await fetch(path, {
          method,
          ...(body === null ? {} : { body, headers: { 'content-type': 'application/json' } }),
        });
        return { status: answer.status, text: await answer.text() };
      },
      path,
      init.method ?? 'GET',
      init.body === undefined ? null : JSON.stringify(init.body),
    );
  }

  async signIn(address: string, password: string): Promise<void> {
    await this.fill('E-mail address', address);
    await this.fill('Password', password);
    await this.press('button', 'Sign in');
  }

  async close(): Promise<void> {
    if (this.closed) return;
    this.closed = true;
    const { page, context, session, whose } = this;
    // Where a test opened a further window of the same person's, both end.
    if (!whose || (await context.pages()).length > 1) return context.close();
    await leaveWindow({ page, context, session }, whose);
  }
}

/** What is looked for, as it is said to the page. */
const wantedBy = (name: Name): Wanted =>
  typeof name === 'string' ? { text: name } : { source: name.source, flags: name.flags };

async function elementOf(handle: JSHandle<Element | null>): Promise<ElementHandle<Element> | null> {
  const element = handle.asElement() as ElementHandle<Element> | null;
  if (!element) await handle.dispose();
  return element;
}
