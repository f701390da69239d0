import type { Verdict } from '@/contracts/hand';
import type { ProtectedTerm } from '../../repositories/decisions/protected-terms';
import type { SetAside } from '../../repositories/decisions/set-aside';

/** What people have said of a term, by its key. */
export function verdictOn(
  key: string,
  allKept: readonly ProtectedTerm[],
  allAside: readonly SetAside[],
): Verdict {
  const kept = allKept.find((p) => p.text === key);
  if (kept) return { is: 'kept', by: kept.by, note: kept.note };
  const aside = allAside.find((a) => a.key === key);
  return aside
    ? { is: 'aside', by: aside.by, moreClicks: aside.moreClicks, since: aside.at.slice(0, 10) }
    : { is: 'open' };
}
