import { shiftDay } from '@/core';
import { shared } from '../shared-columns';
import { addKnown, COLUMN, figureAt } from '../figure-columns';
import type { History } from '../history/history';
import { dayOf, eachTerm, type Facts } from './facts';
import { pickSearched } from './pick-terms';

/**
 * Sums what each term brought in each ad group over all days but those of the lag; and what it earned over all days.
 * @param facts of all days
 */
export function sumHistory(facts: Facts, lagDays: number): History {
  const terms = pickSearched(facts.terms);
  const earned = new Float64Array(terms.count).fill(NaN);
  const days = facts.dataDays && { from: facts.dataDays.from, to: shiftDay(facts.dataDays.to, -lagDays) };
  const lastDay = days ? dayOf(days.to) : 0;
  const rows = historyRows(facts.count);
  let t = 0;
  eachTerm(facts, (id, begin, end) => {
    while (t < terms.count && terms.ids[t]! < id) t += 1;
    if (terms.ids[t] !== id) return; // reported without a term
    let lastGroup = -1;
    for (let fact = begin; fact < end; fact++) {
      addKnown(earned, t, figureAt(facts.figures, fact, COLUMN.conversions));
      if (facts.day[fact]! > lastDay) continue;
      if (facts.adGroupId[fact] !== lastGroup) rows.open(t, (lastGroup = facts.adGroupId[fact]!));
      rows.add(facts, fact);
    }
  });
  return { days, terms, earned: shared(earned), rows: rows.finish() };
}

/** Rows that are opened one after another, each summed before the next is opened. */
function historyRows(most: number) {
  const [termOf, adGroupId] = [new Uint32Array(most), new Uint32Array(most)];
  const [clicks, conversions] = [new Float64Array(most).fill(NaN), new Float64Array(most).fill(NaN)];
  const [costMicros, impressions] = [new Float64Array(most).fill(NaN), new Float64Array(most).fill(NaN)];
  const [days, keywordId] = [new Uint32Array(most), new Uint32Array(most)];
  /** the keyword whose facts are being added, on how many days it served, and the most on which one did */
  const now = { keyword: -1, days: 0, most: 0 };
  let count = 0;
  return {
    open(term: number, adGroup: number) {
      termOf[count] = term;
      adGroupId[count] = adGroup;
      Object.assign(now, { keyword: -1, days: 0, most: 0 });
      count += 1;
    },
    /** Adds a fact into the row that was opened last; those of a keyword come together. */
    add({ figures, keywordId: keywords }: Facts, fact: number) {
      const keyword = keywords[fact]!;
      if (keyword !== now.keyword) Object.assign(now, { keyword, days: 0 });
      now.days += 1;
      days[count - 1]! += 1;
      if (now.days > now.most) {
        now.most = now.days;
        keywordId[count - 1] = keyword;
      }
      addKnown(impressions, count - 1, figureAt(figures, fact, COLUMN.impressions));
      addKnown(clicks, count - 1, figureAt(figures, fact, COLUMN.clicks));
      addKnown(conversions, count - 1, figureAt(figures, fact, COLUMN.conversions));
      addKnown(costMicros, count - 1, figureAt(figures, fact, COLUMN.costMicros));
    },
    finish: (): History['rows'] => ({
      count,
      termOf: shared(termOf, count),
      adGroupId: shared(adGroupId, count),
      clicks: shared(clicks, count),
      conversions: shared(conversions, count),
      costMicros: shared(costMicros, count),
      impressions: shared(impressions, count),
      days: shared(days, count),
      keywordId: shared(keywordId, count),
    }),
  };
}
