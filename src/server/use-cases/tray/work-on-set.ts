import { counted } from '@/core';
import type { ChangesAnswer } from '@/contracts/platform';
import { findSet, noteRevision, setTrouble } from '../../repositories/tray/change-sets';
import {
  loadUnanswered,
  updateChanges,
  type ChangeUpdate,
  type StoredChange,
} from '../../repositories/tray/changes';
import {
  raiseDecisionVersion,
  requireAccountById,
  requirePlatform,
} from '../../repositories/account/accounts';
import { loadMirror } from '../../repositories/structure/structure';
import { OutsideTrouble } from '../../outside';
import type { Deps } from '../deps';
import { beginOrPutBack } from './begin-sending';
import { readBack } from './read-back';
import { putRestBack } from './stop-sending';
import { translateChanges } from './translate-changes';

/**
 * The changes in one request: few at first, so that progress is seen soon and a mistake can be stopped, then more, so that a
 * large tray takes few requests.
 */
const FIRST_BATCH = 50;
const MOST_IN_BATCH = 500;
/** After so many batches others have their turn: a small tray does not wait for a large one. */
const BATCHES_IN_A_TURN = 4;
/** A change that the platform puts off so often has failed. */
const MOST_ATTEMPTS = 6;

/**
 * Sends what of a set has no answer yet, in batches, then reads back and closes it. May be called again at any time,
 * after a fall too: what was answered is not sent again, and what was sent without an answer carries the same key.
 * What the platform is not ready for yet, the set says, and is worked on again after the time that the platform asks for.
 * @throws OutsideTrouble when the platform does not answer; the set says so and stays on its way
 */
export async function workOnSet(deps: Deps, accountId: number, setId: number): Promise<void> {
  const set = await findSet(deps.db, accountId, setId);
  if (set?.state !== 'sending') return; // closed by another process
  if (set.sendAt !== null && !(await beginOrPutBack(deps, accountId, set))) return;
  try {
    if (await sendSome(deps, accountId, setId)) await readBack(deps, accountId, setId);
    else await deps.enqueue(deps.db, { name: 'send-change-set', accountId, changeSetId: setId });
  } catch (error) {
    if (!(error instanceof OutsideTrouble)) throw error;
    const { kind, message, waitSeconds } = error;
    const isSoon = kind === 'not yet' && waitSeconds !== undefined;
    const next = isSoon
      ? `It goes on by itself after ${counted(waitSeconds, 'second')}.`
      : 'Nothing is lost: the changes wait here and are sent again.';
    await setTrouble(deps.db, accountId, setId, `${message} ${next}`);
    if (!isSoon) throw error;
    const at = new Date(deps.clock.now().getTime() + 1_000 * waitSeconds);
    await deps.enqueue(deps.db, { name: 'send-change-set', accountId, changeSetId: setId }, at);
  }
}

/** @returns whether all of the set has an answer, or the rest is in the tray again */
async function sendSome(deps: Deps, accountId: number, setId: number): Promise<boolean> {
  const account = await requireAccountById(deps.db, accountId);
  const mirror = await loadMirror(deps.db, accountId);
  let most = FIRST_BATCH;
  for (let batches = 0; batches < BATCHES_IN_A_TURN; batches++) {
    const set = await findSet(deps.db, accountId, setId);
    if (set?.isStopped) {
      await putRestBack(deps, accountId, set);
      return true;
    }
    const unanswered = await loadUnanswered(deps.db, accountId, setId, most);
    if (unanswered.length === 0) return true;
    const batch = await translateChanges(deps, accountId, mirror, unanswered);
    const answer = await deps.platform.change(requirePlatform(account), batch);
    await keepAnswers(deps, accountId, unanswered, answer);
    most = Math.min(2 * most, MOST_IN_BATCH);
  }
  return (await loadUnanswered(deps.db, accountId, setId, 1)).length === 0;
}

/** @throws OutsideTrouble when the platform put changes off, or answered for none */
async function keepAnswers(
  deps: Deps,
  accountId: number,
  asked: readonly StoredChange[],
  { answers, revision }: ChangesAnswer,
): Promise<void> {
  const setId = asked[0]!.setId;
  const byKey = new Map(asked.map((one) => [one.key, one]));
  const updates = answers.flatMap((answer): ChangeUpdate[] => {
    const stored = byKey.get(answer.key);
    if (!stored) return [];
    const { id, attempts } = stored;
    switch (answer.outcome) {
      case 'applied':
        return [{ id, state: 'applied', platformId: answer.id }];
      case 'refused':
        return [{ id, state: 'refused', answerCode: answer.code, answerText: answer.text }];
      case 'put off':
        return attempts + 1 < MOST_ATTEMPTS
          ? [{ id, attempts: attempts + 1 }]
          : [{ id, state: 'refused', answerCode: 'put off', answerText: sayPutOff(answer.text) }];
    }
  });
  await deps.db.transaction(async (trx) => {
    await updateChanges(trx, accountId, setId, updates);
    await noteRevision(trx, accountId, setId, revision);
    await setTrouble(trx, accountId, setId, null);
    await raiseDecisionVersion(trx, accountId); // what was refused is not on its way any more
  });
  if (answers.length === 0)
    throw new OutsideTrouble('no answer', 'The ad platform answered for none of the changes.');
  const putOff = updates.flatMap(({ state, attempts = 0 }) => (state === undefined ? [attempts] : []));
  if (putOff.length > 0)
    throw new OutsideTrouble(
      'not yet',
      `The ad platform put ${counted(putOff.length, 'change')} off.`,
      2 ** Math.max(...putOff),
    );
}

const sayPutOff = (text: string) =>
  `The platform put it off ${MOST_ATTEMPTS} times: ${text} Nothing is wrong with the change; send it again later.`;
