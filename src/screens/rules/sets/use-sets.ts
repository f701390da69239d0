'use client';

import type { RuleSet, RulesView, RuleState } from '@/contracts/rules';
import { useRoutes } from '@/screens/frame/data/routes';
import { useUndoable } from '@/screens/frame/data/refresh';
import { sayFailure } from '@/screens/tray/use-tray';
import { useRuleActions } from '../list/use-rule-actions';

/** What is done with sets of rules, each with its undo: all of them are kept together. */
export function useSets({ sets, rules }: Pick<RulesView, 'sets' | 'rules'>) {
  const { call } = useRoutes();
  const undoable = useUndoable();
  const { setStates } = useRuleActions();

  async function keep(next: RuleSet[], said: string): Promise<boolean> {
    try {
      await call('PUT rules/sets', { body: { sets: next } });
      await undoable(said, () => call('PUT rules/sets', { body: { sets } }));
      return true;
    } catch (failure) {
      sayFailure(failure);
      return false;
    }
  }

  return {
    /** A name that no set has. */
    freeName(): string {
      const names = new Set(sets.map(({ name }) => name));
      let number = sets.length + 1;
      while (names.has(`Set ${number}`)) number += 1;
      return `Set ${number}`;
    },
    make: (name: string) => keep([...sets, { name, where: null, rules: [] }], `${name} made`),
    change: (was: RuleSet, next: RuleSet, said: string) =>
      keep(
        // A rule is in one set: it leaves the one where it was.
        sets.map((set) => (set === was ? next : without(set, next.rules))),
        said,
      ),
    remove: (set: RuleSet) =>
      keep(
        sets.filter((one) => one !== set),
        `${set.name} removed; its rules are in no set`,
      ),
    /** Switches the rules of one set off, and those of the other on. */
    async swap(off: RuleSet, on: RuleSet): Promise<void> {
      const turned = (set: RuleSet, from: RuleState[], state: 'on' | 'off') =>
        rules
          .filter((rule) => set.rules.includes(rule.id) && from.includes(rule.state))
          .map(({ id }) => ({ id, state }));
      await setStates(
        [...turned(off, ['on'], 'off'), ...turned(on, ['off', 'draft'], 'on')],
        `${off.name} swapped for ${on.name}`,
      );
    },
  };
}

const without = (set: RuleSet, rules: readonly number[]): RuleSet => ({
  ...set,
  rules: set.rules.filter((id) => !rules.includes(id)),
});
