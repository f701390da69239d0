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

/** Keywords that a key names, however alike they are; undefined where one of them is not there any more, or none runs. */
export async function findGroup(deps: Deps, open: Open, key: string): Promise<FoundKnot | undefined> {
  const ids = key.split('+')[0]!.split('-');
  const { keyword } = lookAt(await withReport(deps, open), { campaigns: '', besides: [...OTHER_STATUSES] });
  const keywords = ids.flatMap((id) => keyword.get(id) ?? []);
  const isThere = keywords.length === ids.length && keywords.some(({ status }) => status === 'live');
  if (ids.length < 2 || !isThere) return undefined;
  const [first] = keywords;
  return {
    ...{ key, state: stateOfGroup({ keywords }), costMicros: 0, conversions: 0 },
    says: `“${first!.text}” (${first!.match}), which stands ${keywords.length} times`,
  };
}

/** Live keywords with the same text and match type, anywhere. What the others of a group cost could be spared or saved. */
export async function knotsOfDuplicates(deps: Deps, open: Open): Promise<FoundKnot[]> {
  const asked = { alike: 'text and match type', near: 'all', campaigns: '', besides: [] } as const;
  const { groups } = findDuplicates(await withReport(deps, open), { ...asked, besides: [] });
  return groups.map((group) => {
    const [first, ...others] = group.keywords;
    return {
      ...{ key: keyOfGroup(group), state: stateOfGroup(group) },
      says: `“${first!.text}” (${first!.match}), which stands ${group.keywords.length} times`,
      ...{ costMicros: sum(others, ({ figures }) => figures.costMicros ?? 0), conversions: 0 },
    };
  });
}
