import { createDeps } from '@/server/container';
import { listAccountsAndPeople } from '@/server/use-cases/account/describe-account';
import { keepRule } from '@/server/use-cases/rules/keep-rules';
import { runRules } from '@/server/use-cases/rules/run-rules';
import { viewRules } from '@/server/use-cases/rules/view-rules';
import { findAccount } from '@/server/repositories/account/accounts';
import { PEOPLE, TODAY } from '../../demo/larkfell';
import { step } from './say';

const SLUGS = ['larkfell-web', 'larkfell-market'];
/** Ready rules that the advertiser took, and whether they are switched on. */
const TAKEN = [
  ['Surely misses its target', 'on'],
  ['Words of those who do not buy', 'on'],
  ['Enough clicks, no conversion', 'draft'],
] as const;

/** Rules of both accounts, and what they found. Does nothing where there is one. */
export async function makeRules(): Promise<void> {
  const deps = createDeps({ moment: new Date(`${TODAY}T10:25:00Z`) });
  try {
    const { people } = await listAccountsAndPeople(deps);
    const person = people.find(({ name }) => name === PEOPLE[0])!.id;
    for (const slug of SLUGS) {
      const { rules, ready } = await viewRules(deps, slug);
      if (rules.length > 0) continue;
      step(`Making the rules of ${slug}`);
      for (const [name, state] of TAKEN) {
        const one = ready.find((each) => each.name === name);
        if (one) await keepRule(deps, slug, person, { name, rule: one.rule, state });
      }
      await runRules(deps, (await findAccount(deps.db, slug))!.id);
    }
  } finally {
    await deps.db.destroy();
  }
}
