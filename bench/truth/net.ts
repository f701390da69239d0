import { group, rollup } from 'd3';
import {
  clicksToCome,
  comesBack,
  takersOf,
  compileAccountGate,
  compileGate,
  fitPrior,
  learnHabits,
  likelyRange,
  netVariance,
  priorOfGroup,
  shiftDay,
  type AccountGate,
  type NegativeText,
} from '@/core';
import type { SeedRequest, Structure } from '@/contracts/platform';
import { gateOn, termsOfService } from '@/standins/ad-platform/store';
import { traysOfReadyRules } from './ready-trays';
import { reckonedOf } from './reckoned';
import { serve, type ServedRow } from './served';
import { makeTrays, withTray, type TruthTray } from './trays';

/** What a tray, or one of its stops alone, was predicted to save in four weeks, and what it saved; micro-units. */
export type NetOutcome = {
  tray: string;
  /** clicks in the window that it stops */
  clicks: number;
  /** the cost of the stopped terms, as it was promised before */
  gross: number;
  net: number;
  /** between what amounts the net lies in nine cases of ten */
  likely: [from: number, to: number];
  real: number;
  /** what it saved as the Ledger reckons it from reports alone */
  reckoned: number;
};

const WEEKS_4 = 28;
const WINDOW = 30;
const LAG = 2;

const daysFrom = (first: string, count: number) =>
  Array.from({ length: count }, (_, i) => shiftDay(first, i));

/**
 * Predicts what trays, and large changes of them alone, save by what the reports of a world show, and lets four weeks pass with and without
 * each.
 * @param words negatives of the words at fault
 * @param targetMicros what a conversion may cost
 * @returns of the ten trays, of what ready rules find, and of single changes of the ten
 */
export function netOfTrays(
  world: SeedRequest,
  words: readonly NegativeText[],
  targetMicros: number,
): { trays: NetOutcome[]; ofRules: NetOutcome[]; alone: NetOutcome[] } {
  const { account, structure } = world;
  const newest = shiftDay(account.today, -1 - LAG);
  const all: string[] = [];
  for (let day = account.firstDay; day <= newest; day = shiftDay(day, 1)) all.push(day);
  const history = serve(world, structure, all);
  const window = serve(world, structure, all.slice(-WINDOW));
  const after = daysFrom(account.today, WEEKS_4);
  const without = serve(world, structure, after);
  const groups = new Map(structure.adGroups.map((g) => [g.id, g.campaignId]));
  const campaignOf = (adGroupId: string) => groups.get(adGroupId)!;
  const predict = predictorOf(structure, account.today, history, window);
  const outcomeOf = (tray: TruthTray): NetOutcome => {
    const changed = withTray(structure, tray, account.today);
    const since = serve(world, changed, after);
    const { isStopped, toCome, ...predicted } = predict(changed);
    const days = { before: WINDOW, since: WEEKS_4 };
    const reckoned = reckonedOf({ before: window, since }, isStopped, campaignOf, days, toCome);
    return { tray: tray.name, real: costOf(without) - costOf(since), reckoned, ...predicted };
  };
  const trays = makeTrays(structure, words, window);
  const alone = [
    ...new Map(trays.flatMap(({ stops }) => stops).map((stop) => [JSON.stringify(stop), stop])).values(),
  ]
    .map((stop): TruthTray => ({ name: stop.text, stops: [stop] }))
    .filter(({ stops: [stop] }) => clicksAt(window, stop!, campaignOf) >= LEAST_CLICKS)
    .slice(0, MOST_ALONE);
  const ofRules = traysOfReadyRules(world, all, { targetMicros, lagDays: LAG });
  return {
    ...{ trays: trays.map(outcomeOf), ofRules: ofRules.map(outcomeOf) },
    alone: alone.map(outcomeOf),
  };
}

/** Clicks in the window of what a stop matches at its place. */
function clicksAt(
  window: readonly ServedRow[],
  { place: { kind, id }, ...negative }: TruthTray['stops'][number],
  campaignOf: (adGroupId: string) => string,
): number {
  const isThere = ({ adGroupId }: ServedRow) =>
    kind === 'account' || id === (kind === 'adGroup' ? adGroupId : campaignOf(adGroupId));
  const gate = compileGate([negative]);
  return window.reduce((sum, r) => (isThere(r) && gate.isStopped(r.text) ? sum + r.clicks : sum), 0);
}

/** Single changes are looked at from so many clicks in the window, and no more of them than that. */
const [LEAST_CLICKS, MOST_ALONE] = [90, 12];

const costOf = (rows: readonly ServedRow[]) => rows.reduce((sum, r) => sum + r.costMicros, 0);

