/** Whether a key press belongs to a field. */
export function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || target.matches('input, textarea, [role=combobox], [role=listbox] *'))
  );
}
