import { createDeps } from '@/server/container';
import { listAccountsAndPeople } from '@/server/use-cases/account/describe-account';
import { setLanePlan } from '@/server/use-cases/lanes/set-lane-plan';
import { viewLanes } from '@/server/use-cases/lanes/view-lanes';
import { PEOPLE, TODAY } from '../../demo/larkfell';
import { SHOPPING_PLAN } from '../../demo/shopping';
import { step } from './say';

const SLUG = 'larkfell-web';

/** The lane plan of the campaigns for shopping. Does nothing where the account has one. */
export async function makeLanes(): Promise<void> {
  const deps = createDeps({ moment: new Date(`${TODAY}T10:20:00Z`) });
  try {
    const { plans, campaigns } = await viewLanes(deps, SLUG, {});
    if (plans.some(({ by }) => by === 'entry terms')) return;
    step(`Making the lane plan of ${SLUG}`);
    const idOf = new Map(campaigns.map(({ id, name }) => [name, id]));
    const { people } = await listAccountsAndPeople(deps);
    const person = people.find(({ name }) => name === PEOPLE[0])!.id;
    const tiers = SHOPPING_PLAN.tiers.map(({ name, campaign, entryTerms }) => ({
      ...{ name, campaigns: [idOf.get(campaign)!], entryTerms },
    }));
    await setLanePlan(deps, SLUG, person, { was: null, plan: { name: SHOPPING_PLAN.name, tiers } });
  } finally {
    await deps.db.destroy();
  }
}
