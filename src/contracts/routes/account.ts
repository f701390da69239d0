import {
  AccountViewSchema,
  AddedAccountSchema,
  CodesAnswerSchema,
  ForgetSchema,
  NewAccountSchema,
  PatternQuerySchema,
  NewMemberSchema,
  PlatformAccountsAnswerSchema,
  RetireSchema,
  RoleRequestSchema,
  SettingsOutcomeSchema,
  SettingsSchema,
  TargetsSchema,
  OpenCountsSchema,
} from '../account';
import { AccountSummarySchema, DaysQuerySchema, DoneSchema, SaidSchema } from '../common';
import { PulseAnswerSchema } from '../decisions';
import { ExportsAnswerSchema, ExportSchema } from '../exports';
import { StoredSchema } from '../lists';
import { LookRulesSchema } from '../second-look';
import { WorkSchema } from '../work';
import { PARTS, routesOf, SIFTING } from './route';

export const accountRoutes = routesOf({
  'POST /accounts': { role: 'own', body: NewAccountSchema, answer: AddedAccountSchema },
  'GET pulse': { role: 'look', answer: PulseAnswerSchema },
  /** how far the requests are that take long */
  'GET work': { role: 'look', answer: WorkSchema },
  'GET open': {
    role: 'look',
    answer: OpenCountsSchema,
    from: [...SIFTING, 'files', 'elsewhere', 'knots', 'findings', 'ledger'],
  },
  'GET summary': {
    ...{ role: 'look', query: DaysQuerySchema, answer: AccountSummarySchema },
    from: ['facts', 'settings'],
  },
  'GET account': {
    ...{ role: 'look', answer: AccountViewSchema },
    from: ['settings', 'structure', 'facts', 'people'],
  },
  'PATCH account': { role: 'own', body: SettingsSchema, answer: SettingsOutcomeSchema, changes: PARTS },
  'GET account/codes': {
    ...{ role: 'look', query: PatternQuerySchema, answer: CodesAnswerSchema, from: ['facts'] },
  },
  'GET account/platform': {
    ...{ role: 'own', answer: PlatformAccountsAnswerSchema, from: ['settings', 'people'] },
  },
  'PUT account/retired': { role: 'own', body: RetireSchema, answer: DoneSchema, changes: PARTS },
  'PUT account/targets': {
    ...{ role: 'own', body: TargetsSchema, answer: SaidSchema, changes: ['settings', 'ledger'] },
  },
  'PUT account/second-look': {
    ...{ role: 'own', body: LookRulesSchema, answer: SaidSchema, changes: ['settings', 'people', 'ledger'] },
  },
  'POST people': {
    ...{ role: 'own', body: NewMemberSchema, answer: StoredSchema, changes: ['people', 'ledger'] },
  },
  /** files that were saved */
  'GET exports': { role: 'own', answer: ExportsAnswerSchema, from: ['people'] },
  /** notes that the browser made a file of what it shows */
  'POST exports': { role: 'look', body: ExportSchema, answer: DoneSchema, changes: [] },
  /** everything that is stored of a person */
  'GET people/[person]/data': { role: 'own', answer: 'file' },
  /** removes a person for good */
  'POST people/[person]/forget': {
    ...{ role: 'own', body: ForgetSchema, answer: DoneSchema, changes: PARTS },
  },
  'PUT people/[person]': {
    ...{ role: 'own', body: RoleRequestSchema, answer: DoneSchema, changes: ['people', 'ledger'] },
  },
});
