import { createDeps } from '@/server/container';
import { listAccountsAndPeople } from '@/server/use-cases/account/describe-account';
import { decideIdeas } from '@/server/use-cases/research/decide-ideas';
import { gather } from '@/server/use-cases/research/gather/gather';
import { moveIdeas, viewGroups } from '@/server/use-cases/research/groups';
import { sayLocation } from '@/server/use-cases/research/locations';
import { changeSheet, makeSheet, viewSheets } from '@/server/use-cases/research/sheets';
import { PEOPLE, TODAY } from '../../demo/larkfell';
import { step } from './say';

const SLUG = 'larkfell-web';
const EVERYTHING = { searches: 0, typed: '', holds: 'none' } as const;
const GROUPING = { smallest: 3, longest: 2, most: 40, fineness: 40 };

/** Leaves a research sheet half done: gathered, some of it decided, two groups taken. Does nothing when there is one. */
export async function beginResearch(): Promise<void> {
  const deps = createDeps({ moment: new Date(`${TODAY}T10:15:00Z`) });
  try {
    if ((await viewSheets(deps, SLUG)).sheets.length > 0) return;
    step('Leaving a research sheet half done');
    const { people } = await listAccountsAndPeople(deps);
    const person = people.find(({ name }) => name === PEOPLE[0])!.id;
    const { sheetId } = await makeSheet(deps, SLUG, person, 'Spring hives');
    await sayLocation(deps, SLUG, person, { text: 'United Kingdom', said: 'served' });
    await gather(deps, SLUG, person, sheetId, {
      ...{ kind: 'ideas', stems: ['bee hive', 'beekeeper'], language: 'en' },
      ...{ location: 'United Kingdom', from: 'most related', most: 1_200 },
    });
    await gather(deps, SLUG, person, sheetId, { kind: 'completions', stem: 'bee hive', withLetters: true });
    await gather(deps, SLUG, person, sheetId, { kind: 'pack', pack: 'shipped:Jobs and careers' });
    await changeSheet(deps, SLUG, sheetId, {
      stems: ['bee hive', 'beekeeper', 'beehive'],
      struck: ['yorkshire', '2026'],
    });
    const decide = (remainders: string[], verdict: 'kept' | 'dropped') =>
      decideIdeas(deps, SLUG, person, sheetId, {
        keys: [],
        ...{ holding: { remainders, filters: { ...EVERYTHING, state: 'open' as const } }, verdict },
      });
    await decide(['cedar', 'oak', 'pallet load'], 'kept');
    await decide(['hobbington', 'drumlin'], 'dropped');
    const { groups } = await viewGroups(deps, SLUG, sheetId, { ...EVERYTHING, ...GROUPING });
    const taken = groups.slice(0, 2).map(({ name, ideas }) => ({
      ...{ keys: ideas.flatMap(({ text, keys }) => keys ?? [text]), to: name },
    }));
    await moveIdeas(deps, SLUG, sheetId, taken);
  } finally {
    await deps.db.destroy();
  }
}
