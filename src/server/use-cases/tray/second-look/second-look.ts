import { subDays } from 'date-fns';
import { counted, formatAmount } from '@/core';
import { mayDo, type Member } from '@/contracts/roles';
import { NO_LIMITS, type SecondLook } from '@/contracts/second-look';
import { weighRows } from '../../../compute/workbench';
import { servingRows } from '../../../compute/serving';
import type { Db } from '../../../db/connection';
import { lockAccount, raiseDecisionVersion } from '../../../repositories/account/accounts';
import { listMembers } from '../../../repositories/account/members';
import { appendLedger } from '../../../repositories/ledger';
import type { StoredChange } from '../../../repositories/tray/changes';
import {
  countSentSince,
  endLook,
  findLook,
  insertLook,
  listSeen,
  loadLookRules,
  setYes,
  type StoredLook,
} from '../../../repositories/tray/second-looks';
import { Refusal, type Deps } from '../../deps';
import { openWorkbench, requireAccount, type Open } from '../../open-workbench';
import { whyAsked, whyOver } from './asks';

/** Of how many days what somebody sent counts. */
const DAYS = 30;

/** What is known of a tray's second look before a person is asked about. */
type Known = {
  look: StoredLook | null;
  /** changes to which yes was said */
  seen: ReadonlySet<number>;
  members: Member[];
  rules: Awaited<ReturnType<typeof loadLookRules>>;
  sent: ReadonlyMap<number, number>;
};

async function loadKnown(deps: Deps, db: Db, { account, drafted }: Open): Promise<Known> {
  const look = drafted.length > 0 ? await findLook(db, account.id, drafted[0]!.setId) : null;
  return {
    look,
    seen: look?.yes ? await listSeen(db, account.id, look.id) : new Set(),
    members: await listMembers(db, account.id),
    rules: await loadLookRules(db, account.id),
    sent: await countSentSince(db, account.id, subDays(deps.clock.now(), DAYS)),
  };
}

/**
 * Why a person may not send changes without a second look.
 * @param changes those that are sent; what they stop is counted for the whole tray
 */
function asksOf({ rules, sent }: Known, open: Open, personId: number, changes: number): string[] {
  const { currency } = open.account;
  return whyAsked({
    ...{ account: rules.account, limits: rules.people.get(personId) ?? NO_LIMITS },
    ...{
      changes,
      costMicros: rules.account.costMicros === null ? 0 : costStopped(open),
      sentIn30Days: sent.get(personId) ?? 0,
    },
    money: (micros) => `${formatAmount(micros, currency)} ${currency}`,
  });
}

/** What the rows that the draft stops cost in the window, micro-units. */
const costStopped = ({ snapshot, draft }: Open) =>
  weighRows(snapshot, servingRows(snapshot, draft.stopped)).costMicros ?? 0;

/** Whether somebody said yes to every one of these changes, as they are now. */
const isSeen = ({ look, seen }: Known, changes: readonly StoredChange[]) =>
  look?.yes != null && changes.every(({ id }) => seen.has(id));

/**
 * Whether a person may say yes to so many changes: one who may send them by his or her own bounds, and another than who put
 * them up.
 */
const mayYes = ({ rules, sent }: Known, { id, role }: Member, changes: number, putUpBy: number) =>
  mayDo(role, 'send') &&
  id !== putUpBy &&
  whyOver(rules.people.get(id) ?? NO_LIMITS, changes, sent.get(id) ?? 0).length === 0;

/** What the tray waits for, as a person sees it. */
export async function viewSecondLook(deps: Deps, slug: string, personId: number): Promise<SecondLook> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const { drafted } = open;
  const known = await loadKnown(deps, deps.db, open);
  const { look, seen, members } = known;
  const asks = drafted.length > 0 ? asksOf(known, open, personId, drafted.length) : [];
  const may = members.filter((one) => mayYes(known, one, drafted.length, look?.putUpBy.id ?? personId));
  const told = ({ by, at }: { by: { id: number; name: string }; at: string }) => ({
    ...{ by: by.name, isMine: by.id === personId, at },
  });
  return {
    asks,
    up: look && {
      ...told({ by: look.putUpBy, at: look.putUpAt }),
      note: look.note,
      yes: look.yes && told(look.yes),
      unseen: look.yes ? drafted.flatMap(({ id }) => (seen.has(id) ? [] : [id])) : [],
    },
    isFree: asks.length === 0 || isSeen(known, drafted),
    mayYes: look !== null && may.some(({ id }) => id === personId),
    whoMay: may.map(({ name }) => name),
  };
}

