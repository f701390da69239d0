'use client';

import type { Rule } from '@/core';
import type { RuleLine, RuleState } from '@/contracts/rules';
import { useRoutes } from '@/screens/frame/data/routes';
import { useUndoable } from '@/screens/frame/data/refresh';
import { sayFailure } from '@/screens/tray/use-tray';

/** What is done with rules as a whole, each with its undo. */
export function useRuleActions() {
  const { call } = useRoutes();
  const undoable = useUndoable();

  /** Switches rules on or off, makes them drafts, or removes them, all together. */
  async function setStates(rules: { id: number; state: RuleState }[], said: string): Promise<void> {
    try {
      const { was } = await call('PUT rules/states', { body: { rules } });
      await undoable(said, () => call('PUT rules/states', { body: { rules: was } }));
    } catch (failure) {
      sayFailure(failure);
    }
  }

  /** @returns the id of the new rule; null where it was not kept */
  async function keep(
    name: string,
    rule: Rule,
    { state, why = '' }: { state: 'draft' | 'on' | 'ready'; why?: string },
  ): Promise<number | null> {
    try {
      const { ruleId, said } = await call('POST rules', { body: { name, rule, state, why } });
      await undoable(said, () =>
        call('PUT rules/states', { body: { rules: [{ id: ruleId, state: 'removed' }] } }),
      );
      return ruleId;
    } catch (failure) {
      sayFailure(failure);
      return null;
    }
  }

  /** Makes what was written the next version of a rule. */
  async function change(was: RuleLine, next: { name: string; rule: Rule; why: string }): Promise<void> {
    const params = { rule: was.id };
    try {
      const { version, said } = await call('PUT rules/[rule]', {
        params,
        body: { ...next, version: was.version },
      });
      await undoable(said, () =>
        call('PUT rules/[rule]', {
          params,
          body: { name: was.name, rule: was.rule, version, why: 'undone' },
        }),
      );
    } catch (failure) {
      sayFailure(failure);
    }
  }

  /** Brings the rules of a file, as drafts. */
  async function bring(file: File): Promise<void> {
    try {
      const text = await file.text();
      const { said, ruleIds, setsBefore } = await call('POST rules/file', { body: { text } });
      const rules = ruleIds.map((id) => ({ id, state: 'removed' as const }));
      await undoable(said, async () => {
        if (setsBefore) await call('PUT rules/sets', { body: { sets: setsBefore } });
        await call('PUT rules/states', { body: { rules } });
      });
    } catch (failure) {
      sayFailure(failure);
    }
  }

  return { setStates, keep, change, bring };
}
