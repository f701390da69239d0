import { normalise } from '@/core';
import { derivedByKey } from '../derived';
import { COLUMN, figureAt } from '../figure-columns';
import { termSums } from '../term-sums';
import type { Snapshot } from '../snapshot';
import { keyAt, kindAt } from '../window-columns';
import { steeringKey, type Steering } from './row-targets';
import { surelyMissing, type Missing } from './surely-missing';

/** Terms that could be stopped as they are: without return in the window, or surely missing the target. */
export type Stoppable = {
  /** costliest first; neither protected by what they brought, nor live exact keywords */
  terms: Uint32Array;
  missing: ReadonlyMap<number, Missing>;
};

/** What could be stopped as it stands, whatever the tray holds; made once for a window. */
export const stoppableTerms: (snapshot: Snapshot, steering: Steering & { currency: string }) => Stoppable =
  derivedByKey(
    (steering: Steering & { currency: string }) => steeringKey(steering),
    (snapshot: Snapshot, steering) => {
      const { terms, liveKeywords, hasConverted } = snapshot;
      const { figures } = termSums(snapshot);
      const missing = new Map(surelyMissing(snapshot, steering).map((one) => [one.term, one]));
      const exact = new Set(
        liveKeywords.filter(({ match }) => match === 'exact').map(({ text }) => normalise(text)),
      );
      const found: number[] = [];
      for (let t = 0; t < terms.count; t++) {
        if (kindAt(terms, t) !== 'query') continue;
        if (!missing.has(t) && figureAt(figures, t, COLUMN.conversions) !== 0) continue;
        if (!(figureAt(figures, t, COLUMN.costMicros) > 0)) continue;
        const key = keyAt(terms, t);
        if (!hasConverted.has(key) && !exact.has(key)) found.push(t);
      }
      const cost = (t: number) => figureAt(figures, t, COLUMN.costMicros);
      return { terms: Uint32Array.from(found.sort((a, b) => cost(b) - cost(a))), missing };
    },
  );
