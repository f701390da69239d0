/** Gives the focus to the table that the screen is about: from filters, dialogs and fields, Esc and Enter lead back to it. */
export function focusWork(): void {
  document.querySelector<HTMLElement>('[data-work]')?.focus({ preventScroll: true });
}
