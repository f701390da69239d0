import type { ReactNode } from 'react';

/** What a cell holds when it is sorted, saved or copied; null where it is not known. */
export type Value = string | number | null;

/** How a row is drawn at the moment. */
export type RowState = {
  /** its text alone, without what can be clicked: it is scrolled past */
  isLight: boolean;
  isInHand: boolean;
  isMarked: boolean;
};

/**
 * A column of a data table.
 * @typeParam Row what a row shows
 * @typeParam Look what else the cells of a row are drawn by, compared field by field
 */
export type Column<Row, Look = undefined> = {
  id: string;
  /** what its head says */
  name: string;
  /** its name where there is more room: among the columns to choose from, and in a saved file */
  fullName?: string;
  /** what it means, where the name does not say it; shown at the head */
  explains?: string;
  /** width in px; the least, where it grows */
  px: number;
  /** its share of the room that is left; a column without one keeps its width */
  share?: number;
  /** left out while the table has no room for its least width */
  yields?: boolean;
  /** not shown until it is chosen */
  isOff?: boolean;
  /** text stands at the left, figures at the right */
  isText?: boolean;
  /** it can be sorted by */
  isSortable?: boolean;
  /** sorted by it first, the greatest come first: figures do, where nothing is said */
  isDownFirst?: boolean;
  /** px up to which it grows; where the table has more room, that stays free behind the last column */
  most?: number;
  /** for sorting, saving and copying; money in units of the currency */
  value: (row: Row) => Value;
  cell: (row: Row, look: Look, state: RowState) => ReactNode;
};

/** A column that belongs to every row, whatever it looks at. */
export type AnyColumn = Pick<
  Column<never>,
  | 'id'
  | 'name'
  | 'fullName'
  | 'explains'
  | 'px'
  | 'share'
  | 'yields'
  | 'isOff'
  | 'isText'
  | 'isSortable'
  | 'isDownFirst'
  | 'most'
>;

export const nameOf = ({ name, fullName }: Pick<AnyColumn, 'name' | 'fullName'>): string => fullName ?? name;
