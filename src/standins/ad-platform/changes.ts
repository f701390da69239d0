import { createHash } from 'node:crypto';
import type { Knex } from 'knex';
import { checkNegative, cleanPlacement, codeKey, normalise } from '@/core';
import type { ChangeAnswer, PlatformChange, Structure } from '@/contracts/platform';
import { STANDIN_LIMITS } from './limits';
import { loadStructure, putElement, requireAccount } from './store';

export type KeyedChange = { key: string; change: PlatformChange };

/** A key came again with another body: the caller is mistaken about one of them. */
export class KeyReused extends Error {
  override name = 'KeyReused';
}

type Applied = { id: string | null } | { refused: string; text: string };

/**
 * Applies a batch in order, each change whole or refused with a reason; the others go on. A key that was answered
 * before gets the same answer again and nothing is done twice.
 * @throws KeyReused before anything is applied
 */
export async function applyChanges(db: Knex, accountId: string, batch: readonly KeyedChange[]) {
  return db.transaction(async (trx) => {
    const account = (await requireAccount(trx, accountId, true))!;
    const revision = account.revision + 1;
    const known = await loadAnswers(trx, accountId, batch);
    const state = new State(trx, accountId, revision, account, await loadStructure(trx, accountId, 0));
    const answers: ChangeAnswer[] = [];
    for (const { key, change } of batch) {
      const answer =
        known.get(key) ?? toAnswer(key, await state.apply(change, (k) => madeBy(k, answers, trx, accountId)));
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
    await trx('account').where({ id: accountId }).update({ revision, next_id: state.nextId });
    return { revision, answers };
  });
}

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

/** The account while a batch is applied to it. */
class State {
  nextId: number;

  constructor(
    private readonly db: Knex,
    private readonly accountId: string,
    private readonly revision: number,
    private readonly account: { next_id: number; today: string },
    private readonly structure: Structure,
  ) {
    this.nextId = account.next_id;
  }

  async apply(change: PlatformChange, made: (key: string) => Promise<string | null>): Promise<Applied> {
    const resolve = (id: string) => (id.startsWith('key:') ? made(id.slice(4)) : Promise.resolve(id));
    switch (change.kind) {
      case 'make list':
        return this.makeList(change.name, change.holds);
      case 'remove list':
        return this.removeList(await resolve(change.listId));
      case 'rename list':
        return this.renameList(await resolve(change.listId), change.name);
      case 'add placement':
        return this.addPlacement(await resolve(change.listId), change.address);
      case 'remove placement':
        return this.removePlacement(await resolve(change.listId), change.address);
      case 'hang list':
      case 'take down list':
        return this.setHung(await resolve(change.listId), change.campaignId, change.kind === 'hang list');
      case 'exclude product':
        return this.excludeProduct(change.code, change.place);
      case 'readmit product':
        return this.readmitProduct(change.code, change.place);
      case 'set bid':
        return this.changeKeyword(change.keywordId, { bidMicros: change.bidMicros });
      case 'pause keyword':
      case 'run keyword':
        return this.changeKeyword(change.keywordId, {
          status: change.kind === 'pause keyword' ? 'paused' : 'live',
        });
      case 'add negative':
      case 'remove negative': {
        const id = change.place.id === null ? null : await resolve(change.place.id);
        if (id === null && change.place.kind !== 'account')
          return refuse('no such place', 'The list was not made, so nothing can stand in it.');
        const place = { kind: change.place.kind, id } as Structure['negatives'][number]['place'];
        return change.kind === 'add negative'
          ? this.addNegative({ ...change, place })
          : this.removeNegative({ ...change, place });
      }
    }
  }

  private async makeList(name: string, holds: 'words' | 'placements'): Promise<Applied> {
    const refusal = this.refuseName(name);
    if (refusal) return refusal;
    const list = { id: `L${this.nextId++}`, name, status: 'live' as const, holds };
    this.structure.lists.push(list);
    await this.put('lists', list);
    return { id: list.id };
  }

  private refuseName(name: string): Applied | undefined {
    if (name.trim() === '') return refuse('no name', 'A list needs a name.');
    return this.structure.lists.some((l) => l.name === name)
      ? refuse('name taken', `There is a list named ${name} already.`)
      : undefined;
  }

  private async renameList(listId: string | null, name: string): Promise<Applied> {
    const list = this.structure.lists.find((l) => l.id === listId);
    if (!list) return refuse('no such list', 'The list is not there.');
    const refusal = this.refuseName(name);
    if (refusal) return refusal;
    list.name = name;
    await this.put('lists', list);
    return { id: list.id };
  }

  private async removeList(listId: string | null): Promise<Applied> {
    const list = this.structure.lists.find((l) => l.id === listId);
    if (!list) return refuse('no such list', 'The list is not there.');
    if (this.structure.hangings.some((h) => h.listId === listId))
      return refuse('list hangs', `${list.name} still hangs on campaigns. Take it down first.`);
    const isEmpty = this.entriesIn('list', list.id).length + this.placementsIn(list.id).length === 0;
    if (!isEmpty) return refuse('list not empty', `${list.name} still holds entries. Remove them first.`);
    this.structure.lists.splice(this.structure.lists.indexOf(list), 1);
    await this.put('lists', { ...list, status: 'removed' });
    return { id: list.id };
  }

  private async setHung(listId: string | null, campaignId: string | null, hang: boolean): Promise<Applied> {
    const list = this.structure.lists.find((l) => l.id === listId);
    if (!list) return refuse('no such list', 'The list is not there, so it can not hang.');
    if (campaignId !== null && !this.structure.campaigns.some((c) => c.id === campaignId))
      return refuse('no such campaign', 'The campaign is not there.');
    const hangings = this.structure.hangings;
    const at = hangings.findIndex((h) => h.listId === list.id && h.campaignId === campaignId);
    const hanging: Structure['hangings'][number] = {
      ...{ listId: list.id, campaignId, status: hang ? 'live' : 'removed' },
      since: hang ? this.account.today : null,
    };
    if (hang === at >= 0) return { id: null }; // it is so already
    const most = STANDIN_LIMITS.listsOnCampaign;
    if (hang && campaignId !== null && hangings.filter((h) => h.campaignId === campaignId).length >= most) {
      return refuse('too many lists', `A campaign takes ${most} lists, and this one has as many.`);
    }
    if (hang) hangings.push(hanging);
    else hangings.splice(at, 1);
    await this.put('hangings', hanging);
    return { id: null };
  }

  private async addNegative(wanted: Placed): Promise<Applied> {
    const refusal = checkNegative(wanted, STANDIN_LIMITS);
    if (refusal) return refuse(refusal.code, refusal.message);
    if (!this.placeExists(wanted.place))
      return refuse('no such place', 'The place of the negative is not there.');
    const list = wanted.place.kind === 'list' && this.structure.lists.find((l) => l.id === wanted.place.id);
    if (list && list.holds === 'placements')
      return refuse('no words here', `${list.name} holds placements, so no negative can stand in it.`);
    if (this.find(wanted))
      return refuse('stands there', `“${wanted.text}” (${wanted.match}) stands there already.`);
    const { kind, id } = wanted.place;
    const most = kind === 'account' ? STANDIN_LIMITS.accountNegatives : STANDIN_LIMITS.listNegatives;
    if ((kind === 'account' || kind === 'list') && this.entriesIn(kind, id).length >= most) {
      return refuse('too many negatives', `This place takes ${most} negatives, and holds as many.`);
    }
    const { text, match, place } = wanted;
    const createdAt = `${this.account.today}T12:00:00Z`;
    const negative = {
      id: `N${this.nextId++}`,
      text: normalise(text),
      match,
      place,
      createdAt,
      status: 'live' as const,
    };
    this.structure.negatives.push(negative);
    await this.put('negatives', negative);
    return { id: negative.id };
  }

  private async removeNegative(wanted: Placed): Promise<Applied> {
    const negative = this.find(wanted);
    if (!negative) return refuse('not there', `“${wanted.text}” (${wanted.match}) does not stand there.`);
    // Twins stand in one place for years; taking a negative away takes them all.
    for (let twin = this.find(wanted); twin; twin = this.find(wanted)) {
      this.structure.negatives.splice(this.structure.negatives.indexOf(twin), 1);
      await this.put('negatives', { ...twin, status: 'removed' });
    }
    return { id: negative.id };
  }

  private async excludeProduct(code: string, place: Exclusion['place']): Promise<Applied> {
    if (!this.placeExists(place)) return refuse('no such place', 'The place of the exclusion is not there.');
    if (this.findExclusion(code, place)) return refuse('stands there', `${code} is excluded there already.`);
    const exclusion: Exclusion = {
      ...{ id: `X${this.nextId++}`, code: code.trim(), place, status: 'live' },
      createdAt: `${this.account.today}T12:00:00Z`,
    };
    this.structure.exclusions.push(exclusion);
    await this.put('exclusions', exclusion);
    return { id: exclusion.id };
  }

  private async readmitProduct(code: string, place: Exclusion['place']): Promise<Applied> {
    const exclusion = this.findExclusion(code, place);
    if (!exclusion) return refuse('not there', `${code} is not excluded there.`);
    this.structure.exclusions.splice(this.structure.exclusions.indexOf(exclusion), 1);
    await this.put('exclusions', { ...exclusion, status: 'removed' });
    return { id: exclusion.id };
  }

  private async addPlacement(listId: string | null, address: string): Promise<Applied> {
    const list = this.structure.lists.find((l) => l.id === listId);
    if (!list) return refuse('no such list', 'The list is not there.');
    if (list.holds !== 'placements')
      return refuse('no placements here', `${list.name} holds words, so no placement can stand in it.`);
    const cleaned = cleanPlacement(address);
    if (cleaned === undefined)
      return refuse('no address', `“${address}” is no address of a site, an app or a channel.`);
    const there = this.placementsIn(list.id);
    if (there.some((p) => p.address === cleaned))
      return refuse('stands there', `${cleaned} stands there already.`);
    const most = STANDIN_LIMITS.listPlacements;
    if (there.length >= most)
      return refuse('too many placements', `This list takes ${most} placements, and holds as many.`);
    const placement: Placement = {
      ...{ id: `P${this.nextId++}`, address: cleaned, listId: list.id, status: 'live' },
      createdAt: `${this.account.today}T12:00:00Z`,
    };
    this.structure.placements.push(placement);
    await this.put('placements', placement);
    return { id: placement.id };
  }

  private async removePlacement(listId: string | null, address: string): Promise<Applied> {
    const placement = this.placementsIn(listId).find((p) => p.address === cleanPlacement(address));
    if (!placement) return refuse('not there', `${address} does not stand there.`);
    this.structure.placements.splice(this.structure.placements.indexOf(placement), 1);
    await this.put('placements', { ...placement, status: 'removed' });
    return { id: placement.id };
  }

  private placementsIn(listId: string | null): Placement[] {
    return this.structure.placements.filter((p) => p.listId === listId);
  }

  private findExclusion(code: string, { kind, id }: Exclusion['place']): Exclusion | undefined {
    return this.structure.exclusions.find(
      (e) => e.place.kind === kind && e.place.id === id && codeKey(e.code) === codeKey(code),
    );
  }

  private async changeKeyword(
    id: string,
    fields: Partial<Pick<Structure['keywords'][number], 'bidMicros' | 'status'>>,
  ): Promise<Applied> {
    const keyword = this.structure.keywords.find((k) => k.id === id);
    if (!keyword) return refuse('no such keyword', 'The keyword is not there.');
    Object.assign(keyword, fields, { changedOn: this.account.today });
    await this.put('keywords', keyword);
    return { id };
  }

  private placeExists({ kind, id }: Placed['place']): boolean {
    if (kind === 'account') return true;
    const among = { campaign: 'campaigns', adGroup: 'adGroups', list: 'lists' } as const;
    return this.structure[among[kind]].some((element) => element.id === id);
  }

  private entriesIn(kind: string, id: string | null) {
    return this.structure.negatives.filter((n) => n.place.kind === kind && n.place.id === id);
  }

  private find({ text, match, place }: Placed) {
    const wanted = normalise(text);
    return this.entriesIn(place.kind, place.id).find(
      (n) => n.match === match && normalise(n.text) === wanted,
    );
  }

  private put(kind: keyof Structure, element: Structure[keyof Structure][number]) {
    return putElement(this.db, { accountId: this.accountId, revision: this.revision }, kind, element);
  }
}

type Placement = Structure['placements'][number];
type Exclusion = Structure['exclusions'][number];
type Placed = Pick<Structure['negatives'][number], 'text' | 'match' | 'place'>;

function refuse(refused: string, text: string): Applied {
  return { refused, text };
}
