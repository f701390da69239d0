import { isMissing } from '../cells/numbers';
import type { Understanding } from '../columns/understand-columns';
import type { ReportRow } from '../reading';
import { checkText, Refused, type Cells } from './row-cells';
import { readMarked, readMatch } from './match-words';

/** Reads rows of a search term report, each by the cells of the row at hand. */
export function searchTermReader(cells: Cells, how: Understanding): (line: number) => ReportRow {
  const term = cells.text('search term');
  const campaign = cells.name('campaign', checkText);
  const adGroup = cells.name('ad group', checkText);
  const keyword = cells.name('keyword', readKeyword);
  const saidMatch = cells.name('match type', readMatch);
  const day = how.at.day === undefined ? () => how.period?.to ?? '' : cells.day('day');
  const [impressions, clicks] = [cells.number('impressions'), cells.number('clicks')];
  const [cost, conversions, value] = [
    cells.micros('cost'),
    cells.number('conversions'),
    cells.micros('value'),
  ];
  const saysKeywords = how.at.keyword !== undefined; // a report without the column says nothing of it

  return (line) => {
    const theTerm = term();
    if (isMissing(theTerm)) throw new Refused('no search term', 'empty');
    checkText(theTerm);
    const [ofCampaign, ofGroup, { text, marked }] = [campaign(), adGroup(), keyword()];
    const theDay = day();
    if (theDay === undefined) throw new Refused('bad day', 'day is empty');
    const said = saidMatch();
    // Written out: a million of these are made, and a spread is slow.
    return {
      line,
      term: theTerm,
      campaign: ofCampaign,
      adGroup: ofGroup,
      keyword: text,
      match: text === null && saysKeywords ? 'automatic' : (said ?? marked),
      day: theDay,
      impressions: impressions(),
      clicks: clicks(),
      costMicros: cost(),
      conversions: conversions(),
      valueMicros: value(),
    };
  };
}

/** A keyword; the marks [exact] and "phrase" around it tell its type where no cell does. */
function readKeyword(cell: string): { text: string | null; marked: ReportRow['match'] } {
  const { text, match } = readMarked(checkText(cell));
  return { text: isMissing(cell) ? null : text, marked: match };
}
