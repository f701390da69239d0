import { compileAccountGate, type AccountShape } from '../gate';
import { compileReach } from './reach';

/** A negative in force somewhere, and what it stops of what must stay open: indexes into the texts, ascending. */
export type ProtectedHit = { negativeId: string; texts: number[] };

/**
 * The negatives in force that stop protected terms (rules 4 and 6), wherever they stand; those that stop most first.
 * @param texts protected terms
 * @example findProtectedHits(account, ['free hive']) // [{ negativeId: 'n1', texts: [0] }]
 */
export function findProtectedHits(account: AccountShape, texts: readonly string[]): ProtectedHit[] {
  const gate = compileAccountGate(account);
  const reach = compileReach(account);
  const isInForce = new Map(
    account.negatives.map(({ id, place }) => [id, reach.adGroupsOf(place).length > 0]),
  );
  const hits = new Map<string, number[]>();
  texts.forEach((text, i) => {
    for (const id of gate.matching(text)) {
      if (!isInForce.get(id)) continue;
      const of = hits.get(id);
      if (of) of.push(i);
      else hits.set(id, [i]);
    }
  });
  return [...hits]
    .map(([negativeId, of]) => ({ negativeId, texts: of }))
    .sort((a, b) => b.texts.length - a.texts.length);
}
