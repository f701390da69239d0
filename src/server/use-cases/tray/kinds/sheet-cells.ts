import type { Place } from '@/core';
import type { Open } from '../../open-workbench';

/** The columns of a sheet that is handed over, in their order. */
export const SHEET_HEADER = [
  ...['Do', 'Campaign', 'Ad group', 'List', 'Text', 'Match type', 'Keyword', 'Bid', 'Product code'],
  ...['Placement', 'In words', 'Why', 'Put in by', 'State'],
] as const;

export type SheetCells = Partial<Record<(typeof SHEET_HEADER)[number], string | null>>;

export const WHOLE_ACCOUNT = 'the whole account';

/** The cells that name a place. */
export function cellsOfPlace({ names, snapshot }: Open, { kind, id }: Place): SheetCells {
  switch (kind) {
    case 'account':
      return { Campaign: WHOLE_ACCOUNT };
    case 'campaign':
      return { Campaign: names.campaign(id!) ?? id };
    case 'list':
      return cellsOfList({ names }, id!);
    case 'adGroup': {
      const campaignId = snapshot.adGroup.get(id!)?.campaignId ?? '';
      return { Campaign: names.campaign(campaignId) ?? null, 'Ad group': names.adGroup(id!) ?? id };
    }
  }
}

export function cellsOfList({ names }: Pick<Open, 'names'>, listId: string): SheetCells {
  return { List: names.list(listId) ?? listId };
}
