import {
  DecideFindingsSchema,
  FindingsQuerySchema,
  FindingsViewSchema,
  GiveVerdictsSchema,
  RuleActsSchema,
} from '../findings';
import {
  BringRulesSchema,
  BroughtRulesSchema,
  NewRuleSchema,
  NextVersionSchema,
  RuleFileQuerySchema,
  RuleSavedSchema,
  RuleSetsSchema,
  RuleStatesSaidSchema,
  RuleStatesSchema,
  RulesViewSchema,
  RuleVersionsViewSchema,
  TrialViewSchema,
  TryRuleSchema,
} from '../rules';
import { SaidSchema } from '../common';
import { routesOf, SIFTING } from './route';

export const ruleRoutes = routesOf({
  'GET rules': {
    ...{ role: 'look', answer: RulesViewSchema, from: ['findings', ...SIFTING] },
  },
  'POST rules': {
    ...{ role: 'prepare', body: NewRuleSchema, answer: RuleSavedSchema, changes: ['findings', 'ledger'] },
  },
  'GET rules/file': { role: 'look', query: RuleFileQuerySchema, answer: 'file' },
  /** all of a file, as drafts, or none of it */
  'POST rules/file': {
    ...{
      role: 'prepare',
      body: BringRulesSchema,
      answer: BroughtRulesSchema,
      changes: ['findings', 'ledger'],
    },
  },
  'PUT rules/states': {
    ...{ role: 'prepare', body: RuleStatesSchema, answer: RuleStatesSaidSchema },
    changes: ['findings', 'ledger'],
  },
  'PUT rules/sets': {
    ...{ role: 'prepare', body: RuleSetsSchema, answer: SaidSchema, changes: ['findings', 'ledger'] },
  },
  /** what a rule would have done on all days that are kept; nothing is written */
  'POST rules/trial': {
    ...{
      role: 'look',
      body: TryRuleSchema,
      answer: TrialViewSchema,
      from: ['findings', 'facts', 'structure', 'settings', 'research'],
    },
  },
  'GET rules/acts': {
    ...{ role: 'look', answer: RuleActsSchema },
    from: ['findings', 'draft', 'ledger', 'facts', 'structure', 'settings'],
  },
  'GET rules/findings': {
    ...{ role: 'look', query: FindingsQuerySchema, answer: FindingsViewSchema },
    from: ['findings', ...SIFTING],
  },
  'PUT rules/findings': {
    ...{ role: 'prepare', body: DecideFindingsSchema, answer: SaidSchema, changes: ['findings', 'ledger'] },
  },
  'PUT rules/findings/verdicts': {
    ...{ role: 'prepare', body: GiveVerdictsSchema, answer: SaidSchema, changes: ['verdicts', 'ledger'] },
  },
  'GET rules/[rule]': { role: 'look', answer: RuleVersionsViewSchema, from: ['findings'] },
  'PUT rules/[rule]': {
    ...{ role: 'prepare', body: NextVersionSchema, answer: RuleSavedSchema, changes: ['findings', 'ledger'] },
  },
});
