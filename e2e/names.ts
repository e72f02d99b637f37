/** What is looked for in a page: a text as it is, or a pattern. */
export type Wanted = { readonly text: string } | { readonly source: string; readonly flags: string };

/** Role and accessible name of elements, as far as the pages under test need them (a part of the W3C's accname). */
export interface Names {
  readonly roleOf: (el: Element) => string;
  readonly nameOf: (el: Element) => string;
  readonly fits: (wanted: Wanted, name: string) => boolean;
  /** The first thing of a role and a name that is on the screen, among what `css` finds. */
  readonly look: (role: string, css: string, wanted: Wanted, root: Element | null) => Element | null;
  /** Whether the screen says something. */
  readonly says: (wanted: Wanted) => boolean;
  /** Looks until something is found: at once, and again after each change of the page, for two seconds at most. */
  readonly wait: <T>(look: () => T | null | false) => Promise<T | null>;
}

/** Where things of a role can be in the page; what isn't listed is looked for everywhere. */
export const CANDIDATES: Record<string, string> = {
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
  img: 'img',
};

/** Runs in the page: puts `paramoNames` on its window. */
export function installNames(): void {
  const TAGS: Record<string, string> = {
    A: 'link',
    BUTTON: 'button',
    ASIDE: 'complementary',
    SECTION: 'region',
    ARTICLE: 'article',
    H1: 'heading',
    H2: 'heading',
    H3: 'heading',
    TEXTAREA: 'textbox',
    TR: 'row',
    SUMMARY: 'button',
    OPTION: 'option',
    NAV: 'navigation',
    IMG: 'img',
  };
  const INPUTS: Record<string, string> = { checkbox: 'checkbox', radio: 'radio', button: 'button', submit: 'button' };
  const roleOf = (el: Element): string =>
    el.getAttribute('role') ??
    (el instanceof HTMLInputElement ? (INPUTS[el.type] ?? 'textbox') : (TAGS[el.tagName] ?? ''));
  const plain = (text: string): string => text.replace(/\s+/g, ' ').replace(/ ,/g, ',').trim();
  const textOf = (node: Node): string => {
    if (node instanceof Text) return node.data;
    if (!(node instanceof Element) || node.getAttribute('aria-hidden') === 'true') return '';
    const label = node.getAttribute('aria-label');
    if (label) return label;
    const inline = getComputedStyle(node).display.startsWith('inline');
    const text = [...node.childNodes].map(textOf).join('');
    return inline ? text : ` ${text} `;
  };
  const nameOf = (el: Element): string => {
    const by = el.getAttribute('aria-labelledby');
    const named = (by?.split(/\s+/) ?? []).flatMap((id) => document.getElementById(id) ?? []);
    if (named.length > 0) return plain(named.map(textOf).join(' '));
    const label = el.getAttribute('aria-label');
    if (label) return plain(label);
    if (el instanceof HTMLImageElement) return plain(el.alt);
    if (el instanceof HTMLInputElement || el instanceof HTMLTextAreaElement || el instanceof HTMLSelectElement)
      return (
        plain([...(el.labels ?? [])].map((l) => textOf(l)).join(' ')) || plain(el.getAttribute('placeholder') ?? '')
      );
    return plain([...el.childNodes].map(textOf).join('')) || plain(el.getAttribute('title') ?? '');
  };
  const fits: Names['fits'] = (wanted, name) =>
    'text' in wanted ? name === wanted.text : new RegExp(wanted.source, wanted.flags).test(name);
  const look: Names['look'] = (role, css, wanted, root) => {
    for (const el of (root ?? document).querySelectorAll(css)) {
      if (roleOf(el) !== role || el.getClientRects().length === 0 || el.closest('[aria-hidden="true"]')) continue;
      if (fits(wanted, nameOf(el))) return el;
    }
    return null;
  };
  const says: Names['says'] = (wanted) => {
    const screen = document.body.innerText.replace(/\s+/g, ' ');
    return 'text' in wanted ? screen.includes(wanted.text) : new RegExp(wanted.source, wanted.flags).test(screen);
  };
  /** Waits for the document to change, or for so long: what only styles move or show is no change of it. */
  const changed = (ms: number) =>
    new Promise<void>((done) => {
      const observer = new MutationObserver(() => end());
      const timer = setTimeout(() => end(), ms);
      const end = () => {
        observer.disconnect();
        clearTimeout(timer);
        done();
      };
      observer.observe(document, { subtree: true, childList: true, attributes: true, characterData: true });
    });
  const wait: Names['wait'] = async (look) => {
    const end = performance.now() + 2000;
    for (;;) {
      const found = look();
      if (found) return found;
      if (performance.now() > end) return null;
      await new Promise((done) => setTimeout(done, 40));
      await changed(200);
    }
  };
  (window as unknown as { paramoNames: Names }).paramoNames = { roleOf, nameOf, fits, look, says, wait };
}
