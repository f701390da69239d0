'use client';

import { useAccount } from '@/screens/frame/account-context';
import { useLineTable } from '@/screens/frame/line-table';
import type { PromotionLine, PromotionsView } from '@/contracts/promotion';
import { formatCount } from '@/ui/format';
import { DataTable } from '@/ui/table/data-table';
import { usePromoteUrl } from '../promote-url';
import { PlanInHand } from './plan-in-hand';
import { useTermColumns } from './term-columns';
import { keyOf, usePlan } from './use-plan';
import { WhichTerms } from './which-terms';

const NO_LINES: PromotionLine[] = [];

type Props = { view: PromotionsView | undefined; isStale: boolean };

/** Converting terms that are no exact keyword of their group yet, or lack another part. */
export function TermsView({ view, isStale }: Props) {
  const { steersBy } = useAccount().summary;
  const [{ pile }] = usePromoteUrl();
  const lines = view?.lines ?? NO_LINES;
  const columns = useTermColumns(view?.groups);
  const by = steersBy === 'ACoS' ? 'value' : 'conversions';
  const terms = useLineTable('promotions', columns, lines, {
    ...{ first: { by, isDown: true }, over: pile, keyOf },
  });
  const plan = usePlan(terms.line, terms.marked);
  return (
    <>
      <WhichTerms view={view} />
      <DataTable
        label="Terms to promote"
        {...terms.table}
        marks={terms.marks}
        onKey={plan.onKey}
        isStale={isStale}
        saveAs="terms to promote"
        keysHelp="Arrows move, Space marks; digits take a part of the plan out or put it in again, Enter puts the plan in the tray, x: not for this."
        empty={
          view && (
            <p>
              {pile === 'left'
                ? 'No term was said to be not for this.'
                : 'No converting term lacks a seat, as it is asked. Ask for fewer conversions, or for more days.'}
            </p>
          )
        }
      />
      {view && view.total > lines.length && (
        <p className="border-t border-line px-3 py-1 text-table text-soft">
          The first {formatCount(lines.length)} of {formatCount(view.total)}; narrow them down to see the
          others.
        </p>
      )}
      <PlanInHand plan={plan} groups={view?.groups} />
    </>
  );
}
