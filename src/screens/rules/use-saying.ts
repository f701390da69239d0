'use client';

import { useMemo } from 'react';
import type { RulesView } from '@/contracts/rules';
import { useMoney } from '@/screens/frame/money';
import type { Saying } from './say-rule';

/** Names and amounts for the sentences of an account. */
export function useSaying(view: Pick<RulesView, 'campaigns' | 'lists'> | undefined): Saying {
  const money = useMoney();
  return useMemo(() => {
    const names = (all: readonly { id: string; name: string }[] = []) =>
      new Map(all.map(({ id, name }) => [id, name]));
    const [campaigns, lists] = [names(view?.campaigns), names(view?.lists)];
    return {
      money,
      campaign: (id) => campaigns.get(id) ?? 'a campaign that is gone',
      list: (id) => lists.get(id) ?? 'that is gone',
    };
  }, [view, money]);
}
