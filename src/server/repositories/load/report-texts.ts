import { NOT_GIVEN } from '@/contracts/common';
import { createDictionary, grown, normalise, type ReportRow } from '@/core';
import type { TermKind } from '../facts';

/** What a report writes in place of a term for spend on queries it does not show. */
const UNREPORTED = '(unreported)';

/** What stands for a campaign or an ad group of which the report says nothing. */
const UNNAMED = NOT_GIVEN;

/** The key under which a term is stored, and what kind of term it is (see the table `term`). */
export function keyOfTerm(
  raw: string,
  isProductCode: (raw: string) => boolean,
): { key: string; kind: TermKind } {
  const key = normalise(raw);
  if (key === raw && !isProductCode(raw)) return { key, kind: 'query' }; // most terms
  const plain = raw.trim().toLowerCase();
  if (plain === UNREPORTED) return { key: plain, kind: 'unreported' };
  if (isProductCode(raw)) return { key: plain, kind: 'code' };
  return key === '' ? { key: plain, kind: 'wordless' } : { key, kind: 'query' };
}

/** A keyword as a report names it, with where it stands. */
export type NamedKeyword = {
  campaign: string;
  adGroup: string;
  text: string;
  textKey: string;
  match: string;
};

/** The texts of a report, each known by a number from 0, in the order in which they were met. */
export type ReportTexts = {
  termOf(raw: string): number;
  keywordOf(row: Pick<ReportRow, 'campaign' | 'adGroup' | 'keyword' | 'match'>): number;
  readonly terms: NamedTerms;
  readonly keywords: readonly NamedKeyword[];
};

/** Terms as they will be stored, by their numbers; `raws` is how they were first written. */
export type NamedTerms = { keys: readonly string[]; raws: readonly string[]; kinds: readonly TermKind[] };

export function createReportTexts(isProductCode: (raw: string) => boolean): ReportTexts {
  // Texts are kept in a dictionary, raw ones and keys alike: a text that is a key is its own key.
  const texts = createDictionary();
  let termOfText = new Int32Array(1 << 12); // one more than the term, 0 where none is known
  const keys: string[] = [];
  const raws: string[] = [];
  const kinds: TermKind[] = [];
  const keywords: NamedKeyword[] = [];
  const byCampaign = new Map<string, Map<string, Map<string, Map<string, number>>>>();

  function number(text: string): number {
    const id = texts.intern(text);
    if (id >= termOfText.length) termOfText = grown(termOfText, 2 * id);
    return id;
  }

  return {
    keywords,
    terms: { keys, raws, kinds },
    termOf(raw) {
      const text = number(raw);
      if (termOfText[text]! > 0) return termOfText[text]! - 1;
      const { key, kind } = keyOfTerm(raw, isProductCode);
      const ofKey = key === raw ? text : number(key);
      if (termOfText[ofKey] === 0) {
        keys.push(key);
        raws.push(raw);
        kinds.push(kind);
        termOfText[ofKey] = keys.length;
      }
      termOfText[text] = termOfText[ofKey]!;
      return termOfText[ofKey]! - 1;
    },
    keywordOf(row) {
      const ofCampaign = under(byCampaign, row.campaign || UNNAMED);
      const ofGroup = under(ofCampaign, row.adGroup || UNNAMED);
      const ofText = under(ofGroup, row.keyword ?? '');
      const match = row.match ?? 'unknown';
      let keyword = ofText.get(match);
      if (keyword === undefined) {
        keyword = keywords.length;
        ofText.set(match, keyword);
        const text = row.keyword ?? '';
        const [campaign, adGroup] = [row.campaign || UNNAMED, row.adGroup || UNNAMED];
        keywords.push({ campaign, adGroup, text, textKey: normalise(text), match });
      }
      return keyword;
    },
  };
}

/** The map under a name. Makes an empty one where there is none. */
function under<Inner>(maps: Map<string, Map<string, Inner>>, name: string): Map<string, Inner> {
  let map = maps.get(name);
  if (!map) maps.set(name, (map = new Map<string, Inner>()));
  return map;
}
