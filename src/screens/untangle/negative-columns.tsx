import type { NeedlessLine } from '@/contracts/untangle';
import { MatchChip } from '@/ui/match-chip';
import type { Column } from '@/ui/table/column';

type Row = { negative: NeedlessLine['negative'] };

/** A negative, and where it stands: the first columns of every table of negatives. */
export const NEGATIVE_COLUMNS: readonly Column<Row>[] = [
  {
    ...{ id: 'negative', name: 'negative', px: 140, share: 1, isText: true, isSortable: true },
    value: ({ negative }) => `${negative.text} (${negative.match})`,
    cell: ({ negative }) => (
      <>
        <b>{negative.text}</b> <MatchChip match={negative.match} />
      </>
    ),
  },
  {
    ...{ id: 'where', name: 'where it stands', px: 140, share: 1, isText: true, isSortable: true },
    value: ({ negative }) => negative.placeName,
    cell: ({ negative }) => <span className="text-soft">{negative.placeName}</span>,
  },
];
