import { placeKey, type Change, type Place } from '@/core';
import type { PassDraft } from '@/contracts/pass';
import type { DraftOutcome } from '@/contracts/tray';
import { keyAt } from '../../../compute/window-columns';
import { Refusal, type Deps } from '../../deps';
import { openWorkbench, requireAccount, type Open } from '../../open-workbench';
import { draftChanges } from '../../tray/draft-changes';
import type { Wanted } from '../../tray/tray-in-memory';
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
  const room = roomLeft(open);
  const refused: DraftOutcome[] = [];
  const wanted: Wanted[] = words.flatMap(({ ngram, place }) => {
    const word = offered.get(ngram);
    if (!word) return [];
    const at = place ?? word.places[0]!.place;
    const over = room.take(at, word.negatives.length);
    if (over === null) return ofWord(word, at);
    refused.push({ outcome: 'refused', said: `“${ngram}” was left out: ${over}` });
    return [];
  });
  for (const { term, rows } of [...pass.terms, ...pass.ofGroups, ...pass.left.first])
    if (ids.has(open.snapshot.terms.ids[term]!)) wanted.push(...ofTerm(open, term, rows));
  if (wanted.length === 0 && refused[0]) throw new Refusal(`${refused[0].said} Nothing was changed.`, 409);
  if (wanted.length === 0)
    throw new Refusal('This is not offered any more: it was decided meanwhile. Nothing was changed.', 409);
  return [...(await draftChanges(deps, slug, personId, wanted)), ...refused];
}

/** How many more negatives the account and each list may hold (rules 12), as one word after another takes its part. */
function roomLeft({ draft, account: { limits } }: Open) {
  const used = new Map<string, number>();
  return {
    /** @returns what stands against so many more, or null */
    take(place: Place, more: number): string | null {
      const most = place.kind === 'list' ? limits.listNegatives : limits.accountNegatives;
      const there = used.get(placeKey(place)) ?? draft.gate.entriesAt(place).length;
      if (place.kind === 'account' || place.kind === 'list') {
        if (there + more > most)
          return `${place.kind === 'list' ? 'this list' : 'the account'} may hold ${most.toLocaleString('en')} negatives, and it would be ${(there + more).toLocaleString('en')}. Choose another place for it.`;
        used.set(placeKey(place), there + more);
      }
      return null;
    },
  };
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
