import { isMissing } from '../cells/numbers';
import type { Understanding } from '../columns/understand-columns';
import type { ReportRow } from '../reading';
import { checkText, Refused, type Cells } from './row-cells';
import { readMatch, readMarked } from './match-words';

/** One row of a search term report. */
export function readSearchTermRow(cells: Cells, line: number, how: Understanding): ReportRow {
  const term = cells.text('search term');
  const campaign = cells.text('campaign');
  const adGroup = cells.text('ad group');
  if (isMissing(term)) throw new Refused('no search term', 'empty');
  checkText(term);
  checkText(campaign);
  checkText(adGroup);
  checkText(cells.text('keyword'));
  const day = how.at.day === undefined ? how.period?.to : cells.day('day');
  if (day === undefined && how.at.day !== undefined) throw new Refused('bad day', 'day is empty');
  const { keyword, match } = readKeyword(cells, how);
  // Written out: a million of these are made, and a spread is slow.
  return {
    line,
    term,
    campaign,
    adGroup,
    keyword,
    match,
    day: day ?? '',
    impressions: cells.number('impressions'),
    clicks: cells.number('clicks'),
    costMicros: cells.micros('cost'),
    conversions: cells.number('conversions'),
    valueMicros: cells.micros('value'),
  };
}

/** The keyword and its match type; the marks [exact] and "phrase" around a keyword tell its type where no cell does. */
function readKeyword(cells: Cells, { at }: Understanding): Pick<ReportRow, 'keyword' | 'match'> {
  const text = cells.text('keyword');
  const said = readMatch(cells.text('match type'));
  const { text: bare, match: marked } = readMarked(text);
  const keyword = isMissing(text) ? null : bare;
  const isAutomatic = keyword === null && at.keyword !== undefined; // a report without the column says nothing of it
  return { keyword, match: isAutomatic ? 'automatic' : (said ?? marked) };
}
