import { expect } from 'vitest';
import * as v from 'valibot';
import type { Rule } from '@/core';
import { FindingsViewSchema, type Finding } from '@/contracts/findings';
import { RuleSchema } from '@/contracts/rule-sentence';
import { viewFindings } from '@/server/use-cases/rules/findings';
import { keepRule, setRuleStates } from '@/server/use-cases/rules/keep-rules';
import { runRules } from '@/server/use-cases/rules/run-rules';
import type { World } from './world';

/** The rules of a test world, and what they find while they are switched on. */
export function rulesOf(worldNow: () => World) {
  const at = () => [worldNow().deps, worldNow().slug] as const;
  const by = () => [...at(), worldNow().personId] as const;

  /** Findings that nobody decided. */
  async function findings(): Promise<Finding[]> {
    const view = await viewFindings(...at(), { pile: 'open' });
    expect(v.parse(FindingsViewSchema, view)).toEqual(view);
    return view.lines;
  }

  /** Works while a rule is switched on, after it looked; it is gone afterwards. Its name is “Rule to” with what it does. */
  async function whileOn<T>(rule: Rule, work: (ruleId: number) => Promise<T>): Promise<T> {
    expect(v.safeParse(RuleSchema, rule).success).toBe(true);
    const { ruleId } = await keepRule(...by(), { name: `Rule to ${rule.then.do}`, rule, state: 'on' });
    try {
      await runRules(worldNow().deps, worldNow().accountId);
      return await work(ruleId);
    } finally {
      await setRuleStates(...by(), [{ id: ruleId, state: 'removed' }]);
    }
  }

  /** What a rule finds, in the order of the alphabet. */
  const found = (rule: Rule): Promise<string[]> =>
    whileOn(rule, async () => (await findings()).map(({ term }) => term).sort());

  return { findings, whileOn, found };
}

/** Why a sentence is refused, all reasons together; empty where it makes sense. */
export const refusalOf = (rule: Rule): string =>
  (v.safeParse(RuleSchema, rule).issues ?? []).map(({ message }) => message).join(' ');
