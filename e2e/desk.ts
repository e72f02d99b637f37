import puppeteer, { type Browser, type BrowserContext, type ElementHandle, type Page } from 'puppeteer-core';
import { Caller } from './caller.ts';
import { installNames, type Names } from './names.ts';

const PATIENCE = 12_000;

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
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      // Several people's windows are open at once, and each must run as if it were in front.
      '--disable-background-timer-throttling',
      '--disable-backgrounding-occluded-windows',
      '--disable-renderer-backgrounding',
      // Of the browser's own interface, which nobody sees: each window would run pages of its own for the box of addresses.
      '--disable-features=WebUIOmniboxPopup,WebUIOmniboxAimPopup,WebUIOmniboxFullPopup',
    ],
  });
  // The process itself ends with the worker's.
  browser.close = async () => {
    await Promise.all(browser.browserContexts().map((context) => (context.id ? context.close() : null)));
  };
  return browser;
}

type Name = string | RegExp;

/** Where things of a role can be in the page; what isn't listed is looked for everywhere. */
const CANDIDATES: Record<string, string> = {
  button: 'button, [role="button"], summary',
  link: 'a[href]',
  textbox: 'input, textarea, [role="textbox"]',
  combobox: 'input, select, [role="combobox"]',
  checkbox: 'input[type="checkbox"]',
  switch: 'input[role="switch"]',
  option: '[role="option"], option',
  menuitem: '[role="menuitem"]',
  heading: 'h1, h2, h3',
  alert: '[role="alert"]',
  status: '[role="status"]',
  complementary: 'aside',
  region: 'section, [role="region"]',
  row: 'tr',
  article: 'article',
};

/** One window of one person's: everything is found by role and name, and waited for, never timed. */
export class Desk {
  private closed = false;
  /** Whether this window is worked by the keys alone. */
  byKeys = false;
  private constructor(
    readonly page: Page,
    readonly context: BrowserContext,
    readonly errors: string[],
  ) {}

  static async open(browser: Browser, address: string, size = { width: 1280, height: 800 }): Promise<Desk> {
    const context = await browser.createBrowserContext();
    return Desk.window(context, address, size);
  }

  /** A sample person's window, signed in already. */
  static async as(
    browser: Browser,
    address: string,
    handle: string,
    path: string,
    size = { width: 1280, height: 800 },
  ) {
    const caller = await Caller.stepIn(address, handle);
    const context = await browser.createBrowserContext();
    await context.setCookie(...caller.cookies());
    return Desk.window(context, address + path, size);
  }

  /** Another window of the same person. */
  static async window(context: BrowserContext, address: string, size = { width: 1280, height: 800 }): Promise<Desk> {
    const page = await context.newPage({ type: 'window' } as never);
    await page.setViewport(size);
    const session = await page.createCDPSession();
    await session.send('Emulation.setFocusEmulationEnabled', { enabled: true });
    await page.emulateMediaFeatures([{ name: 'prefers-reduced-motion', value: 'reduce' }]);
    await page.evaluateOnNewDocument(installNames);
    const errors: string[] = [];
    page.on('pageerror', (error) => errors.push(String(error)));
    page.on('console', (message) => {
      // What a refused request says on the console is the browser's own line; the tests look at the screen instead.
      if (message.type() === 'error' && !/Failed to load resource/.test(message.text())) errors.push(message.text());
    });
    const desk = new Desk(page, context, errors);
    await desk.go(address);
    return desk;
  }

  async go(address: string): Promise<void> {
    await this.page.goto(address, { waitUntil: 'domcontentloaded' });
  }

  /** Waits for something of a role and a name to be on the screen. */
  async find(role: string, name: Name = /.*/, within?: ElementHandle<Element>): Promise<ElementHandle<Element>> {
    return until(`a ${role} called ${String(name)}`, () => this.look(role, name, within), this.page);
  }

