import { isMissing } from '../cells/numbers';
import type { Understanding } from '../columns/understand-columns';
import { SHARED_ROLE, type KeywordRow, type ReadColumn } from '../reading';
import { readMarked, readMatch } from './match-words';
import { checkText, Refused, type Cells } from './row-cells';

/** Reads rows of a keyword report, each by the cells of the row at hand. */
export function keywordReader(cells: Cells, how: Understanding): (line: number) => KeywordRow {
  const keyword = cells.text('keyword');
  const [campaign, adGroup] = [cells.name('campaign', checkText), cells.name('ad group', checkText)];
  const match = cells.name('match type', readMatch);
  const day = how.at.day === undefined ? () => how.period?.to ?? '' : cells.day('day');
  const [impressions, clicks] = [cells.number('impressions'), cells.number('clicks')];
  const [cost, value, bid] = [cells.micros('cost'), cells.micros('value'), cells.micros('bid')];
  const [conversions, quality] = [cells.number('conversions'), cells.number('quality')];
  const share = cells.share('impression share');
  const otherConversions = cells.counts(how.columns.filter(isShared));
  return (line) => {
    const cell = keyword();
    if (isMissing(cell)) throw new Refused('no keyword', 'empty');
    const { text, match: marked } = readMarked(checkText(cell));
    const theDay = day();
    if (theDay === undefined) throw new Refused('bad day', 'day is empty');
    return {
      ...{ line, campaign: campaign(), adGroup: adGroup(), keyword: text, match: match() ?? marked },
      ...{ day: theDay, impressions: impressions(), clicks: clicks(), costMicros: cost() },
      ...{ conversions: conversions(), valueMicros: value(), bidMicros: bid() },
      ...{ impressionShare: share(), quality: quality(), otherConversions: otherConversions() },
    };
  };
}

function isShared(column: ReadColumn): column is ReadColumn & { role: typeof SHARED_ROLE } {
  return column.role === SHARED_ROLE;
}
