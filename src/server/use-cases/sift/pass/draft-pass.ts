import { placeKey, type Change, type Place } from '@/core';
import type { PassDraft } from '@/contracts/pass';
import type { DraftOutcome } from '@/contracts/tray';
import { keyAt } from '../../../compute/window-columns';
import { Refusal, type Deps } from '../../deps';
import { openWorkbench, requireAccount, type Open } from '../../open-workbench';
import { draftChanges, type Wanted } from '../../tray/draft-changes';
import { passOf } from './open-pass';
import type { OfferedWord } from './place-word';

/**
 * Puts words and terms of a pass in the tray, as it offers them now.
 * @throws Refusal when nothing of it is offered any more; nothing was changed then
 */
export async function draftPass(
  deps: Deps,
  slug: string,
  personId: number,
  { words, terms, days }: PassDraft,
): Promise<DraftOutcome[]> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), days);
  const pass = passOf(open);
  const offered = new Map(pass.words.map((one) => [one.word.ngram, one]));
  const ids = new Set(terms);
  const wanted: Wanted[] = words.flatMap(({ ngram, place }) => {
    const word = offered.get(ngram);
    return word ? ofWord(word, place ?? word.places[0]!.place) : [];
  });
  for (const { term, rows } of [...pass.terms, ...pass.ofGroups, ...pass.left.first]) {
    if (ids.size === 0 || !ids.has(open.snapshot.terms.ids[term]!)) continue;
    wanted.push(...ofTerm(open, term, rows));
  }
  if (wanted.length === 0)
    throw new Refusal('This is not offered any more: it was decided meanwhile. Nothing was changed.', 409);
  return draftChanges(deps, slug, personId, wanted);
}

function ofWord({ word, negatives }: OfferedWord, place: Place): Wanted[] {
  const { ngram, expected, conversions } = word;
  const why = `“${ngram}” is at fault: its ad groups would have brought ${expected.toFixed(1)} conversions, it brought ${Number(conversions.toFixed(2))}`;
  return negatives.map(({ text, match }) => ({ change: { kind: 'add negative', text, match, place }, why }));
}

/** The whole term, in each campaign that served it. */
function ofTerm({ snapshot }: Open, t: number, rows: readonly number[]): Wanted[] {
  const { served, terms } = snapshot;
  const text = keyAt(terms, t);
  const places = new Map<string, Place>();
  for (const r of rows) {
    const place: Place = { kind: 'campaign', id: served.adGroups[served.adGroupOf[r]!]!.campaignId };
    places.set(placeKey(place), place);
  }
  return [...places.values()].map((place) => {
    const change: Change = { kind: 'add negative', text, match: 'exact', place };
    return { change, why: 'seen in the pass through what surely can’t pay', from: text };
  });
}
