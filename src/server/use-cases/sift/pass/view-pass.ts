import type { Days } from '@/contracts/days';
import type { MissingGroup, PassAnswer, PassTerm } from '@/contracts/pass';
import { probabilityOfMiss } from '../../../compute/evidence/evidence';
import { allDaysOf } from '../../../compute/history/all-days';
import { besideOf } from '../../../compute/evidence/surely-missing';
import { viewIndex, viewsOf } from '../../../compute/sift/views';
import { figuresOfTerm, termSums } from '../../../compute/term-sums';
import { costAt, termAt } from '../../../compute/window-columns';
import { few, weighRows } from '../../../compute/workbench';
import { derivedFrom } from '../../../compute/derived';
import type { Deps } from '../../deps';
import { openWorkbench, requireAccount, type Open } from '../../open-workbench';
import { passOf } from './open-pass';
import type { OfferedTerm } from './undecided-terms';

const MOST_TERMS = 500;

/** The guided pass through what surely can't pay: what it offers, how far it is, and what is still to gain (rules 7.14). */
export async function viewPass(deps: Deps, slug: string, query: { days?: Days }): Promise<PassAnswer> {
  return answerOf(await openWorkbench(deps, await requireAccount(deps, slug), query.days));
}

const answerOf = derivedFrom((open: Open): PassAnswer => {
  const { snapshot } = open;
  const { words, barred, terms, ofGroups, left, gain } = passOf(open);
  const sums = termSums(snapshot);
  let conversions = 0;
  for (let t = 0; t < snapshot.terms.count; t++) conversions += figuresOfTerm(sums, t).conversions ?? 0;
  return {
    words: words.map(({ word: { ngram, ...fault }, negatives, leavesOpen, places }) => ({
      ...{ ngram, fault },
      ...{ negatives: few(negatives), leavesOpen: few(leavesOpen) },
      places: places.map(({ rows, ...at }) => ({ ...at, stops: weighRows(snapshot, rows) })),
    })),
    barred: barred.map(({ word: { ngram, ...fault }, by, names }) => ({
      ngram,
      fault,
      by,
      names: few(names),
    })),
    terms: terms.slice(0, MOST_TERMS).map((term) => inWords(open, term)),
    groups: groupsOf(open, ofGroups),
    left: { ...left, first: left.first.map((term) => inWords(open, term)) },
    since: snapshot.history.days?.from ?? null,
    ...{ gain, stoppedMicros: stoppedByTray(open), conversions },
  };
});

function inWords(open: Open, { term: t, misses, beside, rows, risks }: OfferedTerm): PassTerm {
  const { snapshot, account, names } = open;
  const { served, terms } = snapshot;
  const { id, raw } = termAt(terms, t);
  const allDays = allDaysOf(snapshot);
  const figures = figuresOfTerm(termSums(snapshot), t);
  const known = Number.isNaN(misses) ? probabilityOfMiss(snapshot, account, { term: t, figures }) : misses;
  const campaigns = new Set(rows.map((r) => served.adGroups[served.adGroupOf[r]!]!.campaignId));
  return {
    ...{ id, raw, misses: Number.isNaN(known) ? null : known, risks },
    ...{ clicks: allDays.clicks[t]! || 0, conversions: allDays.conversions[t]! || 0 },
    beside: beside ?? besideOf(snapshot, account, t),
    campaigns: few([...campaigns].map((campaign) => names.campaign(campaign) ?? '')),
    stops: weighRows(snapshot, rows),
  };
}

/** The ad groups that miss as a whole, costliest first. */
function groupsOf({ snapshot }: Open, terms: readonly OfferedTerm[]): MissingGroup[] {
  const groups = new Map<string, MissingGroup>();
  for (const { beside, rows } of terms) {
    const { id, name, campaign, clicks, conversions, paysMicros } = beside!.adGroup!;
    const group = groups.get(id) ?? {
      name,
      campaign,
      terms: 0,
      costMicros: 0,
      clicks,
      conversions,
      paysMicros,
    };
    groups.set(id, group);
    group.terms += 1;
    group.costMicros += weighRows(snapshot, rows).costMicros ?? 0;
  }
  return [...groups.values()].sort((a, b) => b.costMicros - a.costMicros);
}

/** Cost of the window that the tray stops. */
function stoppedByTray(open: Open): number {
  const { ofRow } = viewsOf(open);
  const stopped = viewIndex('stopped');
  let cost = 0;
  for (let r = 0; r < ofRow.length; r++) if (ofRow[r] === stopped) cost += costAt(open.snapshot.rows, r);
  return cost;
}
