import type { Column } from '@/ui/table/column';

type OfTerm = { term: string; rule: string };

/** The search term, and the rule that found it. @param yields whether the rule makes room where the screen is narrow */
export const termAndRule = <Line extends OfTerm>(yields: boolean): readonly Column<Line>[] => [
  {
    ...{ id: 'term', name: 'search term', px: 150, share: 1.4, isText: true, isSortable: true },
    value: ({ term }) => term,
    cell: ({ term }) => <b>{term}</b>,
  },
  {
    ...{ id: 'rule', name: 'rule', px: 130, share: 1, isText: true, isSortable: true, yields },
    value: ({ rule }) => rule,
    cell: ({ rule }) => <span className="text-soft">{rule}</span>,
  },
];
