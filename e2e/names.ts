/** Role and accessible name of elements, as far as the pages under test need them (a part of the W3C's accname). */
export interface Names {
  readonly roleOf: (el: Element) => string;
  readonly nameOf: (el: Element) => string;
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
  (window as unknown as { paramoNames: Names }).paramoNames = { roleOf, nameOf };
}
