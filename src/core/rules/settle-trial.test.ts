import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Judge } from './meets';
import { asPhrases } from './settle-trial';
import { columnsOf } from './testing';
import { tryRules } from './trial';

const JUDGE: Judge = { target: { by: 'CPA', micros: 20 }, prior: null, cpcMicros: null, own: null };
const EVENINGS = { from: 0, to: 20 };
/** null: a product code. */
const TEXTS = ['bee hive', 'bee hive kit', 'hive', 'blue bee hive', null];
const isHeld = (term: number, by: number) =>
  term === by || (TEXTS[by] !== null && ` ${TEXTS[term]} `.includes(` ${TEXTS[by]} `));

test('a phrase saves and loses what all terms that hold it cost and brought later, each term once', () => {
  const aFact = fc.record({
    ...{ term: fc.nat(TEXTS.length - 1), day: fc.nat(20), adGroup: fc.nat(1) },
    ...{ clicks: fc.nat(9), costMicros: fc.nat(50), conversions: fc.nat(2) },
  });
  const adGroups = fc.constantFrom(null, new Set([0]));
  fc.assert(
    fc.property(fc.array(aFact, { maxLength: 40 }), adGroups, (facts, there) => {
      const columns = columnsOf(facts);
      const rule = {
        ...{ when: [{ of: 'clicks' as const, is: 'at least' as const, value: 8 }], adGroups: there },
        ...{ lookBack: { days: 9, lagDays: 1 }, everyDays: 1, terms: null, keywords: null, openOn: null },
      };
      const [plain] = tryRules(columns, [rule], EVENINGS, () => JUDGE);
      const trial = asPhrases(plain!, {
        ...{ facts: columns, evenings: EVENINGS, adGroups: there },
        ...{ textOf: (term) => TEXTS[term]!, judgeOf: () => JUDGE },
      });
      expect(trial.stopped.map(({ termId, day }) => [termId, day])).toEqual(
        plain!.stopped.map(({ termId, day }) => [termId, day]),
      );
      const taken = new Set<number>();
      for (const stop of trial.stopped.toSorted((a, b) => a.day - b.day || a.termId - b.termId)) {
        const terms = [...TEXTS.keys()].filter((term) => isHeld(term, stop.termId) && !taken.has(term));
        for (const term of terms) taken.add(term);
        const later = facts.filter(
          ({ term, day, adGroup }) =>
            terms.includes(term) && day > stop.day && (!there || there.has(adGroup)),
        );
        const conversions = later.reduce((sum, fact) => sum + fact.conversions, 0);
        expect(stop).toMatchObject({
          savedMicros: later.reduce((sum, fact) => sum + fact.costMicros, 0),
          ...{ lostConversions: conversions, lostMicros: 20 * conversions },
        });
      }
      const total = trial.stopped.reduce((sum, { savedMicros }) => sum + savedMicros, 0);
      expect(trial.savedMicros.reduce((a, b) => a + b, 0)).toBe(total);
    }),
  );
});
