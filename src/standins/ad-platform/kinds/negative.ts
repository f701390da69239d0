import { checkNegative, normalise } from '@/core';
import type { Structure } from '@/contracts/platform';
import { STANDIN_LIMITS } from '../limits';
import {
  noonOf,
  placeExists,
  refuse,
  take,
  type AccountInWork,
  type ActionsFor,
  type PlatformChangeOf,
} from './kind';

type Kind = 'add negative' | 'remove negative';
type Negative = Structure['negatives'][number];
type Placed = Pick<Negative, 'text' | 'match' | 'place'>;

export const negativeActions: ActionsFor<Kind> = {
  async 'add negative'(change, account) {
    const wanted = await inPlace(change, account);
    if (!wanted) return NOT_MADE;
    const refusal = checkNegative(wanted, STANDIN_LIMITS);
    if (refusal) return refuse(refusal.code, refusal.message);
    const { text, match, place } = wanted;
    if (!placeExists(account, place))
      return refuse('no such place', 'The place of the negative is not there.');
    const { lists, negatives } = account.structure;
    const list = place.kind === 'list' && lists.find((l) => l.id === place.id);
    if (list && list.holds === 'placements')
      return refuse('no words here', `${list.name} holds placements, so no negative can stand in it.`);
    if (find(account, wanted)) return refuse('stands there', `“${text}” (${match}) stands there already.`);
    const isLimited = place.kind === 'account' || place.kind === 'list';
    const most = place.kind === 'account' ? STANDIN_LIMITS.accountNegatives : STANDIN_LIMITS.listNegatives;
    if (isLimited && entriesIn(account, place).length >= most)
      return refuse('too many negatives', `This place takes ${most} negatives, and holds as many.`);
    const negative: Negative = {
      ...{ id: account.newId('N'), text: normalise(text), match, place },
      ...{ createdAt: noonOf(account), status: 'live' },
    };
    negatives.push(negative);
    await account.put('negatives', negative);
    return { id: negative.id };
  },

  async 'remove negative'(change, account) {
    const wanted = await inPlace(change, account);
    if (!wanted) return NOT_MADE;
    const negative = find(account, wanted);
    if (!negative) return refuse('not there', `“${wanted.text}” (${wanted.match}) does not stand there.`);
    // Twins stand in one place for years; taking a negative away takes them all.
    for (let twin = find(account, wanted); twin; twin = find(account, wanted)) {
      take(account.structure.negatives, twin);
      await account.put('negatives', { ...twin, status: 'removed' });
    }
    return { id: negative.id };
  },
};

const NOT_MADE = refuse('no such place', 'The list was not made, so nothing can stand in it.');

/** A negative with the id of its place; undefined where the place was not made. */
async function inPlace(
  { text, match, place }: PlatformChangeOf<Kind>,
  account: AccountInWork,
): Promise<Placed | undefined> {
  if (place.kind === 'account') return { text, match, place };
  const id = await account.resolve(place.id);
  return id === null ? undefined : { text, match, place: { kind: place.kind, id } };
}

function entriesIn({ structure }: AccountInWork, { kind, id }: Placed['place']): Negative[] {
  return structure.negatives.filter((n) => n.place.kind === kind && n.place.id === id);
}

function find(account: AccountInWork, { text, match, place }: Placed): Negative | undefined {
  const wanted = normalise(text);
  return entriesIn(account, place).find((n) => n.match === match && normalise(n.text) === wanted);
}
