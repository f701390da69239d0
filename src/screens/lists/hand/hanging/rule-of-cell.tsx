'use client';

import type { ListLine, ListsView } from '@/contracts/lists';
import { isRuled } from '@/core';
import { useRefresh, useUndoable } from '@/screens/frame/data/refresh';
import { doing } from '@/screens/frame/data/undo';
import { sayFailure } from '@/screens/tray/use-tray';
import { Button } from '@/ui/button';
import { useRoutes } from '@/screens/frame/data/routes';

/** The rules of a list that are about a campaign, or were until somebody left it out. */
export function RuleOfCell({
  view,
  list,
  campaignId,
}: {
  view: ListsView;
  list: ListLine;
  campaignId: string;
}) {
  const setOut = useRuleException();
  const at = view.campaigns.findIndex((c) => c.id === campaignId);
  const campaign = view.campaigns[at];
  if (!campaign) return null;
  return list.rules
    .filter(({ rule }) => isRuled(rule, campaign))
    .map(({ id, said, except }) => {
      const isOut = except.includes(at);
      return (
        <p key={id} className="mt-1 text-soft">
          {isOut ? 'Left out of the rule: ' : 'By rule it hangs on '}
          {said}.{' '}
          <Button tone="quiet" onClick={() => void setOut(id, campaignId, !isOut)}>
            {isOut ? 'Under the rule again' : 'Leave this campaign out'}
          </Button>
        </p>
      );
    });
}

function useRuleException() {
  const { call } = useRoutes();
  const undoable = useUndoable();
  const refresh = useRefresh();
  return async (ruleId: number, campaign: string, isOut: boolean) => {
    const set = (out: boolean) =>
      call('POST lists/rules/[rule]', { params: { rule: ruleId }, body: { campaign, isOut: out } });
    try {
      await doing(set(isOut));
      await undoable(isOut ? 'Left out of the rule' : 'Under the rule again', () => set(!isOut));
    } catch (error) {
      sayFailure(error);
      await refresh();
    }
  };
}
