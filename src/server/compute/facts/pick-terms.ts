import { numbersTo } from '@/core';
import { TERM_KINDS, type AccountTerms, type TextColumn } from '../../repositories/columns/term-columns';
import { shared } from '../shared-columns';
import type { TermColumns } from '../window-columns';

/**
 * Some terms of an account in columns that threads share.
 * @param ids ascending, each of a term that is there
 */
export function pickTerms(terms: AccountTerms, ids: Int32Array): TermColumns {
  const picked = placesOf(terms, ids);
  const raws = pickTexts(terms.raws, picked);
  return { ...columnsOf(terms, picked), rawStarts: raws.starts, raws: raws.bytes };
}

/** The terms that stand for something a person searched: all but what is reported without a term. */
export function pickSearched(terms: AccountTerms): Omit<TermColumns, 'raws' | 'rawStarts'> {
  const unreported = TERM_KINDS.indexOf('unreported');
  return columnsOf(
    terms,
    numbersTo(terms.count).filter((t) => terms.kinds[t] !== unreported),
  );
}

function placesOf({ ids: all, count }: AccountTerms, ids: Int32Array): Uint32Array {
  const places = new Uint32Array(ids.length);
  let t = 0;
  for (let at = 0; at < count && t < ids.length; at++) if (all[at] === ids[t]) places[t++] = at;
  if (t < ids.length) throw new RangeError(`every fact must have a term; ${ids[t]} has none`);
  return places;
}

function columnsOf(terms: AccountTerms, picked: Uint32Array) {
  const [ids, kinds] = [new Uint32Array(picked.length), new Uint8Array(picked.length)];
  for (let t = 0; t < picked.length; t++) {
    ids[t] = terms.ids[picked[t]!]!;
    kinds[t] = terms.kinds[picked[t]!]!;
  }
  const keys = pickTexts(terms.keys, picked);
  return {
    ...{ count: picked.length, ids: shared(ids), kinds: shared(kinds) },
    ...{ keyStarts: keys.starts, keys: keys.bytes },
  };
}

/** @param picked ascending; those that stand side by side are copied in one piece */
function pickTexts({ starts, bytes }: TextColumn, picked: Uint32Array): TextColumn {
  const ends = new Uint32Array(picked.length + 1);
  for (let t = 0; t < picked.length; t++)
    ends[t + 1] = ends[t]! + starts[picked[t]! + 1]! - starts[picked[t]!]!;
  const out = new Uint8Array(new SharedArrayBuffer(ends[picked.length]!));
  for (let t = 0; t < picked.length;) {
    const first = t;
    while (t + 1 < picked.length && picked[t + 1] === picked[t]! + 1) t += 1;
    out.set(bytes.subarray(starts[picked[first]!], starts[picked[t]! + 1]), ends[first]);
    t += 1;
  }
  return { starts: shared(ends), bytes: out };
}
