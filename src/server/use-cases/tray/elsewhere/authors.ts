import { group } from 'd3';
import type { Structure, StructureAnswer } from '@/contracts/platform';

/** Who changed something on the platform and on what day, as far as the platform says. */
export type Author = { by: string | null; on: string | null };

/** The kinds of element of which the platform says who changed them. */
const KINDS = [
  'campaigns',
  'keywords',
  'lists',
  'hangings',
  'negatives',
  'exclusions',
  'placements',
] as const;

type Element = { changedBy?: string | null; changedAt?: string | null };

const authorOf = ({ changedBy = null, changedAt = null }: Element): Author => ({
  by: changedBy,
  on: changedAt,
});

/** An answer of the platform, parted by who changed its elements; each part holds what one person changed on one day. */
export function partedByAuthor(answer: StructureAnswer): { author: Author; part: StructureAnswer }[] {
  const elements = KINDS.flatMap((kind) => answer[kind].map((element) => ({ kind, element })));
  const parts = group(elements, ({ element }) => JSON.stringify(authorOf(element)));
  return [...parts.values()].map((of) => {
    const only = Object.fromEntries(
      KINDS.map((kind) => [kind, of.flatMap((one) => (one.kind === kind ? [one.element] : []))]),
    ) as Pick<Structure, (typeof KINDS)[number]>;
    return { author: authorOf(of[0]!.element), part: { ...answer, ...only } };
  });
}
