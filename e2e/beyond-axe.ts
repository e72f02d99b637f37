import type { Desk } from './desk.ts';

/** WCAG 2.5.8: the least a target measures, in pixels. */
const LEAST = 24;

/**
 * Targets of less than 24 by 24 pixels that aren't in a sentence, and whose circle of that size reaches another (WCAG 2.5.8, with its
 * exceptions for spacing, for words in a text, for what is drawn to the scale of its hours, and for what is hidden).
 */
export async function smallTargets(desk: Desk): Promise<string[]> {
  return desk.page.evaluate((least) => {
    const all = [
      ...document.querySelectorAll<HTMLElement>(
        'a[href], button, input:not([type="hidden"]), select, textarea, [role="button"], [role="checkbox"], [role="slider"], [tabindex="0"]',
      ),
    ].filter((el) => {
      const style = getComputedStyle(el);
      return (
        el.checkVisibility({ visibilityProperty: true, opacityProperty: true }) &&
        style.pointerEvents !== 'none' &&
        el.getClientRects().length > 0 &&
        !el.matches(':disabled, section, ol, ul, main, .visually-hidden') &&
        el.closest('[aria-hidden="true"], .visually-hidden, [data-to-scale]') === null
      );
    });
    // What is pressed is the label where there is one.
    const boxOf = (el: HTMLElement): DOMRect => (el.closest('label') ?? el).getBoundingClientRect();
    const boxes = all.map(boxOf);
    const inText = (el: HTMLElement): boolean => {
      if (!getComputedStyle(el).display.startsWith('inline') || getComputedStyle(el).display === 'inline-flex')
        return false;
      const around = el.parentElement?.textContent?.trim() ?? '';
      return around.length > (el.textContent?.trim().length ?? 0) + 2;
    };
    const faults: string[] = [];
    for (const [i, el] of all.entries()) {
      const box = boxes[i] as DOMRect;
      if ((box.width >= least && box.height >= least) || box.width === 0 || inText(el)) continue;
      const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
      const near = all.find((other, j) => {
        const to = boxes[j] as DOMRect;
        if (i === j || other.contains(el) || el.contains(other) || to.width === 0) return false;
        if (other.closest('label') !== null && other.closest('label') === el.closest('label')) return false;
        const small = to.width < least || to.height < least;
        // From a small one's middle to the other's edge, or to its circle where that is small too.
        const dx = small ? Math.abs(to.x + to.width / 2 - x) : Math.max(to.x - x, 0, x - to.right);
        const dy = small ? Math.abs(to.y + to.height / 2 - y) : Math.max(to.y - y, 0, y - to.bottom);
        return Math.hypot(dx, dy) < (small ? least : least / 2);
      });
      if (near)
        faults.push(
          `${el.tagName} “${(el.getAttribute('aria-label') ?? el.textContent ?? '').trim().slice(0, 40)}” ${Math.round(box.width)}x${Math.round(box.height)} beside “${(near.getAttribute('aria-label') ?? near.textContent ?? '').trim().slice(0, 30)}”`,
        );
    }
    return [...new Set(faults)];
  }, LEAST);
}

/** What stands in a row and has no room for its words, which lie over what stands beside it. */
export async function spilling(desk: Desk): Promise<string[]> {
  return desk.page.evaluate(() => {
    const isInRow = (el: Element): boolean => {
      const { display, flexDirection } = getComputedStyle(el.parentElement as Element);
      return (display === 'flex' || display === 'inline-flex') && flexDirection.startsWith('row');
    };
    return [...document.querySelectorAll<HTMLElement>('body *')]
      .filter((el) => {
        if (el.clientWidth === 0 || el.scrollWidth <= el.clientWidth + 2 || !el.textContent?.trim() || !isInRow(el))
          return false;
        const { position, display, overflowX } = getComputedStyle(el);
        return (
          overflowX === 'visible' &&
          display !== 'inline' &&
          !['absolute', 'fixed'].includes(position) &&
          el.checkVisibility()
        );
      })
      .map((el) => `${el.tagName} “${el.textContent?.trim().slice(0, 40)}” ${el.scrollWidth} > ${el.clientWidth}`);
  });
}

/** Whether a screen at 320 pixels (400 % of 1280) has to be pushed from side to side (WCAG 1.4.10); boards and tables may, within themselves. */
export async function wideAt400(desk: Desk): Promise<string[]> {
  const was = desk.page.viewport();
  await desk.page.setViewport({ width: 320, height: 640 });
  await desk.page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  const faults = await desk.page.evaluate(() => {
    const wide = Math.max(document.documentElement.scrollWidth, document.body.scrollWidth) - innerWidth;
    if (wide <= 1) return [];
    const out = [...document.querySelectorAll('body *')].filter((el) => {
      const box = el.getBoundingClientRect();
      return box.right > innerWidth + 1 && box.width > 0 && el.checkVisibility();
    });
    return [
      `${wide} px too wide: ${out
        .slice(0, 3)
        .map((el) => `${el.tagName}.${el.className}`)
        .join(', ')}`,
    ];
  });
  if (was) await desk.page.setViewport(was);
  return faults;
}

/** What has the focus and lies wholly under something else, or shows no sign of it, on the way of Tab through a screen (WCAG 2.4.7, 2.4.11). */
export async function lostFocus(desk: Desk, stops: number): Promise<string[]> {
  const faults = new Set<string>();
  await desk.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  for (let i = 0; i < stops; i++) {
    await desk.page.keyboard.press('Tab');
    const fault = await desk.page.evaluate(() => {
      const el = document.activeElement as HTMLElement | null;
      if (!el || el === document.body) return 'end';
      const name = `${el.tagName} “${(el.getAttribute('aria-label') ?? el.textContent ?? '').trim().slice(0, 40)}”`;
      const shownBy = el.matches('input') ? (el.closest('label, .MuiInputBase-root, .MuiButtonBase-root') ?? el) : el;
      const box = shownBy.getBoundingClientRect();
      const points = [0.1, 0.5, 0.9].flatMap((fx) =>
        [0.1, 0.5, 0.9].map((fy) => [box.x + box.width * fx, box.y + box.height * fy]),
      );
      const seen = points.some(([x = 0, y = 0]) => {
        const top = document.elementFromPoint(x, y);
        return top !== null && (shownBy.contains(top) || top.contains(shownBy));
      });
      if (!seen) return `${name} is covered or off the screen`;
      const marks = (one: Element) => {
        const style = getComputedStyle(one);
        return (
          (style.outlineStyle !== 'none' && Number.parseFloat(style.outlineWidth) > 0) || style.boxShadow !== 'none'
        );
      };
      const field = el.closest(
        '.MuiInputBase-root, .MuiCheckbox-root, .MuiSwitch-root, .MuiRadio-root, .MuiSlider-root',
      );
      return marks(el) || field !== null ? null : `${name} shows no focus`;
    });
    if (fault === 'end') break;
    if (fault) faults.add(fault);
  }
  return [...faults];
}
