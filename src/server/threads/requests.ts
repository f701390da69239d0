import { countOpen } from '../use-cases/account/count-open';
import { findCodes } from '../use-cases/account/view-account';
import { checkGate } from '../use-cases/gate/check-gate';
import type { Deps, Refusal } from '../use-cases/deps';
import { checkTray } from '../use-cases/tray/check-tray';
import { draftChanges, removeFromTray } from '../use-cases/tray/draft-changes';
import { undoOutside } from '../use-cases/tray/elsewhere/settle-outside';
import { sayDone, takeBackToDraft, unsayDone } from '../use-cases/tray/hand-over/say-done';
import { readResultSheet, storeResults, takeBackResults } from '../use-cases/tray/hand-over/results';
import { firstRowsOf, sheetOfSet } from '../use-cases/tray/hand-over/sheet-of-set';
import { putStandingBack, viewStanding } from '../use-cases/ledger/as-it-was';
import { undoEntry } from '../use-cases/ledger/undo-entry';
import { draftEdit, previewEdit } from '../use-cases/lists/edit-list';
import { viewHistory } from '../use-cases/lists/history';
import { writeListFile } from '../use-cases/lists/list-files';
import { exceptFromRule, keepHangRule } from '../use-cases/lists/rule-hangings';
import {
  compareLists,
  viewAccountWide,
  viewCouldBe,
  viewEntries,
  viewEntriesHealth,
  viewThemesOfList,
} from '../use-cases/lists/view-entries';
import { viewLists, viewListsHealth } from '../use-cases/lists/view-lists';
import { viewListsBeside } from '../use-cases/lists/view-beside';
import { viewCellBefore, weighCell, weighHangings } from '../use-cases/lists/weigh-hangings';
import { foreseeChoice } from '../use-cases/outlook/foresee-choice';
import { foreseeTray } from '../use-cases/outlook/foresee-tray';
import { offerVariants } from '../use-cases/sift/offer-variants';
import { sendTray } from '../use-cases/tray/send-tray';
import {
  putUp,
  sayYes,
  takeDown,
  takeYesBack,
  viewSecondLook,
} from '../use-cases/tray/second-look/second-look';
import { findUnseen, listTerms, listThemes, listWords, plotView } from '../use-cases/sift/sift-terms';
import { draftBatch, setVerdicts, weighBatch } from '../use-cases/sift/batch';
import { draftPass } from '../use-cases/sift/pass/draft-pass';
import { viewPass } from '../use-cases/sift/pass/view-pass';
import { pullOut } from '../use-cases/sift/pull-out';
import { viewKeywords, viewTerm } from '../use-cases/sift/view-term';
import { viewSavedOfChange, viewSavedSoFar } from '../use-cases/ledger/saved/view-saved';
import { undoSent, undoTogether } from '../use-cases/ledger/undo-sent';
import { viewLedger } from '../use-cases/ledger/view-ledger';
import { traySheet, viewTray } from '../use-cases/tray/view-tray';
import { forClientSheet, viewForClient } from '../use-cases/today/for-client';
import { viewEnding } from '../use-cases/today/view-ending';
import { viewSavedOfToday } from '../use-cases/today/view-saved';
import { lookAtToday } from '../use-cases/today/what-is-new';
import { viewNext } from '../use-cases/today/what-next';
import { viewRegrets } from '../use-cases/today/regrets';
import { checkKeywords } from '../use-cases/research/check-keywords';
import { viewCandidates } from '../use-cases/research/candidates';
import { decideIdeas } from '../use-cases/research/decide-ideas';
import { gather } from '../use-cases/research/gather/gather';
import { viewGroups } from '../use-cases/research/groups';
import { viewLocations } from '../use-cases/research/locations';
import { viewHolding, viewRemainders } from '../use-cases/research/view-remainders';
import { weighNegatives } from '../use-cases/research/weigh-negatives';
import { viewSheet } from '../use-cases/research/view-sheet';
import { readDuplicateSheet, writeDuplicateSheet } from '../use-cases/untangle/duplicates/duplicate-sheet';
import { viewDuplicates, viewHandOver } from '../use-cases/untangle/duplicates/view-duplicates';
import { draftPromotions, planPromotions } from '../use-cases/promotion/plan-promotions';
import { viewOwnKeywords } from '../use-cases/promotion/own-keywords';
import { makeSeats, setSeat } from '../use-cases/promotion/seats';
import { writePromotionSheet } from '../use-cases/promotion/promotion-sheet';
import { viewPromotions } from '../use-cases/promotion/view-promotions';
import { viewLanes } from '../use-cases/lanes/view-lanes';
import { whereWouldItGo } from '../use-cases/lanes/where-would-it-go';
import { viewFindings } from '../use-cases/rules/findings';
import { tryRule } from '../use-cases/rules/try-rule';
import { viewActs } from '../use-cases/rules/promises';
import { viewRules } from '../use-cases/rules/view-rules';
import { viewOverlaps, viewSeatings } from '../use-cases/untangle/overlaps/view-overlaps';
import { leaveKnot } from '../use-cases/untangle/knots/leave-knot';
import { lookAtKnots } from '../use-cases/untangle/knots/look-at-knots';
import { viewSmallerSet, viewSmallerSets } from '../use-cases/untangle/smaller/view-smaller-sets';
import { viewConflicts } from '../use-cases/untangle/view-conflicts';
import { viewMends } from '../use-cases/untangle/view-mends';
import { viewMisspelt } from '../use-cases/untangle/view-misspelt';
import { viewNeedless } from '../use-cases/untangle/view-needless';
import { warmUp } from '../use-cases/warm-up';
import { weighChoice } from '../use-cases/sift/weigh-choice';

