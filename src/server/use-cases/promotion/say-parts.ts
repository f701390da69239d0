import { describePlace, nameKeyword, type PromotionPlan } from '@/core';
import { isNewAdGroup, namesOfNew } from '../../compute/promotion/groups';
import { few } from '../../compute/workbench';
import type { Open } from '../open-workbench';
import { planningOf } from './planning';

/** The names of an ad group and its campaign, of one that waits in the tray too. */
export function namesOf({ snapshot }: Open, adGroupId: string): { campaign: string; adGroup: string } {
  if (isNewAdGroup(adGroupId)) return namesOfNew(adGroupId);
  const adGroup = snapshot.adGroup.get(adGroupId);
  return {
    campaign: snapshot.campaign.get(adGroup?.campaignId ?? '')?.name ?? '',
    adGroup: adGroup?.name ?? '',
  };
}

const sayWhere = (open: Open, adGroupId: string) => {
  const { campaign, adGroup } = namesOf(open, adGroupId);
  return `${campaign} · ${adGroup}`;
};

/** What stands in the way of a part. @param term is named where several are told of */
export function sayObstacle(
  open: Open,
  obstacle: PromotionPlan['obstacles'][number],
  term: string | null,
): string {
  const { part } = obstacle;
  const what = `${part.match} ${part.kind}${term === null ? '' : ` “${term}”`} in ${sayWhere(open, part.adGroupId)}`;
  switch (obstacle.why) {
    case 'shuts out': {
      const named = few(obstacle.keywordIds.map((id) => sayKeyword(open, id)));
      return `No ${what}: it would shut out ${named.first.join(', ')}${more(named)}.`;
    }
    case 'is stopped': {
      const { negatives } = planningOf(open);
      const named = few(
        obstacle.negativeIds.map((id) => {
          const { text, match, place } = negatives.get(id)!;
          return `“${text}” (${match}) in ${describePlace(place, open.names)}`;
        }),
      );
      return `No ${what}: it is stopped by ${named.first.join(', ')}${more(named)}.`;
    }
    case 'serves nothing':
      return `No ${what} yet: the ${obstacle.seat} seat serves nothing so far. Promote the term again once it does.`;
  }
}

const more = ({ count, first }: { count: number; first: readonly string[] }) =>
  count > first.length ? ` and ${count - first.length} more` : '';

function sayKeyword({ snapshot }: Open, id: string): string {
  const keyword = snapshot.keyword.get(id);
  return keyword ? nameKeyword(keyword)! : 'a keyword in the tray';
}