/**
 * Refuses to send what nobody else has said yes to, where that is asked for.
 * @param changes those that are sent
 */
export async function requireSecondLook(
  deps: Deps,
  trx: Db,
  open: Open,
  personId: number,
  changes: readonly StoredChange[],
): Promise<void> {
  const known = await loadKnown(deps, trx, open);
  const [first] = asksOf(known, open, personId, changes.length);
  if (first === undefined || isSeen(known, changes)) return;
  const next =
    known.look?.yes != null
      ? 'Some of the changes came, or were changed, after the yes.'
      : known.look
        ? 'It is up for it, and nobody has said yes yet.'
        : 'Put the tray up for it first.';
  throw new Refusal(`Nothing was sent. This tray needs a second look: ${first}. ${next}`, 409);
}

/**
 * Puts the tray up for a second look, or up again: then nobody has said yes to it.
 * @throws Refusal when the tray is empty
 */
export async function putUp(deps: Deps, slug: string, personId: number, note: string): Promise<void> {
  await onTray(deps, slug, async (trx, { account, drafted }) => {
    const setId = drafted[0]!.setId;
    await endLook(trx, account.id, setId);
    await insertLook(trx, account.id, { setId, putUpBy: personId, note });
    await appendLedger(trx, account.id, {
      ...{ actor: { person: personId }, about: 'change', why: note || null },
      what: `Put the tray up for a second look: ${counted(drafted.length, 'change')}`,
    });
  });
}

/** @throws Refusal when the tray is not up */
export async function takeDown(deps: Deps, slug: string, personId: number): Promise<void> {
  await onTray(deps, slug, async (trx, { account, drafted }) => {
    const setId = drafted[0]!.setId;
    await requireLook(trx, account.id, setId);
    await endLook(trx, account.id, setId);
    await appendLedger(trx, account.id, {
      ...{ actor: { person: personId }, about: 'change', what: 'Take the tray down from its second look' },
    });
  });
}

/**
 * Says yes to changes of a tray that is up: it may be sent then, by whoever may send.
 * @param changes those that the person saw; what came meanwhile has no yes
 * @throws Refusal when the tray is not up, the person put it up, or may not send so much without a second look
 */
export async function sayYes(
  deps: Deps,
  slug: string,
  personId: number,
  changes: readonly number[],
): Promise<void> {
  await onTray(deps, slug, async (trx, open) => {
    const { account, drafted } = open;
    const look = await requireLook(trx, account.id, drafted[0]!.setId);
    const known = await loadKnown(deps, trx, open);
    const me = known.members.find(({ id }) => id === personId);
    if (look.putUpBy.id === personId)
      throw new Refusal(
        'You put this tray up, so another person has to look at it. Nothing was changed.',
        403,
      );
    if (!me || !mayYes(known, me, drafted.length, look.putUpBy.id))
      throw new Refusal(
        'You may not send so much without a second look yourself, so another person has to say yes. Nothing was changed.',
        403,
      );
    await setYes(trx, account.id, look.id, { by: personId, changes });
    await appendLedger(trx, account.id, {
      ...{ actor: { person: personId }, about: 'change' },
      what: `Yes to ${counted(changes.length, 'change')} of the tray that ${look.putUpBy.name} put up`,
    });
  });
}

/** @throws Refusal when nobody has said yes */
export async function takeYesBack(deps: Deps, slug: string, personId: number): Promise<void> {
  await onTray(deps, slug, async (trx, { account, drafted }) => {
    const look = await requireLook(trx, account.id, drafted[0]!.setId);
    if (!look.yes) throw new Refusal('Nobody has said yes to this tray. Nothing was changed.', 409);
    await setYes(trx, account.id, look.id, null);
    await appendLedger(trx, account.id, {
      ...{ actor: { person: personId }, about: 'change', what: 'Take the yes to the tray back' },
    });
  });
}

async function requireLook(trx: Db, accountId: number, setId: number): Promise<StoredLook> {
  const look = await findLook(trx, accountId, setId);
  if (!look) throw new Refusal('The tray is not up for a second look. Nothing was changed.', 409);
  return look;
}

/** Does something to a tray that is not empty, alone with its account. */
async function onTray(deps: Deps, slug: string, work: (trx: Db, open: Open) => Promise<void>): Promise<void> {
  const { id } = await requireAccount(deps, slug);
  await deps.db.transaction(async (trx) => {
    const account = await lockAccount(trx, id);
    const open = await openWorkbench(deps, account, undefined, trx);
    if (open.drafted.length === 0) throw new Refusal('The tray is empty. Nothing was changed.', 409);
    await work(trx, open);
    await raiseDecisionVersion(trx, id);
  });
}
