'use client';

import { useMemo } from 'react';
import { descending, rollups, sum } from 'd3';
import type { ConflictLine } from '@/contracts/untangle';
import { formatConversions, formatCount } from '@/ui/format';
import type { Column } from '@/ui/table/column';
import type { GroupedBy } from '../untangle-url';

const KEYS: Record<Exclude<GroupedBy, 'nothing'>, (line: ConflictLine) => string> = {
  negative: ({ negative }) => `${negative.match} ${negative.text} ${negative.placeName}`,
  keyword: ({ keyword, key }) => (keyword ? keyword.id : key),
};

/**
 * Conflicts that belong together stand together, what costs most in all first: by a column that tells it of the first of
 * each group. None where they are not grouped.
 * @param lines those that cost most first
 */
export function useGroupColumn(
  lines: readonly ConflictLine[],
  by: GroupedBy,
): Column<ConflictLine> | undefined {
  return useMemo(() => {
    if (by === 'nothing') return undefined;
    const keyOf = KEYS[by];
    const groups = rollups(
      lines,
      (of) => ({
        first: of[0]!,
        count: of.length,
        conversions: sum(of, ({ lost }) => lost?.conversions ?? 0),
        costMicros: sum(of, ({ lost }) => lost?.costMicros ?? 0),
      }),
      keyOf,
    ).sort(
      ([, a], [, b]) =>
        descending(a.conversions, b.conversions) ||
        descending(a.costMicros, b.costMicros) ||
        descending(a.count, b.count),
    );
    const known = new Map(groups.map(([key, group], i) => [key, { ...group, rank: groups.length - i }]));
    return {
      ...{ id: 'group', name: `by ${by}`, px: 92, isText: true, isSortable: true, isDownFirst: true },
      explains: `How many conflicts there are of one ${by}, and the conversions that all of them cost.`,
      value: (line) => known.get(keyOf(line))?.rank ?? 0,
      cell(line) {
        const group = known.get(keyOf(line));
        if (group?.first !== line) return '';
        return (
          <>
            <b>{formatCount(group.count)} ×</b>{' '}
            {group.conversions > 0 && `${formatConversions(group.conversions)} conv.`}
          </>
        );
      },
    };
  }, [lines, by]);
}
