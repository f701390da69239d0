import { DoneSchema } from '../common';
import { CandidatesQuerySchema, CandidatesViewSchema } from '../candidates';
import { SourceFaultsSchema } from '../ideas';
import {
  GroupsQuerySchema,
  GroupsViewSchema,
  MovedSchema,
  MovesSchema,
  NewKeywordsSchema,
  StoppedKeywordsSchema,
} from '../groups';
import { LocationsViewSchema, SaidLocationSchema, SayLocationSchema } from '../locations';
import { NewPackSchema, PackAddedSchema, PackQuerySchema, PacksViewSchema } from '../packs';
import {
  DecidedSchema,
  DecideIdeasSchema,
  GatheredSchema,
  GatherSchema,
  HoldingQuerySchema,
  HoldingSchema,
  IdeaSourceViewSchema,
  NewSheetSchema,
  RemaindersPageSchema,
  RemaindersQuerySchema,
  SheetChangeSchema,
  SheetMadeSchema,
  SheetsViewSchema,
  SheetViewSchema,
  SourceOutSchema,
  WeighedSchema,
  WeighSchema,
} from '../research';
import { routesOf, STOPPING } from './route';

export const researchRoutes = routesOf({
  'GET research': { role: 'look', answer: SheetsViewSchema, from: ['research'] },
  'POST research': {
    ...{ role: 'prepare', body: NewSheetSchema, answer: SheetMadeSchema, changes: ['research', 'ledger'] },
  },
  /** the locations and languages of the idea source */
  'GET research/source': { role: 'look', answer: IdeaSourceViewSchema, from: ['settings'] },
  /** what is to go wrong on the stand-in idea source */
  'GET research/source/faults': { role: 'look', answer: SourceFaultsSchema, from: ['faults'] },
  'PUT research/source/faults': {
    ...{ role: 'own', body: SourceFaultsSchema, answer: SourceFaultsSchema, changes: ['faults'] },
  },
  'GET research/[sheet]': { role: 'look', answer: SheetViewSchema, from: ['research'] },
  'PATCH research/[sheet]': {
    ...{ role: 'prepare', body: SheetChangeSchema, answer: DoneSchema, changes: ['research'] },
  },
  'DELETE research/[sheet]': { role: 'prepare', answer: DoneSchema, changes: ['research', 'ledger'] },
  /** takes a sheet back that was thrown away */
  'POST research/[sheet]/back': { role: 'prepare', answer: DoneSchema, changes: ['research', 'ledger'] },
  'PATCH research/[sheet]/sources': {
    ...{ role: 'prepare', body: SourceOutSchema, answer: DoneSchema, changes: ['research', 'ledger'] },
  },
  'POST research/[sheet]/gather': {
    ...{ role: 'prepare', body: GatherSchema, answer: GatheredSchema, changes: ['research', 'ledger'] },
  },
  'GET research/[sheet]/remainders': {
    ...{ role: 'look', query: RemaindersQuerySchema, answer: RemaindersPageSchema },
    from: [...STOPPING, 'research'],
  },
  'GET research/[sheet]/ideas': {
    ...{ role: 'look', query: HoldingQuerySchema, answer: HoldingSchema },
    from: [...STOPPING, 'research'],
  },
  /** asks only: what negatives would stop and hit */
  'POST research/[sheet]/weigh': {
    ...{
      role: 'look',
      body: WeighSchema,
      answer: WeighedSchema,
      from: [...STOPPING, 'verdicts', 'research'],
    },
  },
  /** ready negatives, and what each would stop and hit */
  'GET research/[sheet]/candidates': {
    ...{ role: 'look', query: CandidatesQuerySchema, answer: CandidatesViewSchema },
    from: [...STOPPING, 'verdicts', 'research'],
  },
  /** locations that are served, and those that open ideas of the sheet name */
  'GET research/[sheet]/locations': {
    ...{ role: 'look', answer: LocationsViewSchema, from: [...STOPPING, 'verdicts', 'research'] },
  },
  'POST research/locations': {
    ...{ role: 'prepare', body: SayLocationSchema, answer: SaidLocationSchema },
    changes: ['research', 'tags', 'verdicts', 'ledger'],
  },
  'GET research/packs': { role: 'look', answer: PacksViewSchema, from: ['research'] },
  'POST research/packs': {
    ...{ role: 'prepare', body: NewPackSchema, answer: PackAddedSchema, changes: ['research', 'ledger'] },
  },
  'DELETE research/packs': {
    ...{ role: 'prepare', body: PackQuerySchema, answer: DoneSchema, changes: ['research', 'ledger'] },
  },
  'GET research/packs/file': { role: 'look', query: PackQuerySchema, answer: 'file' },
  'GET research/[sheet]/groups': {
    ...{ role: 'look', query: GroupsQuerySchema, answer: GroupsViewSchema },
    from: [...STOPPING, 'research'],
  },
  /** asks only: which new keywords would be stopped where they are to stand */
  'POST research/check-keywords': {
    ...{ role: 'look', body: NewKeywordsSchema, answer: StoppedKeywordsSchema, from: [...STOPPING] },
  },
  /** puts ideas into groups: taking, naming, merging, parting and dropping groups are such moves */
  'POST research/[sheet]/groups': {
    ...{ role: 'prepare', body: MovesSchema, answer: MovedSchema, changes: ['research'] },
  },
  'POST research/[sheet]/decide': {
    ...{ role: 'prepare', body: DecideIdeasSchema, answer: DecidedSchema, changes: ['research'] },
  },
});
