import type { ElementHandle, Page } from 'puppeteer-core';

/** Presses a key until something has the focus; `false` where it never does. */
export async function reach(page: Page, element: ElementHandle<Element>, key: 'Tab' | 'ArrowDown'): Promise<boolean> {
  for (let steps = 0; steps < 300; ) {
    const at = await element.evaluate((el) => {
      const on = document.activeElement;
      if (on === null) return 'elsewhere';
      if (on === el || document.getElementById(on.getAttribute('aria-activedescendant') ?? '') === el) return 'there';
      // Choices that stand together are one stop of Tab; the arrows go on between them.
      const together = el.closest('[role="group"]');
      if (together?.contains(on) && el.getAttribute('tabindex') === '-1') return 'beside';
      // How many stops away it is, going round at the end of the page, or of the dialog, which keeps the keys to itself.
      const stops = [
        ...(el.closest('[role="dialog"]') ?? document).querySelectorAll<HTMLElement>(
          'a[href], button, input, select, textarea, [tabindex]',
        ),
      ].filter(
        (stop) =>
          stop.tabIndex >= 0 &&
          stop.checkVisibility({ visibilityProperty: true }) &&
          !stop.matches(':disabled, [type="radio"]:not(:checked)'),
      );
      const to = stops.findIndex((stop) => stop === el || together?.contains(stop));
      return to < 0 ? 1 : (to - stops.indexOf(on as HTMLElement) + stops.length) % stops.length;
    });
    if (at === 'there') return true;
    if (at === 'beside') {
      await page.keyboard.press('ArrowRight');
      continue;
    }
    // The way is gone stop by stop; only where it is long is it not looked at after each.
    const far = key === 'Tab' && typeof at === 'number' ? Math.max(1, Math.min(40, at - 4)) : 1;
    for (const end = steps + far; steps < end; steps++) await page.keyboard.press(key);
  }
  return false;
}
