import { daysBetween, sumFigures } from '@/core';
import type {
  DuplicateLine,
  DuplicatesQuery,
  DuplicatesView,
  HandsOverView,
  SameKeyword,
} from '@/contracts/duplicates';
import { RUNGS } from '@/contracts/duplicates';
import type { Days } from '@/contracts/days';
import { derivedFrom } from '../../../compute/derived';
import { few } from '../../../compute/workbench';
import type { Deps } from '../../deps';
import { openWorkbench, requireAccount } from '../../open-workbench';
import { findDuplicates, findOnRungs, lookAt, type FoundGroup } from './find-duplicates';
import { handOver } from './hand-over';
import { intoPiles, openPiles } from '../knots/piles';
import { keyOfGroup, stateOfGroup } from './knots-of-duplicates';
import { openKeywords, type Looking } from './keyword-figures';

/** More than that nobody reads; the rest is counted. */
const MOST_LINES = 2_000;
/** Of one group. */
const MOST_NAMED = 100;

/**
 * Keywords that compete with each other (rules 5), as the tray leaves the account: how many groups there are on each
 * rung, those of the rung that was chosen with who should stay, what is set aside as deliberate, and what can not be
 * judged.
 */
export async function viewDuplicates(
  deps: Deps,
  slug: string,
  query: DuplicatesQuery,
): Promise<DuplicatesView> {
  const open = await openKeywords(deps, slug, query.days);
  const onRungs = findOnRungs(open, query);
  const { groups, apart } = findDuplicates(open, query);
  const { keyword, unjudged } = lookAt(open, query);
  const leftAs = await openPiles(deps, open, 'duplicate');
  const leftOf = (group: FoundGroup) => leftAs({ key: keyOfGroup(group), state: stateOfGroup(group) });
  const piles = intoPiles(groups, leftOf);
  const lines = piles[query.pile]
    .map((group) => ({ ...lineOf(group, query.sure / 100), left: leftOf(group) }))
    .sort(costliestFirst);
  const { window } = open.snapshot;
  return {
    days: daysBetween(window.from, window.to) + 1,
    report: open.report?.days ?? null,
    rungs: Object.fromEntries(
      RUNGS.map((rung) => [rung, onRungs[rung].groups.length]),
    ) as DuplicatesView['rungs'],
    counts: { open: piles.open.length, left: piles.left.length },
    clear: lines.filter(({ isClear }) => isClear).length,
    inTray: endedByTray(open, query),
    lines: lines.slice(0, MOST_LINES),
    apart: {
      pairs: apart.deliberatePairs,
      splits: {
        count: apart.splits.length,
        first: apart.splits.slice(0, MOST_NAMED).map(({ parts, by }) => ({
          ...{ text: keyword.get(parts[0]![0]!)!.text, by },
          parts: parts.map((ids) => [...new Set(ids.map((id) => keyword.get(id)!.campaign.name))]),
        })),
      },
    },
    unjudged: few(unjudged),
  };
}

const withoutTray = derivedFrom((open: Looking): Looking => ({ ...open, laid: [] }));

/** Groups that are there without the tray, and not with it. */
function endedByTray(open: Looking, query: DuplicatesQuery): number {
  if (open.laid.length === 0) return 0;
  const before = findDuplicates(withoutTray(open), query).groups;
  const still = new Set(
    findDuplicates(open, query).groups.flatMap(({ keywords }) => keywords.map(({ id }) => id)),
  );
  return before.filter(({ keywords }) => keywords.filter(({ id }) => still.has(id)).length < 2).length;
}

function lineOf({ keywords, expected, sure }: FoundGroup, threshold: number): Omit<DuplicateLine, 'left'> {
  return {
    key: keyOfGroup({ keywords }),
    keywords: keywords.slice(0, MOST_NAMED).map((one, i): SameKeyword => {
      const { id, text, match, campaign, adGroup, status, bidMicros, figures, told } = one;
      const { costMicros, cvr } = expected[i]!;
      return {
        ...{ id, text, match, status, bidMicros, campaign: campaign.name, adGroup: adGroup.name },
        ...{ clicks: figures.clicks ?? 0, costMicros: figures.costMicros ?? 0 },
        ...{ conversions: figures.conversions ?? 0, valueMicros: figures.valueMicros ?? 0 },
        ...{ impressionShare: told?.impressionShare ?? null, quality: told?.quality ?? null },
        otherConversions: told?.otherConversions ?? {},
        ...{ expectedMicros: Number.isFinite(costMicros) ? costMicros : null, cvr },
      };
    }),
    ...{ count: keywords.length, sure },
    isClear: sure >= threshold,
  };
}

const costOf = ({ keywords }: DuplicateLine) => sumFigures(keywords).costMicros ?? 0;
const costliestFirst = (a: DuplicateLine, b: DuplicateLine) => costOf(b) - costOf(a);

/** What each keyword of a group would take over if it were the one that stays. */
export async function viewHandOver(
  deps: Deps,
  slug: string,
  { keywords, days }: { keywords: string[]; days?: Days | undefined },
): Promise<HandsOverView> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), days);
  return handOver(open, keywords);
}
