import type { Change, MatchType } from '@/core';
import type { Group, GroupedIdea } from '@/contracts/groups';

export const MATCHES = ['exact', 'phrase', 'broad'] as const satisfies MatchType[];

/** What is to become of groups. */
export type Making = {
  campaign: string;
  /** micro-units a day of a campaign that is made; null for one that is there */
  budgetMicros: number | null;
  matches: readonly MatchType[];
  bidMicros: number;
};
export type Wanted = { change: Change; why: string };

/** Groups as the changes that make them: a campaign where one is to be made, an ad group for each, and its keywords. */
export function changesOfGroups(
  groups: readonly Group[],
  { campaign, budgetMicros, ...making }: Making,
  sheet: string,
): Wanted[] {
  const why = `from the research sheet ${sheet}`;
  const makes: Wanted[] =
    budgetMicros === null ? [] : [{ change: { kind: 'add campaign', name: campaign, budgetMicros }, why }];
  return [
    ...makes,
    ...groups.flatMap(({ name, ideas }): Wanted[] => [
      { change: { kind: 'add ad group', campaign, name }, why },
      ...keywordsOf(ideas, making).map(({ text, match, volume }): Wanted => ({
        change: { kind: 'add keyword', campaign, adGroup: name, text, match, bidMicros: making.bidMicros },
        why: volume === null ? why : `${why}: ${volume.toLocaleString('en')} searches a month`,
      })),
    ]),
  ];
}

/** The same as rows of a file: campaign, ad group, keyword, match type, searches a month, bid in units of the currency. */
export function keywordsOfGroups(
  groups: readonly Group[],
  making: Pick<Making, 'campaign' | 'matches'> & { bid: number | null },
): { header: string[]; rows: (string | number | null)[][] } {
  return {
    header: ['Campaign', 'Ad group', 'Keyword', 'Match type', 'Searches a month', 'Bid'],
    rows: groups.flatMap(({ name, ideas }) =>
      keywordsOf(ideas, making).map(({ text, match, volume }) => [
        ...[making.campaign, name, text, match, volume, making.bid],
      ]),
    ),
  };
}

const keywordsOf = (ideas: readonly GroupedIdea[], { matches }: Pick<Making, 'matches'>) =>
  ideas.flatMap(({ text, volume }) => matches.map((match) => ({ text, volume, match })));
