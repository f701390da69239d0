import type { Place, SheetCells } from '@/core';
import type { Open } from '../../open-workbench';

export const WHOLE_ACCOUNT = 'the whole account';

/** The cells that name a place. */
export function cellsOfPlace({ names, snapshot }: Open, { kind, id }: Place): SheetCells {
  switch (kind) {
    case 'account':
      return { Place: 'account', Campaign: WHOLE_ACCOUNT };
    case 'campaign':
      return { Place: 'campaign', Campaign: names.campaign(id!) ?? id };
    case 'list':
      return cellsOfList({ names }, id!);
    case 'adGroup': {
      const campaignId = snapshot.adGroup.get(id!)?.campaignId ?? '';
      const named = { Campaign: names.campaign(campaignId) ?? null, 'Ad group': names.adGroup(id!) ?? id };
      return { Place: 'ad group', ...named };
    }
  }
}

export function cellsOfList({ names }: Pick<Open, 'names'>, listId: string): SheetCells {
  return { Place: 'list', List: names.list(listId) ?? listId };
}
