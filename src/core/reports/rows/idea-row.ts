import { isMissing } from '../cells/numbers';
import type { IdeaRow } from '../reading';
import { checkText, Refused, type Cells } from './row-cells';

/** One keyword idea. */
export function readIdeaRow(cells: Cells, line: number): IdeaRow {
  const [text, competition] = [cells.text('keyword'), cells.text('competition')];
  if (isMissing(text)) throw new Refused('no search term', 'empty');
  checkText(text);
  checkText(competition);
  return {
    ...{ line, text },
    volume: cells.number('volume'),
    competition: isMissing(competition) ? null : competition,
    lowBidMicros: cells.micros('low bid'),
    highBidMicros: cells.micros('high bid'),
  };
}
