import { group } from 'd3';
import { compileGate, normalise, smallestSet, type NegativeText } from '@/core';

import type { Structure } from '@/contracts/platform';
import type { ServedRow } from './served';

type PlacedStop = NegativeText & { place: Structure['negatives'][number]['place'] };
type Place = PlacedStop['place'];
export type TruthTray = { name: string; stops: PlacedStop[] };

/**
 * Ten trays as people make them from what they see: by words, by terms, by the smallest set, and by place.
 * @param words negatives of the words at fault, as the guided pass offers them
 * @param rows of the window
 */
export function makeTrays(
  structure: Structure,
  words: readonly NegativeText[],
  rows: readonly ServedRow[],
): TruthTray[] {
  const campaignOf = new Map(structure.adGroups.map((g) => [g.id, g.campaignId]));
  const account: Place = { kind: 'account', id: null };
  const byText = [...group(rows, (r) => r.text)].map(([text, of]) => ({
    text,
    costMicros: of.reduce((sum, r) => sum + r.costMicros, 0),
    conversions: of.reduce((sum, r) => sum + r.conversions, 0),
    main: of.reduce((a, b) => (b.costMicros > a.costMicros ? b : a)),
  }));
  const wasted = byText
    .filter((t) => t.conversions === 0 && t.costMicros > 0)
    .sort((a, b) => b.costMicros - a.costMicros || (a.text < b.text ? -1 : 1));
  const adGroupOf = (t: (typeof wasted)[number]): Place => ({ kind: 'adGroup', id: t.main.adGroupId });
  const placeOf = (t: (typeof wasted)[number]): Place => ({
    kind: 'campaign',
    id: campaignOf.get(t.main.adGroupId)!,
  });
  const exact = (terms: typeof wasted, at: (t: (typeof wasted)[number]) => Place) =>
    terms.map((t): PlacedStop => ({ text: t.text, match: 'exact', place: at(t) }));
  const campaigns = [...new Set(rows.map((r) => campaignOf.get(r.adGroupId)!))].sort();
  const costliest = (negative: NegativeText, of: (r: ServedRow) => string) => {
    const gate = compileGate([negative]);
    const sums = new Map<string, number>();
    for (const r of rows) if (gate.isStopped(r.text)) sums.set(of(r), (sums.get(of(r)) ?? 0) + r.costMicros);
    return [...sums].sort((a, b) => b[1] - a[1])[0]?.[0];
  };
  const inCostliest = (kind: 'campaign' | 'adGroup', all: readonly NegativeText[]) =>
    all.flatMap((negative): PlacedStop[] => {
      const id = costliest(negative, (r) =>
        kind === 'adGroup' ? r.adGroupId : campaignOf.get(r.adGroupId)!,
      );
      return id === undefined ? [] : [{ ...negative, place: { kind, id } }];
    });
  const open = byText.filter((t) => t.conversions > 0).map((t) => t.text);
  const set = smallestSet({ unwanted: wasted.slice(0, 300), open, limit: 25 }).negatives;
  return [
    { name: 'words, account', stops: words.slice(0, 20).map((w) => ({ ...w, place: account })) },
    {
      name: 'words, half of the campaigns',
      stops: campaigns
        .filter((_, i) => i % 2 === 0)
        .flatMap((id) =>
          words.slice(0, 12).map((w): PlacedStop => ({ ...w, place: { kind: 'campaign', id } })),
        ),
    },
    { name: 'words, costliest campaign', stops: inCostliest('campaign', words.slice(0, 30)) },
    { name: 'words, costliest ad group', stops: inCostliest('adGroup', words.slice(0, 30)) },
    { name: '100 terms, account', stops: exact(wasted.slice(0, 100), () => account) },
    { name: '100 terms, campaign', stops: exact(wasted.slice(0, 100), placeOf) },
    { name: '100 terms, ad group', stops: exact(wasted.slice(0, 100), adGroupOf) },
    { name: '400 further terms, ad group', stops: exact(wasted.slice(100, 500), adGroupOf) },
    { name: 'smallest set, account', stops: set.map((n) => ({ ...n, place: account })) },
    { name: 'smallest set, costliest ad group', stops: inCostliest('adGroup', set) },
  ];
}

/** The structure with a tray that is in force from a day on. */
export function withTray(structure: Structure, { stops }: TruthTray, day: string): Structure {
  return {
    ...structure,
    negatives: [
      ...structure.negatives,
      ...stops.map((stop, i) => ({
        ...{ ...stop, text: normalise(stop.text), id: `tray-${i}` },
        ...{ createdAt: `${day}T00:00:00Z`, status: 'live' as const },
      })),
    ],
  };
}