/** Predicts from what reports show: rows of all days and of the window. */
function predictorOf(
  structure: Structure,
  today: string,
  history: readonly ServedRow[],
  window: readonly ServedRow[],
) {
  const adGroups = structure.adGroups.map((g) => g.id);
  const numberOf = new Map(adGroups.map((id, g) => [id, g]));
  const sources = new Map<string, number>();
  const sourceOf = (source: string) => {
    if (!sources.has(source)) sources.set(source, sources.size);
    return sources.get(source)!;
  };
  const byText = group(history, (r) => r.text);
  const rows = [...byText.values()].flat();
  const texts = new Map([...byText.keys()].map((text, t) => [text, t]));
  const { mayServe } = termsOfService(structure, today);
  const before = gateOn(structure, today);
  const isOpen = (gate: AccountGate, text: string, adGroupId: string) =>
    mayServe({ adGroupId, keywordId: null }, text) && gate.stoppers(text, adGroupId).length === 0;
  const namedIn = namerOf(structure);
  const namedOf = [...byText.keys()].map((text) =>
    namedIn(text)
      .filter((adGroupId) => isOpen(before, text, adGroupId))
      .map((adGroupId) => numberOf.get(adGroupId)!),
  );
  const habits = learnHabits(
    {
      textOf: rows.map((r) => texts.get(r.text)!),
      adGroupOf: rows.map((r) => numberOf.get(r.adGroupId)!),
      sourceOf: rows.map((r) => sourceOf(r.source)),
      days: rows.map((r) => r.days),
      impressions: rows.map((r) => r.impressions),
    },
    (text) => namedOf[text]!,
  );
  const prior = fitPrior(
    [...group(window, (r) => r.text).values()].map((of) => ({
      clicks: of.reduce((sum, r) => sum + r.impressions, 0),
      conversions: of.reduce((sum, r) => sum + r.clicks, 0),
    })),
  )!;
  const cpc = costOf(window) / window.reduce((sum, r) => sum + r.clicks, 0);
  return (changed: Structure) => {
    const gate = gateOn(changed, today);
    const sum = { clicks: 0, gross: 0, net: 0, toCome: 0, variance: 0 };
    const stoppedRows = window.filter(
      (r) => isOpen(before, r.text, r.adGroupId) && !isOpen(gate, r.text, r.adGroupId),
    );
    const stopOf = (r: ServedRow) => gate.stoppers(r.text, r.adGroupId)[0]!;
    const priors = rollup(
      stoppedRows,
      (of) =>
        priorOfGroup(prior, {
          impressions: of.reduce((all, r) => all + r.impressions, 0),
          clicks: of.reduce((all, r) => all + r.clicks, 0),
        }),
      stopOf,
    );
    for (const [text, stopped] of group(stoppedRows, (r) => r.text)) {
      const ran = byText.get(text)!;
      const isStopped = (adGroupId: string) => stopped.some((r) => r.adGroupId === adGroupId);
      const takers = takersOf(habits, {
        from: ran
          .filter((r) => isStopped(r.adGroupId))
          .map((r) => ({ source: sourceOf(r.source), days: r.days })),
        ran: ran
          .filter((r) => !isStopped(r.adGroupId))
          .map((r) => ({ adGroup: numberOf.get(r.adGroupId)!, days: r.days })),
        named: namedOf[texts.get(text)!]!,
      });
      const back = comesBack(takers, (g) => isOpen(gate, text, adGroups[g]!)).reduce(
        (share, one) => share + one.share,
        0,
      );
      for (const row of stopped) {
        const each = row.clicks > 0 ? row.costMicros / row.clicks : cpc;
        const clicks = clicksToCome(priors.get(stopOf(row))!, row);
        const toCome = (clicks * each * WEEKS_4) / WINDOW;
        sum.variance += netVariance({ eachMicros: each, clicks, back });
        sum.clicks += row.clicks;
        sum.gross += (row.costMicros * WEEKS_4) / WINDOW;
        sum.net += toCome * (1 - back);
        sum.toCome += toCome;
      }
    }
    const stopped = new Set(stoppedRows.map((r) => `${r.text}|${r.adGroupId}`));
    return {
      ...{ clicks: sum.clicks, gross: sum.gross, net: sum.net },
      likely: likelyRange(sum.net, sum.variance, WEEKS_4 / WINDOW),
      toCome: sum.toCome / sum.gross,
      isStopped: (text: string, adGroupId: string) => stopped.has(`${text}|${adGroupId}`),
    };
  };
}

/** The ad groups of which a live keyword holds with a text by its words. */
function namerOf({ campaigns, adGroups, keywords }: Structure): (text: string) => string[] {
  const live = keywords.flatMap(({ id, text, match, status, adGroupId }) =>
    status === 'live' && match !== 'automatic'
      ? [{ id, text, match, place: { kind: 'adGroup' as const, id: adGroupId } }]
      : [],
  );
  const adGroupOf = new Map(live.map(({ id, place }) => [id, place.id]));
  const gate = compileAccountGate({
    campaigns: campaigns.map(({ id }) => ({ id, adGroups: adGroups.filter((g) => g.campaignId === id) })),
    lists: [],
    negatives: live,
  });
  return (text) => [...new Set(gate.matching(text).map((id) => adGroupOf.get(id)!))];
}
