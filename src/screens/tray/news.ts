import type { TrayChange } from '@/contracts/tray';

type Known = Pick<TrayChange, 'id' | 'by' | 'said'>;

/** More than that is told as a number. */
const MOST_TOLD = 2;

/** What others put in the tray, one sentence a person. */
export function newsOf(before: readonly Known[], now: readonly Known[], me: string): string[] {
  const known = new Set(before.map((change) => change.id));
  const byPerson = new Map<string, string[]>();
  for (const { id, by, said } of now) {
    if (known.has(id) || by === me) continue;
    byPerson.set(by, [...(byPerson.get(by) ?? []), said]);
  }
  return [...byPerson].map(([by, said]) =>
    said.length > MOST_TOLD ? `${by} put ${said.length} changes in the tray.` : `${by}: ${said.join('. ')}.`,
  );
}
