import * as v from 'valibot';
import {
  BatchAnswerSchema,
  BatchSchema,
  BatchVerdictSchema,
  KeptViewSchema,
  LookedAtSchema,
  LookedOutcomeSchema,
  NoteAboutSchema,
  NoteOutcomeSchema,
  NoteSchema,
  PullAnswerSchema,
  PullSchema,
  RemovedNoteSchema,
  SavedViewLineSchema,
  SavedViewOutcomeSchema,
  SavedViewSchema,
  SavedViewsSchema,
  SetVerdictSchema,
  VerdictOutcomeSchema,
  VerdictsOutcomeSchema,
  WordTagOutcomeSchema,
  WordTagSchema,
  WordTagsSchema,
} from '../decisions';
import {
  ChoiceAnswerSchema,
  ChoiceQuerySchema,
  KeywordsAnswerSchema,
  KeywordsQuerySchema,
  NotesSchema,
  TermDetailSchema,
  TermQuerySchema,
  VariantsAnswerSchema,
  NegativeQuerySchema,
} from '../hand';
import {
  FiltersSchema,
  PlotAnswerSchema,
  TermsPageSchema,
  TermsQuerySchema,
  ThemesAnswerSchema,
  UnseenAnswerSchema,
  WordsAnswerSchema,
  WordsQuerySchema,
} from '../sift';
import { DoneSchema } from '../common';
import { StoredSchema } from '../lists';
import { GivePassSchema, MentionSeenSchema, MentionsSchema } from '../mentions';
import { OutlookSchema } from '../outlook';
import { PassAnswerSchema, PassDraftSchema, PassQuerySchema } from '../pass';
import { DraftOutcomesSchema } from '../tray';
import { routesOf, SIFTING, STOPPING } from './route';

export const siftRoutes = routesOf({
  'GET sift/terms': {
    ...{ role: 'look', query: TermsQuerySchema, answer: TermsPageSchema },
    from: [...SIFTING, 'notes', 'pass'],
  },
  'GET sift/unseen': {
    ...{ role: 'look', query: TermsQuerySchema, answer: UnseenAnswerSchema, from: [...SIFTING, 'pass'] },
  },
  'GET sift/words': { role: 'look', query: WordsQuerySchema, answer: WordsAnswerSchema, from: SIFTING },
  'GET sift/themes': {
    ...{ role: 'look', query: FiltersSchema, answer: ThemesAnswerSchema, from: [...SIFTING, 'notes'] },
  },
  'GET sift/pass': { role: 'look', query: PassQuerySchema, answer: PassAnswerSchema, from: SIFTING },
  'POST sift/pass/draft': {
    ...{ role: 'prepare', body: PassDraftSchema, answer: DraftOutcomesSchema, changes: ['draft', 'ledger'] },
  },
  'GET sift/plot': { role: 'look', query: FiltersSchema, answer: PlotAnswerSchema, from: SIFTING },
  'GET sift/term': {
    ...{ role: 'look', query: TermQuerySchema, answer: TermDetailSchema, from: [...SIFTING, 'notes'] },
  },
  'GET sift/choice': {
    ...{ role: 'look', query: ChoiceQuerySchema, answer: ChoiceAnswerSchema, from: SIFTING },
  },
  'GET sift/keywords': {
    ...{ role: 'look', query: KeywordsQuerySchema, answer: KeywordsAnswerSchema },
    from: ['facts', 'structure', 'settings'],
  },
  'GET sift/variants': {
    ...{ role: 'look', query: NegativeQuerySchema, answer: VariantsAnswerSchema, from: STOPPING },
  },
  /** what a negative is likely to bring, and where its queries go */
  'GET sift/outlook': {
    ...{ role: 'look', query: NegativeQuerySchema, answer: OutlookSchema, from: STOPPING },
  },
  'GET sift/pull': { role: 'look', query: PullSchema, answer: PullAnswerSchema, from: SIFTING },
  'POST sift/looked': {
    ...{ role: 'prepare', body: LookedAtSchema, answer: LookedOutcomeSchema, changes: ['pass'] },
  },
  /** asks only: what is marked can be too much for an address */
  'POST sift/batch': { role: 'look', body: BatchSchema, answer: BatchAnswerSchema, from: SIFTING },
  'POST sift/batch/draft': {
    ...{ role: 'prepare', body: BatchSchema, answer: DraftOutcomesSchema, changes: ['draft', 'ledger'] },
  },
  'POST sift/batch/verdict': {
    ...{ role: 'prepare', body: BatchVerdictSchema, answer: VerdictsOutcomeSchema },
    changes: ['verdicts', 'ledger'],
  },
  'GET verdict': { role: 'look', answer: KeptViewSchema, from: ['verdicts', 'facts', 'settings'] },
  'POST verdict': {
    ...{ role: 'prepare', body: SetVerdictSchema, answer: VerdictOutcomeSchema },
    changes: ['verdicts', 'ledger'],
  },
  /** what who asks is told by others */
  'GET mentions': { role: 'look', answer: MentionsSchema, from: ['notes', 'draft', 'pass', 'people'] },
  'POST mentions/[mention]/seen': { role: 'look', body: MentionSeenSchema, answer: DoneSchema, changes: [] },
  /** the rest of the pass is another person's */
  'POST pass/holder': {
    ...{ role: 'prepare', body: GivePassSchema, answer: StoredSchema, changes: ['pass', 'ledger'] },
  },
  'DELETE pass/holder/[mention]': { role: 'prepare', answer: DoneSchema, changes: ['pass', 'ledger'] },
  'GET notes': { role: 'look', query: NoteAboutSchema, answer: NotesSchema, from: ['notes'] },
  'POST notes': {
    ...{ role: 'prepare', body: NoteSchema, answer: NoteOutcomeSchema, changes: ['notes', 'ledger'] },
  },
  'DELETE notes/[note]': { role: 'prepare', answer: RemovedNoteSchema, changes: ['notes', 'ledger'] },
  'GET views': { role: 'look', answer: SavedViewsSchema, from: ['views'] },
  'POST views': {
    ...{ role: 'prepare', body: SavedViewSchema, answer: SavedViewOutcomeSchema },
    changes: ['views', 'ledger'],
  },
  'DELETE views': {
    ...{
      role: 'prepare',
      query: v.object({ name: v.optional(v.string(), '') }),
      answer: SavedViewLineSchema,
    },
    changes: ['views', 'ledger'],
  },
  'GET words': { role: 'look', answer: WordTagsSchema, from: ['tags'] },
  'POST words': {
    ...{ role: 'prepare', body: WordTagSchema, answer: WordTagOutcomeSchema },
    changes: ['tags', 'ledger'],
  },
});