/** The use-cases that need an account's window in memory: they are answered in a worker thread. */
export const REQUESTS = {
  ...{
    listTerms,
    listWords,
    listThemes,
    plotView,
    findUnseen,
    viewPass,
    viewTerm,
    viewKeywords,
    weighBatch,
    pullOut,
    weighChoice,
    offerVariants,
    foreseeChoice,
    foreseeTray,
    countOpen,
    viewTray,
    checkTray,
    traySheet,
    ...{
      viewLists,
      viewListsHealth,
      viewListsBeside,
      weighCell,
      viewCellBefore,
      weighHangings,
      previewEdit,
      viewHistory,
      writeListFile,
    },
    ...{ viewEntries, viewEntriesHealth, compareLists, viewThemesOfList, viewCouldBe, viewAccountWide },
    checkGate,
    ...{ viewStanding, viewLedger, viewSavedSoFar, viewSavedOfChange },
    ...{ viewForClient, forClientSheet },
    ...{ viewEnding, viewSavedOfToday, viewNext, lookAtToday, viewRegrets },
    ...{ sheetOfSet, firstRowsOf, readResultSheet },
    ...{
      viewSheet,
      viewRemainders,
      viewHolding,
      weighNegatives,
      viewGroups,
      viewCandidates,
      viewLocations,
      checkKeywords,
    },
    ...{ viewConflicts, viewMends, viewNeedless, viewMisspelt },
    ...{ viewOverlaps, viewSeatings, viewSmallerSets, viewSmallerSet },
    ...{ viewDuplicates, viewHandOver, writeDuplicateSheet, readDuplicateSheet },
    ...{ viewLanes, whereWouldItGo },
    ...{ viewPromotions, viewOwnKeywords, planPromotions, writePromotionSheet },
    ...{ viewRules, viewFindings, viewActs, tryRule },
    findCodes,
    warmUp,
  },
  ...{
    draftChanges,
    removeFromTray,
    sendTray,
    ...{ viewSecondLook, putUp, takeDown, sayYes, takeYesBack },
    undoSent,
    undoTogether,
    putStandingBack,
    draftBatch,
    draftPass,
    setVerdicts,
  },
  ...{ draftEdit, keepHangRule, exceptFromRule, gather, decideIdeas, leaveKnot, lookAtKnots },
  ...{ draftPromotions, setSeat, makeSeats },
  ...{ sayDone, unsayDone, storeResults, takeBackResults, takeBackToDraft, undoEntry, undoOutside },
};

/** Those that change something are not asked again when a thread dies over them. */
export const WRITES: ReadonlySet<RequestName> = new Set([
  'draftChanges',
  'removeFromTray',
  'sendTray',
  'undoSent',
  'undoTogether',
  'putStandingBack',
  'draftBatch',
  'draftPass',
  'setVerdicts',
  'draftEdit',
  'keepHangRule',
  'exceptFromRule',
  'gather',
  'leaveKnot',
  'lookAtKnots',
  'decideIdeas',
  'draftPromotions',
  'setSeat',
  'makeSeats',
  'sayDone',
  'storeResults',
  'takeBackResults',
  'unsayDone',
  'takeBackToDraft',
  'undoEntry',
  'undoOutside',
] as const);

export type RequestName = keyof typeof REQUESTS;
type Work<Q extends RequestName> = (typeof REQUESTS)[Q];
/** What a request takes after the deps. */
export type ArgsOf<Q extends RequestName> =
  Work<Q> extends (deps: Deps, ...args: infer Args) => unknown ? Args : never;
export type AnswerOf<Q extends RequestName> = Awaited<ReturnType<Work<Q>>>;

/** What crosses to a worker thread, and back. */
export type Task = {
  name: RequestName;
  args: unknown[];
  /** shared: its first number is 1 once the request is taken back, which a thread sees that hears nothing while it computes */
  takenBack: Int32Array;
};
export type Outcome =
  { ok: true; answer: unknown } | { ok: false; refusal: { message: string; status: Refusal['status'] } };
