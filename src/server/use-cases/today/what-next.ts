import { describeChange } from '@/core';
import type { Days } from '@/contracts/days';
import type { NextAnswer, NextThing } from '@/contracts/today';
import { servingRows } from '../../compute/serving';
import { keyAt } from '../../compute/window-columns';
import { weighRows } from '../../compute/workbench';
import { listReportFiles } from '../../repositories/intake/reports';
import { listWaitingVersions } from '../../repositories/lists/list-versions';
import { listOutsideChanges } from '../../repositories/structure/outside-changes';
import { hasTarget } from '../account/count-open';
import { missedWeek } from '../alerts/missed-week';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { aboutOf } from '../../compute/rules/term-facts';
import { findingsOf, sayFound } from '../rules/findings';
import { passOf } from '../sift/pass/open-pass';

/** Words, terms or changes that are named of each thing. */
const MOST_NAMED = 8;

/** What waits on each screen, by what it is worth in the days looked at; nothing where nothing waits. */
export async function viewNext(deps: Deps, slug: string, days?: Days): Promise<NextAnswer> {
  const account = await requireAccount(deps, slug);
  const open = await openWorkbench(deps, account, days);
  const files = (await listReportFiles(deps.db, account.id)).filter(
    ({ state }) => state === 'uploaded' || state === 'failed',
  );
  const versions = await listWaitingVersions(deps.db, account.id);
  const outside = await listOutsideChanges(deps.db, account.id);
  const missed = await missedWeek(deps, open);
  const noWorth = { worthMicros: null, risks: null };
  const all: NextThing[] = [
    ...(account.dataVersion === 0 ? [] : waitsInSift(open)),
    ...waitsInTray(open),
    ...(await waitsInRules(deps, open)),
    {
      ...{ kind: 'look at others', count: versions.length + outside.length, ...noWorth },
      first: named([...versions.map(({ listName }) => listName), ...outside.map(({ said }) => said)]),
    },
    {
      ...{ kind: 'target missed', count: missed ? 1 : 0, ...noWorth },
      first: named(missed ? [missed.says] : []),
    },
    {
      ...{ kind: 'load files', count: files.length, ...noWorth },
      first: named(files.map(({ name }) => name)),
    },
    { ...{ kind: 'set a target', count: hasTarget(account) ? 0 : 1, ...noWorth }, first: [] },
  ];
  return {
    window: open.snapshot.window,
    next: all.filter(({ count }) => count > 0).sort((a, b) => (b.worthMicros ?? -1) - (a.worthMicros ?? -1)),
  };
}

const named = (texts: readonly string[]): NextThing['first'] =>
  texts.slice(0, MOST_NAMED).map((text) => ({ text, costMicros: null }));

/** The first two steps of the pass (rules 7.14), each row once. */
function waitsInSift(open: Open): NextThing[] {
  const { words, terms, gain } = passOf(open);
  const { snapshot } = open;
  const costOf = (rows: readonly number[]) => weighRows(snapshot, rows).costMicros;
  const step = (kind: NextThing['kind'], of: keyof typeof gain, first: NextThing['first']): NextThing => ({
    ...{ kind, count: of === 'words' ? words.length : terms.length, first },
    ...{ worthMicros: gain[of].costMicros, risks: gain[of].risks },
  });
  return [
    step(
      'words at fault',
      'words',
      words.slice(0, MOST_NAMED).map(({ word, places }) => ({
        ...{ text: word.ngram, costMicros: costOf(places[0]!.rows) },
      })),
    ),
    step(
      'terms that miss',
      'terms',
      terms.slice(0, MOST_NAMED).map(({ term, rows }) => ({
        ...{ text: keyAt(snapshot.terms, term), costMicros: costOf(rows) },
      })),
    ),
  ];
}

/** What rules propose, and those that stopped themselves or can not act. */
async function waitsInRules(deps: Deps, open: Open): Promise<NextThing[]> {
  const { rules, piles } = await findingsOf(deps, open);
  const troubled = [...rules.values()].filter(({ trouble }) => trouble !== null);
  const noWorth = { worthMicros: null, risks: null };
  return [
    {
      ...{ kind: 'decide findings', count: piles.open.length, ...noWorth },
      first: named(
        piles.open
          .slice(0, MOST_NAMED)
          .map((one) => sayFound(open, aboutOf(rules.get(one.ruleId)!.rule), one.term)),
      ),
    },
    {
      ...{ kind: 'look at rules', count: troubled.length, ...noWorth },
      first: named(troubled.map(({ name, trouble }) => `${name}: ${trouble}`)),
    },
  ];
}

/** The draft, and what of it failed before. */
function waitsInTray({ drafted, draft, snapshot, names }: Open): NextThing[] {
  const thing = (kind: NextThing['kind'], some: typeof drafted, worth: number | null): NextThing => ({
    ...{ kind, count: some.length, worthMicros: worth, risks: null },
    first: named(some.map(({ change }) => describeChange(change, names))),
  });
  const failed = drafted.filter(({ failedBefore }) => failedBefore !== null);
  const stops = weighRows(snapshot, servingRows(snapshot, draft.stopped)).costMicros;
  return [
    thing(
      'send the tray',
      drafted.filter(({ failedBefore }) => failedBefore === null),
      stops,
    ),
    thing('send again', failed, null),
  ];
}
