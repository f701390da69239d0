import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import type { PlatformChange } from '@/contracts/platform';
import { applyChanges } from './changes';
import { loadStructure } from './store';

const ANOTHER = 'Ilka Brandt';

/** Somebody else works in the account: takes an entry out of a list, and stops something in a campaign. */
export async function letAnotherChange(db: Knex, accountId: string): Promise<void> {
  const { negatives, campaigns } = await loadStructure(db, accountId, 0);
  const changes: PlatformChange[] = [];
  const inList = negatives.find(({ place }) => place.kind === 'list');
  if (inList) {
    const { text, match, place } = inList;
    changes.push({ kind: 'remove negative', text, match, place });
  }
  const [campaign] = campaigns;
  const place = campaign && ({ kind: 'campaign', id: campaign.id } as const);
  if (place) changes.push({ kind: 'add negative', text: 'pallet price', match: 'phrase', place });
  if (changes.length > 0)
    await applyChanges(
      db,
      accountId,
      changes.map((change) => ({ key: randomUUID(), change })),
      { by: ANOTHER },
    );
}
