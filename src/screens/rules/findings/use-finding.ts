'use client';

import { useRef, useState, type KeyboardEvent } from 'react';
import { toast } from 'sonner';
import { counted } from '@/core';
import type { Finding, FindingPile } from '@/contracts/findings';
import { useRoutes } from '@/screens/frame/data/routes';
import { useUndoable } from '@/screens/frame/data/refresh';
import { isPlain, useSingleKeys } from '@/screens/frame/keys/keys';
import { useMoney } from '@/screens/frame/money';
import { sayFailure, tellHeldBack, useTrayActions } from '@/screens/tray/use-tray';
import { conversionsOf, formatDays } from '@/ui/format';

/** What is done with the finding in hand, or with all that are marked. */
export function useFinding(
  line: Finding | undefined,
  marked: readonly Finding[],
  pile: FindingPile,
  unmark: () => void,
) {
  const { call } = useRoutes();
  const { draft } = useTrayActions();
  const undoable = useUndoable();
  const money = useMoney();
  const [single] = useSingleKeys();
  const [why, setWhy] = useState('');
  const [fault, setFault] = useState<string>();
  const reason = useRef<HTMLInputElement>(null);
  const lines = marked.length > 0 ? marked : line ? [line] : [];
  const what = lines.length === 1 ? `“${lines[0]!.term}”` : counted(lines.length, 'finding');

  /** What a rule saw, in words. */
  const say = (one: Finding) =>
    `${counted(one.clicks ?? 0, 'click')}, ${money(one.costMicros)}, ${conversionsOf(one)} in ${formatDays(one)}`;

  async function accept() {
    const changes = lines.flatMap((one) =>
      one.changes.map((change) => ({
        ...{ change, from: one.term },
        why: `the rule “${one.rule}”: ${say(one)}`,
      })),
    );
    if (changes.length === 0) {
      toast(
        lines.length > 0
          ? 'There is nothing to put in the tray: look at the term in Sift.'
          : 'Nothing is in hand.',
      );
      return;
    }
    unmark();
    tellHeldBack(await draft(changes, { said: `stop ${what}` }));
  }

  async function decide(is: FindingPile, said: string, reasonGiven = ''): Promise<void> {
    if (lines.length === 0) return;
    const ids = lines.map(({ id }) => id);
    const before = lines[0]!.decided?.why ?? '';
    try {
      await call('PUT rules/findings', { body: { ids, is, why: reasonGiven } });
      unmark();
      await undoable(said, () => call('PUT rules/findings', { body: { ids, is: pile, why: before } }));
    } catch (failure) {
      sayFailure(failure);
    }
  }

  async function refuse() {
    if (why.trim().length < 3) {
      setFault('Give a reason: the rule keeps it.');
      reason.current?.focus();
      return;
    }
    setFault(undefined);
    await decide('refused', `${what} refused`, why.trim());
    setWhy('');
  }
  const later = () => decide('later', `${what} in a week`);
  const openAgain = () => decide('open', `${what} open again`);

  return {
    ...{ line, lines, say, accept, refuse, later, openAgain, why, setWhy, fault, reason, pile },
    onKey(event: KeyboardEvent): boolean {
      if (event.key === 'Enter') {
        void (pile === 'open' ? accept() : openAgain());
        return true;
      }
      if (!isPlain(event, single) || lines.length === 0) return false;
      if (event.key === 'x' && pile !== 'refused') {
        event.preventDefault();
        reason.current?.focus();
      } else if (event.key === 'l' && pile === 'open') void later();
      else if (event.key === 'o' && pile !== 'open') void openAgain();
      else return false;
      return true;
    },
  };
}
export type FindingChoice = ReturnType<typeof useFinding>;
