import { group } from 'd3';
import { createDeps } from '@/server/container';
import { listAccountsAndPeople } from '@/server/use-cases/account/describe-account';
import { setOwnTargets } from '@/server/use-cases/account/own-targets';
import { viewAccount } from '@/server/use-cases/account/view-account';
import { PEOPLE, TODAY } from '../../demo/larkfell';

const SLUG = 'larkfell-market';

/** On the marketplace the automatic and the manual campaign of a line sell the same: each two are a product group. Does nothing when there is one. */
export async function makeProductGroups(): Promise<void> {
  const deps = createDeps({ moment: new Date(`${TODAY}T10:05:00Z`) });
  try {
    const { people } = await listAccountsAndPeople(deps);
    const person = people.find(({ name }) => name === PEOPLE[0])!.id;
    const { adGroups, productGroups } = await viewAccount(deps, SLUG, person);
    if (productGroups.length > 0) return;
    const lines = group(adGroups, ({ campaign }) => campaign.split(' · ').slice(0, -1).join(' · '));
    await setOwnTargets(deps, SLUG, person, {
      campaigns: [],
      productGroups: [...lines].map(([name, of]) => ({
        ...{ name, target: '', adGroupIds: of.map(({ id }) => id) },
      })),
    });
  } finally {
    await deps.db.destroy();
  }
}
