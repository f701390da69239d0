import path from 'node:path';
import { readReport, shiftDay, type ReportRow } from '@/core';
import type { SeedRequest } from '@/contracts/platform';
import { createDeps } from '@/server/container';
import { listAccountsAndPeople } from '@/server/use-cases/account/describe-account';
import { loadReport } from '@/server/use-cases/intake/load-report';
import { askForLoad, takeIn, viewIntake } from '@/server/use-cases/intake/take-in';
import type { Deps, Task } from '@/server/use-cases/deps';
import { makeKeywordReport } from '../../demo/keyword-report';
import { PEOPLE, TODAY } from '../../demo/larkfell';
import { step } from './say';
import type { Settings } from './settings';

const DAYS = 36;

/** Loads the keyword report of the last weeks, as a person would bring it. Does nothing where there is one. */
export async function bringKeywordReport(settings: Settings, seed: SeedRequest): Promise<void> {
  const slug = seed.account.id;
  const tasks: Task[] = [];
  const deps: Deps = {
    ...createDeps({ moment: new Date(`${TODAY}T09:40:00Z`) }),
    files: path.join(settings.data, 'files'),
    enqueue: (_db, task) => Promise.resolve(void tasks.push(task)),
  };
  try {
    const { files } = await viewIntake(deps, slug);
    if (files.some(({ kind }) => kind === 'keywords')) return;
    step(`Bringing the keyword report of ${seed.account.name}`);
    const rows: ReportRow[] = [];
    const days = { from: shiftDay(TODAY, -DAYS), to: TODAY };
    const report = await deps.platform.report(slug, days);
    await readReport(report, { onRows: (some) => void rows.push(...some) });
    const { people } = await listAccountsAndPeople(deps);
    const personId = people.find(({ name }) => name === PEOPLE[0])!.id;
    async function* bytes() {
      await Promise.resolve();
      yield new TextEncoder().encode(makeKeywordReport(rows, bidsOf(seed)));
    }
    const about = { name: 'keywords of five weeks.csv', source: 'file' as const, personId };
    const [file] = await takeIn(deps, slug, about, bytes());
    await askForLoad(deps, slug, file!.id, {});
    for (const task of tasks)
      if (task.name === 'load-report') await loadReport(deps, task.accountId, task.reportFileId);
  } finally {
    await deps.db.destroy();
  }
}

/** The bid of each keyword, by the names of where it stands. */
function bidsOf({ structure: { campaigns, adGroups, keywords } }: SeedRequest) {
  const campaignOf = new Map(campaigns.map(({ id, name }) => [id, name]));
  const adGroupOf = new Map(adGroups.map((one) => [one.id, one]));
  return keywords.map(({ adGroupId, text, bidMicros }) => {
    const { campaignId, name } = adGroupOf.get(adGroupId)!;
    return { campaign: campaignOf.get(campaignId)!, adGroup: name, keyword: text, bidMicros };
  });
}
