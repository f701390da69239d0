import { sum } from 'd3';
import { OTHER_STATUSES } from '@/contracts/duplicates';
import type { Deps } from '../../deps';
import type { Open } from '../../open-workbench';
import type { FoundKnot } from '../knots/piles';
import { findDuplicates, lookAt, type FoundGroup, type Standing } from './find-duplicates';
import { withReport } from './keyword-figures';

/** Keywords that a key names; more are counted in it. */
const MOST_IDS = 150;

/** The same for the same keywords. */
export function keyOfGroup({ keywords }: Pick<FoundGroup, 'keywords'>): string {
  const named = inOrder(keywords)
    .map(({ id }) => id)
    .join('-');
  return keywords.length > MOST_IDS ? `${named}+${keywords.length - MOST_IDS}` : named;
}

const inOrder = <One extends Pick<Standing, 'id'>>(keywords: readonly One[]): One[] =>
  keywords.toSorted((a, b) => Number(a.id) - Number(b.id)).slice(0, MOST_IDS);

/** A group is otherwise when a keyword of it runs that did not, or the other way round, or another one has joined it. */
export function stateOfGroup({ keywords }: Pick<FoundGroup, 'keywords'>): string {
  return inOrder(keywords)
    .map(({ status }) => status)
    .join(' ');
}

/** Keywords that keys name, however alike they are; a group of which one is not there any more, or none runs, is left out. */
export async function groupsNamed(deps: Deps, open: Open, keys: readonly string[]): Promise<FoundKnot[]> {
  const { keyword } = lookAt(await withReport(deps, open), { campaigns: '', besides: [...OTHER_STATUSES] });
  return keys.flatMap((key): FoundKnot[] => {
    const ids = key.split('+')[0]!.split('-');
    const keywords = ids.flatMap((id) => keyword.get(id) ?? []);
    const isThere = keywords.length === ids.length && keywords.some(({ status }) => status === 'live');
    if (ids.length < 2 || !isThere) return [];
    return [
      {
        ...{ key, state: stateOfGroup({ keywords }), costMicros: 0, conversions: 0 },
        says: sayGroup(keywords),
      },
    ];
  });
}

const sayGroup = ([first, ...others]: readonly Standing[]) =>
  `“${first!.text}” (${first!.match}), which stands ${others.length + 1} times`;

/** Live keywords with the same text and match type, anywhere. What the others of a group cost could be spared or saved. */
export async function knotsOfDuplicates(deps: Deps, open: Open): Promise<FoundKnot[]> {
  const asked = { alike: 'text and match type', near: 'all', campaigns: '', besides: [] } as const;
  const { groups } = findDuplicates(await withReport(deps, open), { ...asked, besides: [] });
  return groups.map((group) => {
    const others = group.keywords.slice(1);
    return {
      ...{ key: keyOfGroup(group), state: stateOfGroup(group) },
      says: sayGroup(group.keywords),
      ...{ costMicros: sum(others, ({ figures }) => figures.costMicros ?? 0), conversions: 0 },
    };
  });
}
