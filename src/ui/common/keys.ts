/** Whether a key that was pressed belongs to something else: to what is being typed in, a list or a box that is open, or a shortcut of the browser's. */
export function isSpokenFor(event: Pick<KeyboardEvent, 'ctrlKey' | 'metaKey' | 'altKey' | 'target'>): boolean {
  const target = event.target as HTMLElement;
  const typing = target.closest('input, textarea, select, [role="listbox"], [role="dialog"]');
  return event.ctrlKey || event.metaKey || event.altKey || typing !== null;
}
