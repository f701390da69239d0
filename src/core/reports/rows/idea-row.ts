import { isMissing } from '../cells/numbers';
import type { IdeaRow } from '../reading';
import { checkText, Refused, type Cells } from './row-cells';

/** Reads keyword ideas, each by the cells of the row at hand. */
export function ideaReader(cells: Cells): (line: number) => IdeaRow {
  const keyword = cells.text('keyword');
  const competition = cells.name('competition', (cell) => (isMissing(cell) ? null : checkText(cell)));
  const volume = cells.volume();
  const [lowBid, highBid] = [cells.micros('low bid'), cells.micros('high bid')];
  return (line) => {
    const text = keyword();
    if (isMissing(text)) throw new Refused('no search term', 'empty');
    checkText(text);
    const searches = volume();
    return {
      ...{ line, text, volume: searches?.middle ?? null, competition: competition() },
      ...{ volumeFrom: searches?.from ?? null, volumeTo: searches?.to ?? null },
      ...{ lowBidMicros: lowBid(), highBidMicros: highBid() },
    };
  };
}
