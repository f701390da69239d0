import { plainAmount, ratios, writeCsv } from '@/core';
import type { PromotionsQuery } from '@/contracts/promotion';
import { writeWorkbook } from '../../files/write-workbook';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { findConverting, sureToReach, type Promotion } from './find-promotions';
import { byAdGroup } from './planning';
import { pilesOf } from './view-promotions';

const HEADINGS = [
  ...['search term', 'group', 'served in', 'clicks', 'cost', 'conversions', 'value', 'CPA', 'ACoS'],
  ...[
    'target',
    'sure to reach it',
    'searches a month',
    'exact keyword',
    'keywords to make',
    'negatives to make',
  ],
] as const;
type Heading = (typeof HEADINGS)[number];

type Written = { name: string; type: string; content: string | Uint8Array<ArrayBuffer> };

/** All converting terms of a pile that the filters leave, a term and group a row; those that lack nothing too. */
export async function writePromotionSheet(
  deps: Deps,
  slug: string,
  as: 'csv' | 'xlsx',
  query: PromotionsQuery,
): Promise<Written> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), query.days);
  const { piles, searchesOf } = await pilesOf(deps, open, query, findConverting);
  const rows = piles[query.pile].map((one) => rowOf(open, one, searchesOf(one.term)));
  const name = `${open.account.slug} converting terms.${as}`;
  if (as === 'csv') return { name, type: 'text/csv; charset=utf-8', content: writeCsv([...HEADINGS], rows) };
  const content = await writeWorkbook([{ name: 'converting terms', header: HEADINGS, rows }]);
  return { name, type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', content };
}

function rowOf(open: Open, one: Promotion, searches: number | null): string[] {
  const { snapshot, account } = open;
  const { term, group, figures, plan, isExact, rows } = one;
  const money = (micros: number | null) =>
    micros === null ? '' : plainAmount(Math.round(micros), account.currency);
  const share = (fraction: number | null) =>
    fraction === null ? '' : `${Number((fraction * 100).toFixed(2))} %`;
  const { cpaMicros, acos } = ratios(figures);
  const sure = sureToReach(open, one);
  const count = (kind: string) => String(plan.parts.filter((part) => part.kind === kind).length);
  const { target } = group;
  const cells: Record<Heading, string> = {
    ...{ 'search term': term, group: group.name },
    'served in': byAdGroup(open, rows)
      .map(({ adGroup }) => {
        const { id, campaignId } = snapshot.served.adGroups[adGroup]!;
        return `${snapshot.campaign.get(campaignId)?.name ?? ''} · ${snapshot.adGroup.get(id)?.name ?? ''}`;
      })
      .join(', '),
    ...{ clicks: String(figures.clicks ?? ''), cost: money(figures.costMicros) },
    ...{ conversions: String(figures.conversions ?? ''), value: money(figures.valueMicros) },
    ...{ CPA: money(cpaMicros), ACoS: share(acos) },
    target: target === null ? '' : target.by === 'CPA' ? money(target.micros) : share(target.fraction),
    'sure to reach it': sure === null ? '' : `${Math.floor(sure * 100)} %`,
    'searches a month': String(searches ?? ''),
    'exact keyword': isExact ? 'yes' : 'no',
    ...{ 'keywords to make': count('keyword'), 'negatives to make': count('negative') },
  };
  return HEADINGS.map((heading) => cells[heading]);
}
