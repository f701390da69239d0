/** The length of the window as a query says it; nothing where it is the account's own. */
export function inDays(days: number | null): { days?: string } {
  return days === null ? {} : { days: String(days) };
}
