import type { Names, Wanted } from './names.ts';

/**
 * Runs in the page: brings an element to where it can be pressed, and answers what is in the way of that, or `null`. From then on the page notes
 * what the next press reaches (`data-pressed`, `data-beside`); a field that is only typed into (`toType`) is not pressed.
 */
export async function readyToPress(el: Element, toType: boolean, role: string, wanted: Wanted): Promise<string | null> {
  if ((el as HTMLButtonElement).disabled || el.getAttribute('aria-disabled') === 'true') return 'it is off';
  // On a busy machine the page is there before its script, which a person would see by nothing happening.
  const listens = Object.keys(el).some((key) => key.startsWith('__react'));
  if (!listens && el.tagName !== 'A') return 'the page doesn’t listen yet';
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
    if (toType) return null;
    const hear = ({ target, clientX, clientY }: PointerEvent) => {
      const on = target as Element;
      // Drawn anew in between it is another element, but the same to whoever presses it.
      if (el.contains(on) || on.contains(el) || on.textContent === el.textContent) return;
      const control = on.closest('button, a, input, select, textarea, label, [role="button"], [role="option"]');
      // Another element of the role and name that is meant has come in its place, with more to say: a list that fills, say.
      const { fits, nameOf, roleOf } = (window as unknown as { paramoNames: Names }).paramoNames;
      if (control && roleOf(control) === role && fits(wanted, nameOf(control))) return;
      const now = el.isConnected ? el.getBoundingClientRect() : null;
      const where = `at ${clientX},${clientY}, meant at ${box.x},${box.y}, now at ${now ? `${now.x},${now.y}` : 'nothing'}`;
      root.dataset.beside = control ? `${control.textContent?.slice(0, 60) || control.tagName}, ${where}` : '';
    };
    // A press that was given up mustn't be heard at the next.
    const page = window as unknown as { paramoHears?: AbortController };
    page.paramoHears?.abort();
    page.paramoHears = new AbortController();
    const { signal } = page.paramoHears;
    document.addEventListener('pointerdown', hear, { capture: true, once: true, signal });
    root.dataset.pressed = '';
    // Where what was pressed was drawn anew between the finger's way down and up, the click falls on what both stand in.
    let down: EventTarget | null = null;
    document.addEventListener(
      'pointerdown',
      (event) => {
        root.dataset.pressed = 'down';
        down = event.target;
      },
      { capture: true, once: true, signal },
    );
    document.addEventListener(
      'click',
      ({ target, clientX, clientY }) => {
        const on = target as Element;
        const now = el.getBoundingClientRect();
        const isThere = now.left <= clientX && clientX <= now.right && now.top <= clientY && clientY <= now.bottom;
        // What is still under the finger has had its press, whatever has opened over it since; what has moved away from it hasn't.
        const heard =
          el.contains(on) || on.textContent === el.textContent || ((down as Element | null)?.isConnected && isThere);
        root.dataset.pressed = heard ? 'click' : 'down';
      },
      { capture: true, once: true, signal },
    );
    return null;
  }
  const over = top && `${top.tagName} ${top.className} ${top.textContent?.slice(0, 60)}`;
  return `at ${box.x},${box.y} lies ${over ?? 'nothing'}`;
}
