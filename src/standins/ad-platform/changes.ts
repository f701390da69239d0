import { createHash } from 'node:crypto';
import type { Knex } from 'knex';
import type { ChangeAnswer, PlatformChange } from '@/contracts/platform';
import { Refused } from '../http';
import { endDay } from './clock';
import { applyChange } from './kinds';
import { refuse, type AccountInWork, type Applied } from './kinds/kind';
import { loadStructure, putElement, requireAccount } from './store';

export type KeyedChange = { key: string; change: PlatformChange };

/** A key came again with another body: the caller is mistaken about one of them. */
export class KeyReused extends Refused {
  constructor(message: string) {
    super(409, message);
  }
}

/** How a batch comes in. */
export type Asking = {
  /** who asks; nobody is named for what comes by this interface */
  by?: string;
  /** what becomes of every third change, where that fault is on */
  third?: 'put off' | 'refused';
};

/**
 * Applies a batch in order, each change whole or refused with a reason; the others go on. A key that was answered
 * before gets the same answer again and nothing is done twice.
 * @throws KeyReused before anything is applied
 */
export async function applyChanges(
  db: Knex,
  accountId: string,
  batch: readonly KeyedChange[],
  { by, third }: Asking = {},
) {
  return db.transaction(async (trx) => {
    const account = (await requireAccount(trx, accountId, true))!;
    const revision = account.revision + 1;
    const known = await loadAnswers(trx, accountId, batch);
    await endDay(trx, account);
    const answers: ChangeAnswer[] = [];
    let nextId = account.next_id;
    const inWork: AccountInWork = {
      structure: await loadStructure(trx, accountId, 0),
      today: account.today,
      put: (kind, element) =>
        putElement(trx, { accountId, revision }, kind, {
          ...element,
          ...{ changedBy: by ?? null, changedAt: account.today },
        }),
      newId: (letter) => `${letter}${nextId++}`,
      resolve: async (id) => (id.startsWith('key:') ? madeBy(id.slice(4), answers, trx, accountId) : id),
    };
    for (const [i, { key, change }] of batch.entries()) {
      const isThird = third !== undefined && i % 3 === 2 && !known.has(key);
      if (isThird && third === 'put off') {
        answers.push({ key, outcome: 'put off', text: 'Too much is going on here at the moment.' });
        continue;
      }
      const answer = known.get(key) ?? toAnswer(key, isThird ? BY_POLICY : await applyChange(change, inWork));
      answers.push(answer);
      if (known.has(key)) continue;
      known.set(key, answer);
      await trx('applied_change').insert({
        account_id: accountId,
        key,
        digest: digestOf(change),
        answer: JSON.stringify(answer),
      });
    }
    await trx('account').where({ id: accountId }).update({ revision, next_id: nextId });
    return { revision, answers };
  });
}

const BY_POLICY = refuse('policy', 'This account may not change that at the moment.');

function toAnswer(key: string, applied: Applied): ChangeAnswer {
  if ('refused' in applied) return { key, outcome: 'refused', code: applied.refused, text: applied.text };
  return { key, outcome: 'applied', id: applied.id };
}

async function loadAnswers(trx: Knex, accountId: string, batch: readonly KeyedChange[]) {
  const rows: { key: string; digest: string; answer: ChangeAnswer }[] = await trx('applied_change')
    .where({ account_id: accountId })
    .whereIn(
      'key',
      batch.map(({ key }) => key),
    );
  const digests = new Map(rows.map((row) => [row.key, row.digest]));
  for (const { key, change } of batch) {
    const digest = digestOf(change);
    if ((digests.get(key) ?? digest) !== digest)
      throw new KeyReused(`key ${key} came before with another change`);
    digests.set(key, digest);
  }
  return new Map(rows.map((row) => [row.key, row.answer]));
}

function digestOf(change: PlatformChange): string {
  return createHash('sha256')
    .update(JSON.stringify(change, Object.keys(flat(change)).sort()))
    .digest('hex');
}

/** All property names of a change, nested ones too: the order in which they are written must not matter. */
function flat(value: object): Record<string, true> {
  return Object.fromEntries(
    Object.entries(value).flatMap(([name, inner]) => [
      [name, true],
      ...(inner !== null && typeof inner === 'object' ? Object.entries(flat(inner as object)) : []),
    ]),
  );
}

/** The id of the element that the change of a key made, in this batch or before. */
async function madeBy(key: string, answers: readonly ChangeAnswer[], trx: Knex, accountId: string) {
  const here = answers.find((answer) => answer.key === key);
  const answer =
    here ??
    (await trx('applied_change').where({ account_id: accountId, key }).first<{ answer: ChangeAnswer }>())
      ?.answer;
  return answer?.outcome === 'applied' ? answer.id : null;
}
