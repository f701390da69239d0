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
  const what = whatOf(lines);

  /** What a rule saw, in words. */
  const say = (one: Finding) =>
    `${counted(one.clicks ?? 0, 'click')}, ${money(one.costMicros)}, ${conversionsOf(one)} in ${formatDays(one)}`;

  async function accept() {
    // Of many, those on which two rules differ wait for a look at each.
    const clear = lines.length > 1 ? lines.filter(({ against }) => against.length === 0) : lines;
    const changes = clear.flatMap((one) =>
      one.changes.map((change) => ({
        ...{ change, ...(isStopped(one) && one.about === 'terms' && { from: one.term }) },
        why: `the rule “${one.rule}”: ${say(one)}`,
      })),
    );
    const ids = clear.flatMap(({ id, verdict }) => (verdict === null ? [] : [id]));
    if (changes.length + ids.length === 0) {
      toast(
        clear.length < lines.length
          ? 'Rules differ on all of these: take them one by one.'
          : lines.length > 0
            ? 'There is nothing to put in the tray: look at the term in Sift.'
            : 'Nothing is in hand.',
      );
      return;
    }
    unmark();
    if (clear.length < lines.length)
      toast(`${counted(lines.length - clear.length, 'finding')} left on which rules differ.`);
    if (ids.length > 0) await giveVerdicts(ids);
    if (changes.length > 0)
      tellHeldBack(await draft(changes, { said: `${sayVerb(clear)} ${whatOf(clear)}` }));
  }

  /** At once: it never leaves Gate Post. */
  async function giveVerdicts(ids: number[]): Promise<void> {
    try {
      const { said } = await call('PUT rules/findings/verdicts', { body: { ids, is: 'given' } });
      await undoable(said, () => call('PUT rules/findings/verdicts', { body: { ids, is: 'taken back' } }));
    } catch (failure) {
      sayFailure(failure);
    }
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

const isStopped = ({ does }: Finding) => does === 'stop' || does === 'stop in list';

/** What a yes does with changes. */
const sayVerb = (lines: readonly Finding[]) =>
  lines.every((one) => isStopped(one) || one.changes.length === 0) ? 'stop' : 'change';

const whatOf = (lines: readonly Finding[]) =>
  lines.length === 1 ? `“${lines[0]!.term}”` : counted(lines.length, 'finding');