  /** The same, without waiting; `null` where there is none. */
  async look(role: string, name: Name, within?: ElementHandle<Element>): Promise<ElementHandle<Element> | null> {
    const wanted = typeof name === 'string' ? { text: name } : { source: name.source, flags: name.flags };
    const handle = await this.page.evaluateHandle(
      (role, css, wanted, root) => {
        const { nameOf, roleOf } = (window as unknown as { paramoNames: Names }).paramoNames;
        const pattern = 'text' in wanted ? null : new RegExp(wanted.source ?? '', wanted.flags);
        for (const el of (root ?? document).querySelectorAll(css)) {
          if (roleOf(el) !== role || el.getClientRects().length === 0 || el.closest('[aria-hidden="true"]')) continue;
          const name = nameOf(el);
          if (pattern ? pattern.test(name) : name === wanted.text) return el;
        }
        return null;
      },
      role,
      CANDIDATES[role] ?? '*',
      wanted,
      within ?? null,
    );
    const element = handle.asElement() as ElementHandle<Element> | null;
    if (!element) await handle.dispose();
    return element;
  }

  async press(role: string, name: Name, within?: ElementHandle<Element>): Promise<void> {
    if (this.byKeys) await this.pressByKeys(role, name, within);
    else await this.click(role, name, within);
  }

  private async click(role: string, name: Name, within?: ElementHandle<Element>): Promise<void> {
    await until(
      `to press the ${role} called ${String(name)}`,
      async (say) => {
        const element = await this.look(role, name, within);
        if (!element) return say('it isn’t there');
        const inTheWay = await element.evaluate(async (el) => {
          if ((el as HTMLButtonElement).disabled || el.getAttribute('aria-disabled') === 'true') return 'it is off';
          el.scrollIntoView({ block: 'nearest', inline: 'nearest' });
          const before = el.getBoundingClientRect();
          // Two frames, which take as long as the machine is busy; a window that draws none is not waited for.
          const frames = new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)));
          await Promise.race([frames, new Promise((done) => setTimeout(done, 250))]);
          const box = el.getBoundingClientRect();
          // It moves, because something above it has just come: a person would wait too.
          if (box.x !== before.x || box.y !== before.y) return `it moves, ${before.x},${before.y} to ${box.x},${box.y}`;
          const top = document.elementFromPoint(box.x + box.width / 2, box.y + box.height / 2);
          // The same where something lies over it, a menu that is closing say.
          if (top !== null && (el.contains(top) || top.contains(el))) {
            const root = document.documentElement;
            delete root.dataset.beside;
            const hear = ({ target }: Event) => {
              const on = target as Element;
              // Drawn anew in between it is another element, but the same to whoever presses it.
              if (el.contains(on) || on.contains(el) || on.textContent === el.textContent) return;
              const control = on.closest('button, a, input, select, textarea, label, [role="button"], [role="option"]');
              root.dataset.beside = control ? `${control.textContent?.slice(0, 60) || control.tagName}` : '';
            };
            document.addEventListener('pointerdown', hear, { capture: true, once: true });
            return null;
          }
          const over = top && `${top.tagName} ${top.className} ${top.textContent?.slice(0, 60)}`;
          return `at ${box.x},${box.y} lies ${over ?? 'nothing'}`;
        });
        if (inTheWay) return say(inTheWay);
        const pressed = await element.click().then(
          () => true,
          (error) => say(String(error)),
        );
        const beside =
          pressed &&
          (await this.page.evaluate(() => document.documentElement.dataset.beside ?? null).catch(() => null));
        // On nothing that does anything it is pressed again, as a person would; on something else it has done what wasn't meant.
        if (beside === '') return say('it moved away');
        if (beside) throw new PressedBeside(`the press on the ${role} called ${String(name)} fell on ${beside}`);
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
        const element = await this.look(role, name, within);
        if (!element) return null;
        const off = await element.evaluate(
          (el) => (el as HTMLButtonElement).disabled || el.getAttribute('aria-disabled') === 'true',
        );
        if (off) return null;
        const inList = role === 'option' || role === 'menuitem';
        if (!(await this.reach(element, inList ? 'ArrowDown' : 'Tab'))) return null;
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

