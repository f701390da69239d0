import type { Column } from '@/ui/table/column';

type OfTerm = { term: string; rule: string };

/** What a rule found, and the rule. @param name of the first column @param yields whether the rule makes room where the screen is narrow */
export const termAndRule = <Line extends OfTerm>(name: string, yields: boolean): readonly Column<Line>[] => [
  {
    ...{ id: 'term', name, px: 150, share: 1.4, isText: true, isSortable: true },
    value: ({ term }) => term,
    cell: ({ term }) => <b>{term}</b>,
  },
  {
    ...{ id: 'rule', name: 'rule', px: 130, share: 1, isText: true, isSortable: true, yields },
    value: ({ rule }) => rule,
    cell: ({ rule }) => <span className="text-soft">{rule}</span>,
  },
];
