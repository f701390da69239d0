import path from 'node:path';
import type { SeedRequest } from '@/contracts/platform';
import { createDeps } from '@/server/container';
import type { Deps } from '@/server/use-cases/deps';
import { addPeople, areLoaded, connectAccount, stateOfLoad } from '@/server/use-cases/set-up';
import { ACCOUNT_SETTINGS, makeLarkfell, PEOPLE } from '../../demo/larkfell';
import { makeVocabulary } from '../../demo/vocabulary';
import { makePast } from './demo-past';
import { makeProductGroups } from './demo-groups';
import { bringKeywordReport } from './demo-keywords';
import { makeLanes } from './demo-lanes';
import { beginResearch } from './demo-research';
import { makeRules } from './demo-rules';
import { Remedy, step } from './say';
import { seedIdeas, seedPlatform } from './seed-platform';
import { environmentOf, type Settings } from './settings';

/**
 * Seeds the stand-in platform with Larkfell and loads its reports: as three months of work, or as the first day with
 * 90 days of reports. Does nothing when that was done.
 */
export async function loadDemo(settings: Settings): Promise<void> {
  Object.assign(process.env, environmentOf(settings));
  const { scale, seed: traffic, hasPast } = readDemoSettings(process.env);
  await seedIdeas(`http://127.0.0.1:${settings.ideasPort}`, makeVocabulary());
  const [web] = makeLarkfell(scale, traffic);
  if (hasPast) {
    await makePast(settings, scale, traffic);
    await beginResearch();
    await makeRules();
  } else await loadAtOnce(settings, scale, traffic);
  await bringKeywordReport(settings, web!);
  await makeProductGroups();
  await makeLanes();
}

async function loadAtOnce(settings: Settings, scale: number, traffic: number): Promise<void> {
  const deps = { ...createDeps(), files: path.join(settings.data, 'files') };
  try {
    if (await areLoaded(deps, Object.keys(ACCOUNT_SETTINGS))) return;
    step('Making the demo account Larkfell and 90 days of its traffic');
    await addPeople(deps, PEOPLE);
    for (const seed of makeLarkfell(scale, traffic)) {
      await seedPlatform(`http://127.0.0.1:${settings.platformPort}`, seed);
      await connect(deps, seed.account);
    }
  } finally {
    await deps.db.destroy();
  }
}

/** @throws Remedy where one of them is not what it can be */
function readDemoSettings({
  GATEPOST_DEMO_SCALE = '1',
  GATEPOST_DEMO_SEED = '0',
  GATEPOST_DEMO_PAST = 'yes',
}: NodeJS.ProcessEnv) {
  const [scale, seed] = [Number(GATEPOST_DEMO_SCALE), Number(GATEPOST_DEMO_SEED)];
  if (!(scale > 0 && scale <= 50)) throw new Remedy('GATEPOST_DEMO_SCALE must be a number over 0, up to 50.');
  if (!(Number.isInteger(seed) && seed >= 0 && seed <= 10_000))
    throw new Remedy('GATEPOST_DEMO_SEED must be a whole number from 0 to 10,000.');
  if (GATEPOST_DEMO_PAST !== 'yes' && GATEPOST_DEMO_PAST !== 'no')
    throw new Remedy('GATEPOST_DEMO_PAST must be yes or no.');
  return { scale, seed, hasPast: GATEPOST_DEMO_PAST === 'yes' };
}

async function connect(deps: Deps, { id, name, currency }: SeedRequest['account']): Promise<void> {
  step(`Loading the first report of ${name}`);
  const known = ACCOUNT_SETTINGS[id as keyof typeof ACCOUNT_SETTINGS];
  const fileId = await connectAccount(deps, { ...known, slug: id, name, platformAccountId: id, currency });
  if (fileId === null) return;
  for (;;) {
    const load = await stateOfLoad(deps, id, fileId);
    if (load?.state === 'loaded') return;
    if (load?.state === 'failed' || load?.state === 'cancelled')
      throw new Remedy(`The report did not load: ${load.error}`);
    await new Promise((resolve) => setTimeout(resolve, 250));
  }
}
