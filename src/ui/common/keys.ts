/** Where letters are typed. */
export const TYPED_IN = 'input, textarea, [contenteditable="true"]';

/** Whether a key that was pressed belongs to something else: to what is being typed in, a list or a box that is open, or a shortcut of the browser's. */
export function isSpokenFor(
  event: Pick<KeyboardEvent, 'ctrlKey' | 'metaKey' | 'altKey' | 'target' | 'defaultPrevented'>,
): boolean {
  // What is being dragged by the keys takes them first.
  if (event.defaultPrevented) return true;
  const target = event.target as HTMLElement;
  const typing = target.closest(`${TYPED_IN}, select, [role="listbox"], [role="dialog"]`);
  return event.ctrlKey || event.metaKey || event.altKey || typing !== null;
}
