import { lockAccount, raiseDecisionVersion } from '../../repositories/account/accounts';
import { loadVerdictsOf, replaceVerdicts, type StoredVerdicts } from '../../repositories/decisions/verdicts';
import { findSavedView } from '../../repositories/decisions/saved-views';
import { appendLedger, findEntry, type LedgerEntry, type LedgerUndo } from '../../repositories/ledger';
import { setVersionWaiting } from '../../repositories/lists/list-versions';
import { setHangRuleException } from '../../repositories/lists/hang-rules';
import { setOutsideChangeStates } from '../../repositories/structure/outside-changes';
import { retireAccount, setFields } from '../account/change-settings';
import { setLookRules } from '../account/look-rules';
import { replaceTargets } from '../account/own-targets';
import { setRole } from '../account/people';
import { permitPerson } from '../account/permit';
import { changeTarget, removeTarget } from '../alerts/set-targets';
import { Refusal, type Deps } from '../deps';
import { dropHangRule, exceptFromRule, keepHangRule } from '../lists/rule-hangings';
import { setLanePlan } from '../lanes/set-lane-plan';
import { requireAccount } from '../open-workbench';
import { takeFindingsBack } from '../rules/decide-findings';
import { putVersionBack, setRuleStates } from '../rules/keep-rules';
import { putRuleSetsBack } from '../rules/rule-sets';
import { takeKnotBack } from '../untangle/knots/leave-knot';
import { tagWords, removeNote, removeView, saveView, writeNote } from '../sift/remember';
import { askForLoad } from '../intake/take-in';
import { askToTakeBack } from '../intake/take-back-load';

/**
 * Takes back what an entry of the ledger tells of. The entry itself holds the way back. The undo becomes an entry of
 * its own.
 * @throws Refusal when it was taken back already, or can not be; nothing was changed then
 */
export async function undoEntry(
  deps: Deps,
  slug: string,
  personId: number,
  entryId: number,
): Promise<{ said: string }> {
  const account = await requireAccount(deps, slug);
  const entry = await findEntry(deps.db, account.id, entryId);
  if (!entry?.undo) throw new Refusal('This entry is not one that can be undone here.', 404);
  if (entry.isUndone) throw new Refusal('This was undone already.', 409);
  if (OF_OWNERS.includes(entry.undo.do)) await permitPerson(deps, slug, personId, 'own');
  await undo(deps, slug, personId, { ...entry, undo: entry.undo });
  return { said: `Undone: ${entry.what}` };
}

/** What only an owner sets, only an owner takes back. */
const OF_OWNERS: readonly LedgerUndo['do'][] = [
  'set',
  'set targets',
  'retire account',
  'set role',
  'set look rules',
];

type Undoable = LedgerEntry & { undo: LedgerUndo };

async function undo(deps: Deps, slug: string, personId: number, entry: Undoable): Promise<unknown> {
  const { id: undoes, undo: how } = entry;
  switch (how.do) {
    case 'set verdicts':
      return putVerdictsBack(deps, slug, personId, entry, how);
    case 'take back load':
      return askToTakeBack(deps, slug, how.file, personId, undoes);
    case 'load again':
      return askForLoad(deps, slug, how.file, null, { personId, undoes });
    case 'let version wait':
      return letWait(deps, slug, personId, entry, (trx, id) => setVersionWaiting(trx, id, how.version));
    case 'let outside change wait':
      return letWait(
        deps,
        slug,
        personId,
        entry,
        async (trx, id) => (await setOutsideChangeStates(trx, id, [how.change], 'taken over', 'waits')) > 0,
      );
    case 'drop rule':
      return dropHangRule(deps, slug, personId, how.rule, undoes);
    case 'keep rule': {
      const { id } = await requireAccount(deps, slug);
      const ruleId = await keepHangRule(deps, slug, personId, how, undoes);
      for (const campaignId of how.except)
        await setHangRuleException(deps.db, id, { ruleId, campaignId, isOut: true });
      return;
    }
    case 'except from rule':
      return exceptFromRule(deps, slug, personId, how.rule, how, undoes);
    case 'tag words':
      return tagWords(deps, slug, personId, how, undoes);
    case 'write note':
      return writeNote(deps, slug, personId, how, undoes);
    case 'remove note':
      return removeNote(deps, slug, personId, how.note, undoes);
    case 'save view':
      return saveViewAgain(deps, slug, personId, undoes, how);
    case 'remove view':
      return removeView(deps, slug, personId, how.name, undoes);
    case 'set':
      return setFields(deps, slug, personId, how.fields, undoes);
    case 'set targets':
      return replaceTargets(deps, slug, personId, how.targets, { undoes });
    case 'take knot back':
      return takeKnotBack(deps, slug, personId, { kind: how.kind ?? 'conflict', key: how.key }, undoes);
    case 'retire account':
      return retireAccount(deps, slug, personId, how.isRetired, undoes);
    case 'set role':
      return setRole(deps, slug, personId, { ...how, undoes });
    case 'set look rules':
      return setLookRules(deps, slug, personId, how.rules, undoes);
    case 'set rule states':
      return setRuleStates(deps, slug, personId, how.rules, undoes);
    case 'set alert target':
      return removeTarget(deps, slug, personId, { id: how.target, isRemoved: how.isRemoved }, undoes);
    case 'change alert target':
      return changeTarget(deps, slug, personId, how.target, how.to, undoes);
    case 'set rule sets':
      return putRuleSetsBack(deps, slug, personId, how.sets, undoes);
    case 'set lane plan':
      return setLanePlan(deps, slug, personId, how, undoes);
    case 'put rule version back':
      return putVersionBack(deps, slug, personId, how, undoes);
    case 'decide findings':
      return takeFindingsBack(deps, slug, personId, how.findings, undoes);
  }
}

