import fc, { type Arbitrary } from 'fast-check';
import type { Place } from '../gate';
import { aNegative } from '../gate/testing';
import { PRIORITIES, type Change, type ChangeKind, type ChangeOf } from './change';
import type { Names } from './names';

/** Generators for property tests over all kinds of change, in the small account of `gate/testing`. */

const campaignId = fc.constantFrom('c1', 'c2');
const listId = fc.constantFrom('l1', 'l2');
const keywordId = fc.constantFrom('k1', 'k2');
const name = fc.constantFrom('Jobs', 'Films', 'Free things');
const address = fc.constantFrom('films.example', 'app:games.example', 'news.example');
/** Whole hundredths: a bid has no more decimal places than its currency, and is shown with as many. */
const micros = fc.integer({ min: 1, max: 500 }).map((hundredths) => hundredths * 10_000);
const place: Arbitrary<Place> = fc.oneof(
  fc.constant<Place>({ kind: 'account', id: null }),
  campaignId.map((id): Place => ({ kind: 'campaign', id })),
  fc.constantFrom('g1', 'g2', 'g3').map((id): Place => ({ kind: 'adGroup', id })),
  listId.map((id): Place => ({ kind: 'list', id })),
);

const negative = fc.record({ negative: aNegative(), place });
const list = fc.record({
  listId,
  name,
  holds: fc.constantFrom('words' as const, 'placements' as const),
});
const hanging = fc.record({ listId, campaignId: fc.option(campaignId) });
const placement = fc.record({ listId, address });
const product = fc.record({
  code: fc.constantFrom('LK-2041', 'lk-2041', 'LK-3000'),
  place: fc.oneof(
    campaignId.map((id): Place => ({ kind: 'campaign', id })),
    fc.constantFrom<Place>({ kind: 'adGroup', id: 'g1' }, { kind: 'adGroup', id: 'g3' }),
  ),
});

const sharedBudget = fc.record({ campaignId, budget: name, budgetMicros: micros, ownMicros: micros });
const newCampaign = fc.record({ name, budgetMicros: micros });
const newAdGroup = fc.record({ campaign: name, name });
const newKeyword = fc.record({
  ...{ campaign: name, adGroup: name, text: fc.constantFrom('hive kit', 'bee suit') },
  ...{ match: fc.constantFrom('broad' as const, 'phrase' as const, 'exact' as const), bidMicros: micros },
});

/** A change of each kind; a new kind has its generator here. */
export const ANY_OF_KIND: { [K in ChangeKind]: Arbitrary<ChangeOf<K>> } = {
  'add negative': negative.map((n) => ({ kind: 'add negative', ...n.negative, place: n.place })),
  'remove negative': negative.map((n) => ({ kind: 'remove negative', ...n.negative, place: n.place })),
  'make list': list.map((l) => ({ kind: 'make list', ...l })),
  'remove list': list.map((l) => ({ kind: 'remove list', ...l })),
  'rename list': fc
    .record({ listId, name, was: name })
    .filter((l) => l.name !== l.was)
    .map((l) => ({ kind: 'rename list', ...l })),
  'hang list': hanging.map((h) => ({ kind: 'hang list', ...h })),
  'take down list': hanging.map((h) => ({ kind: 'take down list', ...h })),
  'add placement': placement.map((p) => ({ kind: 'add placement', ...p })),
  'remove placement': placement.map((p) => ({ kind: 'remove placement', ...p })),
  'exclude product': product.map((p) => ({ kind: 'exclude product', ...p })),
  'readmit product': product.map((p) => ({ kind: 'readmit product', ...p })),
  'set bid': fc
    .record({ keywordId, bidMicros: micros, wasMicros: micros })
    .filter((bid) => bid.bidMicros !== bid.wasMicros)
    .map((bid) => ({ kind: 'set bid', ...bid })),
  'set budget': fc
    .record({ campaignId, budgetMicros: micros, wasMicros: micros })
    .filter((budget) => budget.budgetMicros !== budget.wasMicros)
    .map((budget) => ({ kind: 'set budget', ...budget })),
  'share budget': sharedBudget.map((budget) => ({ kind: 'share budget', ...budget })),
  'leave budget': sharedBudget.map((budget) => ({ kind: 'leave budget', ...budget })),
  'set priority': fc
    .record({ campaignId, priority: fc.constantFrom(...PRIORITIES), was: fc.constantFrom(...PRIORITIES) })
    .filter(({ priority, was }) => priority !== was)
    .map((of) => ({ kind: 'set priority', ...of })),
  'pause keyword': keywordId.map((id) => ({ kind: 'pause keyword', keywordId: id })),
  'run keyword': keywordId.map((id) => ({ kind: 'run keyword', keywordId: id })),
  'add campaign': newCampaign.map((c) => ({ kind: 'add campaign', ...c })),
  'remove campaign': newCampaign.map((c) => ({ kind: 'remove campaign', ...c })),
  'add ad group': newAdGroup.map((g) => ({ kind: 'add ad group', ...g })),
  'remove ad group': newAdGroup.map((g) => ({ kind: 'remove ad group', ...g })),
  'add keyword': newKeyword.map((k) => ({ kind: 'add keyword', ...k })),
  'remove keyword': newKeyword.map((k) => ({ kind: 'remove keyword', ...k })),
};
export const ALL_KINDS = Object.keys(ANY_OF_KIND) as ChangeKind[];

export const anyOf = (kind: ChangeKind): Arbitrary<Change> => ANY_OF_KIND[kind];
export const anyChange: Arbitrary<Change> = fc.constantFrom(...ALL_KINDS).chain(anyOf);

/** Names that hold the id, so that a sentence shows what it speaks of. */
export const NAMES: Names = {
  campaign: (id) => `Campaign ${id}`,
  adGroup: (id) => `Ad group ${id}`,
  list: (id) => `List ${id}`,
  keyword: (id) => `“Keyword ${id}” (broad)`,
  currency: 'EUR',
};