  /** Presses a key until something has the focus; `false` where it never does. */
  private async reach(element: ElementHandle<Element>, key: 'Tab' | 'ArrowDown'): Promise<boolean> {
    for (let steps = 0; steps < 300; steps++) {
      const at = await element.evaluate((el) => {
        const on = document.activeElement;
        if (on === null) return 'elsewhere';
        if (on === el || document.getElementById(on.getAttribute('aria-activedescendant') ?? '') === el) return 'there';
        // Choices that stand together are one stop of Tab; the arrows go on between them.
        const together = el.closest('[role="group"]');
        return together?.contains(on) && el.getAttribute('tabindex') === '-1' ? 'beside' : 'elsewhere';
      });
      if (at === 'there') return true;
      if (at === 'beside') {
        await this.page.keyboard.press('ArrowRight');
        continue;
      }
      await this.page.keyboard.press(key);
    }
    return false;
  }

  /** Types into a field, in place of what it held. */
  async fill(label: Name, text: string, role = 'textbox', within?: ElementHandle<Element>): Promise<void> {
    await this.press(role, label, within);
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
    const wanted = typeof label === 'string' ? { text: label } : { source: label.source, flags: label.flags };
    return until(
      `a field called ${String(label)}`,
      async () => {
        const handle = await this.page.evaluateHandle((wanted) => {
          const { nameOf } = (window as unknown as { paramoNames: Names }).paramoNames;
          const pattern = 'text' in wanted ? null : new RegExp(wanted.source ?? '', wanted.flags);
          for (const el of document.querySelectorAll('input, textarea, select'))
            if (pattern ? pattern.test(nameOf(el)) : nameOf(el) === wanted.text) return el;
          return null;
        }, wanted);
        return handle.asElement() as ElementHandle<Element> | null;
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
    await until(
      `the screen to say ${String(text)}`,
      async () => (holds(await this.text(), text) ? true : null),
      this.page,
    );
  }

  /** Waits until the screen no longer says something. */
  async saysNot(text: Name): Promise<void> {
    await until(
      `the screen not to say ${String(text)}`,
      async () => (holds(await this.text(), text) ? null : true),
      this.page,
    );
  }

  async gone(role: string, name: Name): Promise<void> {
    await until(
      `no ${role} called ${String(name)}`,
      async () => ((await this.look(role, name)) ? null : true),
      this.page,
    );
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
    await this.context.close();
  }
}

function holds(screen: string, text: Name): boolean {
  const plain = screen.replace(/\s+/g, ' ');
  return typeof text === 'string' ? plain.includes(text) : text.test(plain);
}

/** A press reached something else than what was meant: it moved away in between. */
class PressedBeside extends Error {}

/** Waits for a condition to be met; says what was waited for, and what the screen showed instead. */
export async function until<T>(
  what: string,
  look: (say: (why: string) => null) => Promise<T | null>,
  page?: Page,
): Promise<T> {
  const end = Date.now() + PATIENCE;
  let last: unknown = null;
  const say = (why: string): null => {
    last = why;
    return null;
  };
  while (Date.now() < end) {
    try {
      const found = await look(say);
      if (found !== null) {
        return found;
      }
    } catch (error) {
      if (error instanceof PressedBeside) throw error;
      // The page was leaving for another; the next look finds that one.
      last = error;
    }
    await new Promise((done) => setTimeout(done, 60));
  }
  const screen = page ? await page.evaluate(() => `${location.href}\n${document.body.innerText}`).catch(() => '') : '';
  throw new Error(`waited in vain for ${what}\n${last ? `${String(last)}\n` : ''}${screen.slice(0, 3000)}`);
}