/** Saves a view as it was, unless another person has changed it since. */
async function saveViewAgain(
  deps: Deps,
  slug: string,
  personId: number,
  undoes: number,
  { name, search, left }: Extract<LedgerUndo, { do: 'save view' }>,
): Promise<void> {
  const { id } = await requireAccount(deps, slug);
  const there = await findSavedView(deps.db, id, name);
  if ((there?.search ?? null) !== left)
    throw new Refusal(`The view ${name} was saved otherwise since, so nothing was changed.`, 409);
  await saveView(deps, slug, personId, { name, search, replaces: there?.at ?? null }, undoes);
}

/** Puts verdicts back where nobody has decided otherwise since. */
async function putVerdictsBack(
  deps: Deps,
  slug: string,
  personId: number,
  { id: undoes, what }: LedgerEntry,
  { keys, left, kept, aside }: Extract<LedgerUndo, { do: 'set verdicts' }>,
): Promise<void> {
  const { id } = await requireAccount(deps, slug);
  await deps.db.transaction(async (trx) => {
    await lockAccount(trx, id);
    const now = await loadVerdictsOf(trx, id, keys);
    const isKept = new Set(now.kept.map(({ key }) => key));
    const isAside = new Set(now.aside.map(({ key }) => key));
    const is = (key: string) => (isKept.has(key) ? 'kept' : isAside.has(key) ? 'aside' : 'open');
    const same = new Set(keys.filter((key) => is(key) === left));
    if (same.size === 0)
      throw new Refusal(
        'It has been decided otherwise since, so nothing was changed. Decide it in Sift.',
        409,
      );
    const isSame = ({ key }: { key: string }) => same.has(key);
    const back = { kept: kept.filter(isSame), aside: aside.filter(isSame) };
    await replaceVerdicts(trx, id, [...same], back);
    const others = keys.length - same.size;
    const became = verdictOfAll(same.size, back);
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'keep', undoes },
      what: `Take back: ${what}`,
      why: others > 0 ? `${others} of them were decided otherwise since, and stay so` : null,
      ...(became && {
        undo: {
          ...{ do: 'set verdicts', keys: [...same], left: became },
          ...{ kept: now.kept.filter(isSame), aside: now.aside.filter(isSame) },
        },
      }),
    });
    await raiseDecisionVersion(trx, id);
  });
}

/** The verdict to which terms were put back, where it is the same for all of them. */
function verdictOfAll(terms: number, { kept, aside }: StoredVerdicts): 'kept' | 'aside' | 'open' | undefined {
  if (kept.length === terms) return 'kept';
  if (aside.length === terms) return 'aside';
  return kept.length + aside.length === 0 ? 'open' : undefined;
}

/** Lets what was taken over wait again. */
async function letWait(
  deps: Deps,
  slug: string,
  personId: number,
  { id: undoes, what }: LedgerEntry,
  wait: (trx: Deps['db'], accountId: number) => Promise<boolean>,
): Promise<void> {
  const { id } = await requireAccount(deps, slug);
  await deps.db.transaction(async (trx) => {
    if (!(await wait(trx, id))) throw new Refusal('It waits already, or was undone.', 409);
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'change', what: `Take back: ${what}`, undoes },
    });
    await raiseDecisionVersion(trx, id);
  });
}
