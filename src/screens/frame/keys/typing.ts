const TAKES_NO_TEXT = ['checkbox', 'radio', 'file', 'button', 'submit', 'reset']
  .map((type) => `[type=${type}]`)
  .join();

/** Whether a key press belongs to a field in which one types. */
export function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable ||
      target.matches(`input:not(${TAKES_NO_TEXT}), textarea, [role=combobox], [role=listbox] *`))
  );
}
