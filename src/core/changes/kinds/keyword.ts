import { formatAmount } from '../../figures';
import { GONE, type Names } from '../names';
import type { RulesFor } from './kind';

type Kind = 'set bid' | 'pause keyword' | 'run keyword';

/** A keyword's bid and status. They stop no query: another keyword may serve it. */
export const keywordRules: RulesFor<Kind> = {
  'set bid': {
    does: 'neither',
    key: ({ keywordId }) => `bid|${keywordId}`,
    inverse: (change) => ({ ...change, bidMicros: change.wasMicros, wasMicros: change.bidMicros }),
    value: ({ bidMicros }) => String(bidMicros),
    say: ({ keywordId, bidMicros, wasMicros }, names) =>
      `Bid ${formatAmount(bidMicros, names.currency)} (was ${formatAmount(wasMicros, names.currency)}) for ${sayKeyword(keywordId, names)}`,
  },
  'pause keyword': {
    does: 'neither',
    key: ({ keywordId }) => `running|${keywordId}`,
    inverse: (change) => ({ ...change, kind: 'run keyword' }),
    say: ({ keywordId }, names) => `Pause ${sayKeyword(keywordId, names)}`,
  },
  'run keyword': {
    does: 'neither',
    key: ({ keywordId }) => `running|${keywordId}`,
    inverse: (change) => ({ ...change, kind: 'pause keyword' }),
    say: ({ keywordId }, names) => `Run ${sayKeyword(keywordId, names)} again`,
  },
};

function sayKeyword(id: string, names: Names): string {
  return names.keyword?.(id) ?? `keyword ${GONE}`;
}
